/**
 * How a machine counts the places that the core counts from the lower left corner: an axis that counts up the other way has its
 * zero at the other side of the working area.
 *
 *   x' = width - x where X counts up to the left; y' = depth - y where Y counts up toward the operator
 *
 * The same sum leads there and back. Not known is taken as counted like the core.
 */
import type { MachinePoint } from "../geometry/frames";
import type { MachineSpec } from "./machine-spec";

export type Bed = Pick<MachineSpec, "axes" | "widthMm" | "depthMm">;

export function counted<P extends MachinePoint>(p: P, { axes, widthMm, depthMm }: Bed): P {
  return {
    ...p,
    x: axes.x === "to the left" ? widthMm - p.x : p.x,
    y: axes.y === "toward you" ? depthMm - p.y : p.y,
  };
}

/** Where its zero lies, in words; empty where it counts like the core. */
export function zeroText({ axes }: Bed): string {
  const sides = [axes.x === "to the left" ? "X0 at the right" : "", axes.y === "toward you" ? "Y0 at the back" : ""];
  return sides.filter(Boolean).join(", ");
}
