/** Where cuts and words lie, mm from the lower left corner of the stock. */
import type { CouponPoint } from "../../geometry/frames";
import { isMateWay, type KerfPlan, offsetsOf } from "./plan";

export const EDGE_MM = 12;
export const LETTERS_MM = 2.4;
/** Between two pieces that are cut out. */
export const BETWEEN_MM = 3;
/** Beside the joint of a mate. */
export const CHEEK_MM = 5;
/** How deep tongue and slot are, and how long a slot for the sheet is. */
export const [TONGUE_MM, SLOT_MM] = [8, 18];
/** The band of a mate that its value stands on. */
export const BAND_MM = 6;
/** Height of the strips of a comb, and of the words above all. */
export const [STRIP_HEIGHT_MM, HEAD_MM] = [24, 8];

export type Cell = { index: number; offsetMm: number; x: number; y: number; widthMm: number; heightMm: number };

/** What one pair of mates takes. */
export function cellSize({ way, jointMm }: Pick<KerfPlan, "way" | "jointMm">): { widthMm: number; heightMm: number } {
  const widthMm = jointMm + 2 * CHEEK_MM + BETWEEN_MM;
  if (way === "sheet slot")
    return { widthMm: Math.max(widthMm, 4 * LETTERS_MM + BETWEEN_MM), heightMm: SLOT_MM + BAND_MM + BETWEEN_MM };
  if (way === "plug and ring") return { widthMm, heightMm: 2 * (jointMm + BETWEEN_MM) + 2 * CHEEK_MM + BAND_MM };
  return { widthMm, heightMm: 2 * (TONGUE_MM + BAND_MM + BETWEEN_MM) };
}

/** How many mates go beside each other on the piece of stock; 0 where not one does. */
export function columnsOf(plan: Pick<KerfPlan, "way" | "jointMm" | "sheetWidthMm" | "mates">): number {
  const columns = Math.floor((plan.sheetWidthMm - 2 * EDGE_MM) / cellSize(plan).widthMm);
  return Math.max(0, Math.min(columns, plan.mates));
}

/** Mates in their order, row by row from the back: each pair stands by itself, the value on both. */
export function cellsOf(plan: KerfPlan): Cell[] {
  const { widthMm, heightMm } = cellSize(plan);
  const columns = Math.max(1, columnsOf(plan));
  const rows = Math.ceil(plan.mates / columns);
  return offsetsOf(plan).map((offsetMm, index) => ({
    index,
    offsetMm,
    widthMm,
    heightMm,
    x: EDGE_MM + (index % columns) * widthMm,
    y: EDGE_MM + (rows - 1 - Math.floor(index / columns)) * heightMm,
  }));
}

/** How much of the piece of stock mates need, mm. */
export function matesNeed(plan: Pick<KerfPlan, "way" | "jointMm" | "sheetWidthMm" | "mates">): {
  widthMm: number;
  heightMm: number;
} {
  const cell = cellSize(plan);
  const columns = Math.max(1, columnsOf(plan));
  return {
    widthMm: 2 * EDGE_MM + columns * cell.widthMm,
    heightMm: 2 * EDGE_MM + Math.ceil(plan.mates / columns) * cell.heightMm + HEAD_MM,
  };
}

/** The window of a comb, by its cuts. */
export function combWidthMm({ cuts, stripMm }: Pick<KerfPlan, "cuts" | "stripMm">): number {
  return (cuts - 1) * stripMm;
}

/** Lower left corner of the comb whose cuts run along Y, and of the one whose cuts run along X. */
export function combCorner(plan: Pick<KerfPlan, "cuts" | "stripMm">, axis: "x" | "y"): CouponPoint {
  return { x: EDGE_MM + (axis === "x" ? 0 : combWidthMm(plan) + EDGE_MM), y: EDGE_MM };
}

/** The piece of stock that is used. */
export function sheetOf(plan: KerfPlan): { widthMm: number; heightMm: number } {
  if (isMateWay(plan.way)) {
    const need = matesNeed(plan);
    return { widthMm: Math.max(need.widthMm, 40), heightMm: need.heightMm };
  }
  if (plan.way === "comb") {
    const width = combWidthMm(plan);
    return {
      widthMm: 3 * EDGE_MM + width + STRIP_HEIGHT_MM,
      heightMm: 2 * EDGE_MM + HEAD_MM + Math.max(width, STRIP_HEIGHT_MM),
    };
  }
  const side = plan.sideMm + 2 * plan.grownMm;
  return { widthMm: side + 2 * EDGE_MM, heightMm: side + 2 * EDGE_MM };
}

/** Lower left corner of the square as it is cut. */
export const SQUARE_AT: CouponPoint = { x: EDGE_MM, y: EDGE_MM };

/** Side of the square as it is cut, mm: a hole alone shrinks, a part grows. */
export function cutSideMm({ way, sideMm, grownMm }: Pick<KerfPlan, "way" | "sideMm" | "grownMm">): number {
  return sideMm + (way === "hole" ? -2 : 2) * grownMm;
}
