import { describe, expect, it } from "vitest";
import { projectiveThrough } from "../../fitting/projective";
import { cellSheet, SHEET_CELL_PX, SHEET_COLUMNS } from "./cell-sheet";

describe("cells of a picture side by side", () => {
  /** A picture of 100 x 80 pixels, brighter to the right and darker downward. */
  const picture = {
    width: 100,
    height: 80,
    grey: Uint8Array.from({ length: 8000 }, (_, i) => 100 + (i % 100) - Math.floor(i / 100)),
  };
  const corners = [
    { x: 0, y: 0 },
    { x: 10, y: 0 },
    { x: 10, y: 8 },
    { x: 0, y: 8 },
  ];
  const at = (sheet: { width: number; grey: Uint8Array }, k: number, column: number, row: number) => {
    const [left, top] = [(k % SHEET_COLUMNS) * SHEET_CELL_PX, Math.floor(k / SHEET_COLUMNS) * SHEET_CELL_PX];
    return sheet.grey[(top + row) * sheet.width + left + column] ?? 0;
  };
  const LAST = SHEET_CELL_PX - 1;

  it("are upright whichever way the picture lies, row after row", () => {
    // Coupon of 10 x 8 mm, its Y up; then the same turned by half a turn.
    for (const turned of [false, true]) {
      const to = corners.map(({ x, y }) => (turned ? { x: 100 - 10 * x, y: 10 * y } : { x: 10 * x, y: 80 - 10 * y }));
      const map = projectiveThrough(corners.map((from, i) => ({ from, to: to[i] ?? from })));
      if (!map) throw new Error("no map");
      const cells = Array.from({ length: SHEET_COLUMNS + 1 }, () => ({ x0: 2, y0: 2, x1: 6, y1: 6 }));
      const sheet = cellSheet(picture, map, cells);
      expect([sheet.width, sheet.height]).toEqual([SHEET_COLUMNS * SHEET_CELL_PX, 2 * SHEET_CELL_PX]);
      const sign = turned ? -1 : 1;
      for (const k of [0, SHEET_COLUMNS]) {
        // 4 mm are 40 pixels: along X and along Y the grey changes by 40.
        expect(sign * (at(sheet, k, LAST, 0) - at(sheet, k, 0, 0))).toBeCloseTo(39, -0.5);
        expect(sign * (at(sheet, k, 0, 0) - at(sheet, k, 0, LAST))).toBeCloseTo(39, -0.5);
      }
      expect(at(sheet, SHEET_COLUMNS + 1, 5, 5)).toBe(255);
    }
  });

  it("are white outside the picture", () => {
    const map = projectiveThrough(corners.map((from) => ({ from, to: { x: 10 * from.x, y: 80 - 10 * from.y } })));
    if (!map) throw new Error("no map");
    const sheet = cellSheet(picture, map, [{ x0: -4, y0: 2, x1: -1, y1: 5 }]);
    expect(at(sheet, 0, 20, 20)).toBe(255);
  });
});
