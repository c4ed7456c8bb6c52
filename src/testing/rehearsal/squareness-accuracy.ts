/**
 * How near the lean of Y comes to the truth, over gantries drawn by chance.
 *
 * Simulated: lean within 1.5 mm a metre, scales within 0.1 %, play of both drives, pulleys that run out by up to 0.02 mm, placing scatter, the step of
 * the gauge; the common error of the gauge where said.
 */
import { expandedUncertainty } from "../../core/metrology/measured";
import { leanOf } from "../../core/procedures/squareness/lean";
import { type SquarenessPlan, squarenessPlan } from "../../core/procedures/squareness/plan";
import { squareness } from "../../core/procedures/squareness/procedure";
import type { RoundRecord } from "../../core/trial/history";
import type { PlanContext } from "../../core/trial/plan-form";
import { type PracticeTruth, practiceFromSeed } from "../../practice/practice-truth";
import { seeded, seedOf } from "../../practice/random";
import { SAMPLE_MACHINE } from "../sample-machine";
import type { LENGTH_GAUGES } from "./axis-scale-accuracy";
import { rehearseRound } from "./rehearse-round";

export function rehearsedSquare(
  truth: PracticeTruth,
  gauge: (typeof LENGTH_GAUGES)["rule" | "calipers"],
  seed: number,
  commonMm: number,
  changes: Partial<SquarenessPlan> = {},
  n = 1,
) {
  const context: PlanContext = { machine: SAMPLE_MACHINE, couponCode: "T-1", inForce: {}, gauges: [gauge] };
  const plan = { ...squarenessPlan(context).defaults, ...changes };
  return rehearseRound({
    procedure: squareness,
    plan,
    context,
    purpose: n === 1 ? "measure" : "proof",
    n,
    truth,
    gauge,
    controller: { table: [], switchedOn: true },
    random: seeded(seedOf(seed, n)),
    hand: { placingMm: gauge.placing?.sdMm ?? 0, commonMm, resolutionMm: gauge.resolutionMm },
  }).round as RoundRecord<SquarenessPlan>;
}

/** Share of gantries whose lean lies within what is said of it. @param common whether the gauge has an error within its limit */
export function leanCoverage(
  first: number,
  count: number,
  gauge: (typeof LENGTH_GAUGES)["rule" | "calipers"],
  changes: Partial<SquarenessPlan>,
  common: boolean,
): number {
  let held = 0;
  for (let seed = first; seed < first + count; seed++) {
    const truth = practiceFromSeed(seed, SAMPLE_MACHINE);
    if ("kind" in truth || !truth.axes) throw new Error("a gantry with axes is wanted");
    const commonMm = common ? seeded(seed).between(-1, 1) * gauge.limitMm : 0;
    const round = rehearsedSquare(truth, gauge, seed, commonMm, changes);
    const known = common ? gauge : { ...gauge, limitMm: 0 };
    const history = {
      rounds: [round],
      gauges: [known],
      available: [known],
      machine: SAMPLE_MACHINE,
      decisions: {},
      tolerance: squareness.tolerance.default,
    };
    const lean = leanOf(history, round)?.lean.quantity;
    if (lean && Math.abs(lean.value - Math.sin(truth.axes.leanRad)) <= expandedUncertainty(lean)) held++;
  }
  return held / count;
}
