/** Which outline lies in which: what is left and what falls out follows from it. */
import { boundsOf, type Rect } from "../core/geometry/rect";
import { type Contour, type Point, signedArea } from "./contour";

export type Nested = Contour & {
  /** In how many others it lies: even is the outside of a part, odd a hole in one. */
  depth: number;
  isHole: boolean;
};

/** Outlines that do not cross, each with its depth; turned so that the part lies to their left. */
export function nested(contours: readonly Contour[]): Nested[] {
  const boxes = contours.map((c) => boundsOf(c.points));
  return contours.map((contour, i) => {
    const probe = contour.points[0] as Point;
    const own = boxes[i] as Rect;
    const depth = contours.filter(
      (other, k) => k !== i && holds(boxes[k] as Rect, own) && isInside(probe, other.points),
    ).length;
    const isHole = depth % 2 === 1;
    const turns = signedArea(contour.points) > 0;
    const points = turns === !isHole ? contour.points : [...contour.points].reverse();
    return { ...contour, points, depth, isHole };
  });
}

function holds(outer: Rect, inner: Rect): boolean {
  return outer.x0 <= inner.x0 && outer.y0 <= inner.y0 && outer.x1 >= inner.x1 && outer.y1 >= inner.y1;
}

/** By how many sides a ray to the right crosses. */
function isInside({ x, y }: Point, points: readonly Point[]): boolean {
  let inside = false;
  for (let i = 0, k = points.length - 1; i < points.length; k = i++) {
    const [a, b] = [points[i] as Point, points[k] as Point];
    if (a.y > y !== b.y > y && x < ((b.x - a.x) * (y - a.y)) / (b.y - a.y) + a.x) inside = !inside;
  }
  return inside;
}
