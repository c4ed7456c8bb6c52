/** Level lines that fill a rectangle. */
import type { CouponPoint } from "../../geometry/frames";
import type { Rect } from "../../geometry/rect";

/** Heights of lines a pitch apart, in the middle of a rectangle. */
export function levels({ y0, y1 }: Rect, pitch: number): number[] {
  const count = Math.floor((y1 - y0) / pitch + 1e-9);
  const first = (y0 + y1 - (count - 1) * pitch) / 2;
  return Array.from({ length: count }, (_, i) => first + i * pitch);
}

export function across({ x0, x1 }: Rect, y: number): CouponPoint[] {
  return [
    { x: x0, y },
    { x: x1, y },
  ];
}
