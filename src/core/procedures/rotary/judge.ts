/** Verdict on the travel of the surface. */
import { judgeErrors, oneError } from "../../measuring/judge-errors";
import { expandedUncertainty } from "../../metrology/measured";
import { fixed } from "../../metrology/quantity-text";
import type { History, RoundRecord } from "../../trial/history";
import type { Finding } from "../../trial/outcome";
import { slipOf, wrongWay } from "./findings";
import type { RotaryPlan } from "./plan";
import { readTravel, type TravelRead } from "./read-travel";
import { errorOf } from "./solve";

export const judgeTravel = judgeErrors<RotaryPlan, "">({
  unit: "percent",
  errors: oneError("Error of travel", (history, round) => {
    const read = readTravel(history, round);
    return read && errorOf(read);
  }),
  text: ({ error }) =>
    `The travel is ${fixed(Math.abs(100 * error.value), 2)} ± ${fixed(100 * expandedUncertainty(error), 2)} % too ${error.value < 0 ? "short" : "long"}`,
  advice: {
    proved: "Change nothing.",
    "not proved": "Enter the new value from Correct, then burn another proof.",
    "cannot tell": "The uncertainty is too large for the tolerance. Take more readings, or burn a line once around.",
  },
  asFound: "error of travel",
  refuting: (history, last) => ofRead(history, last, (read) => wrongWay(last.plan, read)),
  // A workpiece that slips may measure right once. The finding stands beside the verdict.
  findings: (history, last) =>
    ofRead(history, last, (read) => slipOf(history, last.plan, read).filter((f) => f.tone === "needs you")),
  became: () => ({
    unchanged: {
      headline: "The travel is the same as before.",
      text: "Check that the new value is stored, in the profile in use. Restart the controller if necessary.",
    },
    doubled: {
      headline: "The error of the travel has doubled.",
      text: "The value was changed the wrong way. More steps or a smaller roller diameter make the travel longer.",
    },
  }),
});

function ofRead(history: History<RotaryPlan>, round: RoundRecord<RotaryPlan>, find: (read: TravelRead) => Finding[]) {
  const read = readTravel(history, round);
  return read ? find(read) : [];
}
