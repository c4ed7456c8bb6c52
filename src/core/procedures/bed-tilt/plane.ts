/**
 * The plane of a bed by the readouts at which its places are in focus; the gap is the same everywhere by that.
 *
 *   z_i = a + b (x_i - xm) + c (y_i - ym) [+ d ((x_i - xm)^2 + (y_i - ym)^2)]
 *
 * A number that is larger where the head is further away is larger where the bed is higher. d is the curvature of a galvo's field,
 * which centre and corners tell from a tilt.
 */
import { leastSquares } from "../../fitting/least-squares";
import { type Measured, measured } from "../../metrology/measured";

export type ReadPlace = { x: number; y: number; z: number; u: number };

export type BedPlane =
  | {
      status: "solved";
      /** Height at a place, without curvature, relative to any other: differences only mean something. */
      difference: (from: { x: number; y: number }, to: { x: number; y: number }) => Measured;
      /** d, 1/mm; `null` where it is not fitted. */
      curvature: Measured | null;
      /** What the places differ from it, mm, in their order. */
      residuals: number[];
      chiSquared: number;
      degreesOfFreedom: number;
    }
  | { status: "in line" }
  | { status: "few" };

/**
 * @param places read, with what is known of each
 * @param curved whether the field is curved too
 * @param freedom of how well a reading is known
 */
export function bedPlane(places: readonly ReadPlace[], curved: boolean, freedom: number): BedPlane {
  const needed = curved ? 4 : 3;
  if (places.length < needed) return { status: "few" };
  const middle = {
    x: places.reduce((sum, p) => sum + p.x, 0) / places.length,
    y: places.reduce((sum, p) => sum + p.y, 0) / places.length,
  };
  const row = (p: { x: number; y: number }) => {
    const [x, y] = [p.x - middle.x, p.y - middle.y];
    return curved ? [1, x, y, x * x + y * y] : [1, x, y];
  };
  const fit = leastSquares(places.map((p) => ({ row: row(p), y: p.z, u: p.u })));
  if (fit.status !== "solved") return { status: "in line" };
  const { x: solved, covariance } = fit;
  const [, b = 0, c = 0, d = 0] = solved;
  return {
    status: "solved",
    difference(from, to) {
      const [dx, dy] = [to.x - from.x, to.y - from.y];
      const cov = (i: number, j: number) => covariance[i]?.[j] ?? 0;
      const variance = dx * dx * cov(1, 1) + 2 * dx * dy * cov(1, 2) + dy * dy * cov(2, 2);
      // A place against itself is 0, not -0.
      return measured(b * dx + c * dy + 0, Math.sqrt(Math.max(0, variance)), freedom);
    },
    curvature: curved ? measured(d, Math.sqrt(covariance[3]?.[3] ?? 0), freedom) : null,
    residuals: fit.residuals.map((r, i) => r * (places[i]?.u ?? 1)),
    ...{ chiSquared: fit.chiSquared, degreesOfFreedom: fit.degreesOfFreedom },
  };
}
