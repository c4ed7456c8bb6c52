/** Do the lines lie where they are drawn? */

import { AXES, type Axis } from "../../machine/machine-spec";
import type { Measured } from "../../metrology/measured";
import { expandedUncertainty } from "../../metrology/measured";
import { fixed } from "../../metrology/quantity-text";
import { ruling, worstRuling } from "../../metrology/tolerance";
import type { History, RoundRecord } from "../../trial/history";
import type { Verdict } from "../../trial/verdict";
import { wholeProof } from "../../trial/verdict";
import { axesOf } from "../axes-field";
import { headlineOf, readMore } from "../plain-course";
import { becameFindings } from "../what-became";
import type { EdgesRead } from "./read-edges";
import { type EdgeTerms, sideOf } from "./terms";

const ADVICE = {
  proved: "Nothing to change.",
  "not proved": "Enter what this burn says, and prove it once more.",
  "cannot tell": "Tolerance and doubt overlap: read more often.",
} as const;

/** @param edge what is measured from: `edge`, `stop` */
export function judgeEdges<P extends EdgeTerms>(
  history: History<P>,
  edge: string,
  edgesIn: (history: History<P>, round: RoundRecord<P>) => EdgesRead | null,
): Verdict | null {
  const last = history.rounds.at(-1);
  if (!last || (last.purpose !== "proof" && last.purpose !== "check")) return null;
  const errorsIn = (round: RoundRecord<P>) => edgesIn(history, round)?.errors ?? {};
  const errors = errorsIn(last);
  const after = AXES.flatMap((axis) => {
    const error = errors[axis]?.quantity;
    return error ? [{ axis, error }] : [];
  });
  if (after.length === 0) return null;
  const before = (axis: Axis): Measured | null =>
    history.rounds
      .filter((r) => r.n < last.n)
      .flatMap((r) => errorsIn(r)[axis]?.quantity ?? [])
      .at(-1) ?? null;
  const lineOf = (axis: Axis) => `Error from the ${sideOf(last.plan, axis)} ${edge}`;
  const lines = after.map(({ axis, error }) => ({
    label: lineOf(axis),
    before: before(axis),
    after: error,
    result: ruling(error, history.tolerance),
  }));
  const result = worstRuling(lines.map((l) => l.result));
  const worst = after.reduce((w, e) => (Math.abs(e.error.value) > Math.abs(w.error.value) ? e : w));
  const said = after.map(
    ({ axis, error }) =>
      `${axis.toUpperCase()} lies ${fixed(Math.abs(error.value), 2)} ± ${fixed(expandedUncertainty(error), 2)} mm too ${error.value < 0 ? "near" : "far"}`,
  );
  const verdict: Verdict = {
    result,
    lines,
    tolerance: history.tolerance,
    unit: "mm",
    findings:
      last.purpose === "proof"
        ? after.flatMap(({ axis, error }) =>
            becameFindings(before(axis), error, wordsOf(axis), (became) => `${became} ${axis}`),
          )
        : [],
    headline: headlineOf(last.purpose, result),
    advice: `${said.join("; ")}. ${ADVICE[result]}`,
    ways: readMore(result, last, "every place"),
    asFound: { label: `distance from the ${edge}s`, quantity: worst.error },
  };
  return wholeProof(history, verdict, axesOf(last.plan).map(lineOf));
}

function wordsOf(axis: Axis) {
  const name = axis.toUpperCase();
  return {
    unchanged: {
      headline: `${name} is as far off as before.`,
      text: "Check that the new value is stored for this axis, and that the machine was homed after the change.",
    },
    doubled: {
      headline: `${name} is off twice as much as before.`,
      text: "A larger value moves the marks the other way. Enter the value from Correct.",
    },
  };
}
