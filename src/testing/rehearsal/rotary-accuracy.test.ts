/** Seeds 31000 to 31299, fixed beforehand. */
import { describe, expect, it } from "vitest";
import { rotary } from "../../core/procedures/rotary/procedure";
import { ROTARY_STEPS } from "../../core/procedures/rotary/setting";
import { withoutSlip } from "../../practice/rotary-truth";
import { SAMPLE_GALVO, SAMPLE_MACHINE } from "../sample-machine";
import { LENGTH_GAUGES } from "./axis-scale-accuracy";
import {
  coverageOf,
  historyOf,
  machineWith,
  type RotarySet,
  rehearsedRotary,
  rmsLeft,
  rotaryCases,
} from "./rotary-accuracy";

const [FIRST, SEEDS] = [31_000, 300];
/** 300 drawn cases tell a share of 95 % to this, three standard deviations. */
const SLACK = 3 * Math.sqrt((0.95 * 0.05) / SEEDS);
const { rule, calipers } = LENGTH_GAUGES;
const BY_RULE = { way: "span", spanMm: 100, tapeMm: 0 } as const;

const setOf = (changes: Partial<RotarySet>): RotarySet => ({
  gauge: calipers,
  plan: {},
  drive: "roller",
  common: false,
  ...changes,
});

describe("rotaries drawn by chance", () => {
  it.each([
    ["a line once around, calipers, rollers", {}, 0.0005],
    ["a line once around, calipers, a chuck", { drive: "chuck" }, 0.0005],
    ["the same with an error common to all readings", { common: true }, 0.0005],
    ["100 mm, a rule, rollers", { gauge: rule, plan: BY_RULE }, 0.003],
    ["100 mm, a rule, a chuck", { gauge: rule, plan: BY_RULE, drive: "chuck" }, 0.003],
    ["a part that lies on another diameter", { plan: { rests: "other", restsOnMm: 72 } }, 0.0005],
    ["a tape measure around", { gauge: rule, plan: { sizedBy: "around" } }, 0.003],
  ] as const)("are corrected in one step, and lie within what is said of them: %s", (_, changes, promised) => {
    const cases = rotaryCases(FIRST, SEEDS, setOf(changes));
    expect(cases.filter((c) => c.left === null)).toHaveLength(0);
    expect(rmsLeft(cases)).toBeLessThan(promised);
    expect(Math.abs(coverageOf(cases) - 0.95)).toBeLessThan(SLACK);
  });

  it("are told by the aiming dot alone, rather too wide than too narrow", () => {
    const cases = rotaryCases(FIRST, 100, setOf({ gauge: rule, plan: { way: "traced", spanMm: 90, tapeMm: 0 } }));
    expect(rmsLeft(cases)).toBeLessThan(0.003);
    expect(coverageOf(cases)).toBeGreaterThan(0.95 - SLACK);
  });

  it.each([0.4, 2.5])("come right in one step from a wild number, %f of the true one", (stepsByFound) => {
    const truth = machineWith(FIRST, "roller", (t) => ({ ...withoutSlip(t), stepsByFound, rollerByFound: 1 }));
    const set = setOf({});
    const first = rehearsedRotary(truth, set, 1);
    const outcome = rotary.solve(historyOf(set, first));
    if (outcome.status !== "solved") throw new Error(outcome.status);
    const [correction] = outcome.corrections;
    expect(correction?.setting).toBe(ROTARY_STEPS);
    const value = correction?.newValue.shape === "scalar" ? correction.newValue.value : Number.NaN;
    expect(Math.abs(value / (10_000 * stepsByFound) - 1)).toBeLessThan(0.001);
    const second = rehearsedRotary(truth, set, 1, { n: 2, numbers: { [ROTARY_STEPS]: value } });
    expect(rotary.judge(historyOf(set, first, second))?.result).toBe("proved");
  });

  it.each([
    ["on a galvo, in the place of Y", SAMPLE_GALVO, { replaces: "y", beginsAtMm: 30 }],
    ["on a galvo, in the place of X", SAMPLE_GALVO, { replaces: "x", beginsAtMm: 30 }],
    ["on a gantry, in the place of X", SAMPLE_MACHINE, { replaces: "x" }],
  ] as const)("are told as well %s", (_, machine, plan) => {
    for (const drive of ["roller", "chuck"] as const) {
      const truth = machineWith(FIRST, drive, (t) => ({ ...t, slipThere: 0, slipBack: 0, turns: 1 }), machine);
      const set = setOf({ drive, machine, plan });
      const outcome = rotary.solve(historyOf(set, rehearsedRotary(truth, set, 5)));
      if (outcome.status !== "solved") throw new Error(outcome.status);
      const own = truth.rotaries?.practice;
      const travels = (own?.rollerByFound ?? 0) / (own?.stepsByFound ?? 1);
      expect(outcome.estimates[0]?.quantity.value).toBeCloseTo(travels - 1, 2);
      expect(outcome.corrections).toHaveLength(1);
    }
  });

  it("that turn the wrong way, or slip, are found out", () => {
    const found = (change: Parameters<typeof machineWith>[2]) => {
      const set = setOf({});
      const outcome = rotary.solve(historyOf(set, rehearsedRotary(machineWith(FIRST, "roller", change), set, 1)));
      return outcome.status === "solved" ? outcome.findings.map((f) => f.id) : [];
    };
    expect(found((t) => ({ ...withoutSlip(t), turns: -1 }))).toContain("wrong way");
    expect(found((t) => ({ ...withoutSlip(t), slipBack: 0.01 }))).toContain("slips");
    const sound = found((t) => withoutSlip(t));
    expect(sound).toContain("no slip");
    expect(sound).not.toContain("wrong way");
  });
});
