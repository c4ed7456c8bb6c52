/** Paths of a drawing as an SVG draws them: Y is drawn downward, so each place is turned over in the box. */
import type { Point } from "../../artwork/contour";
import type { Rect } from "../../core/geometry/rect";

export function pathDataIn({ x0, y1 }: Rect): (path: { points: readonly Point[]; closed?: boolean }) => string {
  const place = ({ x, y }: Point) => `${(x - x0).toFixed(3)} ${(y1 - y).toFixed(3)}`;
  return ({ points, closed = true }) =>
    points.map((p, i) => `${i === 0 ? "M" : "L"}${place(p)}`).join("") + (closed ? "Z" : "");
}
