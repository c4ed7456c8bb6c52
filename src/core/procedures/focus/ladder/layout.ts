/** Where the cells of a height ladder lie on the stock: row by row from the top, numbered as they are burned. */
import type { Rect } from "../../../geometry/rect";
import { type Cell, cellsOf, type LadderPlan } from "../plan";

export const SPACING_MM = { edge: 5, title: 8, letters: 2.4, cell: 9, number: 3.6, gap: 3 } as const;
/** Left of the cell the hatched square, right of it the single lines, where it holds both. */
export const HATCH_PITCH_MM = 0.5;
export const LINE_PITCH_MM = 1.2;
/** Between the parts of a cell. */
const BESIDE_MM = 0.8;

/** `lines` run along X, `upright` along Y. */
export type CellPlace = Cell & { area: Rect; square: Rect | null; lines: Rect | null; upright: Rect | null };

/** How many cells fit beside one another. */
export function columnsOf({ stockWidthMm }: Pick<LadderPlan, "stockWidthMm">): number {
  return Math.max(
    0,
    Math.floor((stockWidthMm - 2 * SPACING_MM.edge + SPACING_MM.gap) / (SPACING_MM.cell + SPACING_MM.gap)),
  );
}

/** Height of stock that so many cells need, mm; `Infinity` where not even one fits beside the edges. */
export function usedHeightMm(plan: Pick<LadderPlan, "stockWidthMm" | "count">): number {
  const columns = columnsOf(plan);
  if (columns === 0) return Infinity;
  const rows = Math.ceil(plan.count / columns);
  return 2 * SPACING_MM.edge + SPACING_MM.title + rows * (SPACING_MM.cell + SPACING_MM.number + SPACING_MM.gap);
}

export function placesOf(plan: LadderPlan): CellPlace[] {
  const columns = columnsOf(plan);
  const top = plan.stockHeightMm - SPACING_MM.edge - SPACING_MM.title;
  return cellsOf(plan).map((cell, i) => {
    const x0 = SPACING_MM.edge + (i % columns) * (SPACING_MM.cell + SPACING_MM.gap);
    const y1 = top - Math.floor(i / columns) * (SPACING_MM.cell + SPACING_MM.number + SPACING_MM.gap);
    const area = { x0, y0: y1 - SPACING_MM.cell, x1: x0 + SPACING_MM.cell, y1 };
    return { ...cell, area, ...partsOf(area, plan) };
  });
}

function partsOf(area: Rect, { marks }: LadderPlan): Pick<CellPlace, "square" | "lines" | "upright"> {
  if (marks === "squares") return { square: area, lines: null, upright: null };
  if (marks === "lines") return { square: null, lines: area, upright: null };
  if (marks === "both") {
    const middle = area.x0 + SPACING_MM.cell * 0.45;
    return { square: { ...area, x1: middle }, lines: { ...area, x0: middle + BESIDE_MM }, upright: null };
  }
  const middle = (area.y0 + area.y1) / 2;
  return {
    square: null,
    lines: { ...area, y0: middle + BESIDE_MM / 2 },
    upright: { ...area, y1: middle - BESIDE_MM / 2 },
  };
}
