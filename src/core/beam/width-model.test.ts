import { describe, expect, it } from "vitest";
import { markWidth, type Spot } from "./mark-width-law";
import { type Around, focusRow, knownOfCells, knownOfLaw, lawWidth, unmarkedRow, widthRow } from "./width-model";

const SPOT: Spot = { z0: 10, zR: 1.5, w0: 0.1, lnR: Math.log(5) };
const AROUND: Around = { spot: SPOT, apartMm: 0.4, p: 1, rangeMm: 10, middleMm: 11, visibleMm: 0.02 };
const STEP = 1e-5;

/** By how much the law changes a width with one number of its spot, by two evaluations of the law itself. */
function slopeBy(change: (by: number) => Spot, zMm: number): number {
  return (markWidth(zMm, change(STEP), 1) - markWidth(zMm, change(-STEP), 1)) / (2 * STEP);
}

describe("the law around a spot", () => {
  it("has the waist of lines along X half of the distance above the middle, that of lines along Y below", () => {
    expect(lawWidth(9, "x", AROUND)).toBeCloseTo(markWidth(9, { ...SPOT, z0: 10.2 }, 1), 12);
    expect(lawWidth(9, "y", AROUND)).toBeCloseTo(markWidth(9, { ...SPOT, z0: 9.8 }, 1), 12);
    expect(lawWidth(9, "x", { ...AROUND, apartMm: null })).toBeCloseTo(markWidth(9, SPOT, 1), 12);
  });

  it("changes with each number as its rows say", () => {
    const spot = { ...SPOT, z0: 10.2 };
    const row = widthRow(8.5, "x", AROUND);
    expect(row.z0).toBeCloseTo(
      slopeBy((by) => ({ ...spot, z0: spot.z0 + by }), 8.5),
      6,
    );
    expect(row["ln zR"]).toBeCloseTo(
      slopeBy((by) => ({ ...spot, zR: spot.zR * Math.exp(by) }), 8.5),
      6,
    );
    expect(row["ln w0"]).toBeCloseTo(
      slopeBy((by) => ({ ...spot, w0: spot.w0 * Math.exp(by) }), 8.5),
      6,
    );
    expect(row["ln ln R"]).toBeCloseTo(
      slopeBy((by) => ({ ...spot, lnR: spot.lnR * Math.exp(by) }), 8.5),
      6,
    );
    expect(row.apart).toBeCloseTo((row.z0 ?? 0) / 2, 12);
    expect(widthRow(8.5, "y", AROUND).apart).toBeLessThan(0);
  });

  it("drifts by ln R from end to end, and not in the middle of the ladder", () => {
    const byLnR = (zMm: number) => slopeBy((by) => ({ ...SPOT, z0: 10.2, lnR: SPOT.lnR + by }), zMm);
    expect(widthRow(11, "x", AROUND).drift).toBeCloseTo(0, 12);
    expect(widthRow(9, "x", AROUND).drift).toBeCloseTo((byLnR(9) * -2) / 10, 6);
    expect(widthRow(12, "x", AROUND).drift).toBeCloseTo((byLnR(12) * 1) / 10, 6);
  });

  it("has what lines of both directions share of a cell only where they run both ways", () => {
    expect(knownOfCells([8, 8, 9], 0.03, { ...AROUND, apartMm: null })).toEqual([]);
    expect(knownOfCells([8, 8, 9], 0.03, AROUND)).toHaveLength(2 + 2 * 2);
    expect(focusRow(AROUND, "x")).toEqual({ z0: 1, apart: 0.5 });
    expect(focusRow(AROUND, "y")).toEqual({ z0: 1, apart: -0.5 });
    expect(focusRow({ apartMm: null }, "middle")).toEqual({ z0: 1, axes: 1 });
  });

  it("contradicts a cell without a mark only where a line would have been seen", () => {
    expect(unmarkedRow("u", 20, "x", AROUND)).toEqual([]);
    const [seen] = unmarkedRow("u", 10, "x", AROUND);
    expect(seen?.y).toBeCloseTo(0.02 - lawWidth(10, "x", AROUND), 12);
  });

  it("knows the usual strength and focal depth, as far as the spot is from them", () => {
    const known = (around: Around) => new Map(knownOfLaw(around).map((o) => [Object.keys(o.row)[0], o]));
    const both = known(AROUND);
    // ln(1.2 / ln 5), and ln(0.25 * 10 / 1.5).
    expect(both.get("ln ln R")?.y).toBeCloseTo(Math.log(1.2 / Math.log(5)), 12);
    expect(both.get("ln zR")?.y).toBeCloseTo(Math.log(2.5 / 1.5), 12);
    expect(both.get("ln zR")?.u).toBeCloseTo(1.1, 12);
    expect(both.get("drift")?.y).toBe(0);
    // The waists are usually not apart, give or take the ladder.
    expect(both.get("apart")).toMatchObject({ y: -0.4, u: 10 });
    const one = known({ ...AROUND, apartMm: null });
    expect(one.get("apart")).toBeUndefined();
    expect(one.get("axes")?.u).toBeCloseTo(0.015 * 1.5, 12);
  });
});
