/** What is chosen before a kerf is measured. */
import type { KnownLength } from "../../measuring/known-length";
import type { Reaches } from "../../measuring/length-gauges";
import type { Thickness } from "../../stock/stock-at-hand";

export const WAYS = {
  "part and hole": "A square cut out: part and hole",
  part: "The part alone",
  hole: "The hole alone",
  comb: "A comb pushed together",
  "tongue and slot": "Mates: tongue and slot",
  "plug and ring": "Mates: plug and ring",
  "sheet slot": "Mates: slots for the sheet itself",
} as const;
export type Way = keyof typeof WAYS;

export const MATE_WAYS = ["tongue and slot", "plug and ring", "sheet slot"] as const satisfies readonly Way[];
export type MateWay = (typeof MATE_WAYS)[number];

export const GASES = { none: "none", air: "air", nitrogen: "nitrogen", oxygen: "oxygen" } as const;
export const FACES = { top: "The top face alone", both: "Top and bottom face" } as const;
export const OFFSETS = { both: "Both mates", inner: "Tongue or plug alone" } as const;

/** What it is cut from, as its card had it. */
export type CutFrom = { name: string; batch: string; nominalMm: number; thickness: Thickness | null };

export type KerfPlan = Reaches &
  KnownLength & {
    way: Way;
    /** Key of the batch it is cut from. */
    stock: string;
    /** From the card; left out where it is not known. */
    from?: CutFrom;
    /** What was fitted when it was laid out; left out where it is not known. */
    optic?: string;
    /** Side of the square, mm; part and hole. */
    sideMm: number;
    /** By how much the square is grown on each side, mm: 0 as it is measured, the offset per side as it is proved. */
    grownMm: number;
    /** Lengths of the machine are right to within this share; one of part and hole alone. */
    scaleWithin: number;
    faces: keyof typeof FACES;
    /** Cuts that a comb is crossed by, its frame counted in. */
    cuts: number;
    stripMm: number;
    /** Width of tongue and slot, diameter of plug and ring, mm. */
    jointMm: number;
    /** Which of the mates have the offset. */
    offsetOn: keyof typeof OFFSETS;
    /** Offset per side of the first mate, from one to the next, and how many, mm. */
    firstMm: number;
    stepMm: number;
    mates: number;
    /** Gap across both sides at which a fit feels snug, and to within what, mm. */
    snugGapMm: number;
    snugWithinMm: number;
    /** Piece of stock that mates are laid out on, mm. */
    sheetWidthMm: number;
    sheetHeightMm: number;
    /** Id of the gauge that is read with. */
    gauge: string;
    repeats: number;
    speedMmPerS: number;
    powerPct: number;
    passes: number;
    gas: keyof typeof GASES;
    /** Focus below the top face, mm. */
    focusBelowMm: number;
    /** Of letters. */
    markSpeedMmPerS: number;
    markPowerPct: number;
    stockAtXMm: number;
    stockAtYMm: number;
  };

export function isMateWay(way: Way): way is MateWay {
  return (MATE_WAYS as readonly Way[]).includes(way);
}

/** Whether a square is cut out. */
export function isSquareWay(way: Way): boolean {
  return way === "part and hole" || way === "part" || way === "hole";
}

/** Offset per side of each mate, in their order, mm. */
export function offsetsOf({ firstMm, stepMm, mates }: Pick<KerfPlan, "firstMm" | "stepMm" | "mates">): number[] {
  return Array.from({ length: mates }, (_, i) => firstMm + i * stepMm);
}

/**
 * Clearance of a mate, mm: `atZero + cuts k - perOffset o` with the kerf k and its offset per side o.
 *
 * Tongue and slot that share a drawn width N: slot N - 2o + k, tongue N + 2o - k. A slot for the sheet: N - 2o + k, less the sheet.
 */
export function clearanceOf({ way, jointMm, offsetOn, from }: KerfPlan): {
  atZero: number;
  cuts: number;
  perOffset: number;
} {
  if (way === "sheet slot") return { atZero: jointMm - (from?.thickness?.meanMm ?? jointMm), cuts: 1, perOffset: 2 };
  return { atZero: 0, cuts: 2, perOffset: offsetOn === "both" ? 4 : 2 };
}

/** By how much a slot, notch or ring is shrunk on each side, mm. */
export function shrunkMm({ offsetOn, way }: Pick<KerfPlan, "offsetOn" | "way">, offset: number): number {
  return way === "sheet slot" || offsetOn === "both" ? offset : 0;
}
