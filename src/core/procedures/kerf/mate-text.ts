import { fixed } from "../../metrology/quantity-text";
import type { KerfPlan } from "./plan";

/** What stands on a mate: its offset per side; on a slot for the sheet, its width as drawn. */
export function mateText(plan: Pick<KerfPlan, "way" | "jointMm" | "stepMm">, offsetMm: number): string {
  const decimals = Number.isInteger(Math.round(plan.stepMm * 1e5) / 1e3) ? 2 : 3;
  return fixed(plan.way === "sheet slot" ? plan.jointMm - 2 * offsetMm : offsetMm, decimals).replace("−", "-");
}
