/** What is chosen before the burn: how long the bar is drawn. */
import { z } from "zod";
import type { FieldSpec, PlanForm } from "../../trial/plan-form";

export type SampleBarPlan = { lengthMm: number };

/** The setting that is corrected: what the machine adds to every length. */
export const SAMPLE_BAR = "sample bar offset";

const LONGEST_MM = 60;

const schema = z.object({
  lengthMm: z
    .number({ error: "Give the length, for example 40 mm." })
    .min(5, "A bar of less than 5 mm is hard to measure.")
    .max(LONGEST_MM, `${LONGEST_MM} mm is the longest that fits the stock.`),
});

const fields: FieldSpec[] = [
  {
    key: "lengthMm",
    label: "Length",
    group: "Bar",
    kind: "quantity",
    dimension: "length",
    unit: "mm",
    why: "As drawn, from end to end.",
  },
];

export function planForm(): PlanForm<SampleBarPlan> {
  return { schema, defaults: { lengthMm: 40 }, fields };
}
