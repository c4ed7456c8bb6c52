/** A practice technician who puts mates together: how a part goes in, from the gap that there really is. */
import type { Measurand, TouchingSides } from "../core/coupon/site";
import type { Placement } from "../core/geometry/frames";
import type { Mark } from "./gantry";
import { marksOf } from "./measure-places";
import { type Random, seeded, seedOf } from "./random";

export type HandFeel = {
  /** Gaps at which one word gives way to the next, falling: loose, slides, snug, tight, will not go; mm. */
  thresholdsMm: [number, number, number, number];
  /** SD of one judgement, mm. */
  sdMm: number;
};

/** Each person feels a little differently what is snug. (invented) */
export function handFromSeed(seed: number): HandFeel {
  const random = seeded(seedOf(seed, "hand"));
  const snug = 0.02 + 0.012 * random.normal();
  const half = random.between(0.02, 0.035);
  return {
    thresholdsMm: [
      snug + half + random.between(0.04, 0.08),
      snug + half,
      snug - half,
      snug - half - random.between(0.03, 0.06),
    ],
    sdMm: random.between(0.006, 0.014),
  };
}

/** The middle of the gaps that are called snug, mm. */
export function snugGapOf({ thresholdsMm: [, above, below] }: HandFeel): number {
  return (above + below) / 2;
}

type Clearance = Extract<Measurand, { kind: "clearance" }>;

/** The smallest gap between a part and what it goes into, mm; `null` where there are no such cuts. */
export function gapOf({ touching = [] }: Clearance, marks: readonly Mark[], placement: Placement): number | null {
  const gaps = touching.map(({ inner, outer }) => {
    const hole = betweenCuts(outer, 1, marks, placement);
    const part = "thicknessMm" in inner ? inner.thicknessMm : betweenCuts(inner, -1, marks, placement);
    return hole === null || part === null ? null : hole - part;
  });
  const open = gaps.filter((gap) => gap !== null);
  return gaps.length === 0 || open.length < gaps.length ? null : Math.min(...open);
}

/** @returns index of the word, from the easiest */
export function feltAs(gapMm: number, { thresholdsMm, sdMm }: HandFeel, random: Random): number {
  const felt = gapMm + sdMm * random.normal();
  return thresholdsMm.filter((t) => felt < t).length;
}

/** @param side 1 of what is left around, -1 of what falls out */
function betweenCuts(sides: TouchingSides, side: 1 | -1, marks: readonly Mark[], placement: Placement): number | null {
  const [from] = marksOf(sides.from, marks, placement);
  const [to] = marksOf(sides.to, marks, placement);
  if (!from || !to) return null;
  const at = (m: Mark) => (sides.along === "x" ? (m.x0 + m.x1) / 2 : (m.y0 + m.y1) / 2);
  return at(to) - at(from) + (side * (from.widthMm + to.widthMm)) / 2;
}
