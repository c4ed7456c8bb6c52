/** Ratio of two variances: how likely is one this large if both estimate the same? */
import { incompleteBeta } from "./special-functions";

/**
 * P(F >= f). [Abramowitz & Stegun 1972, 26.6.2]
 *
 * @param above degrees of freedom above the line
 * @param below degrees of freedom below it; `Infinity` is taken as 1e9
 */
export function fUpperTail(f: number, above: number, below: number): number {
  if (f <= 0) return 1;
  const nu = Math.min(below, 1e9);
  return incompleteBeta(nu / (nu + above * f), nu / 2, above / 2);
}
