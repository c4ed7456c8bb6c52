/** Seeds 9000 to 9149, both axes: fixed before the readings were weighted. */
import { describe, expect, it } from "vitest";
import { axisScale } from "../../core/procedures/axis-scale/procedure";
import { AXIS_SCALE } from "../../core/procedures/axis-scale/setting";
import type { AxisTruth } from "../../practice/axes-truth";
import { seeded } from "../../practice/random";
import {
  covered,
  FOUND_UM,
  historyOf,
  LENGTH_GAUGES,
  rehearsedScale,
  rms,
  scaleCases,
  soundGantry,
} from "./axis-scale-accuracy";

const SEEDS = 150;
/** Three standard deviations of a count of so many. */
const SLACK = 3 * Math.sqrt((0.95 * 0.05) / (2 * SEEDS));
const LONG = { spanXMm: 300, spanYMm: 290, caliperReachMm: 300 };

describe("the scale of an axis on practice gantries", () => {
  it("is left within 0.01 % by calipers over 300 mm", () => {
    const cases = scaleCases(9000, SEEDS, { gauge: LENGTH_GAUGES.calipers, plan: LONG, common: true });
    expect(cases).toHaveLength(2 * SEEDS);
    expect(rms(cases.map((c) => c.left))).toBeLessThan(0.0001);
  });

  it.each([
    ["calipers", {}],
    ["calipers", { way: "pair", repeats: 3 }],
    ["calipers", { way: "part and hole" }],
    ["rule", {}],
    ["rule", { way: "by hand", repeats: 3, spanXMm: 800, spanYMm: 550 }],
  ] as const)("lies within what is said of it 95 times in a hundred, %s, %o", (gauge, plan) => {
    const cases = scaleCases(9000, SEEDS, { gauge: LENGTH_GAUGES[gauge], plan, common: false });
    expect(Math.abs(covered(cases) - 0.95)).toBeLessThan(SLACK);
  });

  it("is proved by a second burn with the new numbers, and is named where they go the wrong way", () => {
    const truth = soundGantry(77);
    const strayed = { ...truth, scaleX: 1.006, scaleY: 0.996 };
    const { calipers } = LENGTH_GAUGES;
    const first = rehearsedScale(strayed, calipers, LONG, seeded(1));
    const outcome = axisScale.solve(historyOf([first], calipers));
    if (outcome.status !== "solved") throw new Error(outcome.status);
    const entered = Object.fromEntries(
      outcome.corrections.map((c) => [c.setting, c.newValue.shape === "scalar" ? c.newValue.value : Number.NaN]),
    );
    expect(entered[AXIS_SCALE.x]).toBeCloseTo((1.006 * FOUND_UM) / 1000, 5);
    const proof = rehearsedScale(strayed, calipers, LONG, seeded(2), 0, 2, entered);
    expect(axisScale.judge(historyOf([first, proof], calipers))).toMatchObject({ result: "proved", findings: [] });
    const other = Object.fromEntries(Object.entries(entered).map(([key, v]) => [key, 2 * (FOUND_UM / 1000) - v]));
    const wrong = rehearsedScale(strayed, calipers, LONG, seeded(2), 0, 2, other);
    const verdict = axisScale.judge(historyOf([first, wrong], calipers));
    expect(verdict?.findings.map((f) => f.id)).toEqual(["doubled x", "doubled y"]);
  });

  it("shows the play of a drive by ticks come to from both sides", () => {
    const truth = soundGantry(78);
    const loose = { ...truth, playMm: 0.12, axes: { ...truth.axes, playYMm: 0.09 } };
    const plan = { ...LONG, approach: "both sides" as const, rows: 2 };
    const round = rehearsedScale(loose, LENGTH_GAUGES.calipers, plan, seeded(3));
    const outcome = axisScale.solve(historyOf([round], LENGTH_GAUGES.calipers));
    if (outcome.status !== "solved") throw new Error(outcome.status);
    const play = (axis: string) => outcome.estimates.find((e) => e.id === `backlash ${axis}`)?.quantity;
    expect(Math.abs((play("x")?.value ?? 0) - 0.12)).toBeLessThan(0.03);
    expect(Math.abs((play("y")?.value ?? 0) - 0.09)).toBeLessThan(0.03);
  });

  it("names a tooth that sits badly and a pulley that runs out, where a ladder is fine enough to see them", () => {
    const truth = soundGantry(79);
    const found = (x: Partial<AxisTruth>) => {
      const axes = { ...truth.axes, x: { ...truth.axes.x, ...x } };
      const plan = { ...LONG, axes: "X" as const, intervals: 20, repeats: 3 };
      const round = rehearsedScale({ ...truth, axes }, LENGTH_GAUGES.calipers, plan, seeded(5));
      const outcome = axisScale.solve(historyOf([round], LENGTH_GAUGES.calipers));
      return outcome.findings.find((f) => f.id === "strays x")?.text;
    };
    const still = { amplitudeMm: 0, periodMm: 40, phaseRad: 0 };
    // The first tick is burned at 375 mm of the bed, the others 15 mm apart: the sixth is the first beyond it.
    expect(found({ runout: still, step: { fromMm: 450, byMm: 0.2 } })).toMatch(
      /^All ticks from 90 mm on are 0\.(1[5-9]|2\d) mm too far\./,
    );
    expect(found({ runout: { ...still, amplitudeMm: 0.12, periodMm: 60 } })).toMatch(
      /either way and repeats about every (5[6-9]|6[0-4]) mm/,
    );
    expect(found({ runout: still })).toBeUndefined();
  });
});
