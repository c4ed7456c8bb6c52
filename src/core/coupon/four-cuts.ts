/**
 * A rectangle cut out by four cuts that cross at its corners, instead of one around: each is come to from the left or the front, so that
 * play takes nothing off the part.
 */

import type { CouponPoint } from "../geometry/frames";
import type { CouponPath } from "./piece";

/** So far before the first cut a dash is burned, from which it is come to, and how long the dash is, mm. */
const [LEAD_IN_MM, DASH_MM] = [5, 1];
/** So far cuts go on beyond the corners, mm. */
const OVERCUT_MM = 2;

/** @param corner lower left one of the rectangle */
export function fourCuts(corner: CouponPoint, widthMm: number, heightMm: number, settings: string): CouponPath[] {
  const path = (x0: number, y0: number, x1: number, y1: number): CouponPath => ({
    closed: false,
    settings,
    points: [
      { x: corner.x + x0, y: corner.y + y0 },
      { x: corner.x + x1, y: corner.y + y1 },
    ],
  });
  const upright = (x: number) => path(x, -OVERCUT_MM, x, heightMm + OVERCUT_MM);
  const level = (y: number) => path(-OVERCUT_MM, y, widthMm + OVERCUT_MM, y);
  return [
    path(-LEAD_IN_MM, -OVERCUT_MM, -LEAD_IN_MM, DASH_MM - OVERCUT_MM),
    ...[upright(0), upright(widthMm)],
    path(-OVERCUT_MM, -LEAD_IN_MM, DASH_MM - OVERCUT_MM, -LEAD_IN_MM),
    ...[level(0), level(heightMm)],
  ];
}
