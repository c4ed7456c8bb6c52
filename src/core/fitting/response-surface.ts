/**
 * A smooth response over two coordinates, from readings of a few places, without a formula for its form.
 *
 *   y_i = c_b + f(u_i, v_i) + e_i        f ~ GP(0, s^2 k),   e ~ N(0, s^2 r M),   c_b one constant per burn
 *   k(d) = exp(-(d_1^2 / L^2 + d_2^2 / (a L)^2) / 2)       d_1, d_2: along and across a direction
 *   M = (1 - q) 1 + q exp(-|place_i - place_j|^2 / (2 T^2))     q of the noise is a texture of the stock, which lies at places
 *
 * L, a, the direction and r are not chosen but averaged: each of the kernels below weighs as much as it makes the readings likely, with s^2
 * integrated out under the prior 1/s^2. [Rasmussen and Williams, Gaussian Processes for Machine Learning, 2006, eq. 2.23, 2.24, 2.30, 5.8; leaving
 * one out: eq. 5.12; from memory]
 *
 * k is written as G G' by pivoted Cholesky down to {@link RANK_TOLERANCE}: f = G w with w ~ N(0, s^2 1) is the same process to rounding, and
 * every matrix to be inverted is as large as the rank, not as the number of readings. [Harbrecht et al., Appl. Numer. Math. 62 (2012) 428]
 */
import { cholesky, solveLower, solveLowerTransposed } from "./cholesky";
import { dot } from "./dot";
import { KERNELS, type Kernel, kernelColumns, logPrior, type SurfacePoint } from "./kernel";
import type { Draws } from "./seeded-draws";

export type SurfaceReading = {
  at: SurfacePoint;
  value: number;
  /** Readings of one burn share their constant. */
  burn: number;
  /** Where it lies on the stock, in sides of a cell; readings of different burns lie on different pieces. */
  place: { x: number; y: number };
};

/** What is averaged over, and what the noise is made of. */
export type SurfaceModels = {
  kernels: readonly Kernel[];
  /** Variance of the noise as a share of the variance of the response. */
  nuggets: readonly number[];
  /** Share of the noise that is a texture of the stock. */
  textureShare: number;
  /** Share of the readings that may be left out as contradicting, at most. */
  oddShare: number;
};

const NUGGETS = [1e-4, 6e-4, 3e-3, 0.012, 0.05, 0.2, 0.8];
/** Share of the noise that is a texture of the stock, and how far it reaches, in sides of a cell. (tried on practice stocks) */
const TEXTURE = { share: 0.5, reach: 1.6 };
const RANK_TOLERANCE = 1e-6;
/** The constant of the first burn, and how far those of further burns lie from it, in sd of the response. */
const CONSTANT_SD = { first: 30, further: 0.5 };
/** Of all kernels and nuggets the heaviest go into the result, until they have this weight together, at most so many. */
const ENOUGH_WEIGHT = 0.97;
const MOST_MODELS = 16;
const MODELS_FOR_ODD = 4;
/** Readings further than this from what all others predict, in robust sd, are left out, at most this share of them. */
const ODD = { sd: 4, share: 0.1 };
/** By at least so much of the range of the readings: a narrow peak stands out of a quiet array too, and is no mistake. */
const ODD_RANGE = { above: 0.3, below: 0.15 };
/** MAD of a normal distribution to its sd. */
const MAD_TO_SD = 1.4826;

export type SurfaceFit = {
  /** Posterior mean of c_b + f at each target, with c_b of the first burn. */
  mean: Float64Array;
  /** sd of one reading about the response. */
  noise: number;
  /** What all other readings predict minus the reading, in robust sd; by reading. */
  leftOut: Float64Array;
  /** Indices of readings that were left out. */
  odd: number[];
  /** How likely these models make the readings that were not left out: see {@link evidenceOf}. */
  log: number;
  /** Responses at the targets that the readings leave possible. */
  draw(count: number, draws: Draws): Float64Array[];
};

export const USUAL_MODELS: SurfaceModels = {
  kernels: KERNELS,
  nuggets: NUGGETS,
  textureShare: TEXTURE.share,
  oddShare: ODD.share,
};

/**
 * @param readings at least 4, not all equal
 * @param targets where the response is wanted
 * @param progress share of the work that is done
 * @throws RangeError with fewer readings, or equal ones
 */
