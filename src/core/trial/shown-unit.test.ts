import { describe, expect, it } from "vitest";
import { decimalsIn, shownLength, shownNumber } from "../metrology/quantity-text";
import { LENGTH_UNITS } from "../metrology/units";
import { lengthUnit, lengthUnitOf, nextLengthUnit, shownUnit } from "./decisions";

describe("the unit of the screen", () => {
  it("is mm until another is chosen, and an unknown choice is none", () => {
    expect(lengthUnitOf({ decisions: {} })).toBe("mm");
    expect(lengthUnitOf({ decisions: { [lengthUnit.key]: "thou" } })).toBe("thou");
    expect(lengthUnitOf({ decisions: { [lengthUnit.key]: "furlong" } })).toBe("mm");
  });

  it("goes round by one key", () => {
    expect(LENGTH_UNITS.map(nextLengthUnit)).toEqual(["in", "thou", "mm"]);
  });

  it("changes lengths only", () => {
    expect(shownUnit("mm", "in")).toBe("in");
    expect(shownUnit("us", "in")).toBe("us");
  });

  it("shows as many digits as mm would, or a little more", () => {
    expect(shownLength(0.29, "mm", 2)).toBe("0.29 mm");
    expect(shownLength(0.29, "in", 2)).toBe("0.0114 in");
    expect(shownLength(0.29, "thou", 2)).toBe("11.4 thou");
    expect(shownNumber(-0.0001, "mm", 3)).toBe("0.000");
    expect(decimalsIn("thou", 0)).toBe(0);
  });
});
