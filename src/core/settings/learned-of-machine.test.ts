import { describe, expect, it } from "vitest";
import { learnedEffectKey, learnedSenseKey, withLearned } from "./learned-of-machine";
import type { HeldSetting } from "./setting";

const HELD: HeldSetting = {
  unit: "one",
  step: 0.1,
  range: { low: -100, high: 100 },
  tableKind: "not known",
  sense: 1,
  senseAssumed: true,
};

describe("what burns showed of a controller", () => {
  it("is kept with the setting that it is of, and other numbers are left alone", () => {
    const held = withLearned(
      { "field bow x": HELD, shear: HELD },
      { [learnedEffectKey("field bow x")]: -0.03, [learnedSenseKey("shear")]: -1, "scan lag, s": 4e-4 },
      () => undefined,
    );
    expect(held["field bow x"]).toEqual({ ...HELD, effectMm: -0.03 });
    expect(held.shear).toEqual({ unit: "one", step: 0.1, range: HELD.range, tableKind: "not known", sense: -1 });
    expect(Object.keys(held)).toEqual(["field bow x", "shear"]);
  });

  it("begins with what is usual where nothing was said of the setting, and is dropped where nobody knows it", () => {
    const learned = { [learnedSenseKey("swap x and y")]: -1, [learnedEffectKey("nothing")]: 2 };
    const held = withLearned({}, learned, (key) => (key === "nothing" ? undefined : HELD));
    expect(Object.keys(held)).toEqual(["swap x and y"]);
    expect(held["swap x and y"]?.sense).toBe(-1);
  });
});
