/** Where the rectangle and its corners lie on the stock, mm. */
import type { CouponPoint } from "../../geometry/frames";

/** Room around the rectangle: its lines cross at the corners and go on a little. */
export const EDGE_MM = 10;
export const BEYOND_MM = 4;

export type Sides = { widthMm: number; heightMm: number };
export const CORNERS = ["front left", "front right", "back right", "back left"] as const;
export type Corner = (typeof CORNERS)[number];

export function cornerAt(corner: Corner, { widthMm, heightMm }: Sides): CouponPoint {
  const x = corner.endsWith("right") ? widthMm : 0;
  const y = corner.startsWith("back") ? heightMm : 0;
  return { x: EDGE_MM + x, y: EDGE_MM + y };
}

/** What is measured, each from corner to corner. */
export const LENGTHS = {
  width: { label: "Side along X, front", from: "front left", to: "front right" },
  height: { label: "Side along Y, left", from: "front left", to: "back left" },
  first: { label: "Diagonal 1", from: "front right", to: "back left" },
  second: { label: "Diagonal 2", from: "front left", to: "back right" },
} as const satisfies Record<string, { label: string; from: Corner; to: Corner }>;
export type LengthId = keyof typeof LENGTHS;

export function nominalMm(id: LengthId, { widthMm, heightMm }: Sides): number {
  if (id === "width") return widthMm;
  return id === "height" ? heightMm : Math.hypot(widthMm, heightMm);
}
