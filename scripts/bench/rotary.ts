/** What is promised of rotaries: how far parts travel once corrected, and how often intervals hold the truth. Simulated errors stand in the module that is asked. */
import { LENGTH_GAUGES } from "../../src/testing/rehearsal/axis-scale-accuracy";
import { coverageOf, type RotarySet, rmsLeft, rotaryCases } from "../../src/testing/rehearsal/rotary-accuracy";
import { below, between, type Line } from "./line";

const ROTARIES = 300;
/** More of them for shares: 300 tell 95 % to 1.3 only. */
const FOR_SHARES = 1000;
const SEEDS = 36_000;

export function rotary(): Line[] {
  const { calipers, rule } = LENGTH_GAUGES;
  const cases = (set: Partial<RotarySet>, count = ROTARIES) =>
    rotaryCases(SEEDS, count, { gauge: calipers, plan: {}, drive: "roller", common: false, ...set });
  const byRule = { gauge: rule, plan: { way: "span", spanMm: 100, tapeMm: 0 } } as const;
  const errors = "wild steps, roller, slip, runout, play, grip, oval parts, placing, step, zero, common error";
  const sets: [string, Partial<RotarySet>, number][] = [
    ["a line once around, calipers, rollers", {}, 0.05],
    ["a line once around, calipers, a chuck", { drive: "chuck" }, 0.05],
    ["100 mm, a rule, rollers", byRule, 0.3],
    ["100 mm, a rule, a chuck", { ...byRule, drive: "chuck" }, 0.3],
    ["a neck, calipers, rollers", { plan: { rests: "other", restsOnMm: 72 } }, 0.05],
  ];
  return [
    ...sets.map(
      ([what, set, promised]): Line => ({
        what: `travel left after one correction, ${ROTARIES} rotaries: ${what} (${errors})`,
        ...below(100 * rmsLeft(cases({ ...set, common: true })), promised, "% rms"),
      }),
    ),
    ...sets.map(
      ([what, set]): Line => ({
        what: `rotary, intervals that hold the truth, random parts, ${FOR_SHARES} rotaries: ${what}`,
        ...between(100 * coverageOf(cases(set, FOR_SHARES)), 93, 97, "%"),
      }),
    ),
  ];
}
