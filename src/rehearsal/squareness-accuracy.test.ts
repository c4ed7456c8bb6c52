/**
 * Seeds 11000 to 11299, fixed beforehand. Simulated: lean within 1.5 mm a metre, scales within 0.1 %, play of both drives, pulleys that
 * run out by up to 0.02 mm, placing scatter, the step of the gauge; the common error of the gauge where said.
 */
import { describe, expect, it } from "vitest";
import { expandedUncertainty } from "../core/fitting/student-t";
import type { History, PlanContext, RoundRecord } from "../core/procedures/contract";
import { SAMPLE_MACHINE } from "../core/procedures/sample-machine";
import { leanOf } from "../core/procedures/squareness/lean";
import { planForm, type SquarenessPlan } from "../core/procedures/squareness/plan";
import { squareness } from "../core/procedures/squareness/procedure";
import { beamTurned } from "../practice/axes-truth";
import { type PracticeTruth, practiceFromSeed } from "../practice/practice-truth";
import { seeded, seedOf } from "../practice/random";
import { LENGTH_GAUGES } from "./axis-scale-accuracy";
import { rehearseRound } from "./rehearse-round";

const SEEDS = 300;
const SLACK = 3 * Math.sqrt((0.95 * 0.05) / SEEDS);

function rehearsed(
  truth: PracticeTruth,
  gauge: (typeof LENGTH_GAUGES)["rule" | "calipers"],
  seed: number,
  commonMm: number,
  changes: Partial<SquarenessPlan> = {},
  n = 1,
) {
  const context: PlanContext = { machine: SAMPLE_MACHINE, couponCode: "T-1", inForce: {}, gauges: [gauge] };
  const plan = { ...planForm(context).defaults, ...changes };
  return rehearseRound({
    ...{ procedure: squareness, plan, context, purpose: n === 1 ? "measure" : "proof", n, truth, gauge },
    ...{ controller: { table: [], switchedOn: true }, random: seeded(seedOf(seed, n)) },
    hand: { placingMm: gauge.placing?.sdMm ?? 0, commonMm, resolutionMm: gauge.resolutionMm },
  }).round as RoundRecord<SquarenessPlan>;
}

function coverage(
  gauge: (typeof LENGTH_GAUGES)["rule" | "calipers"],
  changes: Partial<SquarenessPlan>,
  common: boolean,
): number {
  let held = 0;
  for (let seed = 11000; seed < 11000 + SEEDS; seed++) {
    const truth = practiceFromSeed(seed, SAMPLE_MACHINE);
    if ("kind" in truth || !truth.axes) throw new Error("a gantry with axes is wanted");
    const commonMm = common ? seeded(seed).between(-1, 1) * gauge.limitMm : 0;
    const round = rehearsed(truth, gauge, seed, commonMm, changes);
    const lean = leanOf(round, [common ? gauge : { ...gauge, limitMm: 0 }])?.lean.quantity;
    if (lean && Math.abs(lean.value - Math.sin(truth.axes.leanRad)) <= expandedUncertainty(lean)) held++;
  }
  return held / SEEDS;
}

describe("squareness on practice gantries", () => {
  it.each([
    ["calipers", {}, false],
    ["calipers", {}, true],
    ["rule", {}, false],
    ["rule", { way: "triangle", repeats: 3 }, false],
  ] as const)(
    "lies within what is said of it 95 times in a hundred: %s %o, common error %s",
    (gauge, changes, common) => {
      expect(Math.abs(coverage(LENGTH_GAUGES[gauge], changes, common) - 0.95)).toBeLessThan(SLACK);
    },
  );

  it("is proved once the beam is shifted by what is said", () => {
    const truth = practiceFromSeed(11003, SAMPLE_MACHINE);
    if ("kind" in truth || !truth.axes) throw new Error("a gantry with axes is wanted");
    const leaning = { ...truth, axes: { ...truth.axes, leanRad: 0.004 } };
    const first = rehearsed(leaning, LENGTH_GAUGES.rule, 1, 0);
    const history = (...rounds: RoundRecord<SquarenessPlan>[]): History<SquarenessPlan> => ({
      ...{
        rounds,
        gauges: [LENGTH_GAUGES.rule],
        available: [],
        machine: SAMPLE_MACHINE,
        decisions: {},
        tolerance: 0.001,
      },
    });
    const outcome = squareness.solve(history(first));
    if (outcome.status !== "solved") throw new Error(outcome.status);
    const turned = outcome.adjustments[0]?.turns?.byRad ?? 0;
    const after = { ...leaning, axes: beamTurned(leaning.axes, turned, seeded(4)) };
    expect(
      squareness.judge(history(first, rehearsed(after, LENGTH_GAUGES.rule, 1, 0, { repeats: 4 }, 2)))?.result,
    ).toBe("proved");
  });
});
