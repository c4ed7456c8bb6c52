/** What may be chosen before the turn of a head is measured. */
import { gaugeFields } from "../../measuring/length-gauges";
import { plain } from "../../metrology/quantity-text";
import { field } from "../../trial/plan-field";
import type { PlanContext, PlanForm } from "../../trial/plan-form";
import { type PlanOf, planForm } from "../../trial/plan-table";
import { lineFields, repeatsField } from "../../trial/shared-fields";

export const FENCES = {
  front: "In front of the stock, along X",
  left: "To the left of the stock, along Y",
} as const;

/** From the fence to the line as drawn, a share of the field. */
const AWAY_SHARE = 0.25;
const BASE_SHARE = 0.85;

function planFields(context: PlanContext) {
  const { machine } = context;
  const side = Math.min(machine.widthMm, machine.depthMm);
  return {
    fence: field.choice(FENCES, {
      label: "Straight edge",
      group: "Line",
      why: "A fence, or a rule that is squared to the table.",
      usual: "front",
    }),
    baseMm: field.length({
      label: "Distance between the points",
      group: "Line",
      why: "A longer base shows a smaller turn.",
      usual: Math.floor(BASE_SHARE * side),
      min: [20, "A shorter base shows no turn."],
      max: [side, "The field is no longer."],
    }),
    awayMm: field.length({
      label: "Distance of the line from the edge",
      group: "Line",
      usual: Math.round(AWAY_SHARE * side),
      min: [5, "The jaws need room between edge and line."],
    }),
    ...gaugeFields(context, "The distance must not be longer."),
    repeats: repeatsField(3),
    ...lineFields(machine),
  };
}

export type TurnPlan = PlanOf<ReturnType<typeof planFields>>;

export function turnPlan(context: PlanContext): PlanForm<TurnPlan> {
  const side = Math.min(context.machine.widthMm, context.machine.depthMm);
  return planForm(planFields(context), {
    faults: (plan) => [
      [
        "awayMm",
        plan.awayMm > side / 2
          ? `The line would lie beyond the middle of the field. Enter at most ${plain(side / 2)} mm.`
          : null,
      ],
    ],
  });
}
