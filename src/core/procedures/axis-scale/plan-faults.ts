/** The lengths that fit bed and gauge, what is refused, each with the length that would do, and what is worth saying before the burn. */

import type { Axis } from "../../machine/machine-kind";
import type { MachineSpec } from "../../machine/machine-spec";
import { axesOf } from "../../measuring/axes-field";
import { expandedMm, neededMm } from "../../measuring/baseline";
import { type GaugeChosen, gaugeIn, usualGaugeChosen } from "../../measuring/length-gauges";
import { plain, shownLength } from "../../metrology/quantity-text";
import type { PlanContext, PlanForm, PlanWarning } from "../../trial/plan-form";
import { planForm } from "../../trial/plan-table";
import { middleOf, placeFaults } from "../../trial/shared-fields";
import { besideSpan, type Laid, sheetOf } from "./layout";
import { type AxisScalePlan, isCut, planFields, type Spans, spanOf } from "./plan";

/** A ratio: 0.1 % is 0.4 mm in 400. (common practice, no source) */
export const DEFAULT_TOLERANCE = 0.001;
/** Ticks nearer than this are taken one for another, mm. */
const NEAREST_TICKS_MM = 5;

const ROUND_MM = 10;

/** A ladder of both axes, before anybody chooses. */
const FIRST = { way: "ladder", axes: "X and Y", approach: "one side", rows: 1 } as const;

export function axisScalePlan(context: PlanContext): PlanForm<AxisScalePlan> {
  const usual = longestSpans({ ...FIRST, ...usualGaugeChosen(context), spanXMm: 0, spanYMm: 0 }, context);
  return planForm(planFields(context, usual), {
    faults: (plan) => [
      ...axesOf(plan).map((axis) => [SPAN[axis], spanFault(plan, axis, context)] as const),
      ...placeFaults(plan, { widthMm: sheetOf(plan, "x"), heightMm: sheetOf(plan, "y") }, context.machine),
      ["intervals", ticksFault(plan)],
    ],
  });
}

const SPAN = { x: "spanXMm", y: "spanYMm" } as const;

/** The longest that fit bed and gauge, in the middle of the bed; the two axes differ, so that a mix-up of them shows. */
export function longestSpans(plan: Laid & GaugeChosen, context: PlanContext): Spans {
  const of = (axis: Axis) => Math.max(ROUND_MM, Math.floor(roomFor(context, plan, axis) / ROUND_MM) * ROUND_MM);
  const [spanXMm, spanYMm] = [of("x"), of("y")];
  const spans = { spanXMm, spanYMm: spanXMm === spanYMm ? spanYMm - ROUND_MM : spanYMm };
  const laid = { ...plan, ...spans };
  const { xMm, yMm } = middleOf(context.machine, { widthMm: sheetOf(laid, "x"), heightMm: sheetOf(laid, "y") });
  return { ...spans, stockAtXMm: xMm, stockAtYMm: yMm };
}

/** Of bed and gauge, mm. */
function roomFor(context: PlanContext, plan: Laid & GaugeChosen, axis: Axis): number {
  return Math.min(gaugeIn(plan, context).reachMm, onBed(context.machine, plan, axis));
}

function onBed({ widthMm, depthMm }: MachineSpec, plan: Laid, axis: Axis): number {
  return (axis === "x" ? widthMm : depthMm) - besideSpan(plan, axis);
}

function spanFault(plan: AxisScalePlan, axis: Axis, context: PlanContext): string | null {
  const span = spanOf(plan, axis);
  const { gauge, reachMm } = gaugeIn(plan, context);
  if (span > reachMm)
    return `The length is greater than the reach of ${gauge.name}. Enter at most ${plain(reachMm)} mm, or use another gauge.`;
  const room = onBed(context.machine, plan, axis);
  if (span > room)
    return `The length does not fit on ${context.machine.name}. Enter at most ${plain(Math.floor(room))} mm.`;
  const tolerance = context.tolerance ?? DEFAULT_TOLERANCE;
  const needed = neededMm(gauge, plan.repeats, tolerance);
  if (span >= needed) return null;
  const told = `The uncertainty with ${gauge.name} over ${shownLength(span, "mm", 1)} is about ± ${plain((100 * expandedMm(gauge, plan.repeats)) / span, 2)} %. The tolerance is ${plain(100 * tolerance, 3)} %.`;
  const longest = Math.floor(Math.min(room, reachMm));
  if (needed > longest)
    return `${told} Bed and gauge allow ${plain(longest)} mm only. Take more readings, or use a better gauge.`;
  return `${told} Enter between ${plain(Math.ceil(needed))} and ${plain(longest)} mm.`;
}

function ticksFault(plan: AxisScalePlan): string | null {
  if (plan.way !== "ladder") return null;
  const pitch = Math.min(...axesOf(plan).map((axis) => spanOf(plan, axis) / plan.intervals));
  if (pitch < NEAREST_TICKS_MM)
    return `Ticks would be ${plain(pitch, 1)} mm apart. Use fewer ticks, at least ${NEAREST_TICKS_MM} mm apart.`;
  return null;
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
        message: `The uncertainty is about ± ${plain(100 * share, 3)} %. This is large for a tolerance of ${plain(100 * tolerance, 3)} %. Use a longer length, or take more readings.`,
      });
  }
  if (axesOf(plan).length === 2 && plan.spanXMm === plan.spanYMm)
    warnings.push({
      field: "spanYMm",
      message: "X and Y have the same length. Use different lengths, to notice a mix-up.",
    });
  if (isCut(plan) && plan.way === "part")
    warnings.push({
      field: "way",
      message: "The kerf adds to the error of the scale. Measure the hole too, if you can.",
    });
  return warnings;
}
