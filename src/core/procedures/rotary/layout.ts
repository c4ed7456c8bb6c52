/** Where lines, numbers and words lie on the part, mm: `u` along the part, `v` around it, from the corner of what is drawn. */
import type { CouponPoint } from "../../geometry/frames";
import { type RotaryPlan, sentMm } from "./plan";

/** One lane for the first line, the last, and the one after the way back: side by side, so that all can be seen together. */
export const LANES = ["first", "last", "back"] as const;
export type Lane = (typeof LANES)[number];

export const LANE_MM = 10;
const [GAP_MM, EDGE_MM, GUIDE_MM] = [1, 5, 2.5];
/** Before the first line, so that every line is come to from the same side. */
export const LEAD_MM = 6;

/** Length along the part that the marks take. */
export const ALONG_MM = 2 * EDGE_MM + LANES.length * LANE_MM + (LANES.length - 1) * GAP_MM;

/** Where the guide line runs. */
export const GUIDE_U_MM = GUIDE_MM;

export function laneOf(lane: Lane): [number, number] {
  const low = EDGE_MM + LANES.indexOf(lane) * (LANE_MM + GAP_MM);
  return [low, low + LANE_MM];
}

/** Where a line lies around the part. */
export function lineAt(plan: RotaryPlan, lane: Lane): number {
  return LEAD_MM + (lane === "last" ? sentMm(plan) : 0);
}

/** How much is drawn around the part. */
export function aroundDrawnMm(plan: RotaryPlan): number {
  return sentMm(plan) + 2 * LEAD_MM;
}

/** As a point of the coupon: turned, never mirrored, where the part lies along Y. */
export function pointAt({ replaces }: Pick<RotaryPlan, "replaces">, u: number, v: number): CouponPoint {
  return replaces === "y" ? { x: u, y: v } : { x: v, y: ALONG_MM - u };
}
