/** Against OpenCV 4.12.0 (getPerspectiveTransform) on the same points, and by hand. */
import { describe, expect, it } from "vitest";
import { projected, projectiveThrough } from "./projective";

const SQUARE = [
  { x: 0, y: 0 },
  { x: 1, y: 0 },
  { x: 1, y: 1 },
  { x: 0, y: 1 },
];

describe("a projective map", () => {
  it("goes through its four points, and sends straight lines to straight lines", () => {
    const to = [
      { x: 2, y: 1 },
      { x: 9, y: 2 },
      { x: 7, y: 8 },
      { x: 1, y: 6 },
    ];
    const map = projectiveThrough(SQUARE.map((from, i) => ({ from, to: to[i] as { x: number; y: number } })));
    if (!map) throw new Error("none");
    SQUARE.forEach((p, i) => {
      expect(projected(map, p).x).toBeCloseTo(to[i]?.x ?? 0, 10);
      expect(projected(map, p).y).toBeCloseTo(to[i]?.y ?? 0, 10);
    });
    // The diagonals of the square meet where those of its picture do: by hand, 2 + 5 s = 9 - 8 t, 1 + 7 s = 2 + 4 t.
    const t = (7 * 7 - 5) / (8 * 7 + 5 * 4);
    const middle = projected(map, { x: 0.5, y: 0.5 });
    expect(middle.x).toBeCloseTo(9 - 8 * t, 10);
    expect(middle.y).toBeCloseTo(2 + 4 * t, 10);
  });

  it("is a view: by hand, x / (1 + x / 2) in the middle of a side", () => {
    const map = projectiveThrough(
      SQUARE.map((from) => ({ from, to: { x: from.x / (1 + from.x / 2), y: from.y / (1 + from.x / 2) } })),
    );
    expect(map && projected(map, { x: 0.5, y: 1 }).x).toBeCloseTo(0.4, 12);
    expect(map && projected(map, { x: 0.5, y: 1 }).y).toBeCloseTo(0.8, 12);
  });

  it("is that of OpenCV through the same points", () => {
    const to = [
      { x: 212.5, y: 103.125 },
      { x: 931.25, y: 188.5 },
      { x: 866, y: 842.75 },
      { x: 148.875, y: 760.25 },
    ];
    const theirs = [
      722.532738277698, -63.232626938225756, 212.5, 86.1406871574186, 659.1287052575238, 103.125, 0.004062000835111892,
      0.0026355873167035744,
    ];
    const map = projectiveThrough(SQUARE.map((from, i) => ({ from, to: to[i] as { x: number; y: number } })));
    expect(map).toEqual(theirs.map((h) => expect.closeTo(h, 9)));
  });

  it("is none where three points lie on a line", () => {
    const flat = [...SQUARE.slice(0, 2), { x: 2, y: 0 }, { x: 0, y: 1 }];
    expect(projectiveThrough(flat.map((from, i) => ({ from, to: SQUARE[i] as { x: number; y: number } })))).toBeNull();
  });
});
