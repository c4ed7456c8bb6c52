/**
 * A smooth response from comparisons of two places: P(i is called better than j) = 1/(1 + exp(f_j - f_i)). [Bradley and Terry, Biometrika 39 (1952) 324,
 * from memory] The fit is that of `choice-surface.ts`.
 */
import { type ChoiceFit, type Columns, fitChoiceSurface } from "./choice-surface";
import type { Choice } from "./choices";
import { KERNELS, type Kernel, type SurfacePoint } from "./kernel";

/** Indices of two places. @property alike neither is better */
export type Comparison = { better: number; worse: number; alike: boolean };

/** Of the whole response, in units of what is judged right in 73 of 100 comparisons. */
const SIZES = [4, 12];

/** Fewer kernels, for a quick choice of the next comparison. */
export const FEW_KERNELS: readonly Kernel[] = KERNELS.filter((k) => k.length === 0.6 && k.ratio < 7);

/** @param wanted.count of draws @returns only differences of f mean anything */
export function fitPreferences(
  comparisons: readonly Comparison[],
  places: readonly SurfacePoint[],
  wanted: { count: number; kernels?: readonly Kernel[]; progress?: (share: number) => void },
): ChoiceFit {
  return fitChoiceSurface((columns) => comparisons.flatMap((c) => choicesOf(c, columns)), places, {
    ...wanted,
    sizes: SIZES,
  });
}

/** Difference of two places. Alike counts half in each direction. */
function choicesOf({ better, worse, alike }: Comparison, columns: Columns): Choice[] {
  const x = Float64Array.from(columns, (column) => (column[better] ?? Number.NaN) - (column[worse] ?? Number.NaN));
  if (!alike) return [{ x, times: 1 }];
  return [
    { x, times: 0.5 },
    { x: x.map((v) => -v), times: 0.5 },
  ];
}
