/**
 * Covariance of a response at two places: squared exponential, longer in one direction than across it.
 *
 *   k(d) = exp(-(d_1^2 / L^2 + d_2^2 / (a L)^2) / 2)       d_1, d_2: along and across a direction
 *
 * A matrix of it is written as G G' by pivoted Cholesky: f = G w with w ~ N(0, 1) is the same process to rounding. [Rasmussen and Williams, Gaussian
 * Processes for Machine Learning, 2006, 4.2; from memory. Harbrecht et al., Appl. Numer. Math. 62 (2012) 428]
 */
import { pivotedCholesky } from "./pivoted-cholesky";

/** Coordinates reach from about -1 to 1. */
export type SurfacePoint = { u: number; v: number };

/** Short length, long length by it, and the way along the short one, rad. */
export type Kernel = { length: number; ratio: number; direction: number };

/** Half spans. */
const LENGTHS = [0.35, 0.6, 1];
/** Long length to short one. */
const RATIOS = [1, 2.5, 7];
const DIRECTIONS = 8;

/** What is averaged over. */
export const KERNELS: readonly Kernel[] = LENGTHS.flatMap((length) =>
  RATIOS.flatMap((ratio) =>
    ratio === 1
      ? [{ length, ratio, direction: 0 }]
      : Array.from({ length: DIRECTIONS }, (_, k) => ({ length, ratio, direction: (k * Math.PI) / DIRECTIONS })),
  ),
);

/** The round kernel has the same prior as all directions of another ratio together. */
export function logPrior({ ratio }: Kernel): number {
  return ratio === 1 ? 0 : -Math.log(DIRECTIONS);
}

/** Columns of G. @param tolerance largest variance that may be left at any point */
export function kernelColumns(points: readonly SurfacePoint[], kernel: Kernel, tolerance: number): Float64Array[] {
  return pivotedCholesky(points.length, kernelOf(points, kernel), tolerance);
}

function kernelOf(points: readonly SurfacePoint[], { length, ratio, direction }: Kernel) {
  const [c, s] = [Math.cos(direction), Math.sin(direction)];
  const along = Float64Array.from(points, ({ u, v }) => (c * u + s * v) / length);
  const across = Float64Array.from(points, ({ u, v }) => (c * v - s * u) / (ratio * length));
  const at = (a: Float64Array, i: number) => a[i] ?? Number.NaN;
  return (i: number, j: number) =>
    Math.exp(-((at(along, i) - at(along, j)) ** 2 + (at(across, i) - at(across, j)) ** 2) / 2);
}
