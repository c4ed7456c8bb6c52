/** Do the lines lie where they are drawn? */
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
      `${key.toUpperCase()} lies ${fixed(Math.abs(error.value), 2)} ± ${fixed(expandedUncertainty(error), 2)} mm too ${error.value < 0 ? "near" : "far"}`,
    advice: {
      proved: "Nothing to change.",
      "not proved": "Enter what this burn says, and prove it once more.",
      "cannot tell": "Tolerance and doubt overlap: read more often.",
    },
    asFound: `distance from the ${edge}s`,
    became: ({ key }) => ({
      unchanged: {
        headline: `${key.toUpperCase()} is as far off as before.`,
        text: "Check that the new value is stored for this axis, and that the machine was homed after the change.",
      },
      doubled: {
        headline: `${key.toUpperCase()} is off twice as much as before.`,
        text: "A larger value moves the marks the other way. Enter the value from Correct.",
      },
    }),
  });
}
