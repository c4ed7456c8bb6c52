/** What may be chosen before the origin is measured, and what is refused by name. */

import { AXES, type Axis } from "../../machine/machine-kind";
import type { MachineSpec } from "../../machine/machine-spec";
import { WITH_X, WITH_Y } from "../../measuring/axes-field";
import { edgeFields } from "../../measuring/edge-distance/fields";
import type { LinesLaid } from "../../measuring/edge-distance/terms";
import { plain } from "../../metrology/quantity-text";
import { MM_PER_INCH, UNITS } from "../../metrology/units";
import { field } from "../../trial/plan-field";
import type { PlanContext, PlanForm, PlanWarning } from "../../trial/plan-form";
import { type PlanOf, planForm } from "../../trial/plan-table";
import { stockSizeFields } from "../../trial/shared-fields";
import { HOME_OFFSET } from "./setting";

export const SENSES = {
  "not known": "Not known: measure it with this burn and the next",
  away: "moves marks away from that edge",
  toward: "moves marks toward that edge",
} as const;

/** A thousandth of an inch is usual. (common practice, no source) */
const USUAL_COUNT_MM = MM_PER_INCH / 1000;
const SPARE_MM = 10;

/** Whether the offset of an axis counts instead of being a length. */
export function isCount(held: MachineSpec["held"], axis: Axis): boolean {
  return UNITS[held[HOME_OFFSET[axis]]?.unit ?? "mm"].dimension === "count";
}

export function linesOf({
  distanceXMm,
  distanceYMm,
  boxMm,
}: Pick<OriginPlan, "distanceXMm" | "distanceYMm" | "boxMm">): LinesLaid {
  return { x: { from: distanceYMm, to: distanceYMm + boxMm }, y: { from: distanceXMm, to: distanceXMm + boxMm } };
}

function planFields(context: PlanContext) {
  const { machine } = context;
  const { home } = machine.axes;
  const group = "Home offset";
  const stock = stockSizeFields({
    widthMm: Math.min(100, machine.widthMm),
    heightMm: Math.min(80, machine.depthMm),
    most: machine,
    why: "Push the stock into the corner of the two edges.",
  });
  return {
    ...edgeFields(context, "edge of the stock", {
      sideX: home.endsWith("right") ? "right" : "left",
      sideY: home.startsWith("front") ? "front" : "back",
      distanceXMm: 20,
      distanceYMm: 15,
    }),
    boxMm: field.length({
      label: "Side of the box",
      group: "Lines",
      why: "Longer lines show a turned stock better.",
      usual: 40,
      min: [10, "Less than 10 mm does not show a turn."],
    }),
    /** What a larger number does. */
    senseX: field.choice(SENSES, { label: "A larger offset of X", group, usual: "not known", when: WITH_X }),
    senseY: field.choice(SENSES, { label: "A larger offset of Y", group, usual: "not known", when: WITH_Y }),
    /** What one count moves; where the offset counts. */
    countMm: field.thousandths({
      label: "One count moves",
      group,
      why: "A thousandth of an inch is usual: 0.001 in.",
      usual: USUAL_COUNT_MM,
      max: 1,
      when: AXES.some((axis) => isCount(machine.held, axis)) ? undefined : false,
    }),
    ...stock,
  };
}

export type OriginPlan = PlanOf<ReturnType<typeof planFields>>;

export function originPlan(context: PlanContext): PlanForm<OriginPlan> {
  return planForm(planFields(context), {
    faults: ({ distanceXMm, distanceYMm, boxMm, stockWidthMm, stockHeightMm }) => [
      ["stockWidthMm", beyondStock(distanceXMm + boxMm, stockWidthMm)],
      ["stockHeightMm", beyondStock(distanceYMm + boxMm, stockHeightMm)],
    ],
  });
}

function beyondStock(reaches: number, stockMm: number): string | null {
  return reaches > stockMm
    ? `The box would reach ${plain(reaches - stockMm)} mm beyond the stock. Use stock of at least ${plain(reaches)} mm, or a smaller box.`
    : null;
}

export function planWarnings(plan: OriginPlan): PlanWarning[] {
  const warnings: PlanWarning[] = [];
  if (Math.min(plan.distanceXMm, plan.distanceYMm) < SPARE_MM)
    warnings.push({
      field: plan.distanceXMm < SPARE_MM ? "distanceXMm" : "distanceYMm",
      message: `The line is close to the edge. A wrong origin may put it beside the stock. Use at least ${SPARE_MM} mm.`,
    });
  if (plan.axes === "X and Y" && plan.distanceXMm === plan.distanceYMm)
    warnings.push({
      field: "distanceYMm",
      message: "X and Y have the same distance. Use different distances, to notice a mix-up.",
    });
  return warnings;
}
