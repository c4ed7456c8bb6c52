/** Bed tilt: readouts in focus at several points show the tilt of the bed, and the lift of each support. */

import { judgeErrors, oneError } from "../../measuring/judge-errors";
import { expandedUncertainty } from "../../metrology/measured";
import { fixed } from "../../metrology/quantity-text";
import { defineProcedure } from "../contract";
import { bedTiltRound } from "./coupon";
import { detailOf } from "./detail";
import { type BedTiltPlan, bedTiltPlan } from "./plan";
import { observeBed, readBed } from "./read-bed";
import { largestLift, solveBedTilt } from "./solve";

export const bedTilt = defineProcedure<BedTiltPlan>({
  id: "bed-tilt",
  title: "Bed tilt",
  summary: "Level the bed: the same height in focus everywhere on it",
  machineKinds: ["CO2 gantry", "diode gantry", "galvo"],
  settings: [],
  needs: [
    { on: "change", what: "bed", effect: "stale" },
    { on: "change", what: "home", effect: "check" },
  ],
  occasional: true,
  adjusts: { change: "bed", by: "raise by", against: "against the highest" },
  tolerance: { default: 1, unit: "mm", label: "Largest difference between supports" },
  recheck: { defaultDays: 180, why: "Beds settle with use." },
  plan: bedTiltPlan,
  round: bedTiltRound,
  observe: observeBed,
  solve: solveBedTilt,
  words: {
    read: "Read the points first.",
    prove: "Raise the supports, then read the same points again.",
    proved: "Proved: the bed is level.",
    holding: "Still valid. Change nothing.",
  },
  judge: judgeErrors<BedTiltPlan, "">({
    unit: "mm",
    errors: oneError(
      "Largest difference between supports",
      (history, round) => largestLift(readBed(history, round))?.quantity,
    ),
    text: ({ error }) =>
      `The largest difference between supports is ${fixed(error.value, 2)} ± ${fixed(expandedUncertainty(error), 2)} mm`,
    advice: {
      proved: "Change nothing.",
      "not proved": "Raise the supports as Correct says, then read again.",
      "cannot tell": "The uncertainty is too large for the tolerance. Take more readings at each point.",
    },
    asFound: "largest difference between supports",
    again: "Find the height again each time.",
  }),
  overlay: () => [],
  detail: detailOf,
});
