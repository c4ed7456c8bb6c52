import { describe, expect, it } from "vitest";
import { boundsOf } from "../geometry/rect";
import { fittingLetters, letterStrokes, textWidthMm } from "./lettering";

describe("stroke letters", () => {
  it("are as high as asked, on the baseline", () => {
    const bounds = boundsOf(letterStrokes("H", { x: 5, y: 10 }, 3).flat());
    expect(bounds?.y0).toBeCloseTo(10, 9);
    expect(bounds?.y1).toBeCloseTo(13, 9);
  });

  it("end where they are anchored", () => {
    const width = textWidthMm("400", 3);
    const right = boundsOf(letterStrokes("400", { x: 20, y: 0 }, 3, "end").flat());
    expect(right?.x1).toBeLessThanOrEqual(20);
    expect(right?.x0).toBeGreaterThanOrEqual(20 - width);
  });

  it("have what labels need, and a mark for what they lack", () => {
    for (const text of ["A-14 MM/S", "0.3 µm", "−5 %"])
      expect(letterStrokes(text, { x: 0, y: 0 }, 3).length).toBeGreaterThan(3);
    expect(letterStrokes("漢", { x: 0, y: 0 }, 3)).toEqual(letterStrokes("?", { x: 0, y: 0 }, 3));
  });

  it("makes letters as high as there is room for, and no higher than wanted", () => {
    expect(fittingLetters("A", 100, 3)).toBe(3);
    const height = fittingLetters("A-14 2026-05-31", 20, 3);
    expect(textWidthMm("A-14 2026-05-31", height)).toBeCloseTo(20, 9);
  });
});
