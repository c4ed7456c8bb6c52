import { describe, expect, it } from "vitest";
import { marksPicture } from "./marks-picture";

const AREA = { widthMm: 40, heightMm: 30 };
const AT = { xMm: 100, yMm: 50 };
const STOCK = 222;
const DEPTH = 222 - 52;

const mark = (x0: number, y0: number, x1: number, y1: number, widthMm = 0.4) => ({
  x0: x0 + AT.xMm,
  y0: y0 + AT.yMm,
  x1: x1 + AT.xMm,
  y1: y1 + AT.yMm,
  widthMm,
  speedMmPerS: 100,
  line: 1,
});

/** Area in mm² and middle in mm of what is dark, by the share of each pixel. */
function darkness(dpi: number, ...marks: ReturnType<typeof mark>[]) {
  const { width, height, grey, pixelsPerMm } = marksPicture(marks, AT, AREA, dpi);
  let [sum, sx, sy] = [0, 0, 0];
  for (let row = 0; row < height; row++)
    for (let column = 0; column < width; column++) {
      const share = (STOCK - (grey[row * width + column] ?? STOCK)) / DEPTH;
      sum += share;
      sx += share * (column + 0.5);
      sy += share * (row + 0.5);
    }
  return {
    areaMm2: sum / pixelsPerMm ** 2,
    xMm: sx / sum / pixelsPerMm,
    yMm: AREA.heightMm - sy / sum / pixelsPerMm,
  };
}

describe("the picture of a piece", () => {
  it.each([
    ["level", mark(5.123, 10.456, 25.789, 10.456)],
    ["upright", mark(7.3, 2.2, 7.3, 22.7)],
    ["slanted", mark(4.1, 5.2, 31.3, 20.9)],
  ])("has a %s mark where it is and as large as it is", (_, m) => {
    const seen = darkness(600, m);
    const length = Math.hypot(m.x1 - m.x0, m.y1 - m.y0);
    expect(seen.areaMm2 / (length * m.widthMm)).toBeCloseTo(1, 2);
    expect(seen.xMm).toBeCloseTo((m.x0 + m.x1) / 2 - AT.xMm, 3);
    expect(seen.yMm).toBeCloseTo((m.y0 + m.y1) / 2 - AT.yMm, 3);
  });

  it("ends a row where the beam went off, to a fraction of a pixel", () => {
    const dpi = 1200;
    const { width, height, grey, pixelsPerMm } = marksPicture([mark(5, 15, 25.4567, 15)], AT, AREA, dpi);
    const row = Math.floor(height / 2);
    const dark = grey.subarray(row * width, (row + 1) * width);
    const end = dark.reduce((sum, g) => sum + (STOCK - g) / DEPTH, 0) / pixelsPerMm + 5;
    expect(Math.abs(end - 25.4567)).toBeLessThan(0.002);
  });

  it("does not darken twice where marks cross, and leaves out what lies beside the piece", () => {
    const one = marksPicture([mark(5, 10, 25, 10)], AT, AREA, 300);
    const twice = marksPicture([mark(5, 10, 25, 10), mark(5, 10, 25, 10), mark(-30, 10, -5, 10)], AT, AREA, 300);
    expect(twice.grey).toEqual(one.grey);
    expect(one.grey.reduce((a, b) => Math.min(a, b))).toBe(52);
  });

  it("is refused where it has no pixel or too many", () => {
    expect(() => marksPicture([], AT, AREA, 0)).toThrow(/dpi/);
    expect(() => marksPicture([], AT, AREA, Number.NaN)).toThrow(/dpi/);
    expect(() => marksPicture([], AT, { widthMm: 1000, heightMm: 1000 }, 600)).toThrow(/dpi/);
  });
});
