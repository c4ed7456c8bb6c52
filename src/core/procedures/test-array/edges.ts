/** The array as it is laid out on its own drawing. */

import { markingTimeS } from "../../coupon/marking-time";
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
      lines: [...linesOf(cell, plan, null), timeText(plan, cell.settings)],
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
    const seconds = markingTimeS(testArrayRound(plan, context));
    return `At least ${minutes(seconds)}. Stock of at least ${plain(Math.ceil(widthMm))} × ${plain(Math.ceil(heightMm))} mm.`;
  },
};

function keyOf(setting: string): CellSetting | null {
  return CELL_SETTING_KEYS.find((k) => k === setting) ?? null;
}

/** Time of the marking alone, without ways between rows. */
function timeText({ cellMm, fill }: TestArrayPlan, { speedMmPerS, rowPitchMm, passes, dwellMs }: CellSettings): string {
  const way = fill === "filled" ? cellMm ** 2 / rowPitchMm : 4 * cellMm;
  const seconds = dwellMs > 0 ? ((way / rowPitchMm) * dwellMs) / 1000 : way / speedMmPerS;
  return `${plain(passes * seconds, 1)} s`;
}

function minutes(seconds: number): string {
  return seconds < 90 ? `${plain(seconds, 0)} s` : `${plain(seconds / 60, 0)} min`;
}
