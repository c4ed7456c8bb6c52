/** Verdict on a field: what each setting leaves at the corner, alone against the tolerance. */
import { judgeErrors, type Remaining } from "../../measuring/judge-errors";
import { times } from "../../metrology/budget";
import { expandedUncertainty } from "../../metrology/measured";
import { fixed } from "../../metrology/quantity-text";
import type { History, RoundRecord } from "../../trial/history";
import { FARTHEST, worstOf } from "./found";
import { type MapTerm, termError, termName } from "./map";
import { needsOf } from "./needs";
import { type FieldPlan, settableTerms, takenAs } from "./plan";
import { foundIn } from "./ways";

const WORST = "worst";
type Key = MapTerm | typeof WORST;

function errorsIn(history: History<FieldPlan>, round: RoundRecord<FieldPlan>): Remaining<Key>[] {
  if (takenAs(round.plan) !== "coefficients") {
    const found = foundIn(history, round);
    return found ? [{ key: WORST, label: FARTHEST, error: worstOf(found).quantity }] : [];
  }
  return (needsOf(history, round)?.needs ?? []).map(({ term, need }) => ({
    key: term,
    label: termError(term),
    error: times(need, -1).quantity,
  }));
}

/** The whole field is off by so much; or a setting leaves so much at the corner. */
const nameOf = (key: Key) => (key === WORST ? "The farthest point" : termName(key));

export const judgeField = judgeErrors<FieldPlan, Key>({
  unit: "mm",
  errors: errorsIn,
  due: (plan) => (takenAs(plan) === "coefficients" ? settableTerms(plan).map(termError) : [FARTHEST]),
  text: ({ key, error }) => {
    const size = `${fixed(Math.abs(error.value), 3)} ± ${fixed(expandedUncertainty(error), 3)} mm`;
    return key === WORST ? `The farthest point is ${size} off` : `${termName(key)} leaves ${size} at the corner`;
  },
  advice: {
    proved: "Change nothing.",
    "not proved": "Enter the new values from Correct, then burn another proof.",
    "cannot tell": "The uncertainty is too large for the tolerance. Take more readings.",
  },
  asFound: "largest error of the field",
  became: ({ key }) => ({
    unchanged: {
      headline: `${nameOf(key)} has the same error as before.`,
      text: "Check that the new value is stored in the controller and loaded into the program that sends the drawing.",
    },
    doubled: {
      headline: `${nameOf(key)} has twice the error of the last burn.`,
      text: "The new values moved the marks the wrong way. Check their sign, and that they were entered for this axis.",
    },
  }),
});
