/** Axis scale: whether a drawn length comes out as long, and the number that makes it so. */

import { examinedJudge, examinedSolve, predictedReading } from "../../measuring/examined";
import { plainNext } from "../../measuring/plain-course";
import { readTicks } from "../../measuring/read-ticks";
import type { History, Next } from "../../trial/history";
import type { Outcome } from "../../trial/outcome";
import type { Procedure } from "../contract";
import { axisScaleRound } from "./coupon";
import { detailOf } from "./detail";
import { judgeAxisScale } from "./judge";
import { observeAxes } from "./observe";
import { longestSpans, planForm } from "./plan";
import { DEFAULT_TOLERANCE, planWarnings } from "./plan-faults";
import { type AxisScalePlan, axesOf } from "./plan-type";
import { AXIS_SCALE, AXIS_SCALES } from "./setting";
import { solveAxisScale } from "./solve";

const judge = examinedJudge(observeAxes, judgeAxisScale);

export const axisScale: Procedure<AxisScalePlan> = {
  id: "axis-scale",
  version: 1,
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
  plan: planForm,
  longest: longestSpans,
  actsFrom: () => "controller",
  sets: (plan) => axesOf(plan).map((axis) => AXIS_SCALE[axis]),
  warnings: planWarnings,
  round: axisScaleRound,
  asSent: (spec) => spec,
  checkPlan: (last) => ({ ...last, ...(last.way === "ladder" ? { approach: "one side", rows: 1 } : {}) }),
  observe: observeAxes,
  expected: (history, site) => predictedReading(observeAxes, history, site),
  solve: examinedSolve(observeAxes, solveAxisScale),
  next,
  judge,
  overlay: readTicks,
  detail: detailOf,
};

function next(history: History<AxisScalePlan>, outcome: Outcome): Next<AxisScalePlan> {
  const last = history.rounds.at(-1);
  const corrections = outcome.status === "solved" ? outcome.corrections : [];
  const words = {
    read: "Measure along the axes first.",
    prove: "The same once more with the new numbers in force, entered and read back one axis after the other.",
    proved: "Proved: lengths come out as drawn.",
    holding: "Still holding: nothing to change.",
  };
  const proof =
    last && corrections.length > 0
      ? {
          plan: axisScale.checkPlan(last.plan, { machine: history.machine, couponCode: "", inForce: {} }),
          set: corrections.map((c) => c.setting),
        }
      : { why: "Confirm first what the controller holds: the new number builds on it." };
  return plainNext(history, outcome, judge(history), words, proof);
}
