/** Does the surface go as far as it is sent? */
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
    `It goes ${fixed(Math.abs(100 * error.value), 2)} ± ${fixed(100 * expandedUncertainty(error), 2)} % too ${error.value < 0 ? "short" : "far"}`,
  advice: {
    proved: "Nothing to change.",
    "not proved": "Enter what this burn says, and prove it once more.",
    "cannot tell": "Tolerance and doubt overlap: read more often, or take the line once around.",
  },
  asFound: "error of travel",
  refuting: (history, last) => ofRead(history, last, (read) => wrongWay(last.plan, read)),
  // A part that slips may be right once: it is said beside the verdict.
  findings: (history, last) =>
    ofRead(history, last, (read) => slipOf(history, last.plan, read).filter((f) => f.tone === "needs you")),
  became: () => ({
    unchanged: {
      headline: "It goes as far as before.",
      text: "The new number did not reach the rotary: another profile of the controller is chosen, or it wants to be started again after it.",
    },
    doubled: {
      headline: "It is off twice as much as before.",
      text: "The number was changed the wrong way: more steps go farther, a thicker roller goes less far.",
    },
  }),
});

function ofRead(history: History<RotaryPlan>, round: RoundRecord<RotaryPlan>, find: (read: TravelRead) => Finding[]) {
  const read = readTravel(history, round);
  return read ? find(read) : [];
}
