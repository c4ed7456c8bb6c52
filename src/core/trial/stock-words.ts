/** Where the stock is laid, and which lens is looked for, in words. */
import type { Op } from "../coupon/program";
import { counted, zeroText } from "../machine/counted";
import type { MachineSpec } from "../machine/machine-spec";
import { plain } from "../metrology/quantity-text";
import type { PlanContext } from "./plan-form";

/** A gantry counts from where its axes begin, a galvo from the middle of its field. */
export function cornerText(plan: { stockAtXMm: number; stockAtYMm: number }, machine: MachineSpec): string {
  if (machine.kind === "galvo") {
    const [x, y] = [plan.stockAtXMm - machine.widthMm / 2, plan.stockAtYMm - machine.depthMm / 2];
    return `X\u00a0${plain(x)}, Y\u00a0${plain(y)} mm from the middle of the field`;
  }
  const corner = counted({ x: plan.stockAtXMm, y: plan.stockAtYMm }, machine);
  const zero = zeroText(machine);
  return `X ${plain(corner.x)}, Y ${plain(corner.y)} mm${zero && `, as the machine counts (${zero})`}`;
}

/** What is told before the first mark. */
export function layStock(plan: { stockAtXMm: number; stockAtYMm: number }, machine: MachineSpec): Op {
  return { kind: "tell", text: `Lay the stock with its lower left corner at ${cornerText(plan, machine)}.` };
}

export function lensLine({ label, printed, ringDiameterMm }: NonNullable<PlanContext["optic"]>): string {
  const marks = [
    printed && printed !== label ? `“${printed}” stands on it` : "",
    ringDiameterMm === null ? "" : `its ring measures ${plain(ringDiameterMm)} mm`,
  ].filter(Boolean);
  return `The lens that is fitted is ${label}${marks.length > 0 ? `: ${marks.join(", ")}` : ""}.`;
}
