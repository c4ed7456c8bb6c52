/** Does it come out as long as it is drawn? And what went wrong where it does not. */

import type { Axis, MachineSpec } from "../../machine/machine-spec";
import { axesOf } from "../../measuring/axes-field";
import { headlineOf, readMore } from "../../measuring/plain-course";
import { becameFindings } from "../../measuring/what-became";
import type { Measured } from "../../metrology/measured";
import { expandedUncertainty } from "../../metrology/measured";
import { fixed, plain } from "../../metrology/quantity-text";
import { ruling, worstRuling } from "../../metrology/tolerance";
import type { History, RoundRecord } from "../../trial/history";
import type { Finding } from "../../trial/outcome";
import type { Verdict } from "../../trial/verdict";
import { wholeProof } from "../../trial/verdict";
import { axesRead } from "./observe";
import type { AxisScalePlan } from "./plan";
import { AXIS_SCALE } from "./setting";
import { errorOf } from "./solve";

const ADVICE = {
  proved: "Nothing to change.",
  "not proved": "Enter what this burn says, and prove it once more.",
  "cannot tell": "Tolerance and doubt overlap: read more often, or measure over a longer length.",
} as const;

export function judgeAxisScale(history: History<AxisScalePlan>): Verdict | null {
  const last = history.rounds.at(-1);
  if (!last || (last.purpose !== "proof" && last.purpose !== "check")) return null;
  const after = errorsIn(history, last);
  if (after.length === 0) return null;
  const before = (axis: Axis) =>
    history.rounds
      .filter((r) => r.n < last.n)
      .flatMap((r) => errorsIn(history, r))
      .findLast((e) => e.axis === axis)?.error ?? null;
  const lines = after.map(({ axis, error }) => ({
    label: lineOf(axis),
    before: before(axis),
    after: error,
    result: ruling(error, history.tolerance),
  }));
  const result = worstRuling(lines.map((l) => l.result));
  const worst = after.reduce((w, e) => (Math.abs(e.error.value) > Math.abs(w.error.value) ? e : w));
  const verdict: Verdict = {
    result,
    lines,
    tolerance: history.tolerance,
    unit: "percent",
    headline: headlineOf(last.purpose, result),
    advice: `${after.map(({ axis, error }) => errorText(axis, error)).join("; ")}. ${ADVICE[result]}`,
    ways: readMore(result, last, "every place"),
    asFound: { label: "error of the scale", quantity: worst.error },
    findings:
      last.purpose === "proof"
        ? after.flatMap((a) => whatHappened(history.machine, a.axis, before(a.axis), a.error))
        : [],
  };
  return wholeProof(history, verdict, axesOf(last.plan).map(lineOf));
}

function lineOf(axis: Axis): string {
  return `Error of length, ${axis.toUpperCase()}`;
}

function errorsIn(history: History<AxisScalePlan>, round: RoundRecord<AxisScalePlan>) {
  return axesRead(history, round).map((read) => ({ axis: read.axis, error: errorOf(read) }));
}

function errorText(axis: Axis, error: Measured): string {
  return `${axis.toUpperCase()} comes out ${fixed(Math.abs(100 * error.value), 3)} ± ${fixed(100 * expandedUncertainty(error), 3)} % too ${error.value < 0 ? "short" : "long"}`;
}

function whatHappened(
  { held, name: machine }: MachineSpec,
  axis: Axis,
  before: Measured | null,
  after: Measured,
): Finding[] {
  if (!before) return [];
  const name = axis.toUpperCase();
  const says = {
    unchanged: {
      headline: `${name} is as it was.`,
      text: "Check that the new value is stored for the right axis and that the correction is switched on. Restart the controller if necessary.",
    },
    doubled: {
      headline: `${name} is off twice as much as before.`,
      text: `The error grew from ${plain(100 * before.value, 3)} % to ${plain(100 * after.value, 3)} %. ${held[AXIS_SCALE[axis]]?.senseAssumed ? `A larger value has the other effect than assumed. Enter the value from Correct, and enter the effect on the page of ${machine}.` : `A larger value has the other effect than entered on the page of ${machine}. Change it there, then begin a new trial.`}`,
    },
  };
  return becameFindings(before, after, says, (became) => `${became} ${axis}`);
}
