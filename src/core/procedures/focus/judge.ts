/** Does the new height hold? Where the ladder around it has its focus, against the height that was set. */
import { judgeErrors, oneError } from "../../measuring/judge-errors";
import { numberIn } from "../../measuring/number-correction";
import type { Measured } from "../../metrology/measured";
import { expandedUncertainty } from "../../metrology/measured";
import { plain } from "../../metrology/quantity-text";
import type { History, RoundRecord } from "../../trial/history";
import { burnWayOf, foundIn } from "./burn-ways";
import { FOCUS_HEIGHT, type FocusPlan } from "./plan";

/** Half of the last digit that is said. */
const SHOWN_MM = 0.005;

export const judgeFocus = judgeErrors<FocusPlan, "">({
  unit: "mm",
  errors: oneError("Focus from the height set", leftIn),
  text: ({ error }) => `The focus lies ${placeText(error)}`,
  advice: {
    proved: "Nothing to change.",
    "not proved": "Set it to what this burn says, and prove it once more.",
    "cannot tell": "Tolerance and doubt overlap: look again, or burn more finely.",
  },
  asFound: "focus from the height set",
  teller: "This burn",
  ways: (last) => burnWayOf(last.plan).waysOut(last),
  became: () => ({
    unchanged: {
      headline: "The focus is as far off as before.",
      text: "Check that the new height is set, and that the machine did not return to the old one.",
    },
    doubled: {
      headline: "The focus is twice as far off as before.",
      text: "The height was changed the wrong way. Check which way the numbers count.",
    },
  }),
});

function placeText(left: Measured): string {
  const doubt = plain(expandedUncertainty(left), 2);
  return Math.abs(left.value) < SHOWN_MM
    ? `at the height that is set, ± ${doubt} mm`
    : `${plain(Math.abs(left.value), 2)} ± ${doubt} mm ${left.value < 0 ? "below" : "above"} the height that is set`;
}

/** Focus of a round minus the height that was set while it was burned, or to which the machine came by itself. */
function leftIn(history: History<FocusPlan>, round: RoundRecord<FocusPlan>): Measured | null {
  const held = round.plan.setIn === "stored" ? round.plan.homedMm : numberIn(round, FOCUS_HEIGHT);
  const { chosen } = foundIn(history, round);
  if (held === undefined || held === null || !chosen) return null;
  return { ...chosen.found.quantity, value: chosen.found.quantity.value - held };
}
