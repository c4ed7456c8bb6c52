/** Verdict on an offset per side, and the likely cause where it is not proved. */
import { AXES, type Axis } from "../../machine/machine-kind";
import { judgeErrors, type Remaining } from "../../measuring/judge-errors";
import { expandedUncertainty, type Measured } from "../../metrology/measured";
import { shownLength } from "../../metrology/quantity-text";
import { ruling } from "../../metrology/tolerance";
import { lengthUnitOf } from "../../trial/decisions";
import type { History, RoundRecord } from "../../trial/history";
import type { Finding } from "../../trial/outcome";
import type { Verdict } from "../../trial/verdict";
import { leftAlong, leftIn } from "./found";
import { isMateWay, type KerfPlan } from "./plan";

type Key = Axis | "sizes" | `mates of burn ${number}`;

export const judgeSizes = judgeErrors<KerfPlan, Key>({
  unit: "mm",
  errors: (history, round) => (isMateWay(round.plan.way) ? meanLeft(history, round) : leftByAxis(history, round)),
  said: meanLeft,
  due: ({ way }) => (isMateWay(way) ? [] : AXES.map(lineOf)),
  text: ({ error }, history) => {
    const shown = (mm: number) => shownLength(mm, lengthUnitOf(history), 3);
    return `The offset is ${shown(Math.abs(error.value))} ± ${shown(expandedUncertainty(error))} per side too ${error.value < 0 ? "small" : "large"}`;
  },
  advice: {
    proved: "Change nothing.",
    "not proved": "Use the new offset from Correct, then cut another proof.",
    "cannot tell": "The uncertainty is too large for the tolerance. Take more readings, or cut pairs in smaller steps.",
  },
  asFound: "error of the offset per side",
  findings: (history, last, lines) => (axesDiffer(history, last, lines) ? [APART] : []),
  became: () => ({
    unchanged: {
      headline: "The square has the size of a cut without an offset.",
      text: "Check that the file of this proof was cut, and that no program changed its size.",
    },
    doubled: {
      headline: "The offset acts the wrong way.",
      text: "Switch off the kerf offset in every other program, then cut the proof again.",
    },
  }),
});

/** Pairs that were laid out to find the offset had none that was meant: they are compared with no other burn. */
function meanLeft(history: History<KerfPlan>, round: RoundRecord<KerfPlan>): Remaining<Key>[] {
  const error = leftIn(history, round);
  if (!error) return [];
  const key = isMateWay(round.plan.way) ? (`mates of burn ${round.n}` as const) : "sizes";
  return [{ key, label: "Offset used minus snug", error }];
}

/** Each axis is judged alone. The mean would hide errors of opposite sign. */
function leftByAxis(history: History<KerfPlan>, round: RoundRecord<KerfPlan>): Remaining<Key>[] {
  const along = leftAlong(history, round);
  return AXES.flatMap((axis) => {
    const error: Measured | undefined = along[axis];
    return error ? [{ key: axis, label: lineOf(axis), error }] : [];
  });
}

function lineOf(axis: Axis): string {
  return `Offset used minus half the kerf along ${axis.toUpperCase()}`;
}

function axesDiffer(history: History<KerfPlan>, last: RoundRecord<KerfPlan>, lines: Verdict["lines"]): boolean {
  const mean = leftIn(history, last);
  return (
    lines.length === AXES.length &&
    lines.some((l) => l.result === "not proved") &&
    mean !== null &&
    ruling(mean, history.tolerance) === "proved"
  );
}

const APART: Finding = {
  id: "axes apart",
  tone: "needs you",
  site: null,
  headline: "The cut is wider along one axis than along the other.",
  text: "One offset per side cannot serve both. Align the beam and the nozzle, check the focus, then measure the kerf again.",
};
