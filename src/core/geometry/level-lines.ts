/** Lines a pitch apart that fill a rectangle. */
import type { CouponPoint } from "./frames";
import type { Rect } from "./rect";

/** Heights of lines a pitch apart, in the middle of a rectangle. */
export function levels({ y0, y1 }: Rect, pitch: number): number[] {
  const count = Math.floor((y1 - y0) / pitch + 1e-9);
  const first = (y0 + y1 - (count - 1) * pitch) / 2;
  return Array.from({ length: count }, (_, i) => first + i * pitch);
}

/** Places along X of upright lines a pitch apart, in the middle of a rectangle. */
export function columns({ x0, x1 }: Rect, pitch: number): number[] {
  return levels({ x0: 0, x1: 0, y0: x0, y1: x1 }, pitch);
}

export function up({ y0, y1 }: Rect, x: number): CouponPoint[] {
  return [
    { x, y: y0 },
    { x, y: y1 },
  ];
}

export function across({ x0, x1 }: Rect, y: number): CouponPoint[] {
  return [
    { x: x0, y },
    { x: x1, y },
  ];
}
