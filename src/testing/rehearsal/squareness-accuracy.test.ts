/** Seeds 11000 to 11299, fixed beforehand. */
import { describe, expect, it } from "vitest";
import type { SquarenessPlan } from "../../core/procedures/squareness/plan";
import { squareness } from "../../core/procedures/squareness/procedure";
import type { History, RoundRecord } from "../../core/trial/history";
import { beamTurned } from "../../practice/axes-truth";
import { practiceFromSeed } from "../../practice/practice-truth";
import { seeded } from "../../practice/random";
import { SAMPLE_MACHINE } from "../sample-machine";
import { LENGTH_GAUGES } from "./axis-scale-accuracy";
import { leanCoverage, rehearsedSquare } from "./squareness-accuracy";

const SEEDS = 300;
const SLACK = 3 * Math.sqrt((0.95 * 0.05) / SEEDS);

describe("squareness on practice gantries", () => {
  it.each([
    ["calipers", {}, false],
    ["calipers", {}, true],
    ["rule", {}, false],
    ["rule", { way: "triangle", repeats: 3 }, false],
  ] as const)(
    "lies within what is said of it 95 times in a hundred: %s %o, common error %s",
    (gauge, changes, common) => {
      expect(Math.abs(leanCoverage(11_000, SEEDS, LENGTH_GAUGES[gauge], changes, common) - 0.95)).toBeLessThan(SLACK);
    },
  );

  it("is proved once the beam is shifted by what is said", () => {
    const truth = practiceFromSeed(11003, SAMPLE_MACHINE);
    if ("kind" in truth || !truth.axes) throw new Error("a gantry with axes is wanted");
    const leaning = { ...truth, axes: { ...truth.axes, leanRad: 0.004 } };
    const first = rehearsedSquare(leaning, LENGTH_GAUGES.rule, 1, 0);
    const history = (...rounds: RoundRecord<SquarenessPlan>[]): History<SquarenessPlan> => ({
      rounds,
      gauges: [LENGTH_GAUGES.rule],
      available: [],
      machine: SAMPLE_MACHINE,
      decisions: {},
      tolerance: 0.001,
    });
    const outcome = squareness.solve(history(first));
    if (outcome.status !== "solved") throw new Error(outcome.status);
    const turned = outcome.adjustments[0]?.turns?.byRad ?? 0;
    const after = { ...leaning, axes: beamTurned(leaning.axes, turned, seeded(4)) };
    expect(
      squareness.judge(history(first, rehearsedSquare(after, LENGTH_GAUGES.rule, 1, 0, { repeats: 4 }, 2)))?.result,
    ).toBe("proved");
  });
});
