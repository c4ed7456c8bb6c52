/**
 * The chance that a place passes, from places that passed or failed: P = 1/(1 + exp(-f)), f smooth with an unknown level.
 *
 * The fit is that of `choice-surface.ts`: logistic classification by a Gaussian process. [Rasmussen and Williams, Gaussian Processes for Machine Learning,
 * 2006, ch. 3; from memory]
 */
import { fitChoiceSurface } from "./choice-surface";
import type { SurfacePoint } from "./kernel";

/** @property at index of its place */
export type PassOrFail = { at: number; passed: boolean };

export type PassFit = {
  /** Mean chance at each place, 0 to 1. */
  mean: Float64Array;
  /** Chances at the places that the outcomes leave possible. */
  draws: Float64Array[];
};

/** From cells that fail now and then over much of the array to a sharp limit. */
const SIZES = [6, 20];

/** @param wanted.count of draws */
export function fitPasses(
  outcomes: readonly PassOrFail[],
  places: readonly SurfacePoint[],
  wanted: { count: number; progress?: (share: number) => void },
): PassFit {
  const { draws } = fitChoiceSurface(
    (columns) =>
      outcomes.map(({ at, passed }) => {
        const sign = passed ? 1 : -1;
        return { x: Float64Array.from(columns, (column) => sign * (column[at] ?? Number.NaN)), times: 1 };
      }),
    places,
    { ...wanted, sizes: SIZES, hasLevel: true },
  );
  const chances = draws.map((d) => d.map((f) => 1 / (1 + Math.exp(-f))));
  const mean = new Float64Array(places.length);
  for (const chance of chances)
    for (let i = 0; i < mean.length; i++) mean[i] = (mean[i] ?? 0) + (chance[i] ?? 0) / chances.length;
  return { mean, draws: chances };
}
