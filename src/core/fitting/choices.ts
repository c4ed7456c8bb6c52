/**
 * Numbers w behind choices between two things.
 *
 *   P(it happened) = 1/(1 + exp(-x'w)),   w ~ N(0, s^2 1)
 *
 * Newton's method finds the w with the largest sum of log P - w'w/(2 s^2). Laplace's approximation: w is normal around it, its covariance is the inverse of
 * the second derivatives H. The log weight of the model is L - log det(s^2 H)/2, L the largest value. Paired comparisons: x is the difference of two unit
 * vectors. [Bradley and Terry, Biometrika 39 (1952) 324; the approximation: Rasmussen and Williams, Gaussian Processes for Machine Learning, 2006,
 * 3.4 and eq. 3.32; both from memory]
 */
import { cholesky, solveLower, solveLowerTransposed } from "./cholesky";
import { dot } from "./dot";

/** A choice and its number of repetitions. */
export type Choice = { x: Float64Array; times: number };

export type FittedChoices = {
  w: Float64Array;
  /** Cholesky factor of H, row by row. */
  lower: Float64Array;
  /** Logarithm of the weight of this model. */
  log: number;
};

const MOST_STEPS = 60;
/** Of the largest step of w. */
const CLOSE_ENOUGH = 1e-9;
const MOST_HALVINGS = 30;

/** @param size of w and of each x @param sd of w before anything is chosen */
export function fitChoices(choices: readonly Choice[], size: number, sd: number): FittedChoices {
  const w = new Float64Array(size);
  let value = logOf(choices, w, sd);
  for (let step = 0; step < MOST_STEPS; step++) {
    const { gradient, curvature } = slopeOf(choices, w, sd);
    const by = Float64Array.from(gradient);
    const lower = cholesky(curvature, size);
    solveLower(lower, size, by);
    solveLowerTransposed(lower, size, by);
    let share = 1;
    let next = moved(w, by, share);
    // The function is concave. If the whole step is too long, a shorter step gains.
    for (let k = 0; k < MOST_HALVINGS && logOf(choices, next, sd) < value; k++) {
      share /= 2;
      next = moved(w, by, share);
    }
    w.set(next);
    value = logOf(choices, w, sd);
    if (largest(by) * share < CLOSE_ENOUGH * (1 + largest(w))) break;
  }
  const lower = cholesky(slopeOf(choices, w, sd).curvature, size);
  let log = value - size * Math.log(sd);
  for (let i = 0; i < size; i++) log -= Math.log(lower[i * (size + 1)] ?? Number.NaN);
  return { w, lower, log };
}

function moved(w: Float64Array, by: Float64Array, share: number): Float64Array {
  return w.map((v, i) => v + share * (by[i] ?? Number.NaN));
}

function largest(values: Float64Array): number {
  return values.reduce((most, v) => Math.max(most, Math.abs(v)), 0);
}

function logOf(choices: readonly Choice[], w: Float64Array, sd: number): number {
  return logLikelihood(choices, w) - dot(w, w) / (2 * sd * sd);
}

export function logLikelihood(choices: readonly Choice[], w: Float64Array): number {
  let log = 0;
  for (const { x, times } of choices) {
    const at = dot(x, w);
    // Of 1/(1 + exp(-at)), without overflow.
    log += times * (at > 0 ? -Math.log1p(Math.exp(-at)) : at - Math.log1p(Math.exp(at)));
  }
  return log;
}

function slopeOf(choices: readonly Choice[], w: Float64Array, sd: number) {
  const n = w.length;
  const gradient = w.map((v) => -v / (sd * sd));
  const curvature = new Float64Array(n * n);
  for (let i = 0; i < n; i++) curvature[i * (n + 1)] = 1 / (sd * sd);
  for (const { x, times } of choices) {
    const p = 1 / (1 + Math.exp(-dot(x, w)));
    for (let i = 0; i < n; i++) {
      const xi = x[i] ?? Number.NaN;
      if (xi === 0) continue;
      gradient[i] = (gradient[i] ?? Number.NaN) + times * (1 - p) * xi;
      for (let j = 0; j < n; j++)
        curvature[i * n + j] = (curvature[i * n + j] ?? Number.NaN) + times * p * (1 - p) * xi * (x[j] ?? Number.NaN);
    }
  }
  return { gradient, curvature };
}
