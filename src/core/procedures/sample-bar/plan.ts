/** What is chosen before the burn: how long the bar is drawn. */
import { field } from "../../trial/plan-field";
import { type PlanOf, planForm } from "../../trial/plan-table";

/** The setting that is corrected: what the machine adds to every length. */
export const SAMPLE_BAR = "sample bar offset";

const LONGEST_MM = 60;

const FIELDS = {
  lengthMm: field.length({
    label: "Length",
    group: "Bar",
    why: "As drawn, from end to end.",
    usual: 40,
    min: [5, "A shorter bar is hard to measure."],
    max: [LONGEST_MM, "A longer bar does not fit on the stock."],
  }),
};

export type SampleBarPlan = PlanOf<typeof FIELDS>;

export const sampleBarPlan = () => planForm(FIELDS);
