/** What is promised of axes: how far lengths are off once corrected, and how often intervals hold the truth. Simulated errors stand in the modules that are asked. */
import {
  covered,
  LENGTH_GAUGES,
  rms,
  type ScaleSet,
  scaleCases,
} from "../../src/testing/rehearsal/axis-scale-accuracy";
import { originCoverage } from "../../src/testing/rehearsal/origin-accuracy";
import { leanCoverage } from "../../src/testing/rehearsal/squareness-accuracy";
import { below, between, type Line } from "./line";

const GANTRIES = 300;
const [SCALE_SEEDS, LEAN_SEEDS, ORIGIN_SEEDS] = [21_000, 22_000, 23_000];
const LONG = { spanXMm: 300, spanYMm: 290, caliperReachMm: 300 };
/** 600 numbers tell a share of 95 % to 0.9: the promise of 93 to 97 % leaves room for that. */
const within = (share: number) => between(100 * share, 93, 97, "%");

export function axes(): Line[] {
  const { calipers, rule } = LENGTH_GAUGES;
  const scale = (set: ScaleSet) => scaleCases(SCALE_SEEDS, GANTRIES, set);
  const long = scale({ gauge: calipers, plan: LONG, common: true });
  const errors = "scale 0.1 %, lean, play, runout, placing, step, common error";
  return [
    {
      what: `length left, calipers over 300 mm, ${GANTRIES} gantries, X and Y (${errors})`,
      ...below(100 * rms(long.map((c) => c.left)), 0.01, "% rms"),
    },
    ...(
      [
        ["calipers, a ladder of 150 mm", { gauge: calipers, plan: {}, common: false }],
        ["1 m rule, a ladder as long as the bed", { gauge: rule, plan: {}, common: false }],
        ["calipers, part and hole", { gauge: calipers, plan: { way: "part and hole" }, common: false }],
      ] as const
    ).map(([words, set]) => ({
      what: `axis scale, intervals that hold the truth, random parts: ${words}`,
      ...within(covered(scale(set))),
    })),
    {
      what: "squareness, intervals that hold the truth: calipers, two diagonals",
      ...within(leanCoverage(LEAN_SEEDS, GANTRIES, calipers, {}, false)),
    },
    {
      what: "the same: 1 m rule",
      ...within(leanCoverage(LEAN_SEEDS, GANTRIES, rule, {}, false)),
    },
    { what: "origin, intervals that hold the truth", ...within(originCoverage(ORIGIN_SEEDS, GANTRIES)) },
  ];
}
