/** The normal distribution. */
import { upperIncompleteGamma } from "./special-functions";

/** P(Z <= z) = 1 - Q(1/2, z^2/2)/2 for z >= 0. [Abramowitz & Stegun 1972, 26.2.29 with 6.5.17] */
export function normalCdf(z: number): number {
  const tail = upperIncompleteGamma(0.5, (z * z) / 2) / 2;
  return z >= 0 ? 1 - tail : tail;
}
