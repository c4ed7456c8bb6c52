import { describe, expect, it } from "vitest";
import { measured } from "./measured";
import { decimalsFor, fixed, inUnit, plain, signed, withUncertainty } from "./quantity-text";
import { fromInternal, toInternal, unitBySpelling } from "./units";

describe("numbers for people", () => {
  it("shows two digits of the uncertainty and no more of the value", () => {
    expect(withUncertainty(measured(0.14837, 0.0024, Infinity), "mm")).toBe("0.1484 ± 0.0047 mm");
    expect(withUncertainty(measured(0.14837, 0.024, Infinity), "mm")).toBe("0.148 ± 0.047 mm");
  });

  it("never shows floating-point noise or a negative zero", () => {
    expect(plain(0.1 + 0.2)).toBe("0.3");
    expect(plain(0.0000001, 9)).toBe("0.0000001");
    expect(plain(-0.0000001, 3)).toBe("0");
    expect(plain(1200, 0)).toBe("1200");
    expect(fixed(-0.0001, 3)).toBe("0.000");
    expect(fixed(-0.5, 1)).toBe("−0.5");
    expect(signed(0.5, 1)).toBe("+0.5");
    expect(signed(-0.00001, 3)).toBe("0.000");
  });

  it("stays readable for uncertainties that make no sense", () => {
    expect(decimalsFor(0)).toBe(3);
    expect(decimalsFor(1e-12)).toBe(6);
    expect(decimalsFor(40)).toBe(0);
  });

  it("writes the unit with the number", () => {
    expect(inUnit(300, "mmPerS")).toBe("300 mm/s");
    expect(inUnit(25.4, "in")).toBe("1 in");
  });
});

describe("units", () => {
  // NIST SP 811 (2008), appendix B: 1 in = 2.54 E-02 m exactly
  it("has the inch exactly", () => {
    expect(toInternal(1, "in")).toBe(25.4);
    expect(toInternal(1000, "thou")).toBe(25.4);
    expect(fromInternal(toInternal(7, "inPerMin"), "inPerMin")).toBeCloseTo(7, 12);
  });

  it("finds a unit by each of its spellings, and no other", () => {
    expect(unitBySpelling("Inches")).toBe("in");
    expect(unitBySpelling("μm")).toBe("um");
    expect(unitBySpelling("furlong")).toBeUndefined();
  });
});
