/** What is chosen before a kerf is measured. */
import { knownLengthField } from "../../measuring/known-length";
import { gaugeFields } from "../../measuring/length-gauges";
import type { StockAtHand, Thickness } from "../../stock/stock-at-hand";
import { field, type When } from "../../trial/plan-field";
import type { PlanContext } from "../../trial/plan-form";
import type { PlanOf } from "../../trial/plan-table";
import { placeFields, powerField, repeatsField, stockField, topSpeed } from "../../trial/shared-fields";

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

/** A strip that is narrower bends or burns, mm. (common practice, no source) */
const NARROWEST_STRIP_MM = 3;

const only = (...is: Way[]): When => ({ field: "way", is });
const SQUARE = only("part and hole", "part", "hole");
const CUT = only("part and hole", "part", "hole", "comb");
const COMB = only("comb");
const MATES = only(...MATE_WAYS);
const JOINT = only("tongue and slot", "plug and ring");

export function planFields(context: PlanContext) {
  return {
    /** Key of the batch it is cut from. */
    stock: stockField(context, { why: "Measure the kerf of each batch.", noCard: NO_CARD }),
    ...cutFields(),
    ...mateFields(context),
    ...settingFields(context),
    ...gaugeFields(context, "The side must be within it.", CUT),
    repeats: repeatsField(2),
    knownMm: knownLengthField(context, CUT),
    ...placeFields({ xMm: 10, yMm: 10 }, "Place"),
  };
}

const NO_CARD = "Make a stock card first. The kerf is stored on this card.";

function cutFields() {
  return {
    way: field.choice(WAYS, {
      label: "What is cut",
      group: "Cut",
      why: "Part and hole together separate the kerf from the scale.",
      usual: "part and hole",
    }),
    sideMm: field.length({
      label: "Side of the square",
      group: "Cut",
      why: "Drawn size.",
      usual: 40,
      when: SQUARE,
    }),
    /** 0 as it is measured, the offset per side as it is proved. */
    grownMm: field.length({
      label: "Grown on each side by",
      group: "Cut",
      why: "Enter 0 to measure, or the offset per side to prove it.",
      usual: 0,
      min: 0,
      max: [2, "The offset is half of the kerf, for example 0.1 mm."],
      when: SQUARE,
    }),
    scaleWithin: field.share({
      label: "Limit of error of lengths",
      group: "Cut",
      why: "Largest error of the axis scale. 0.1 % is 0.04 mm in 40 mm.",
      usual: 0.001,
      max: [0.05, "Correct the scale of the axes first."],
      when: only("part", "hole"),
    }),
    faces: field.choice(FACES, {
      label: "Read on",
      group: "Cut",
      why: "The bottom face shows the taper.",
      usual: "top",
      when: SQUARE,
    }),
    /** All that cross a comb. */
    cuts: field.count({
      label: "Cuts across",
      group: "Cut",
      why: "Number of cuts, including those of the frame.",
      usual: 10,
      min: 3,
      max: 60,
      when: COMB,
    }),
    stripMm: field.length({
      label: "From cut to cut",
      group: "Cut",
      usual: 4,
      min: [NARROWEST_STRIP_MM, "Narrower strips bend or burn."],
      when: COMB,
    }),
  };
}

function mateFields({ machine }: PlanContext) {
  const group = "Mates";
  return {
    /** Width of tongue and slot, diameter of plug and ring. A slot for the sheet is as wide as the sheet, before its offset. */
    jointMm: field.length({
      label: "Width of the joint",
      group,
      why: "Drawn width of both, or the diameter of a plug.",
      usual: 10,
      min: [2, "Narrower joints break."],
      max: 80,
      when: JOINT,
    }),
    offsetOn: field.choice(OFFSETS, {
      label: "The offset is on",
      group,
      why: "An offset on both mates counts twice.",
      usual: "both",
      when: JOINT,
    }),
    firstMm: field.signedLength({
      label: "First offset per side",
      group,
      usual: 0,
      min: -0.5,
      max: 1,
      when: MATES,
    }),
    stepMm: field.length({
      label: "Step",
      group,
      why: "Difference between neighbouring mates.",
      usual: 0.02,
      min: [0.001, "A smaller step cannot be felt."],
      max: 0.5,
      when: MATES,
    }),
    mates: field.count({
      label: "Mates",
      group,
      why: "Use enough mates to reach from loose to too tight.",
      usual: 10,
      min: 4,
      max: 60,
      when: MATES,
    }),
    /** Across both sides. */
    snugGapMm: field.signedLength({
      label: "Snug is a gap of",
      group,
      why: "Gap of both sides together. Only the kerf depends on it.",
      usual: 0.02,
      min: -0.2,
      max: 0.3,
      when: MATES,
    }),
    snugWithinMm: field.length({
      label: "Uncertainty of the snug gap",
      group,
      usual: 0.02,
      min: 0,
      max: 0.3,
      when: MATES,
    }),
    sheetWidthMm: field.length({
      label: "Piece of stock, along X",
      group,
      why: "The mates are laid out on this piece.",
      usual: Math.min(300, machine.widthMm),
      when: MATES,
    }),
    sheetHeightMm: field.length({
      label: "Piece of stock, along Y",
      group,
      usual: Math.min(200, machine.depthMm),
      when: MATES,
    }),
  };
}

function settingFields({ machine }: PlanContext) {
  const group = "Settings";
  const max = topSpeed(machine);
  const letters = Math.min(100, machine.topSpeedMmPerS / 2);
  return {
    speedMmPerS: field.speed({ label: "Cutting speed", group, usual: 10, max }),
    powerPct: powerField({ group, usual: 60 }),
    passes: field.count({ label: "Passes", group, usual: 1, max: 20 }),
    gas: field.choice(GASES, { label: "Gas", group, usual: "air" }),
    focusBelowMm: field.signedLength({
      label: "Focus below the top face",
      group,
      why: "Enter 0 for a focus on the top face.",
      usual: 0,
      min: -20,
      max: 20,
    }),
    markSpeedMmPerS: field.speed({ label: "Speed of the letters", group, usual: letters, max }),
    markPowerPct: powerField({ label: "Power of the letters, %", group, usual: 15 }),
  };
}

/** What it is cut from, as its card had it. */
export type CutFrom = { name: string; batch: string; nominalMm: number; thickness: Thickness | null };

export type KerfPlan = PlanOf<ReturnType<typeof planFields>> & {
  /** From the card; left out where it is not known. */
  from?: CutFrom;
  /** What was fitted when it was laid out; left out where it is not known. */
  optic?: string;
};

/** With what the card of its stock says, and the lens that is fitted. */
export function asCut(typed: PlanOf<ReturnType<typeof planFields>>, { stocks = [], optic }: PlanContext): KerfPlan {
  const from = cutFrom(stocks, typed.stock);
  const sheetMm = typed.way === "sheet slot" ? from?.thickness?.meanMm : undefined;
  return {
    ...typed,
    jointMm: sheetMm === undefined ? typed.jointMm : Math.round(100 * sheetMm) / 100,
    ...(from ? { from } : {}),
    ...(optic ? { optic: optic.label } : {}),
  };
}

function cutFrom(stocks: readonly StockAtHand[], key: string): CutFrom | undefined {
  const found = stocks.find((s) => s.key === key);
  if (!found) return undefined;
  const { name, batch, nominalMm, thickness } = found;
  return { name, batch, nominalMm, thickness };
}

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
