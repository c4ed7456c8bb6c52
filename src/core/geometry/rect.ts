/** Rectangles along the axes, mm. */
import { z } from "zod";
import type { CouponPoint } from "./frames";

export const rectSchema = z.object({
  x0: z.number(),
  y0: z.number(),
  x1: z.number(),
  y1: z.number(),
});
export type Rect = z.infer<typeof rectSchema>;

/** Corners in order, counter-clockwise from the lower left. */
export function corners(r: Rect): CouponPoint[] {
  return [
    { x: r.x0, y: r.y0 },
    { x: r.x1, y: r.y0 },
    { x: r.x1, y: r.y1 },
    { x: r.x0, y: r.y1 },
  ];
}

/** The smallest rectangle around all points; `undefined` without points. */
export function boundsOf(points: Iterable<{ x: number; y: number }>): Rect | undefined {
  let r: Rect | undefined;
  for (const { x, y } of points) {
    r = r
      ? {
          x0: Math.min(r.x0, x),
          y0: Math.min(r.y0, y),
          x1: Math.max(r.x1, x),
          y1: Math.max(r.y1, y),
        }
      : { x0: x, y0: y, x1: x, y1: y };
  }
  return r;
}
