import { describe, expect, it } from "vitest";
import { coverageFactor } from "../fitting/student-t";
import { commonUncertaintyMm, degreesOfFreedomFrom, type Gauge, resolutionUncertaintyMm } from "./gauge";
import { freedomOf, measured } from "./measured";
import { measuredSchema } from "./measured-schema";
import { pooledScatter } from "./scatter";
import { sharesOf, zeroOf } from "./sitting";
import { ruling, worstRuling } from "./tolerance";

const CALIPERS: Gauge = {
  id: "c",
  name: "Calipers",
  kind: "calipers",
  unit: "mm",
  resolutionMm: 0.01,
  limitMm: 0.02,
  placing: { sdMm: 0.02, relativeDoubt: 0.5 },
};

const plainly = (values: readonly number[]) => values.map((value) => ({ value, share: 1 }));

describe("parts of an uncertainty", () => {
  it("takes limits as rectangles, and the uncertainty of a standard deviation as JCGM 100:2008 G.4.2 does", () => {
    expect(commonUncertaintyMm(CALIPERS)).toBeCloseTo(0.011547, 6);
    expect(resolutionUncertaintyMm(CALIPERS)).toBeCloseTo(0.0028868, 6);
    // G.4.2: a relative uncertainty of 25 % has 8 degrees of freedom
    expect(degreesOfFreedomFrom(0.25)).toBe(8);
  });

  it("pools scatter over sites, so that one reading a site still has one", () => {
    expect(pooledScatter([plainly([0.1]), plainly([0.2])], CALIPERS)).toEqual({
      sdMm: 0.02,
      degreesOfFreedom: 2,
      basis: "experience",
    });
    const many = Array.from({ length: 50 }, () => plainly([0.1, 0.14]));
    const pooled = pooledScatter(many, CALIPERS);
    expect(pooled.sdMm).toBeCloseTo(Math.hypot(0.02, 0.02), 3);
    expect(pooled.degreesOfFreedom).toBe(52);
  });

  it("never claims less scatter than the step of the gauge", () => {
    const identical = Array.from({ length: 500 }, () => plainly([0.1, 0.1, 0.1]));
    expect(pooledScatter(identical, CALIPERS).sdMm).toBe(resolutionUncertaintyMm(CALIPERS));
  });
});

describe("gauges of which nothing is known", () => {
  const unknown: Gauge = { ...CALIPERS, placing: null };

  it("stand on repeats alone, and two of them leave t = 12.7", () => {
    const scatter = pooledScatter([plainly([0.1, 0.14])], unknown);
    expect(scatter).toMatchObject({ degreesOfFreedom: 1, basis: "repeats" });
    expect(scatter.sdMm).toBeCloseTo(0.04 / Math.SQRT2, 6);
    expect(coverageFactor(scatter.degreesOfFreedom)).toBeCloseTo(12.71, 2);
  });

  it("without repeats have their step alone, type B, and say so", () => {
    const scatter = pooledScatter([plainly([0.1]), plainly([0.3])], unknown);
    expect(scatter).toEqual({
      sdMm: resolutionUncertaintyMm(unknown),
      degreesOfFreedom: Infinity,
      basis: "step of the gauge alone",
    });
  });

  it("scatter half as much in a reading of many pitches divided by two", () => {
    const whole = pooledScatter([plainly([1.4, 1.46])], unknown);
    const halved = pooledScatter([[1.4, 1.46].map((v) => ({ value: v / 2, share: 1 / 2 }))], unknown);
    expect(halved.sdMm).toBeCloseTo(whole.sdMm, 9);
  });
});

// JCGM 100:2008, 4.4.3 and table 1: 20 repeated observations of a temperature (data from memory; mean, s and u come out as printed there)
describe("the repeated temperatures of JCGM 100:2008 4.4.3", () => {
  const DEGREES = [
    96.9, 98.18, 98.25, 98.61, 99.03, 99.49, 99.56, 99.74, 99.89, 100.07, 100.33, 100.42, 100.68, 100.95, 101.11, 101.2,
    101.57, 101.84, 102.36, 102.72,
  ];

  it("have a mean of 100.14 °C, s = 1.49 °C and u = 0.33 °C", () => {
    const gauge: Gauge = { ...CALIPERS, resolutionMm: 0.01, placing: null };
    const { sdMm, degreesOfFreedom } = pooledScatter([plainly(DEGREES)], gauge);
    const mean = DEGREES.reduce((a, b) => a + b, 0) / DEGREES.length;
    // The guide prints 100.14 of 100.145, rounding half to even.
    expect(mean).toBeCloseTo(100.145, 3);
    expect(sdMm.toFixed(2)).toBe("1.49");
    expect((sdMm / Math.sqrt(DEGREES.length)).toFixed(2)).toBe("0.33");
    expect(degreesOfFreedom).toBe(19);
  });
});

describe("a sitting", () => {
  const sitting = { gauge: CALIPERS, zero: { outside: 0.02, inside: null } };

  it("has a zero for each pair of jaws, and none where there are no jaws", () => {
    expect(zeroOf(sitting, "outside")).toBe(0.02);
    expect(zeroOf(sitting, "inside")).toBeNull();
    expect(zeroOf({ ...sitting, gauge: { ...CALIPERS, kind: "microscope" } }, "outside")).toBe(0);
  });

  it("counts what was measured: an allowance added to a rule's reading was not", () => {
    const rule: Gauge = { ...CALIPERS, kind: "rule" };
    expect(sharesOf([1, 1], CALIPERS)).toEqual({ common: 2, scatter: Math.SQRT2 });
    expect(sharesOf([1, 1], rule)).toEqual({ common: 1, scatter: 1 });
    expect(sharesOf([1, -1], rule)).toEqual({ common: 0, scatter: Math.SQRT2 });
    expect(sharesOf([0.5], CALIPERS)).toEqual({ common: 0.5, scatter: 0.5 });
  });
});

describe("rulings", () => {
  it("proves only when the whole interval is inside", () => {
    expect(ruling(measured(0.02, 0.01, Infinity), 0.05)).toBe("proved");
    expect(ruling(measured(-0.04, 0.01, Infinity), 0.05)).toBe("cannot tell");
    expect(ruling(measured(0.04, 0.01, Infinity), 0.02)).toBe("not proved");
  });

  it("of many are as good as the worst", () => {
    expect(worstRuling(["proved", "proved"])).toBe("proved");
    expect(worstRuling(["proved", "cannot tell"])).toBe("cannot tell");
    expect(worstRuling(["cannot tell", "not proved", "proved"])).toBe("not proved");
  });

  it("needs more of an uncertainty that is itself badly known", () => {
    expect(ruling(measured(0.02, 0.01, 2), 0.05)).toBe("cannot tell");
  });
});

describe("measured", () => {
  it("survives JSON with endless degrees of freedom", () => {
    const back = measuredSchema.parse(JSON.parse(JSON.stringify(measured(1, 2, Infinity))));
    expect(freedomOf(back)).toBe(Infinity);
  });
});
