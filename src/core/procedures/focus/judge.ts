/** Verdict on a focus height: the focus that a burn shows, less the height that was set for it. */
import { judgeErrors, oneError } from "../../measuring/judge-errors";
import { numberIn } from "../../measuring/number-correction";
import type { Measured } from "../../metrology/measured";
import { expandedUncertainty } from "../../metrology/measured";
import { plain } from "../../metrology/quantity-text";
import type { History, RoundRecord } from "../../trial/history";
import { burnWayOf, foundIn } from "./burn-ways";
import { FOCUS_HEIGHT, type FocusPlan } from "./plan";

/** Half of the last digit shown. */
const SHOWN_MM = 0.005;

export const judgeFocus = judgeErrors<FocusPlan, "">({
  unit: "mm",
  errors: oneError("Focus from the height set", leftIn),
  text: ({ error }) => `The focus is ${placeText(error)}`,
  advice: {
    proved: "Change nothing.",
    "not proved": "Set the height from Correct, then burn another proof.",
    "cannot tell": "The uncertainty is too large for the tolerance. Take more readings, or burn a smaller step.",
  },
  asFound: "focus from the height set",
  ways: (last) => burnWayOf(last.plan).waysOut(last),
  became: () => ({
    unchanged: {
      headline: "The error of the focus is the same as before.",
      text: "Set the new height again. Check that the machine does not return to the old height.",
    },
    doubled: {
      headline: "The error of the focus has doubled.",
      text: "The height was changed the wrong way. Check which numbers mean a larger distance.",
    },
  }),
});

function placeText(left: Measured): string {
  const uncertainty = plain(expandedUncertainty(left), 2);
  return Math.abs(left.value) < SHOWN_MM
    ? `at the set height, ± ${uncertainty} mm`
    : `${plain(Math.abs(left.value), 2)} ± ${uncertainty} mm ${left.value < 0 ? "below" : "above"} the set height`;
}

/** Focus of a round minus the height that was set while it was burned, or to which the machine came by itself. */
function leftIn(history: History<FocusPlan>, round: RoundRecord<FocusPlan>): Measured | null {
  const held = round.plan.setIn === "stored" ? round.plan.homedMm : numberIn(round, FOCUS_HEIGHT);
  const { chosen } = foundIn(history, round);
  if (held === undefined || held === null || !chosen) return null;
  return { ...chosen.found.quantity, value: chosen.found.quantity.value - held };
}
