import fc from "fast-check";
import { describe, expect, it } from "vitest";
import {
  decimalsOfStep,
  editableText,
  entryShape,
  entryText,
  rangeFault,
  roundedToStep,
  valueText,
} from "./entry-text";
import { NO_FIELD_TABLE } from "./field-table";
import type { HeldSetting } from "./setting";

const INCH: HeldSetting = {
  unit: "in",
  step: 0.0254,
  range: { low: -1.27, high: 1.27 },
  tableKind: "interpolated",
  sense: 1,
};

it("rounds a small negative number to nothing without a sign", () => {
  expect(Object.is(roundedToStep(-0.0001, 0.001), 0)).toBe(true);
});

describe("a value as the controller takes it", () => {
  it("has the digits of its step in its unit", () => {
    expect([1, 0.1, 0.001, 0.05, 0.25, 2].map(decimalsOfStep)).toEqual([0, 1, 3, 2, 1, 0]);
    expect(entryShape(INCH, "mm")).toEqual({ unit: "in", decimals: 3 });
    expect(entryShape(undefined, "mm")).toEqual({ unit: "mm", decimals: 4 });
    expect(entryText(0.2, entryShape(INCH, "mm"))).toBe("0.008");
    expect(entryText(-0.00001, entryShape(INCH, "mm"))).toBe("0.000");
  });

  it("is the nearest multiple of its step", () => {
    fc.assert(
      fc.property(
        fc.double({ min: -10, max: 10, noNaN: true }),
        fc.constantFrom(0.001, 0.0254, 0.05),
        (exact, step) => {
          const rounded = roundedToStep(exact, step);
          expect(Math.abs(rounded - exact)).toBeLessThanOrEqual(step / 2 + 1e-9);
          expect(Math.abs(rounded / step - Math.round(rounded / step))).toBeLessThan(1e-6);
        },
      ),
      { seed: 3 },
    );
  });

  it("stands in a field to type in with every digit, and in words with its unit", () => {
    expect(editableText(-0.2, "in")).toBe("-0.007874016");
    expect(editableText(0.148, "mm")).toBe("0.148");
    const table = {
      shape: "table" as const,
      rows: [
        { at: 100, value: 0.1 },
        { at: 300, value: -0.25 },
      ],
    };
    expect(valueText(table, "mm")).toBe("100: 0.1 · 300: −0.25 mm");
    expect(valueText({ shape: "table", rows: [] }, "mm")).toBe("no entries");
    expect(valueText({ shape: "scalar", value: 25.4 }, "in")).toBe("1 in");
    expect(valueText(NO_FIELD_TABLE, "mm")).toBe("none");
    expect(valueText(null, "mm")).toBe("not known");
  });

  it("outside of its range is told in its unit, with its place", () => {
    const table = (value: number) => ({ shape: "table" as const, rows: [{ at: 300, value }] });
    expect(rangeFault(table(1.3), INCH)).toBe(
      "The value at 300 is 0.051 in. Enter between −0.050 and 0.050 in, the range of this controller.",
    );
    expect(rangeFault({ shape: "scalar", value: -2 }, INCH)).toMatch(/^The value is −0\.079 in\. Enter between/);
    expect(rangeFault(table(1.27), INCH)).toBeNull();
    expect(rangeFault(table(99), { ...INCH, range: null })).toBeNull();
    expect(rangeFault(table(99), undefined)).toBeNull();
  });
});
