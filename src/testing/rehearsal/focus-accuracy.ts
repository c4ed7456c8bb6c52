/** How near the focus height comes to the truth, over heads drawn by chance: lines burned on a practice beam, their widths read. */

import { fitWidths, type LadderCell, type WidthFit } from "../../core/beam/width-fit";
import { middleOfMarked } from "../../core/measuring/judged-cells";
import { expandedUncertainty } from "../../core/metrology/measured";
import { type BeamTruth, doseOfMiddle, type LineBurn, lineWidth, type StockTruth } from "../../practice/beam";
import { type Random, seeded } from "../../practice/random";

/** Errors that are simulated. */
export type LadderErrors = {
  /** SD of a width: share of it, and mm. */
  share: number;
  floorMm: number;
  /** Focus of X and Y apart, as a share of the focal depth. */
  astigmatism: number;
};
export const LADDER_ERRORS: LadderErrors = { share: 0.03, floorMm: 0.002, astigmatism: 0.04 };

const STEP_MM = 0.5;
const CELLS = 33;
const [SPEED_MM_PER_S, POWER_W] = [100, 10];
/** Thinner is not seen. */
const SEEN_MM = 0.015;

export type Head = { beam: BeamTruth; stock: StockTruth; z0: number; strength: number; heights: number[] };

/** Strength 1.6 to 25, focal depth 0.6 to 2.5 mm, focus anywhere in the middle half of the ladder. */
export function headFromSeed(seed: number): { head: Head; random: Random } {
  const random = seeded(seed);
  const addsUp = random.even() < 0.5;
  const depth = random.between(0.6, 2.5);
  const waistMm = random.between(0.015, 0.12);
  const m2 = random.between(1, 1.6);
  const first = random.between(40, 60);
  const heights = Array.from({ length: CELLS }, (_, i) => first + i * STEP_MM);
  const span = (CELLS - 1) * STEP_MM;
  const z0 = first + span * random.between(0.25, 0.75);
  const strength = Math.exp(random.between(Math.log(1.6), Math.log(25)));
  const pulseHz = addsUp
    ? random.even() < 0.5
      ? null
      : SPEED_MM_PER_S / (waistMm / 6)
    : SPEED_MM_PER_S / (waistMm / 3);
  const beam: BeamTruth = {
    m2,
    waistMm,
    focusMm: z0,
    pulseHz,
    wavelengthMm: (Math.PI * waistMm ** 2) / (m2 * depth),
    astigmatismMm: depth * LADDER_ERRORS.astigmatism * random.between(-1, 1),
  };
  // In focus the middle of a line gets `strength` times what marks.
  const inFocus: LineBurn = { heightMm: z0, speedMmPerS: SPEED_MM_PER_S, powerW: POWER_W, along: "x" };
  const peak = doseOfMiddle({ ...beam, astigmatismMm: 0 }, addsUp, inFocus);
  return { head: { beam, stock: { addsUp, thresholdJPerMm2: peak / strength }, z0, strength, heights }, random };
}

export function burnedLadder({ beam, stock, heights }: Head, random: Random, errors = LADDER_ERRORS): LadderCell[] {
  return heights.map((zMm): LadderCell => {
    const width = lineWidth(beam, stock, { heightMm: zMm, speedMmPerS: SPEED_MM_PER_S, powerW: POWER_W, along: "x" });
    const sd = errors.share * width + errors.floorMm;
    const read = width + sd * random.normal();
    if (width < SEEN_MM || read < SEEN_MM) return { zMm, status: "unmarked" };
    return { zMm, status: "marked", widthMm: read, u: errors.share * read + errors.floorMm };
  });
}

export type HeadResult = {
  head: Head;
  marked: number;
  fit: WidthFit;
  error: number | null;
  covered: boolean | null;
  /** Error of first and last, in steps; `null` where the ladder ended too early. */
  byRange: number | null;
};

export function focusSweep(seeds: readonly number[], errors = LADDER_ERRORS): HeadResult[] {
  return seeds.map((seed) => {
    const { head, random } = headFromSeed(seed);
    const cells = burnedLadder(head, random, errors);
    const fit = fitWidths(cells, head.stock.addsUp ? 1 : 2);
    const error = fit.status === "solved" ? fit.z0.value - head.z0 : null;
    const half = fit.status === "solved" ? expandedUncertainty(fit.z0) : null;
    return {
      head,
      fit,
      error,
      marked: cells.filter((c) => c.status === "marked").length,
      byRange: rangeError(head, cells),
      covered: error === null || half === null ? null : Math.abs(error) <= half,
    };
  });
}

function rangeError({ heights, z0 }: Head, cells: readonly LadderCell[]): number | null {
  const isMarked = cells.map((c) => c.status === "marked");
  const [first, last] = [isMarked.indexOf(true), isMarked.lastIndexOf(true)];
  if (first < 0) return null;
  const range = middleOfMarked(heights, first, last);
  return range.status === "solved" ? (range.z0.value - z0) / STEP_MM : null;
}
