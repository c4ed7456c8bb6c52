/** What the chosen cell lacks against the best, as a quantity with its uncertainty. */
import type { ArrayAnswer } from "../../marking/array-answer";
import { type Budgeted, joined } from "../../metrology/budget";

/** Half width of the middle 95 of 100, in SD of a normal distribution. */
export const HALF_95 = 1.96;
/** Nobody can see less. */
const LEAST_SD = 1e-4;

/** Mean of what it lacks; the uncertainty reaches to what it lacks at most in 95 of 100. */
export function shortBudget(short: ReturnType<ArrayAnswer["shortOf"]>): Budgeted {
  return joined(short.mean, [
    {
      id: "response",
      label: "Scatter of the scores about the response",
      kind: "A",
      standardUncertainty: Math.max(LEAST_SD, (short.most - short.mean) / HALF_95),
      degreesOfFreedom: "infinite",
    },
  ]);
}
