/**
 * The turn and the shift that lay one set of points on another, with no scale and no shear.
 *
 *   q = R(turn) p + t,   turn = atan2(sum p x q, sum p . q) of both sets about their means       (least squares)
 *
 * [Schönemann, Psychometrika 31 (1966) 1, in the plane; from memory] A pose of more parameters would swallow part of what is measured.
 */
import type { PlanePoint } from "./plane-map";

export type RigidPose = { turnRad: number; x: number; y: number };

/** @returns the pose from `from` to `to`; `null` for fewer than two points, or where all of one set are one point */
export function rigidPose(pairs: readonly { from: PlanePoint; to: PlanePoint }[]): RigidPose | null {
  if (pairs.length < 2) return null;
  const mean = (of: (pair: (typeof pairs)[number]) => PlanePoint): PlanePoint => ({
    x: pairs.reduce((sum, p) => sum + of(p).x, 0) / pairs.length,
    y: pairs.reduce((sum, p) => sum + of(p).y, 0) / pairs.length,
  });
  const [a, b] = [mean((p) => p.from), mean((p) => p.to)];
  let [along, across] = [0, 0];
  for (const { from, to } of pairs) {
    const [px, py, qx, qy] = [from.x - a.x, from.y - a.y, to.x - b.x, to.y - b.y];
    along += px * qx + py * qy;
    across += px * qy - py * qx;
  }
  if (!(Math.hypot(along, across) > 0)) return null;
  const turnRad = Math.atan2(across, along);
  const at = turned(a, turnRad);
  return { turnRad, x: b.x - at.x, y: b.y - at.y };
}

export function laidBy({ turnRad, x, y }: RigidPose, at: PlanePoint): PlanePoint {
  const to = turned(at, turnRad);
  return { x: to.x + x, y: to.y + y };
}

/** Counter-clockwise about the origin. */
export function turned({ x, y }: PlanePoint, byRad: number): PlanePoint {
  const [c, s] = [Math.cos(byRad), Math.sin(byRad)];
  return { x: c * x - s * y, y: s * x + c * y };
}
