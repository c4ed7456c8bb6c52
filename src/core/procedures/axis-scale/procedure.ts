/** Axis scale: whether a drawn length comes out as long, and the number that makes it so. */

import { axesOf } from "../../measuring/axes-field";
import { type ProofPlan, sameAgain } from "../../measuring/plain-course";
import type { History } from "../../trial/history";
import type { Outcome } from "../../trial/outcome";
import { defineProcedure } from "../contract";
import { axisScaleRound } from "./coupon";
import { detailOf } from "./detail";
import { judgeAxisScale } from "./judge";
import { observeAxes } from "./observe";
import type { AxisScalePlan } from "./plan";
import { axisScalePlan, DEFAULT_TOLERANCE, longestSpans, planWarnings } from "./plan-faults";
import { AXIS_SCALE, AXIS_SCALES } from "./setting";
import { solveAxisScale } from "./solve";

export const axisScale = defineProcedure<AxisScalePlan>({
  id: "axis-scale",
  title: "Axis scale",
  summary: "A drawn length comes out as long",
  machineKinds: ["CO2 gantry", "diode gantry"],
  settings: AXIS_SCALES,
  needs: [
    { on: "change", what: "belt", effect: "stale" },
    { on: "change", what: "motor", effect: "stale" },
    { on: "change", what: "driver", effect: "stale" },
    { on: "change", what: "firmware", effect: "check" },
  ],
  tolerance: { default: DEFAULT_TOLERANCE, unit: "percent", label: "Largest error of a length left" },
  recheck: { defaultDays: 365, why: "Belts stretch and are tightened: once a year is usual." },
  plan: axisScalePlan,
  longest: longestSpans,
  sets: (plan) => axesOf(plan).map((axis) => AXIS_SCALE[axis]),
  warnings: planWarnings,
  round: axisScaleRound,
  checkPlan: asChecked,
  observe: observeAxes,
  solve: solveAxisScale,
  words: {
    read: "Measure along the axes first.",
    prove: "Enter the new value of each axis and read it back. Then burn the same coupon again.",
    proved: "Proved: lengths come out as drawn.",
    holding: "Still valid. Change nothing.",
  },
  proof: proofOf,
  judge: judgeAxisScale,
  detail: detailOf,
});

/** A ladder is read from one side in one row: its straightness is known. */
function asChecked(last: AxisScalePlan): AxisScalePlan {
  return { ...last, ...(last.way === "ladder" ? { approach: "one side", rows: 1 } : {}) };
}

function proofOf(history: History<AxisScalePlan>, outcome: Outcome): ProofPlan<AxisScalePlan> {
  const again = sameAgain(history, outcome, AXIS_SCALES);
  return "why" in again ? again : { ...again, plan: asChecked(again.plan) };
}