export function fitSurface(
  readings: readonly SurfaceReading[],
  targets: readonly SurfacePoint[],
  progress: (share: number) => void = () => {},
  models: SurfaceModels = USUAL_MODELS,
): SurfaceFit {
  if (readings.length < 4) throw new RangeError("A response needs at least 4 readings.");
  if (readings.every((r) => r.value === readings[0]?.value)) throw new RangeError("All readings are equal.");
  const most = Math.floor(models.oddShare * readings.length);
  const odd: number[] = [];
  let left = readings.map((reading, index) => ({ ...reading, index }));
  const first = averaged(left, models, (share) => progress(share / 2));
  let fitted = heaviest(first);
  const few = { ...models, kernels: [...new Set(fitted.models.map((m) => m.kernel))] };
  const leftOut = new Float64Array(readings.length);
  for (;;) {
    const { inSd, ofRange } = leftOutOf(left, fitted);
    for (const [i, { index }] of left.entries()) leftOut[index] = inSd[i] ?? 0;
    const worst = worstOf(inSd, ofRange);
    if (worst === null || odd.length >= most) break;
    // The worst alone: its neighbours look odd beside it.
    odd.push(left[worst]?.index ?? 0);
    left = left.filter((_, i) => i !== worst);
    fitted = heaviest(averaged(left, few, () => {}));
  }
  const whole = odd.length === 0 ? first : averaged(left, models, (share) => progress(0.5 + share / 4));
  const fit = onTargets(left, whole, targets, (share) => progress(0.75 + share / 4));
  return { ...fit, leftOut, odd, log: whole.log };
}

/**
 * Log of the marginal likelihood of the readings, up to a constant: compare only models on the same readings.
 *
 * @param readings as {@link fitSurface} takes them; none of them is left out
 */
export function evidenceOf(readings: readonly SurfaceReading[], models: SurfaceModels = USUAL_MODELS): number {
  return averaged(readings, models, () => {}).log;
}

/** The heaviest models alone: enough to see which reading contradicts the others. */
function heaviest({ whitened, models, log }: Averaged): Averaged {
  const few = [...models].sort((a, b) => b.weight - a.weight).slice(0, MODELS_FOR_ODD);
  const total = few.reduce((s, m) => s + m.weight, 0);
  return { whitened, models: few.map((m) => ({ ...m, weight: m.weight / total })), log };
}

type Whitened = { n: number; middle: number; scale: number; lower: Float64Array; b: Float64Array; burns: number };
type Weighted = { kernel: Kernel; nugget: number; weight: number };
/** `log`: of how likely the models together make the readings, up to a constant of the readings. */
type Averaged = { whitened: Whitened; models: Weighted[]; log: number };

function whiten(readings: readonly SurfaceReading[], textureShare: number): Whitened {
  const n = readings.length;
  const burns = 1 + Math.max(...readings.map((r) => r.burn));
  const middle = readings.reduce((s, r) => s + r.value, 0) / n;
  const scale = Math.sqrt(readings.reduce((s, r) => s + (r.value - middle) ** 2, 0) / n);
  const m = new Float64Array(n * n);
  readings.forEach((a, i) => {
    readings.forEach((b, j) => {
      const near =
        a.burn === b.burn
          ? Math.exp(-((a.place.x - b.place.x) ** 2 + (a.place.y - b.place.y) ** 2) / (2 * TEXTURE.reach ** 2))
          : 0;
      m[i * n + j] = textureShare * near + (i === j ? 1 - textureShare : 0);
    });
  });
  const lower = cholesky(m, n);
  const b = Float64Array.from(readings, (r) => (r.value - middle) / scale);
  solveLower(lower, n, b);
  return { n, middle, scale, lower, b, burns };
}

/** Columns of the model at points: the constants of the burns, then G. Column by column. */
function columnsOf(
  points: readonly (SurfacePoint & { burn: number })[],
  kernel: Kernel,
  burns: number,
): Float64Array[] {
  const constants = Array.from({ length: burns }, (_, burn) =>
    Float64Array.from(points, (p) => (burn === 0 ? CONSTANT_SD.first : p.burn === burn ? CONSTANT_SD.further : 0)),
  );
  return [...constants, ...kernelColumns(points, kernel, RANK_TOLERANCE)];
}

/** What a nugget makes of whitened columns: Cholesky of P = B'B / r + 1, mean of w, and the sum of squares that s^2 has to explain. */
type Solved = { p: Float64Array; w: Float64Array; squares: number; logDeterminant: number };

