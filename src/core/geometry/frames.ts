/**
 * Points, told apart by the frame they are in.
 *
 * Coupon: origin at the lower left corner of the stock. Machine: origin at the lower left corner of the working area.
 * Picture: pixels, Y down. X to the right, Y away from the operator, mm, seen from above on the marked face.
 */
import { z } from "zod";

export type Frame = "coupon" | "machine" | "picture";

declare const frame: unique symbol;

export type Point<F extends Frame> = {
  readonly x: number;
  readonly y: number;
  readonly [frame]?: F;
};

export type CouponPoint = Point<"coupon">;
export type MachinePoint = Point<"machine">;

export const couponPointSchema: z.ZodType<CouponPoint> = z.object({
  x: z.number(),
  y: z.number(),
});

/** Where the lower left corner of the stock lies in the working area. */
export const placementSchema = z.object({ xMm: z.number(), yMm: z.number() });
export type Placement = z.infer<typeof placementSchema>;

/** From a point of the coupon to the point of the machine it is burned at. */
export function onMachine(p: CouponPoint, at: Placement): MachinePoint {
  return { x: p.x + at.xMm, y: p.y + at.yMm };
}

/** From a point of the machine to the point of the coupon that lies there. */
export function onCoupon(p: MachinePoint, at: Placement): CouponPoint {
  return { x: p.x - at.xMm, y: p.y - at.yMm };
}
