/**
 * A smooth response from comparisons of two places.
 *
 *   P(i is called better than j) = 1/(1 + exp(f_j - f_i)),   f ~ GP(0, s^2 k)
 *
 * Kernels k and sizes s are averaged by how likely they make the comparisons. [Chu and Ghahramani, ICML 2005, 137, there with a normal link; from memory]
 * A comparison bounds a difference on one side only, so a normal approximation is poor. Responses are drawn by elliptical slice sampling.
 * [Murray, Adams and MacKay, AISTATS 2010, PMLR 9, 541; from memory]
 */
import { type Choice, fitChoices, logLikelihood } from "./choices";
import { KERNELS, type Kernel, kernelColumns, logPrior, type SurfacePoint } from "./kernel";
import { type Draws, seededDraws } from "./seeded-draws";

/** Indices of two places. @property alike neither is better */
export type Comparison = { better: number; worse: number; alike: boolean };

export type PreferenceFit = {
  /** Mean of f at each place. Only differences mean anything. */
  mean: Float64Array;
  /** Responses at the places that the comparisons leave possible. */
  draws: Float64Array[];
};

/** Sizes of the response. A difference of 1 is judged right in 73 of 100 comparisons. */
const SIZES = [4, 12];
const RANK_TOLERANCE = 1e-3;
/** Number of models in the result, at most. */
const MOST_MODELS = 16;

/** Fewer kernels, for a quick choice of the next comparison. */
export const FEW_KERNELS: readonly Kernel[] = KERNELS.filter((k) => k.length === 0.6 && k.ratio < 7);

/** @param count of draws */
export function fitPreferences(
  comparisons: readonly Comparison[],
  places: readonly SurfacePoint[],
  { count, kernels = KERNELS, progress = () => {} }: Wanted,
): PreferenceFit {
  const all = kernels.flatMap((kernel, k) => {
    const columns = kernelColumns(places, kernel, RANK_TOLERANCE);
    const choices = comparisons.flatMap((c) => choicesOf(c, columns));
    progress((k + 1) / kernels.length);
    return SIZES.map((size) => {
      const { w, log } = fitChoices(choices, columns.length, size);
      return { columns, choices, size, w, log: logPrior(kernel) + log };
    });
  });
  const heavy = all.sort((a, b) => b.log - a.log).slice(0, MOST_MODELS);
  const best = heavy[0]?.log ?? 0;
  const total = heavy.reduce((s, m) => s + Math.exp(m.log - best), 0);
  const chance = seededDraws(comparisons.length + 1);
  const draws = heavy.flatMap((m) => {
    const share = Math.round((count * Math.exp(m.log - best)) / total);
    return drawn(m, share, chance).map((w) => onPlaces(m.columns, w, places.length));
  });
  const mean = new Float64Array(places.length);
  for (const draw of draws)
    for (let i = 0; i < mean.length; i++) mean[i] = (mean[i] ?? 0) + (draw[i] ?? 0) / draws.length;
  return { mean, draws };
}

type Wanted = { count: number; kernels?: readonly Kernel[]; progress?: (share: number) => void };

/** Difference of two places. Alike counts half in each direction. */
function choicesOf({ better, worse, alike }: Comparison, columns: readonly Float64Array[]): Choice[] {
  const x = Float64Array.from(columns, (column) => (column[better] ?? Number.NaN) - (column[worse] ?? Number.NaN));
  if (!alike) return [{ x, times: 1 }];
  return [
    { x, times: 0.5 },
    { x: x.map((v) => -v), times: 0.5 },
  ];
}

type Model = { columns: readonly Float64Array[]; choices: readonly Choice[]; size: number; w: Float64Array };

/** Steps before the first draw, and from one to the next. */
const STEPS = { before: 30, between: 8 };

/** Draws of w, starting at its most likely value. */
function drawn({ choices, size, w }: Model, count: number, chance: Draws): Float64Array[] {
  if (count === 0) return [];
  let at = w;
  for (let i = 0; i < STEPS.before; i++) at = slid(at, choices, size, chance);
  return Array.from({ length: count }, () => {
    for (let i = 0; i < STEPS.between; i++) at = slid(at, choices, size, chance);
    return at;
  });
}

/** One step along an ellipse through this point and a draw of the prior. */
function slid(at: Float64Array, choices: readonly Choice[], size: number, chance: Draws): Float64Array {
  const other = at.map(() => size * chance.normal());
  const least = logLikelihood(choices, at) + Math.log(1 - chance.even());
  let turn = 2 * Math.PI * chance.even();
  let [low, high] = [turn - 2 * Math.PI, turn];
  for (;;) {
    const [c, s] = [Math.cos(turn), Math.sin(turn)];
    const next = at.map((v, i) => c * v + s * (other[i] ?? Number.NaN));
    if (logLikelihood(choices, next) > least) return next;
    if (turn < 0) low = turn;
    else high = turn;
    // At turn 0 nothing changes.
    if (high - low < 1e-12) return at;
    turn = low + (high - low) * chance.even();
  }
}

function onPlaces(columns: readonly Float64Array[], w: Float64Array, count: number): Float64Array {
  const out = new Float64Array(count);
  columns.forEach((column, k) => {
    const by = w[k] ?? Number.NaN;
    for (let i = 0; i < count; i++) out[i] = (out[i] ?? Number.NaN) + by * (column[i] ?? Number.NaN);
  });
  return out;
}
