/** What is refused of a layout, each with the length that would do, and what is worth saying before the burn. */

import type { Axis, MachineSpec } from "../../machine/machine-spec";
import { expandedMm, neededMm } from "../../measuring/baseline";
import { endingOf, gaugeIn } from "../../measuring/length-gauges";
import { plain, shownLength } from "../../metrology/quantity-text";
import type { PlanContext, PlanWarning } from "../../trial/plan-form";
import { besideSpan, sheetOf } from "./layout";
import { type AxisScalePlan, axesOf, isCut, spanOf } from "./plan-type";

/** A ratio: 0.1 % is 0.4 mm in 400. (common practice, no source) */
export const DEFAULT_TOLERANCE = 0.001;
/** Ticks nearer than this are taken one for another, mm. */
const NEAREST_TICKS_MM = 5;

export function spanFault(plan: AxisScalePlan, axis: Axis, context: PlanContext): string | undefined {
  const span = spanOf(plan, axis);
  const { gauge, reachMm } = gaugeIn(plan, context);
  if (!(span > 0)) return "Enter the length, for example 300 mm.";
  // The field of the readings reports a count of 0.
  if (!(plan.repeats > 0)) return undefined;
  if (span > reachMm)
    return `${gauge.name} ${endingOf(gauge, "reach", "es")} ${plain(reachMm)} mm, as said below: shorten the length, or read with another gauge.`;
  const { widthMm, depthMm } = context.machine;
  const room = (axis === "x" ? widthMm : depthMm) - besideSpan(plan, axis);
  if (span > room) return `The longest that fits ${context.machine.name} is ${plain(Math.floor(room))} mm.`;
  const tolerance = context.tolerance ?? DEFAULT_TOLERANCE;
  const needed = neededMm(gauge, plan.repeats, tolerance);
  if (span >= needed) return undefined;
  const told = `Over ${shownLength(span, "mm", 1)} ${gauge.name} ${endingOf(gauge, "tell", "s")} the scale to ± ${plain((100 * expandedMm(gauge, plan.repeats)) / span, 2)} %, and ${plain(100 * tolerance, 3)} % is wanted.`;
  const longest = Math.floor(Math.min(room, reachMm));
  if (needed > longest)
    return `${told} It takes ${plain(Math.ceil(needed))} mm, and bed and gauge allow ${plain(longest)}: read more often, or with a better gauge.`;
  return `${told} It takes ${plain(Math.ceil(needed))} mm or more; bed and gauge allow ${plain(longest)}.`;
}

export function bedFault(plan: AxisScalePlan, axis: Axis, machine: MachineSpec): string | undefined {
  const [at, size] = axis === "x" ? [plan.stockAtXMm, machine.widthMm] : [plan.stockAtYMm, machine.depthMm];
  const end = at + sheetOf(plan, axis);
  return end > size ? `The stock would reach ${plain(end)} mm; the working area ends at ${plain(size)} mm.` : undefined;
}

export function ticksFault(plan: AxisScalePlan): string | undefined {
  if (plan.way !== "ladder") return undefined;
  const pitch = Math.min(...axesOf(plan).map((axis) => spanOf(plan, axis) / plan.intervals));
  if (pitch < NEAREST_TICKS_MM)
    return `Ticks would lie ${plain(pitch, 1)} mm apart: ${NEAREST_TICKS_MM} mm or more keeps them apart for the eye.`;
  return undefined;
}

export function planWarnings(plan: AxisScalePlan, context: PlanContext): PlanWarning[] {
  const warnings: PlanWarning[] = [];
  const { gauge } = gaugeIn(plan, context);
  const tolerance = context.tolerance ?? DEFAULT_TOLERANCE;
  // The forecast says this of every other way.
  for (const axis of plan.way === "by hand" ? axesOf(plan) : []) {
    const share = expandedMm(gauge, plan.repeats) / spanOf(plan, axis);
    if (share > tolerance / 2)
      warnings.push({
        field: axis === "x" ? "spanXMm" : "spanYMm",
        message: `Told to ± ${plain(100 * share, 3)} %: a proof within ${plain(100 * tolerance, 3)} % needs luck. Longer, or read more often.`,
      });
  }
  if (axesOf(plan).length === 2 && plan.spanXMm === plan.spanYMm)
    warnings.push({ field: "spanYMm", message: "As long as along X: if the two are mixed up, nobody will notice." });
  if (isCut(plan) && plan.way === "part")
    warnings.push({
      field: "way",
      message: "From a part alone its cut is mixed into the scale: measure the hole too, where it can be reached.",
    });
  return warnings;
}
