/** Verdict on a field: what each setting leaves at the corner, alone against the tolerance. */
import { judgeErrors } from "../../measuring/judge-errors";
import { times } from "../../metrology/budget";
import { expandedUncertainty } from "../../metrology/measured";
import { fixed } from "../../metrology/quantity-text";
import type { History, RoundRecord } from "../../trial/history";
import { type MapTerm, termName } from "./map";
import { needsOf } from "./needs";
import { type FieldPlan, settableTerms } from "./plan";

export const errorLabel = (term: MapTerm) => `${termName(term)}, at the corner`;

function errorsIn(history: History<FieldPlan>, round: RoundRecord<FieldPlan>) {
  return (needsOf(history, round)?.needs ?? []).map(({ term, need }) => ({
    key: term,
    label: errorLabel(term),
    error: times(need, -1).quantity,
  }));
}

export const judgeField = judgeErrors<FieldPlan, MapTerm>({
  unit: "mm",
  errors: errorsIn,
  due: (plan) => settableTerms(plan).map(errorLabel),
  text: ({ key, error }) =>
    `${termName(key)} leaves ${fixed(Math.abs(error.value), 2)} ± ${fixed(expandedUncertainty(error), 2)} mm at the corner`,
  advice: {
    proved: "Change nothing.",
    "not proved": "Enter the new values from Correct, then burn another proof.",
    "cannot tell": "The uncertainty is too large for the tolerance. Take more readings.",
  },
  asFound: "largest error at the corner",
  became: ({ key }) => ({
    unchanged: {
      headline: `${termName(key)} has the same error as before.`,
      text: "Check that the new value is stored in the controller and loaded into the program that sends the drawing.",
    },
    doubled: {
      headline: `${termName(key)} has twice the error of the last burn.`,
      text: "The value moved the marks the wrong way. Check its sign, and that it was entered for this axis.",
    },
  }),
});
