/** Bed tilt: the readout at which each place is in focus tells how the bed leans, and what to turn at each corner. */

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
  tolerance: { default: 1, unit: "mm", label: "Largest difference between supports left" },
  recheck: { defaultDays: 180, why: "Beds settle, and are leaned on." },
  plan: bedTiltPlan,
  round: bedTiltRound,
  observe: observeBed,
  solve: solveBedTilt,
  words: {
    read: "Read the places first.",
    prove: "Raise the supports, then read the same places again.",
    proved: "Proved: the bed is level.",
    holding: "Still level: nothing to change.",
  },
  judge: judgeErrors<BedTiltPlan, "">({
    unit: "mm",
    errors: oneError(
      "Largest difference between supports",
      (history, round) => largestLift(readBed(history, round))?.quantity,
    ),
    text: ({ error }) =>
      `Supports differ by ${fixed(error.value, 2)} ± ${fixed(expandedUncertainty(error), 2)} mm at most`,
    advice: {
      proved: "Nothing to turn.",
      "not proved": "Raise the supports by what is left, and read once more.",
      "cannot tell": "Tolerance and doubt overlap: read more often at each place.",
    },
    asFound: "largest difference between supports",
    again: "Find the height again each time.",
  }),
  overlay: () => [],
  detail: detailOf,
});
