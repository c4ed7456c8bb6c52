/** The normal distribution. */
import { upperIncompleteGamma } from "./special-functions";

const ROOT_TWO_PI = Math.sqrt(2 * Math.PI);

/** P(Z <= z) = 1 - Q(1/2, z^2/2)/2 for z >= 0. [Abramowitz & Stegun 1972, 26.2.29 with 6.5.17] */
export function normalCdf(z: number): number {
  const tail = upperIncompleteGamma(0.5, (z * z) / 2) / 2;
  return z >= 0 ? 1 - tail : tail;
}

const [P, B1, B2, B3, B4, B5] = [0.2316419, 0.31938153, -0.356563782, 1.781477937, -1.821255978, 1.330274429];

/** The same to 7.5e-8, many times quicker: for models of pictures, whose grey is known to a hundredth. [Abramowitz & Stegun 1972, 26.2.17] */
export function quickNormalCdf(z: number): number {
  const t = 1 / (1 + P * Math.abs(z));
  const tail = normalDensity(z) * t * (B1 + t * (B2 + t * (B3 + t * (B4 + t * B5))));
  return z >= 0 ? 1 - tail : tail;
}

/** Density of the standard normal distribution. */
export function normalDensity(z: number): number {
  return Math.exp((-z * z) / 2) / ROOT_TWO_PI;
}
