/** Squareness: whether X and Y stand at a right angle, and what to shift on the gantry. */

import { predictedReading } from "../../measuring/examined";
import { type Measured, measured } from "../../metrology/measured";
import type { History } from "../../trial/history";
import { defineProcedure } from "../contract";
import { squarenessRound } from "./coupon";
import { detailOf } from "./detail";
import { judgeSquareness } from "./judge";
import { type LengthId, nominalMm } from "./layout";
import { observeLean } from "./lean";
import { DEFAULT_TOLERANCE, largestRectangle, type SquarenessPlan, squarenessPlan } from "./plan";
import { solveSquareness } from "./solve";

/** Lengths come out as drawn to within this before anything is known of the scale, as a share. */
const EXPECTED_WITHIN = 0.01;

export const squareness = defineProcedure<SquarenessPlan>({
  id: "squareness",
  title: "Squareness",
  summary: "X and Y stand at a right angle",
  machineKinds: ["CO2 gantry", "diode gantry"],
  settings: [],
  needs: [
    { on: "change", what: "gantry", effect: "stale" },
    { on: "change", what: "belt", effect: "stale" },
    { on: "change", what: "motor", effect: "check" },
    { on: "change", what: "home", effect: "check" },
  ],
  occasional: true,
  adjusts: { change: "gantry", by: "shift by", against: "one end against the other" },
  tolerance: { default: DEFAULT_TOLERANCE, unit: "mmPerM", label: "Largest lean of Y left" },
  recheck: { defaultDays: 365, why: "Beams are pushed, and clamps give." },
  plan: squarenessPlan,
  longest: largestRectangle,
  round: squarenessRound,
  observe: observeLean,
  expected: expectedLength,
  solve: solveSquareness,
  words: {
    read: "Measure the diagonals first.",
    prove: "Shift the beam, then burn the rectangle again. Its diagonals should be equal.",
    proved: "Proved: the axes are square.",
    holding: "Still valid. Change nothing.",
  },
  judge: judgeSquareness,
  detail: detailOf,
});

/** By the other lengths; before they tell, as drawn. */
function expectedLength(history: History<SquarenessPlan>, site: string): Measured | null {
  const plan = history.rounds.at(-1)?.plan;
  if (!plan) return null;
  const nominal = nominalMm(site as LengthId, plan);
  return (
    predictedReading(observeLean, history, site) ?? measured(nominal, Math.max(1, EXPECTED_WITHIN * nominal), Infinity)
  );
}
