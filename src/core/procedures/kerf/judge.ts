/** Does the offset hold? What is left of it, and what went wrong where it does not. */
import { expandedUncertainty } from "../../fitting/student-t";
import type { Measured } from "../../metrology/measured";
import { shownLength } from "../../metrology/quantity-text";
import { ruling } from "../../metrology/tolerance";
import type { History } from "../contract";
import type { Finding } from "../outcome";
import { headlineOf, readMore } from "../plain-course";
import { lengthUnitOf } from "../shown-unit";
import type { Verdict } from "../verdict";
import { whatBecame } from "../what-became";
import { leftIn } from "./found";
import { isMateWay, type KerfPlan } from "./plan-type";

export function judgeKerf(history: History<KerfPlan>): Verdict | null {
  const last = history.rounds.at(-1);
  if (!last || (last.purpose !== "proof" && last.purpose !== "check")) return null;
  const after = leftIn(history, last);
  if (!after) return null;
  const isMates = isMateWay(last.plan.way);
  // A ladder that was laid out to find it has no offset that was meant.
  const before = isMates
    ? null
    : (history.rounds
        .filter((r) => r.n < last.n)
        .map((r) => leftIn(history, r))
        .findLast((q) => q !== null) ?? null);
  const result = ruling(after, history.tolerance);
  const unit = lengthUnitOf(history);
  const size = shownLength(Math.abs(after.value), unit, 3);
  const doubt = shownLength(expandedUncertainty(after), unit, 3);
  return {
    ...{ result, tolerance: history.tolerance, unit: "mm" },
    headline: headlineOf(last.purpose, result),
    advice: `The offset is ${size} ± ${doubt} a side too ${after.value < 0 ? "small" : "large"}. ${ADVICE[result]}`,
    lines: [{ label: isMates ? "Offset used minus snug" : "Offset used minus half the kerf", before, after, result }],
    ways: readMore(
      result,
      last,
      isMates ? "every mate" : "every size",
      isMates ? "putting them together" : "setting the gauge",
    ),
    asFound: { label: "error of the offset per side", quantity: after },
    findings: last.purpose === "proof" && before ? whatHappened(before, after) : [],
  };
}

const ADVICE = {
  proved: "Nothing to change.",
  "not proved": "Use what this burn says, and prove it once more.",
  "cannot tell": "Tolerance and doubt overlap: read again, or cut more finely.",
} as const;

function whatHappened(before: Measured, after: Measured): Finding[] {
  const became = whatBecame(before, after);
  if (!became) return [];
  const says = {
    unchanged: {
      headline: "The square came out as if it had no offset.",
      text: "The file of the first burn was cut again, or its size was set back on its way to the machine.",
    },
    doubled: {
      headline: "The offset acts the wrong way.",
      text: "A program on the way shrank what was grown: is an offset for the kerf still switched on there?",
    },
  };
  return [{ id: became, tone: "needs you", site: null, ...says[became] }];
}
