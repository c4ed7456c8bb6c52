/**
 * The offset of an outline that keeps every side: each corner moves to where its two sides, moved out by as much, meet.
 *
 *   corner = q + by (n1 + n2) / (1 + n1 . n2)        n1, n2 the outward normals of the sides that meet in q
 *
 * Right where no side turns over, no corner reaches too far and the outline does not cross itself: then there is nothing to clip, and
 * thousands of corners take no longer than to walk along them.
 */

import type { Point } from "./contour";
import { crossingsOf } from "./crossings";

/** @param points anticlockwise @param by outward, mm @returns `null` where sides would be lost: it must be clipped then */
export function plainOffset(points: readonly Point[], by: number, miterLimit: number): Point[] | null {
  const count = points.length;
  const normals = points.map((p, i) => {
    const q = points[(i + 1) % count] as Point;
    const length = Math.hypot(q.x - p.x, q.y - p.y);
    return { x: (q.y - p.y) / length, y: (p.x - q.x) / length };
  });
  const moved: Point[] = [];
  for (let i = 0; i < count; i++) {
    const [a, b] = [normals[(i + count - 1) % count] as Point, normals[i] as Point];
    const opened = 1 + a.x * b.x + a.y * b.y;
    // A corner reaches sqrt(2 / opened) offsets out.
    if (!(opened > 2 / miterLimit ** 2)) return null;
    const q = points[i] as Point;
    moved.push({ x: q.x + (by * (a.x + b.x)) / opened, y: q.y + (by * (a.y + b.y)) / opened });
  }
  for (let i = 0; i < count; i++) {
    const [p, q, n] = [moved[i] as Point, moved[(i + 1) % count] as Point, normals[i] as Point];
    // Along the side as it was: its normal turned back by a right angle.
    if (!((q.x - p.x) * -n.y + (q.y - p.y) * n.x > 0)) return null;
  }
  return crossingsOf([{ points: moved, layer: "" }]).length === 0 ? moved : null;
}
