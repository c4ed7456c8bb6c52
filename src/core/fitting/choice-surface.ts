/**
 * A smooth response that is known from choices: which of two places is better, or whether a place passes.
 *
 *   P(it happened) = 1/(1 + exp(-x'f)),   f ~ GP(0, s^2 k)
 *
 * Kernels k and sizes s are averaged by how likely they make the choices. [Chu and Ghahramani, ICML 2005, 137, there with a normal link; from memory]
 * A choice bounds a difference on one side only, so a normal approximation is poor. Responses are drawn by elliptical slice sampling.
 * [Murray, Adams and MacKay, AISTATS 2010, PMLR 9, 541; from memory]
 */
import { type Choice, fitChoices, logLikelihood } from "./choices";
import { KERNELS, type Kernel, kernelColumns, logPrior, type SurfacePoint } from "./kernel";
import { type Draws, seededDraws } from "./seeded-draws";

export type ChoiceFit = {
  /** Mean of f at each place. */
  mean: Float64Array;
  /** Responses at the places that the choices leave possible. */
  draws: Float64Array[];
};

const RANK_TOLERANCE = 1e-3;
/** Number of models in the result, at most. */
const MOST_MODELS = 16;

/** Columns of G at the places, f = G w. */
export type Columns = readonly Float64Array[];

type Wanted = {
  /** Of draws. */
  count: number;
  /** Sizes s of the response. A difference of 1 is judged right in 73 of 100 choices. */
  sizes: readonly number[];
  kernels?: readonly Kernel[];
  /** Whether f has an unknown level, of the same size as the response. */
  hasLevel?: boolean;
  progress?: (share: number) => void;
};

/** @param choicesOf what was chosen, in terms of w */
export function fitChoiceSurface(
  choicesOf: (columns: Columns) => Choice[],
  places: readonly SurfacePoint[],
  { count, sizes, kernels = KERNELS, hasLevel = false, progress = () => {} }: Wanted,
): ChoiceFit {
  const level = hasLevel ? [new Float64Array(places.length).fill(1)] : [];
  const all = kernels.flatMap((kernel, k) => {
    const columns = [...kernelColumns(places, kernel, RANK_TOLERANCE), ...level];
    const choices = choicesOf(columns);
    progress((k + 1) / kernels.length);
    return sizes.map((size) => {
      const { w, log } = fitChoices(choices, columns.length, size);
      return { columns, choices, size, w, log: logPrior(kernel) + log };
    });
  });
  const heavy = all.sort((a, b) => b.log - a.log).slice(0, MOST_MODELS);
  const best = heavy[0]?.log ?? 0;
  const total = heavy.reduce((s, m) => s + Math.exp(m.log - best), 0);
  const chance = seededDraws(1 + (heavy[0]?.choices.length ?? 0));
  const draws = heavy.flatMap((m) => {
    const share = Math.round((count * Math.exp(m.log - best)) / total);
    return drawn(m, share, chance).map((w) => onPlaces(m.columns, w, places.length));
  });
  const mean = new Float64Array(places.length);
  for (const draw of draws)
    for (let i = 0; i < mean.length; i++) mean[i] = (mean[i] ?? 0) + (draw[i] ?? 0) / draws.length;
  return { mean, draws };
}

type Model = { columns: Columns; choices: readonly Choice[]; size: number; w: Float64Array };

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

function onPlaces(columns: Columns, w: Float64Array, count: number): Float64Array {
  const out = new Float64Array(count);
  columns.forEach((column, k) => {
    const by = w[k] ?? Number.NaN;
    for (let i = 0; i < count; i++) out[i] = (out[i] ?? Number.NaN) + by * (column[i] ?? Number.NaN);
  });
  return out;
}