function solvedFor(gram: Float64Array, projected: Float64Array, squares: number, nugget: number, n: number): Solved {
  const r = projected.length;
  const p = new Float64Array(r * r);
  for (let i = 0; i < p.length; i++) p[i] = (gram[i] ?? Number.NaN) / nugget;
  for (let i = 0; i < r; i++) p[i * (r + 1)] = (p[i * (r + 1)] ?? Number.NaN) + 1;
  const lower = cholesky(p, r);
  const half = Float64Array.from(projected, (v) => v / nugget);
  solveLower(lower, r, half);
  let explained = 0;
  for (const v of half) explained += v * v;
  const w = Float64Array.from(half);
  solveLowerTransposed(lower, r, w);
  let logDeterminant = n * Math.log(nugget);
  for (let i = 0; i < r; i++) logDeterminant += 2 * Math.log(lower[i * (r + 1)] ?? Number.NaN);
  return { p: lower, w, squares: squares / nugget - explained, logDeterminant };
}

/** B'B and B'b of whitened columns. */
function gramOf(columns: readonly Float64Array[], b: Float64Array) {
  const r = columns.length;
  const gram = new Float64Array(r * r);
  columns.forEach((x, i) => {
    for (let j = 0; j <= i; j++) {
      const sum = dot(x, columns[j] ?? x);
      gram[i * r + j] = sum;
      gram[j * r + i] = sum;
    }
  });
  return { gram, projected: Float64Array.from(columns, (x) => dot(x, b)) };
}

/** a + factor b, in place of a. */
function addTimes(a: Float64Array, b: Float64Array, factor: number): void {
  for (let i = 0; i < a.length; i++) a[i] = (a[i] ?? Number.NaN) + factor * (b[i] ?? Number.NaN);
}

function averaged(
  readings: readonly SurfaceReading[],
  { kernels, nuggets, textureShare }: SurfaceModels,
  progress: (share: number) => void,
): Averaged {
  const whitened = whiten(readings, textureShare);
  const { n, lower, b, burns } = whitened;
  const points = readings.map((r) => ({ ...r.at, burn: r.burn }));
  const squares = dot(b, b);
  const all = kernels.flatMap((kernel, k) => {
    const columns = columnsOf(points, kernel, burns);
    for (const column of columns) solveLower(lower, n, column);
    const { gram, projected } = gramOf(columns, b);
    progress((k + 1) / kernels.length);
    return nuggets.map((nugget) => {
      const solved = solvedFor(gram, projected, squares, nugget, n);
      return { kernel, nugget, log: logPrior(kernel) - solved.logDeterminant / 2 - (n / 2) * Math.log(solved.squares) };
    });
  });
  const best = Math.max(...all.map((m) => m.log));
  const total = all.reduce((s, m) => s + Math.exp(m.log - best), 0);
  const sorted = all
    .map(({ kernel, nugget, log }) => ({ kernel, nugget, weight: Math.exp(log - best) / total }))
    .sort((a, b) => b.weight - a.weight);
  let left = 0;
  const weighty = sorted.slice(0, MOST_MODELS).filter((m) => {
    const counts = left < ENOUGH_WEIGHT;
    if (counts) left += m.weight;
    return counts;
  });
  // Models of one kernel stand together: its columns are made once.
  weighty.sort((a, b) => kernels.indexOf(a.kernel) - kernels.indexOf(b.kernel));
  const priors = nuggets.length * kernels.reduce((s, k) => s + Math.exp(logPrior(k)), 0);
  return {
    whitened,
    models: weighty.map((m) => ({ ...m, weight: m.weight / left })),
    log: best + Math.log(total) - Math.log(priors),
  };
}

