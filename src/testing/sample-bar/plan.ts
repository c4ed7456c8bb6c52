/** What is chosen before the burn. */
import { field } from "../../core/trial/plan-field";
import type { PlanContext } from "../../core/trial/plan-form";
import { type PlanOf, planForm } from "../../core/trial/plan-table";
import { lineFields, middleOf, placeFaults, placeFields, repeatsField } from "../../core/trial/shared-fields";

/** Around the bar, mm. */
export const EDGE_MM = 10;
export const BAR_HEIGHT_MM = 12;

function planFields({ machine }: PlanContext) {
  const usual = middleOf(machine, stockOf({ lengthMm: 100 }));
  return {
    lengthMm: field.length({
      label: "Length",
      group: "Bar",
      why: "As drawn, from line to line.",
      usual: 100,
      min: [20, "A shorter bar tells little."],
      max: [140, "Calipers reach no further."],
    }),
    repeats: repeatsField(3),
    ...lineFields(machine),
    ...placeFields(usual),
  };
}

export type SampleBarPlan = PlanOf<ReturnType<typeof planFields>>;

export function sampleBarPlan(context: PlanContext) {
  return planForm(planFields(context), { faults: (plan) => placeFaults(plan, stockOf(plan), context.machine) });
}

export function stockOf({ lengthMm }: Pick<SampleBarPlan, "lengthMm">) {
  return { widthMm: lengthMm + 2 * EDGE_MM, heightMm: BAR_HEIGHT_MM + 2 * EDGE_MM };
}
