import { describe, expect, it } from "vitest";
import { type SettingTable, tableValueAt, usualStepIn, withRows } from "./setting";

const table: SettingTable = {
  shape: "table",
  rows: [
    { at: 100, value: 0.05 },
    { at: 300, value: 0.15 },
  ],
};

describe("a table in force", () => {
  it("interpolates, and holds its ends, where the controller does", () => {
    expect(tableValueAt(table, 200, "interpolated")).toBeCloseTo(0.1, 12);
    expect(tableValueAt(table, 50, "interpolated")).toBe(0.05);
    expect(tableValueAt(table, 900, "interpolated")).toBe(0.15);
  });

  it("gives nothing away from its entries where only exact speeds count", () => {
    expect(tableValueAt(table, 200, "exact speed only")).toBe(0);
    expect(tableValueAt(table, 300, "exact speed only")).toBe(0.15);
  });

  it("is not known between entries while its kind is not known", () => {
    expect(tableValueAt(table, 200, "not known")).toBeNull();
    expect(tableValueAt(table, 100, "not known")).toBe(0.05);
    expect(tableValueAt({ shape: "table", rows: [] }, 200, "not known")).toBe(0);
  });

  it("keeps old rows beside new ones, by rising place", () => {
    expect(
      withRows(table, [
        { at: 200, value: 0.1 },
        { at: 300, value: 0.2 },
      ]).rows,
    ).toEqual([
      { at: 100, value: 0.05 },
      { at: 200, value: 0.1 },
      { at: 300, value: 0.2 },
    ]);
  });
});

describe("the usual step of a controller", () => {
  it("is that of the kind of unit, not a thousandth of what the core works in", () => {
    expect(usualStepIn({}, "us")).toBeCloseTo(1e-6, 15);
    expect(usualStepIn({}, "ms")).toBeCloseTo(1e-6, 15);
    expect(usualStepIn({}, "in")).toBe(0.001);
    expect(usualStepIn({}, "percent")).toBeCloseTo(1e-5, 12);
    expect(usualStepIn({ usualStep: { time: 1e-7 } }, "us")).toBe(1e-7);
  });
});