/** e_i = [V^-1 y]_i / [V^-1]_ii, over its own predicted sd in robust sd of all, and as a share of the range of the readings. */
function leftOutOf(
  readings: readonly SurfaceReading[],
  { whitened, models }: Averaged,
): { inSd: Float64Array; ofRange: Float64Array } {
  const { n, lower, b, burns } = whitened;
  const points = readings.map((r) => ({ ...r.at, burn: r.burn }));
  const sum = new Float64Array(n);
  const errors = new Float64Array(n);
  // Rows of the inverse of the whitening, one unit vector at a time.
  const units = Array.from({ length: n }, (_, i) => {
    const unit = new Float64Array(n);
    unit[i] = 1;
    solveLower(lower, n, unit);
    return unit;
  });
  for (const { kernel, nugget, weight } of models) {
    const columns = columnsOf(points, kernel, burns);
    for (const column of columns) solveLower(lower, n, column);
    const { gram, projected } = gramOf(columns, b);
    const { p, w } = solvedFor(gram, projected, dot(b, b), nugget, n);
    // V^-1 y = L^-T (b - B w) / r
    const rest = Float64Array.from(b);
    columns.forEach((column, k) => {
      addTimes(rest, column, -(w[k] ?? Number.NaN));
    });
    units.forEach((unit, i) => {
      const inside = Float64Array.from(columns, (column) => dot(column, unit));
      solveLower(p, columns.length, inside);
      const diagonal = dot(unit, unit) - dot(inside, inside) / nugget;
      errors[i] = (errors[i] ?? 0) + (weight * dot(unit, rest)) / diagonal;
      sum[i] = (sum[i] ?? 0) + (weight * dot(unit, rest)) / Math.sqrt(diagonal * nugget);
    });
  }
  const sizes = Float64Array.from(sum, Math.abs).sort();
  const robust = MAD_TO_SD * (sizes[Math.floor(n / 2)] ?? 0);
  const values = readings.map((r) => r.value);
  const range = (Math.max(...values) - Math.min(...values)) / whitened.scale;
  return { inSd: robust > 0 ? sum.map((v) => v / robust) : sum, ofRange: errors.map((e) => e / range) };
}

/** The reading that contradicts all others most; `null` where none does. */
function worstOf(inSd: Float64Array, ofRange: Float64Array): number | null {
  let worst: number | null = null;
  for (const [i, z] of inSd.entries()) {
    const share = ofRange[i] ?? 0;
    const isOdd = Math.abs(z) > ODD.sd && (share > ODD_RANGE.above || share < -ODD_RANGE.below);
    if (isOdd && (worst === null || Math.abs(z) > Math.abs(inSd[worst] ?? 0))) worst = i;
  }
  return worst;
}

function onTargets(
  readings: readonly SurfaceReading[],
  { whitened, models }: Averaged,
  targets: readonly SurfacePoint[],
  progress: (share: number) => void,
): Omit<SurfaceFit, "leftOut" | "odd" | "log"> {
  const { n, lower, b, burns, middle, scale } = whitened;
  const points = [...readings.map((r) => ({ ...r.at, burn: r.burn })), ...targets.map((t) => ({ ...t, burn: 0 }))];
  const squares = dot(b, b);
  const mean = new Float64Array(targets.length);
  let noise = 0;
  let columns: Float64Array[] = [];
  let system = { gram: new Float64Array(), projected: new Float64Array() };
  let made: Kernel | null = null;
  const worked = models.map(({ kernel, nugget, weight }, at) => {
    if (made !== kernel) {
      columns = columnsOf(points, kernel, burns);
      const here = columns.map((column) => column.slice(0, n));
      for (const column of here) solveLower(lower, n, column);
      system = gramOf(here, b);
      made = kernel;
    }
    const { p, w, squares: rest } = solvedFor(system.gram, system.projected, squares, nugget, n);
    const variance = rest / (n - 2);
    const wanted = columns.map((column) => column.subarray(n));
    wanted.forEach((column, k) => {
      addTimes(mean, column, weight * (w[k] ?? Number.NaN));
    });
    noise += weight * variance * nugget;
    progress((at + 1) / models.length);
    return { weight, p, w, rest, wanted };
  });
  const draw = (count: number, draws: Draws): Float64Array[] =>
    Array.from({ length: count }, () => {
      const model = chosenBy(worked, draws.even());
      const s = Math.sqrt(model.rest / draws.chiSquared(n));
      const z = Float64Array.from(model.w, () => draws.normal());
      solveLowerTransposed(model.p, z.length, z);
      const out = new Float64Array(targets.length);
      model.wanted.forEach((column, k) => {
        addTimes(out, column, (model.w[k] ?? Number.NaN) + s * (z[k] ?? Number.NaN));
      });
      return out.map((v) => middle + scale * v);
    });
  return {
    mean: mean.map((v) => middle + scale * v),
    noise: scale * Math.sqrt(noise),
    draw,
  };
}

function chosenBy<T extends { weight: number }>(models: readonly T[], even: number): T {
  let left = even;
  for (const model of models) {
    left -= model.weight;
    if (left < 0) return model;
  }
  const last = models.at(-1);
  if (!last) throw new RangeError("There is no model.");
  return last;
}
