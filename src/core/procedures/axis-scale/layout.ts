/** Where ticks, cuts and words lie on the stock, mm from its lower left corner. */
import type { CouponPoint } from "../../geometry/frames";
import type { Axis } from "../../machine/machine-kind";
import { axesOf } from "../../measuring/axes-field";
import { rowsOf } from "./places";
import { type AxisScalePlan, isCut, spanOf } from "./plan";

export const SPACING_MM = {
  edge: 12,
  /** Ticks of a row, and between rows. */
  tick: 6,
  gap: 2,
  /** Numbers of the ticks, and their distance from the last row. */
  numbers: 2,
  toNumbers: 1.2,
  letters: 3,
  toWords: 6,
  /** Before the first and behind the last tick, so that each is come to from its side. */
  leadIn: 5,
  /** Longest words beside a ladder that runs up. */
  wordsAcross: 52,
} as const;

export type Laid = Pick<AxisScalePlan, "way" | "axes" | "spanXMm" | "spanYMm" | "approach" | "rows">;

/** Height of all rows of ticks of a ladder. */
export function bandMm(plan: Laid): number {
  const rows = rowsOf(plan).length;
  return rows * SPACING_MM.tick + (rows - 1) * SPACING_MM.gap;
}

/** Rows, numbers and words of the ladder along X: the one along Y begins above them. */
function bandWithWordsMm(plan: Laid): number {
  return bandMm(plan) + SPACING_MM.toWords + 2 * SPACING_MM.letters + SPACING_MM.leadIn;
}

/** Where the first tick of an axis stands on the guide line. */
export function firstTick(plan: Laid, axis: Axis): CouponPoint {
  const { edge } = SPACING_MM;
  return { x: edge, y: edge + (axis === "y" && axesOf(plan).includes("x") ? bandWithWordsMm(plan) : 0) };
}

/** How much of the stock is used along an axis. */
export function sheetOf(plan: Laid, axis: Axis): number {
  const { edge, toWords, wordsAcross } = SPACING_MM;
  if (isCut(plan)) return 2 * edge + sideOfCut(plan, axis);
  const axes = axesOf(plan);
  const own = axes.includes(axis) ? spanOf(plan, axis) : 0;
  if (axis === "x") return 2 * edge + Math.max(own, axes.includes("y") ? bandMm(plan) + toWords + wordsAcross : 0);
  return 2 * edge + own + (axes.includes("x") ? bandWithWordsMm(plan) : 0);
}

/** How much of the bed a length along an axis leaves free for edges and for the other ladder. */
export function besideSpan(plan: Laid, axis: Axis): number {
  const isAbove = !isCut(plan) && axis === "y" && axesOf(plan).includes("x");
  return 2 * SPACING_MM.edge + (isAbove ? bandWithWordsMm(plan) : 0);
}

/** A part of which one side alone is measured is half as long the other way. */
export function sideOfCut(plan: Laid, axis: Axis): number {
  return axesOf(plan).includes(axis) ? spanOf(plan, axis) : spanOf(plan, axis === "x" ? "y" : "x") / 2;
}

/** Along an axis and across it, from the first tick, as a point of the coupon. */
export function pointOn(plan: Laid, axis: Axis, along: number, across: number): CouponPoint {
  const { x, y } = firstTick(plan, axis);
  return axis === "x" ? { x: x + along, y: y + across } : { x: x + across, y: y + along };
}

/** From where to where a row of ticks reaches across, from the guide line. */
export function rowReach(row: number): [number, number] {
  const low = row * (SPACING_MM.tick + SPACING_MM.gap);
  return [low, low + SPACING_MM.tick];
}
