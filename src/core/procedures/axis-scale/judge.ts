/** Verdict on the scale of the axes, and the likely cause where it is not proved. */
import type { Axis } from "../../machine/machine-kind";
import { axesOf } from "../../measuring/axes-field";
import { judgeErrors } from "../../measuring/judge-errors";
import { expandedUncertainty } from "../../metrology/measured";
import { fixed } from "../../metrology/quantity-text";
import { axesRead } from "./observe";
import type { AxisScalePlan } from "./plan";
import { AXIS_SCALE } from "./setting";
import { errorOf } from "./solve";

export const judgeAxisScale = judgeErrors<AxisScalePlan, Axis>({
  unit: "percent",
  errors: (history, round) =>
    axesRead(history, round).map((read) => ({ key: read.axis, label: lineOf(read.axis), error: errorOf(read) })),
  due: (plan) => axesOf(plan).map(lineOf),
  text: ({ key, error }) =>
    `${key.toUpperCase()} is ${fixed(Math.abs(100 * error.value), 3)} ± ${fixed(100 * expandedUncertainty(error), 3)} % too ${error.value < 0 ? "short" : "long"}`,
  advice: {
    proved: "Change nothing.",
    "not proved": "Enter the new value from Correct, then burn another proof.",
    "cannot tell": "The uncertainty is too large for the tolerance. Take more readings, or measure a longer length.",
  },
  asFound: "error of the scale",
  became: ({ key }, { machine: { held, name } }) => ({
    unchanged: {
      headline: `${key.toUpperCase()} has the same error as before.`,
      text: "Check that the new value is stored for the right axis and that the correction is switched on. Restart the controller if necessary.",
    },
    doubled: {
      headline: `${key.toUpperCase()} has twice the error of the last burn.`,
      text: held[AXIS_SCALE[key]]?.senseAssumed
        ? `A larger value has the other effect than assumed. Enter the value from Correct, and enter the effect on the page of ${name}.`
        : `A larger value has the other effect than entered on the page of ${name}. Change it there, then begin a new trial.`,
    },
  }),
});

function lineOf(axis: Axis): string {
  return `Error of length, ${axis.toUpperCase()}`;
}
