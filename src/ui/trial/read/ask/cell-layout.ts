/** Keys laid out as their cells lie on the stock. */

import type { Site } from "../../../../core/coupon/site";
import { elementAt } from "../../../../core/fitting/element-at";
import type { Rect } from "../../../../core/geometry/rect";

/** Columns and rows count from 1, the top row first. */
export type CellLayout = { columns: number; places: { column: number; row: number; area: Rect }[] };

/** Cells this far apart lie in rows or columns of their own, mm. */
const APART_MM = 0.5;
/** So many keys still stand beside one another on a phone. */
const MOST_COLUMNS = 9;

/** `null` where the cells of a site have no place on the stock, or too many stand in a row for keys beside one another. */
export function cellLayout({ ask, measurand }: Pick<Site, "ask" | "measurand">): CellLayout | null {
  if (ask.kind !== "cells" && ask.kind !== "comparison" && ask.kind !== "scores") return null;
  const areas = areasOf(measurand);
  if (areas.length !== ask.cells.length) return null;
  const lefts = levels(areas.map((a) => a.x0));
  // The two cells of a comparison are chosen by keys of their own and are drawn alone.
  if (lefts.length > MOST_COLUMNS && ask.kind === "cells") return null;
  const tops = levels(areas.map((a) => -a.y1));
  return {
    columns: lefts.length,
    places: areas.map((area) => ({
      column: 1 + nearest(lefts, area.x0),
      row: 1 + nearest(tops, -area.y1),
      area,
    })),
  };
}

/** None where nothing says where the cells lie. */
function areasOf(measurand: Site["measurand"]): readonly Rect[] {
  switch (measurand.kind) {
    case "marked":
    case "sharpest":
    case "best cells":
    case "passed":
    case "charred":
    case "better of two":
    case "cell colour":
      return measurand.cells;
    default:
      return [];
  }
}

/** Distinct values, rising. */
function levels(values: readonly number[]): number[] {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted.filter((v, i) => i === 0 || v - elementAt(sorted, i - 1) > APART_MM);
}

function nearest(values: readonly number[], value: number): number {
  return values.reduce((best, v, i) => (Math.abs(v - value) < Math.abs(elementAt(values, best) - value) ? i : best), 0);
}
