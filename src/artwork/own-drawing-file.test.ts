/** Drawings of one's own: from SVG files to text and back. */
import { describe, expect, it } from "vitest";
import { contoursIn, drawingLength, MOST_DRAWING_POINTS, placedIn } from "../core/coupon/own-drawing";
import { rowsInside } from "../core/coupon/scan-rows";
import { ownDrawing } from "./own-drawing-file";

const svg = (inner: string) =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="100mm" viewBox="0 0 100 100">${inner}</svg>`;

function textOf(inner: string): string {
  const read = ownDrawing(svg(inner));
  if (!read.ok) throw new Error(read.message);
  return read.value;
}

describe("a drawing of one's own", () => {
  it("keeps its shape in the middle of a square, Y up", () => {
    // 40 wide, 20 high, its upper left corner cut off.
    const text = textOf('<polygon points="20,10 50,10 50,30 10,30 10,20"/>');
    const [contour] = contoursIn(text) ?? [];
    expect(contour?.closed).toBe(true);
    expect(contour?.points).toEqual([
      { x: 0.25, y: 0.75 },
      { x: 1, y: 0.75 },
      { x: 1, y: 0.25 },
      { x: 0, y: 0.25 },
      { x: 0, y: 0.5 },
    ]);
    const [placed] = placedIn(contoursIn(text) ?? [], { x0: 10, y0: 20, x1: 18, y1: 28 });
    expect(placed?.points[0]).toEqual({ x: 12, y: 26 });
  });

  it("has the length and the area of its curves", () => {
    const ring = contoursIn(textOf('<circle cx="50" cy="50" r="40"/><circle cx="50" cy="50" r="20"/>')) ?? [];
    // Circles of diameter 1 and 1/2.
    expect(drawingLength(ring)).toBeCloseTo(1.5 * Math.PI, 1);
    const rows = rowsInside(
      ring.map((c) => c.points),
      0.004,
    );
    const area = 0.004 * rows.reduce((sum, { x0, x1 }) => sum + x1 - x0, 0);
    expect(area).toBeCloseTo((Math.PI / 4) * (1 - 0.25), 2);
    // The middle row has a hole from 1/4 to 3/4.
    const middle = rows.filter((r) => Math.abs(r.y - 0.5) < 0.002);
    expect(middle.map((r) => [r.x0, r.x1].map((v) => Math.round(100 * v)))).toEqual([
      [0, 25],
      [75, 100],
    ]);
  });

  it("leaves open lines open", () => {
    const [line] = contoursIn(textOf('<polyline points="0,0 10,0 10,10"/>')) ?? [];
    expect(line?.closed).toBe(false);
    expect(drawingLength(line ? [line] : [])).toBeCloseTo(2, 9);
  });

  it("is refused without lines, or with too many points", () => {
    expect(ownDrawing("no svg")).toMatchObject({
      ok: false,
      message: expect.stringMatching(/^The file cannot be read\. .* Choose another SVG file\.$/),
    });
    expect(ownDrawing(svg(""))).toMatchObject({ ok: false, message: expect.stringMatching(/^The file has no lines/) });
    const zigzag = Array.from({ length: MOST_DRAWING_POINTS + 1 }, (_, i) => `${i % 100},${(i * 7) % 90}`).join(" ");
    expect(ownDrawing(svg(`<polyline points="${zigzag}"/>`))).toMatchObject({
      ok: false,
      message: expect.stringMatching(/^The drawing has \d+ points\. Choose a simpler drawing/),
    });
  });

  it.each(["", "z", "0,0", "0,0 1", "0,0 2,2", "a,b c,d", "0,0 1,1;", "0,0 1,1 z z"])("is no drawing: “%s”", (text) => {
    expect(contoursIn(text)).toBeNull();
  });
});
