/** What a spacer is signed with lies on its sheet, whatever its size, and its file names no speed that nobody chose. */
import { describe, expect, it } from "vitest";
import type { Piece } from "../../core/coupon/piece";
import { type SpacerSize, spacerDrawing } from "../../core/procedures/focus/spacer";
import { parseSvgDrawing } from "../../formats/svg-drawing";
import { svgOf } from "../../formats/svg-writer";
import { signed } from "./made-drawing";

const LINES = ["Alder", "fixed, 50.8 mm, of a long name", "2026-11-26"];
const spacer = (size: Partial<SpacerSize>): Piece =>
  signed(
    { kind: "drawing", name: "spacer", ...spacerDrawing({ gapMm: 50, kerfMm: 0.2, sheetMm: 3, foot: false, ...size }) },
    LINES,
  );

type Point = { x: number; y: number };

/** Even-odd, by a ray to the right. */
function isIn(points: readonly Point[], { x, y }: Point): boolean {
  let inside = false;
  points.forEach((a, i) => {
    const b = points[(i + 1) % points.length] as Point;
    if (a.y > y !== b.y > y && x < a.x + ((y - a.y) / (b.y - a.y)) * (b.x - a.x)) inside = !inside;
  });
  return inside;
}

describe("a spacer's signature", () => {
  it.each([
    { gapMm: 9 },
    { gapMm: 12, sheetMm: 12 },
    { gapMm: 24, foot: true },
    { gapMm: 50, foot: true },
    { gapMm: 50, sheetMm: 20, foot: true },
    { gapMm: 300 },
  ])("lies on the first sheet, off its slot: %o", (size) => {
    const piece = spacer(size);
    const [sheet] = piece.paths.filter((p) => p.settings === "cut");
    const letters = piece.paths.filter((p) => p.settings === "letters").flatMap((p) => p.points);
    expect(letters.length).toBeGreaterThan(50);
    for (const p of letters) expect(isIn(sheet?.points ?? [], p), JSON.stringify(p)).toBe(true);
  });

  it("stands in letters of 3 mm where there is room, and no smaller than 1 mm where there is little", () => {
    const tall = (piece: Piece) => {
      const ys = piece.paths.filter((p) => p.settings === "letters").flatMap((p) => p.points.map((q) => q.y));
      return Math.max(...ys) - Math.min(...ys);
    };
    // Three lines, 1.7 heights apart
    expect(tall(spacer({ gapMm: 300 }))).toBeCloseTo(3 * 4.4, 1);
    expect(tall(spacer({ gapMm: 24, foot: true }))).toBeLessThan(3 * 4.4);
  });

  it("goes out without speed and power, which belong to the stock", () => {
    const file = svgOf(spacer({}), false);
    expect(file).not.toMatch(/data-speed|data-power/);
    expect(file).toMatch(/data-label="Cut"/);
    const read = parseSvgDrawing(file);
    expect(read.ok).toBe(true);
  });
});
