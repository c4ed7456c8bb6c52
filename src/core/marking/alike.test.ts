import { describe, expect, it } from "vitest";
import { measured } from "../metrology/measured";
import { apart } from "./alike";
import { settingsAmong, settingValue, typedValue } from "./cell-settings";

describe("two marking settings", () => {
  it("have a distance by ratios: twice the speed and half the power are sqrt(2) ln 2", () => {
    const found = apart({ speedMmPerS: 100, powerPct: 40, passes: 1 }, { speedMmPerS: 200, powerPct: 20, passes: 1 });
    expect(found?.distance).toBeCloseTo(Math.SQRT2 * Math.LN2, 12);
    expect(found?.text).toBe("speed × 2, power × 0.5");
    expect(apart({ speedMmPerS: 200 }, { speedMmPerS: 100 })?.text).toBe("speed × 0.5");
  });

  it("have distance 0 if equal, and heights count by mm", () => {
    expect(apart({ speedMmPerS: 50, aboveFocusMm: 0 }, { speedMmPerS: 50, aboveFocusMm: 0 })).toEqual({
      distance: 0,
      text: "",
    });
    const lower = apart({ aboveFocusMm: 2 }, { aboveFocusMm: -1 });
    expect(lower?.distance).toBeCloseTo(0.3, 12);
    expect(lower?.text).toBe("height above focus − 3 mm");
  });

  it("have no distance without a common setting", () => {
    expect(apart({ speedMmPerS: 50 }, { powerPct: 20 })).toBeNull();
    expect(apart({}, {})).toBeNull();
  });
});

describe("settings among the values of a result", () => {
  it("are the typed ones again, power in percent", () => {
    for (const powerPct of [28.3, 14.1, 56.6, 7, 100])
      expect(settingsAmong([settingValue("powerPct", powerPct), settingValue("passes", 2)])).toEqual({
        powerPct,
        passes: 2,
      });
  });

  it("are exact if they were set, and rounded if they were found", () => {
    expect(typedValue("speedMmPerS", measured(38.5, 0, Infinity))).toBe(38.5);
    expect(typedValue("speedMmPerS", measured(38.5, 1.2, 6))).toBe(39);
    expect(typedValue("powerPct", measured(0.70321, 0.03, 6))).toBe(70.3);
  });
});
