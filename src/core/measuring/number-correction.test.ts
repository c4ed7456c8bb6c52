import { describe, expect, it } from "vitest";
import { SAMPLE_MACHINE } from "../../testing/sample-machine";
import { measured } from "../metrology/measured";
import { scalarSetting } from "../settings/declared";
import { holdOf, numberCorrection, numberIn, worthOf } from "./number-correction";

const spec = scalarSetting({ key: "bar", label: "Bar", acts: { on: "next burn" } });
const hold = { unit: "mm", step: 0.01, range: { low: 0, high: 2 }, tableKind: "not known", sense: 1 } as const;
const machine = { ...SAMPLE_MACHINE, held: { bar: hold } };
const corrected = (old: number, change: number) =>
  numberCorrection(machine, {
    spec,
    estimate: "length",
    old,
    change: measured(change, 0.001, 20),
    arithmetic: ["a sum"],
    leaves: (rounding) => `leaves ${rounding.toFixed(4)}`,
    heldBack: null,
  });

describe("the worth of a change", () => {
  // u = 0.01 with many degrees of freedom: U = 0.02.
  const u = (value: number) => measured(value, 0.01, Number.POSITIVE_INFINITY);

  it("is yes beyond its uncertainty and half a step, either sign", () => {
    expect(worthOf(u(0.021), 0.01)).toBe("yes");
    expect(worthOf(u(-0.021), 0.01)).toBe("yes");
    // More than half a step of 0.05, less than the whole.
    expect(worthOf(u(0.03), 0.05)).toBe("yes");
    expect(worthOf(u(0.3), 0.61)).toBe("no");
  });

  it("is no where change and uncertainty stay within one step, and cannot be told between", () => {
    expect(worthOf(u(0.01), 0.031)).toBe("no");
    expect(worthOf(u(0.01), 0.029)).toBe("cannot tell");
    expect(worthOf(u(0.019), 0.01)).toBe("cannot tell");
    // Beyond its uncertainty, and less than half a step: the controller cannot take it.
    expect(worthOf(u(0.04), 0.1)).toBe("no");
  });
});

describe("the correction of a number", () => {
  it("is old and change, rounded to the step of the controller, with what that leaves", () => {
    const { rows, newValue, unit, decimals } = corrected(1, 0.1234);
    expect(rows[0]).toMatchObject({ old: 1, enter: 1.12, worth: "yes", heldBack: null, changeText: "+0.123" });
    expect(rows[0]?.rounding).toBeCloseTo(1.12 - 1.1234, 12);
    expect(rows[0]?.arithmetic).toEqual(["a sum", "rounded to 0.01 mm: 1.12", "leaves -0.0034"]);
    expect(newValue).toEqual({ shape: "scalar", value: rows[0]?.enter });
    expect({ unit, decimals }).toEqual({ unit: "mm", decimals: 2 });
  });

  it("holds back what the controller does not take, and leaves the old value", () => {
    const { rows, newValue } = corrected(1.9, 0.5);
    expect(rows[0]?.heldBack?.why).toMatch(/2/);
    expect(newValue).toEqual({ shape: "scalar", value: 1.9 });
  });

  it("takes what is usual of a setting that nothing is said of", () => {
    expect(holdOf(SAMPLE_MACHINE, spec)).toMatchObject({ unit: "mm", step: 0.001, range: null, sense: 1 });
    expect(numberIn({ inForce: { bar: { shape: "scalar", value: 3 } } }, "bar")).toBe(3);
    expect(numberIn({ inForce: { bar: null } }, "bar")).toBeNull();
  });
});
