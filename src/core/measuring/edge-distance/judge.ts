/** Verdict on the distances of the lines from their edges. */
import type { Axis } from "../../machine/machine-kind";
import { expandedUncertainty } from "../../metrology/measured";
import { fixed } from "../../metrology/quantity-text";
import type { History, RoundRecord } from "../../trial/history";
import { axesOf } from "../axes-field";
import { judgeErrors } from "../judge-errors";
import { type EdgesRead, errorsRead } from "./read-edges";
import { type EdgeTerms, sideOf } from "./terms";

/** @param edge what is measured from: `edge`, `stop` */
export function judgeEdges<P extends EdgeTerms>(
  edge: string,
  edgesIn: (history: History<P>, round: RoundRecord<P>) => EdgesRead | null,
) {
  const lineOf = (plan: P, axis: Axis) => `Error from the ${sideOf(plan, axis)} ${edge}`;
  return judgeErrors<P, Axis>({
    unit: "mm",
    errors: (history, round) => {
      const read = edgesIn(history, round);
      return (read ? errorsRead(read) : []).map(({ axis, error }) => ({
        key: axis,
        label: lineOf(round.plan, axis),
        error: error.quantity,
      }));
    },
    due: (plan) => axesOf(plan).map((axis) => lineOf(plan, axis)),
    text: ({ key, error }) =>
      `${key.toUpperCase()} is ${fixed(Math.abs(error.value), 2)} ± ${fixed(expandedUncertainty(error), 2)} mm too ${error.value < 0 ? "near" : "far"}`,
    advice: {
      proved: "Change nothing.",
      "not proved": "Enter the new value from Correct, then burn another proof.",
      "cannot tell": "The uncertainty is too large for the tolerance. Take more readings.",
    },
    asFound: `distance from the ${edge}s`,
    became: ({ key }) => ({
      unchanged: {
        headline: `${key.toUpperCase()} has the same error as before.`,
        text: "Check that the new value is stored for this axis. Home the machine after the change.",
      },
      doubled: {
        headline: `${key.toUpperCase()} has twice the error of the last burn.`,
        text: "The change moved the marks the wrong way. Enter the value from Correct.",
      },
    }),
  });
}
