/** The array as it is laid out on its own drawing. */

import { markingTimeS } from "../../coupon/marking-time";
import { contoursIn, drawingLength } from "../../coupon/own-drawing";
import { rowsInside } from "../../coupon/scan-rows";
import {
  CELL_SETTING_KEYS,
  CELL_SETTINGS,
  type CellSetting,
  type CellSettings,
  spaced,
} from "../../marking/cell-settings";
import { plain } from "../../metrology/quantity-text";
import type { Edges } from "../../trial/edges";
import { arrayCells } from "./cells";
import { testArrayRound } from "./coupon";
import { linesOf } from "./figures";
import { needOf, placeText } from "./layout";
import { NO_BLOCKS, type TestArrayPlan } from "./plan";

export const testArrayEdges: Edges<TestArrayPlan> = {
  keys: { across: "across", up: "up", blocks: "blocks" },
  none: NO_BLOCKS,
  cells(plan, { machine }) {
    const cells = arrayCells(plan, machine);
    const energies = cells.map((c) => Math.log(c.dose.energy));
    const [low, high] = [Math.min(...energies), Math.max(...energies)];
    const blocks = 1 + Math.max(...cells.map((c) => c.block));
    return cells.map((cell, i) => ({
      id: cell.id,
      column: cell.column,
      row: cell.row,
      block: cell.block,
      name: placeText(cell, blocks),
      lines: [...linesOf(cell, plan, null), ...(isDrawn(plan) ? [timeText(plan, cell.settings)] : [])],
      state: cell.leftOut !== null ? "left out" : cell.isApart ? "apart" : "burned",
      strength: high > low ? ((energies[i] ?? low) - low) / (high - low) : 0.5,
    }));
  },
  spaced: (setting, first, last, count, by) => {
    const key = keyOf(setting);
    return key ? spaced(key, first, last, count, by) : [];
  },
  unitOf: (setting) => {
    const key = keyOf(setting);
    return key ? CELL_SETTINGS[key].unit : "";
  },
  needs(plan, context) {
    const { widthMm, heightMm } = needOf(plan);
    const stock = `Stock of at least ${plain(Math.ceil(widthMm))} × ${plain(Math.ceil(heightMm))} mm.`;
    return isDrawn(plan) ? `At least ${minutes(markingTimeS(testArrayRound(plan, context)))}. ${stock}` : stock;
  },
};

function keyOf(setting: string): CellSetting | null {
  return CELL_SETTING_KEYS.find((k) => k === setting) ?? null;
}

/** Without its drawing the time of a cell is not known. */
function isDrawn({ fill, drawing }: TestArrayPlan): boolean {
  return (fill !== "own filled" && fill !== "own lines") || drawing !== "";
}

/** Length that is marked in a cell, once. */
function wayMm({ cellMm, fill, drawing }: TestArrayPlan, rowPitchMm: number): number {
  const own = contoursIn(drawing) ?? [];
  if (fill === "filled") return cellMm ** 2 / rowPitchMm;
  if (fill === "own lines") return cellMm * drawingLength(own);
  if (fill !== "own filled") return 4 * cellMm;
  const rows = rowsInside(
    own.map((c) => c.points),
    rowPitchMm / cellMm,
  );
  return cellMm * rows.reduce((sum, { x0, x1 }) => sum + x1 - x0, 0);
}

/** Time of the marking alone, without ways between rows. */
function timeText(plan: TestArrayPlan, { speedMmPerS, rowPitchMm, passes, dwellMs }: CellSettings): string {
  const way = wayMm(plan, rowPitchMm);
  const seconds = dwellMs > 0 ? ((way / rowPitchMm) * dwellMs) / 1000 : way / speedMmPerS;
  return `${plain(passes * seconds, 1)} s`;
}

function minutes(seconds: number): string {
  return seconds < 90 ? `${plain(seconds, 0)} s` : `${plain(seconds / 60, 0)} min`;
}
