/** Does the new height hold? Where the ladder around it has its focus, against the height that was set. */

import { numberIn } from "../../measuring/number-correction";
import { headlineOf } from "../../measuring/plain-course";
import { becameFindings } from "../../measuring/what-became";
import type { Measured } from "../../metrology/measured";
import { expandedUncertainty } from "../../metrology/measured";
import { plain } from "../../metrology/quantity-text";
import { ruling } from "../../metrology/tolerance";
import type { History, RoundRecord } from "../../trial/history";
import type { Verdict } from "../../trial/verdict";
import { wholeProof } from "../../trial/verdict";
import { burnWayOf, foundIn } from "./burn-ways";
import { FOCUS_HEIGHT, type FocusPlan } from "./plan";

/** Half of the last digit that is said. */
const SHOWN_MM = 0.005;

export function judgeFocus(history: History<FocusPlan>): Verdict | null {
  const last = history.rounds.at(-1);
  if (!last || (last.purpose !== "proof" && last.purpose !== "check")) return null;
  const after = leftIn(history, last);
  if (!after) return null;
  const earlier = history.rounds.findLast((r) => r.n < last.n && leftIn(history, r) !== null);
  const before = earlier ? leftIn(history, earlier) : null;
  const result = ruling(after, history.tolerance);
  const doubt = plain(expandedUncertainty(after), 2);
  const side = after.value < 0 ? "below" : "above";
  const found =
    Math.abs(after.value) < SHOWN_MM
      ? `at the height that is set, ± ${doubt} mm`
      : `${plain(Math.abs(after.value), 2)} ± ${doubt} mm ${side} the height that is set`;
  return wholeProof(
    history,
    {
      result,
      tolerance: history.tolerance,
      unit: "mm",
      findings: last.purpose === "proof" ? becameFindings(before, after, BECAME) : [],
      headline: headlineOf(last.purpose, result, "This burn"),
      advice: `The focus lies ${found}. ${ADVICE[result]}`,
      lines: [{ label: "Focus from the height set", before, after, result }],
      ways: result === "cannot tell" ? burnWayOf(last.plan).waysOut(last) : [],
      asFound: { label: "focus from the height set", quantity: after },
    },
    [],
  );
}

const ADVICE = {
  proved: "Nothing to change.",
  "not proved": "Set it to what this burn says, and prove it once more.",
  "cannot tell": "Tolerance and doubt overlap: look again, or burn more finely.",
} as const;

const BECAME = {
  unchanged: {
    headline: "The focus is as far off as before.",
    text: "Check that the new height is set, and that the machine did not return to the old one.",
  },
  doubled: {
    headline: "The focus is twice as far off as before.",
    text: "The height was changed the wrong way. Check which way the numbers count.",
  },
};

/** Focus of a round minus the height that was set while it was burned, or to which the machine came by itself. */
function leftIn(history: History<FocusPlan>, round: RoundRecord<FocusPlan>): Measured | null {
  const held = round.plan.setIn === "stored" ? round.plan.homedMm : numberIn(round, FOCUS_HEIGHT);
  const { chosen } = foundIn(history, round);
  if (held === undefined || held === null || !chosen) return null;
  return { ...chosen.found.quantity, value: chosen.found.quantity.value - held };
}
