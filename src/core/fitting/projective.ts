/**
 * A projective map of the plane through four points, the direct linear transformation.
 *
 *   x' = (a x + b y + c) / (g x + h y + 1),   y' = (d x + e y + f) / (g x + h y + 1)
 *
 * Eight linear equations for eight numbers, solved by QR. [Hartley & Zisserman, Multiple View Geometry, 2nd ed. 2004, 4.1; from memory]
 */
import type { PlanePoint } from "./plane-map";
import { thinQr } from "./thin-qr";

/** a, b, c, d, e, f, g, h. */
export type Projective = readonly number[];

/** @returns `null` where three of the points lie on a line @throws RangeError for another number of points than four */
export function projectiveThrough(pairs: readonly { from: PlanePoint; to: PlanePoint }[]): Projective | null {
  if (pairs.length !== 4) throw new RangeError(`pairs: ${pairs.length} instead of 4`);
  const rows = pairs.flatMap(({ from: { x, y }, to }) => [
    [x, y, 1, 0, 0, 0, -x * to.x, -y * to.x],
    [0, 0, 0, x, y, 1, -x * to.y, -y * to.y],
  ]);
  const wanted = pairs.flatMap(({ to }) => [to.x, to.y]);
  const qr = thinQr(Float64Array.from(rows.flat()), 8, 8);
  if (!qr) return null;
  const along = Array.from({ length: 8 }, (_, j) =>
    wanted.reduce((sum, w, i) => sum + (qr.q[i * 8 + j] ?? Number.NaN) * w, 0),
  );
  return along.map((_, j) =>
    along.reduce((sum, a, k) => sum + (k < j ? 0 : (qr.inverse[j * 8 + k] ?? Number.NaN) * a), 0),
  );
}

export function projected(
  [a = 0, b = 0, c = 0, d = 0, e = 0, f = 0, g = 0, h = 0]: Projective,
  { x, y }: PlanePoint,
): PlanePoint {
  const w = g * x + h * y + 1;
  return { x: (a * x + b * y + c) / w, y: (d * x + e * y + f) / w };
}
