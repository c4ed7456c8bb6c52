/**
 * How likely the observations are, over all factors that the scatter of the readings may have.
 *
 *   p(y) = sum over phi of p(phi) N(y; 0, S_phi),   S_phi = phi on readings, 1 on what is known beforehand
 *   -2 ln N = ln |S| + ln |A'S^-1 A| + e'S^-1 e     up to a constant, parameters integrated out
 *
 * phi is the variance factor common to all readings. Its prior is the scaled inverse chi-squared distribution of the gauge.
 * [Gelman et al., Bayesian Data Analysis, 3rd ed. 2013, 14.2; A.1]
 */
import { type ThinQr, thinQr } from "../fitting/thin-qr";
import { projected, whitened } from "./adjustment";
import { type Model, parametersOf } from "./model";

/** Variance factors, evenly by ratio. */
const FACTORS = Array.from({ length: 13 }, (_, k) => 0.15 * 80 ** (k / 12));
/** The one nearest to 1. */
const EXPECTED_FACTOR = FACTORS.reduce(
  (best, f, k) => (Math.abs(Math.log(f)) < Math.abs(Math.log(FACTORS[best] ?? Number.NaN)) ? k : best),
  0,
);
/** Worth of what is known of a gauge that states nothing. */
const LEAST_FREEDOM = 1;

type AtFactor = {
  /** -2 ln of prior and of what does not depend on y. */
  constant: number;
  u: Float64Array;
  qr: ThinQr;
  y: Float64Array;
  along: Float64Array;
  squares: number;
};

export type Likelihood = {
  model: Model;
  factors: readonly AtFactor[];
  /** -2 ln p of the observations as they are. */
  asRead: number;
  /** The most likely variance factor. */
  bestFactor: number;
};

/** A change of some observations: index and what was added to y. */
export type Change = readonly { index: number; by: number }[];

/** @returns `null` when the observations cannot tell the parameters apart */
export function likelihoodOf(model: Model): Likelihood | null {
  const parameters = parametersOf(model);
  const m = model.observations.length;
  const freedom = Math.max(LEAST_FREEDOM, ...model.groups.map((g) => g.priorFreedom));
  const factors: AtFactor[] = [];
  for (const phi of FACTORS) {
    const u = Float64Array.from(model.observations, (o) => o.u * (o.group === null ? 1 : Math.sqrt(phi)));
    const qr = thinQr(whitened(model, parameters, u), m, parameters.length);
    if (!qr) return null;
    const y = Float64Array.from(model.observations, (o, i) => o.y / (u[i] ?? Number.NaN));
    const along = projected(qr, y);
    const squares = squared(y) - squared(along);
    const logPrior = -(freedom / 2) * Math.log(phi) - freedom / (2 * phi);
    const constant = 2 * u.reduce((sum, value) => sum + Math.log(value), 0) + 2 * qr.logDeterminant - 2 * logPrior;
    factors.push({ constant, u, qr, y, along, squares });
  }
  const scores = factors.map((f) => f.constant + f.squares);
  const best = scores.indexOf(Math.min(...scores));
  return { model, factors, asRead: joined(scores), bestFactor: FACTORS[best] ?? Number.NaN };
}

/** -2 ln p once a known change is undone. */
export function undone(likelihood: Likelihood, change: Change): number {
  return joined(likelihood.factors.map((f) => f.constant + squaresAfter(f, change)));
}

/** The factor that is expected, and the most likely one: enough to see that a change explains nothing. */
function fewFactors({ factors, bestFactor }: Likelihood): AtFactor[] {
  return [EXPECTED_FACTOR, FACTORS.indexOf(bestFactor)].map((k) => factors[k] as AtFactor);
}

/** Least -2 ln p once a known change is undone, at two factors. */
export function undoneAtLeast(likelihood: Likelihood, change: Change): number {
  return Math.min(...fewFactors(likelihood).map((f) => f.constant + squaresAfter(f, change)));
}

/** Least -2 ln p once a change of unknown size is left open, at two factors. */
export function openAtLeast(likelihood: Likelihood, direction: Change): number {
  return Math.min(
    ...fewFactors(likelihood).map((f) => {
      const { cross, own } = products(f, direction);
      return f.constant + f.squares - (own > 0 ? cross ** 2 / own : 0);
    }),
  );
}

/**
 * -2 ln p once a change of unknown size along a direction is allowed, whose size has a normal prior.
 *
 *   gain = (c'Wy)^2 / (c'Wc + 1/R^2) - ln(1 + R^2 c'Wc)
 *
 * @param direction what a size of 1 adds to each observation
 * @param usual standard deviation R of its size
 * @returns also the most likely size, at the best factor, and -2 ln p if the size is left open altogether
 */
export function allowed(
  likelihood: Likelihood,
  direction: Change,
  usual: number,
): { score: number; size: number; open: number } {
  let best = Infinity;
  let size = 0;
  const open: number[] = [];
  const scores = likelihood.factors.map((f) => {
    const { cross, own } = products(f, direction);
    open.push(f.constant + f.squares - (own > 0 ? cross ** 2 / own : 0));
    const gain = cross ** 2 / (own + 1 / usual ** 2) - Math.log(1 + usual ** 2 * own);
    const score = f.constant + f.squares - gain;
    if (score < best) {
      best = score;
      size = cross / (own + 1 / usual ** 2);
    }
    return score;
  });
  return { score: joined(scores), size, open: joined(open) };
}

function squaresAfter(f: AtFactor, change: Change): number {
  const { cross, own } = products(f, change);
  return f.squares - 2 * cross + own;
}

/** c'Wy and c'Wc with W = S^-1 - S^-1 A (A'S^-1 A)^-1 A'S^-1. */
function products({ qr, u, y, along }: AtFactor, change: Change): { cross: number; own: number } {
  const n = qr.columns;
  const projection = scratchOf(n);
  let cross = 0;
  let own = 0;
  for (const { index, by } of change) {
    const c = by / (u[index] ?? Number.NaN);
    cross += c * (y[index] ?? Number.NaN);
    own += c * c;
    for (let j = 0; j < n; j++) projection[j] = (projection[j] ?? Number.NaN) + c * (qr.q[index * n + j] ?? Number.NaN);
  }
  for (let j = 0; j < n; j++) {
    const p = projection[j] ?? Number.NaN;
    cross -= p * (along[j] ?? Number.NaN);
    own -= p * p;
  }
  return { cross, own: Math.max(0, own) };
}

let scratch = new Float64Array(0);

/** One array for all products: they are many and short. */
function scratchOf(length: number): Float64Array {
  if (scratch.length < length) scratch = new Float64Array(length);
  scratch.fill(0, 0, length);
  return scratch;
}

function squared(v: Float64Array): number {
  return v.reduce((sum, value) => sum + value * value, 0);
}

/** -2 ln of the mean of exp(-s/2), without losing small ones. */
function joined(scores: readonly number[]): number {
  const least = Math.min(...scores);
  const sum = scores.reduce((total, s) => total + Math.exp((least - s) / 2), 0);
  return least - 2 * Math.log(sum / scores.length);
}
