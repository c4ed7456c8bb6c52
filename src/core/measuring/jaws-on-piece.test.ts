import { describe, expect, it } from "vitest";
import type { Measurand } from "../coupon/site";
import { betweenJaws, jawsOnPiece } from "./jaws-on-piece";

const cross = (x: number, y: number) => ({ kind: "cross" as const, near: { x, y } });
const place = { piece: "coupon", at: { x: 30, y: 20 }, radiusMm: 2 };
const layout = (measurand: Measurand) => {
  const jaws = jawsOnPiece({ measurand, place });
  if (!jaws) throw new Error(measurand.kind);
  return jaws;
};

describe("jaws on the picture of a coupon", () => {
  it("have separate views for distant marks, and measure along the line between the marks", () => {
    const jaws = layout({ kind: "span", from: cross(10, 10), to: cross(40, 50) });
    expect(jaws.views).toEqual([
      { x: 10, y: 10 },
      { x: 40, y: 50 },
    ]);
    // Sides of 30 and 40 mm make 50 mm; the second mark is 0.3 mm further along.
    const set = [
      { view: 0, offMm: 0 },
      { view: 1, offMm: 0.3 },
    ] as const;
    expect(betweenJaws(jaws, set)).toBeCloseTo(50.3, 9);
    expect(jaws.along.x).toBeCloseTo(0.6, 9);
  });

  it("measure a signed coordinate along one axis", () => {
    const jaws = layout({ kind: "distance", from: cross(40, 12), to: cross(10, 30), along: "x" });
    expect(
      betweenJaws(jaws, [
        { view: 0, offMm: 0.1 },
        { view: 1, offMm: -0.1 },
      ]),
    ).toBeCloseTo(-30.2, 9);
  });

  it("share one view for near marks, and follow a move", () => {
    const within = { x0: 28, y0: 10, x1: 32, y1: 30 };
    const ends = (going: "right" | "left") => ({ kind: "row ends" as const, within, end: "left" as const, going });
    const jaws = layout({ kind: "distance", from: ends("right"), to: ends("left"), along: "x" });
    expect(jaws.views).toEqual([{ x: 30, y: 20 }]);
    expect(jaws.acrossMm).toBe(4);
    expect(betweenJaws(jaws, jaws.start)).toBeCloseTo(2, 9);
    const [first, second] = jaws.start;
    expect(betweenJaws(jaws, [first, { ...second, offMm: second.offMm - 1.7 }])).toBeCloseTo(0.3, 9);
  });

  it("measure a width across its line", () => {
    const within = { x0: 28, y0: 19, x1: 32, y1: 21 };
    expect(layout({ kind: "width", of: { kind: "line", within } }).along).toEqual({ x: 0, y: 1 });
    expect(layout({ kind: "width", of: { kind: "line", within, along: "y" } }).along).toEqual({ x: 1, y: 0 });
  });

  it("do not exist for other readings", () => {
    expect(jawsOnPiece({ measurand: { kind: "known length", mm: 50 }, place })).toBeNull();
    expect(jawsOnPiece({ measurand: { kind: "mirrored" }, place })).toBeNull();
  });
});
