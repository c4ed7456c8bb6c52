/** Lack of fit: how likely is a sum of squared, weighted residuals this large if the model is right? */
import { upperIncompleteGamma } from "./special-functions";

/** P(X >= x) for `nu` degrees of freedom. [Abramowitz & Stegun 1972, 26.4.19] */
export function chiSquaredUpperTail(x: number, nu: number): number {
  return upperIncompleteGamma(nu / 2, x / 2);
}
