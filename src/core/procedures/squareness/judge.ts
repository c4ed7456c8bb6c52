/** Is it square enough? */
import { judgeErrors, oneError } from "../../measuring/judge-errors";
import { expandedUncertainty } from "../../metrology/measured";
import { fixed } from "../../metrology/quantity-text";
import { leanOf } from "./lean";
import type { SquarenessPlan } from "./plan";

export const judgeSquareness = judgeErrors<SquarenessPlan, "">({
  unit: "mmPerM",
  errors: oneError("Lean of Y toward X", (history, round) => leanOf(history, round)?.lean.quantity),
  text: ({ error }) =>
    `The back leans to the ${error.value < 0 ? "left" : "right"} by ${fixed(1000 * Math.abs(error.value), 2)} ± ${fixed(1000 * expandedUncertainty(error), 2)} mm a metre`,
  advice: {
    proved: "Nothing to shift.",
    "not proved": "Shift the beam by what is left, and prove it once more.",
    "cannot tell": "Tolerance and doubt overlap: read more often, or burn a larger rectangle.",
  },
  asFound: "lean of Y toward X",
  became: () => ({
    unchanged: {
      headline: "It leans as before.",
      text: "The beam sprang back, or homing pulls it to its stops again: shift the stop or the belt on that side.",
    },
    doubled: {
      headline: "It leans twice as much as before.",
      text: "The beam was shifted the wrong way: shift it back, and as much again.",
    },
  }),
});
