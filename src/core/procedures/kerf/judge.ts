/** Does the offset hold? What is left of it, and what went wrong where it does not. */

import { AXES, type Axis } from "../../machine/machine-spec";
import { headlineOf, readMore } from "../../measuring/plain-course";
import { becameFindings } from "../../measuring/what-became";
import type { Measured } from "../../metrology/measured";
import { expandedUncertainty } from "../../metrology/measured";
import { shownLength } from "../../metrology/quantity-text";
import { ruling, worstRuling } from "../../metrology/tolerance";
import { lengthUnitOf } from "../../trial/decisions";
import type { History } from "../../trial/history";
import type { Finding } from "../../trial/outcome";
import type { Verdict } from "../../trial/verdict";
import { wholeProof } from "../../trial/verdict";
import { leftAlong, leftIn } from "./found";
import { isMateWay, type KerfPlan } from "./plan";

export function judgeSizes(history: History<KerfPlan>): Verdict | null {
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
  const along = leftAlong(history, last);
  const axes = AXES.filter((axis) => along[axis] !== undefined);
  // Each axis is judged alone. The mean would hide errors of opposite sign.
  const lines: Verdict["lines"] = isMates
    ? [{ label: "Offset used minus snug", before, after, result: ruling(after, history.tolerance) }]
    : axes.flatMap((axis) => {
        const error = along[axis];
        if (!error) return [];
        const earlier = history.rounds.flatMap((r) => (r.n < last.n ? (leftAlong(history, r)[axis] ?? []) : [])).at(-1);
        return [
          { label: lineOf(axis), before: earlier ?? null, after: error, result: ruling(error, history.tolerance) },
        ];
      });
  const result = worstRuling(lines.map((l) => l.result));
  const differ =
    AXES.every((axis) => along[axis]) &&
    lines.some((l) => l.result === "not proved") &&
    ruling(after, history.tolerance) === "proved";
  const unit = lengthUnitOf(history);
  const size = shownLength(Math.abs(after.value), unit, 3);
  const doubt = shownLength(expandedUncertainty(after), unit, 3);
  const verdict: Verdict = {
    result,
    tolerance: history.tolerance,
    unit: "mm",
    lines,
    headline: headlineOf(last.purpose, result),
    advice: `The offset is ${size} ± ${doubt} a side too ${after.value < 0 ? "small" : "large"}. ${ADVICE[result]}`,
    ways: readMore(
      result,
      last,
      isMates ? "every mate" : "every size",
      isMates ? "putting them together" : "setting the gauge",
    ),
    asFound: { label: "error of the offset per side", quantity: after },
    findings: [...(differ ? [APART] : []), ...(last.purpose === "proof" && before ? whatHappened(before, after) : [])],
  };
  return wholeProof(history, verdict, isMates ? [] : AXES.map(lineOf));
}

function lineOf(axis: Axis): string {
  return `Offset used minus half the kerf along ${axis.toUpperCase()}`;
}

const APART: Finding = {
  id: "axes apart",
  tone: "needs you",
  site: null,
  headline: "The cut is wider along one axis than along the other.",
  text: "One offset per side cannot serve both. Align the beam and the nozzle, check the focus, then measure the kerf again.",
};

const ADVICE = {
  proved: "Nothing to change.",
  "not proved": "Use what this burn says, and prove it once more.",
  "cannot tell": "Tolerance and doubt overlap: read again, or cut more finely.",
} as const;

function whatHappened(before: Measured, after: Measured): Finding[] {
  return becameFindings(before, after, {
    unchanged: {
      headline: "The square came out as if it had no offset.",
      text: "The file of the first burn was cut again, or its size was set back on its way to the machine.",
    },
    doubled: {
      headline: "The offset acts the wrong way.",
      text: "A program on the way shrank what was grown: is an offset for the kerf still switched on there?",
    },
  });
}
