/** Verdict on the angle between the axes. */
import { judgeErrors, oneError } from "../../measuring/judge-errors";
import { expandedUncertainty } from "../../metrology/measured";
import { fixed } from "../../metrology/quantity-text";
import { leanOf } from "./lean";
import type { SquarenessPlan } from "./plan";

export const judgeSquareness = judgeErrors<SquarenessPlan, "">({
  unit: "mmPerM",
  errors: oneError("Lean of Y toward X", (history, round) => leanOf(history, round)?.lean.quantity),
  text: ({ error }) =>
    `The back leans to the ${error.value < 0 ? "left" : "right"} by ${fixed(1000 * Math.abs(error.value), 2)} ± ${fixed(1000 * expandedUncertainty(error), 2)} mm per metre`,
  advice: {
    proved: "Change nothing.",
    "not proved": "Shift the beam as Correct says, then burn another proof.",
    "cannot tell": "The uncertainty is too large for the tolerance. Take more readings, or burn a larger rectangle.",
  },
  asFound: "lean of Y toward X",
  became: () => ({
    unchanged: {
      headline: "The lean is the same as before.",
      text: "Check whether homing pulls the beam back to its stops. Shift the stop or the belt on that side.",
    },
    doubled: {
      headline: "The lean has doubled.",
      text: "The beam was shifted the wrong way. Shift it by twice as much in the other direction.",
    },
  }),
});
