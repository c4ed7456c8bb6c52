import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import {
  commonUncertaintyMm,
  degreesOfFreedomFrom,
  type Gauge,
  gaugeKindSchema,
  readingUncertaintyMm,
  relativeUncertaintyFrom,
  resolutionUncertaintyMm,
  usualGauge,
  zeroUncertaintyMm,
} from "./gauge";

const gauge = (kind: Gauge["kind"], more: Partial<Gauge> = {}): Gauge => ({
  id: kind,
  name: kind,
  kind,
  unit: "mm",
  ...usualGauge(kind, "mm"),
  ...more,
});

describe("what is usual of a gauge", () => {
  it("is the same of mm and inch gauges but of calipers, which then step by half a thou", () => {
    expect(usualGauge("calipers", "mm")).toEqual({
      resolutionMm: 0.01,
      limitMm: 0.02,
      placing: { sdMm: 0.02, relativeDoubt: 0.5 },
    });
    const inch = usualGauge("calipers", "in");
    expect(inch.resolutionMm).toBeCloseTo(0.0127, 12);
    expect(inch.limitMm).toBeCloseTo(0.0254, 12);
    expect(inch.placing?.sdMm).toBeCloseTo(0.02032, 12);
    expect(usualGauge("calipers", "thou")).toEqual(inch);
    expect(usualGauge("rule", "in")).toEqual(usualGauge("rule", "mm"));
  });

  it("rises from microscope to rule, in step, limit and scatter", () => {
    const kinds = ["microscope", "calipers", "rule"] as const;
    for (const key of ["resolutionMm", "limitMm"] as const) {
      const [fine = 0, middle = 0, coarse = 0] = kinds.map((k) => usualGauge(k, "mm")[key]);
      expect(fine).toBeLessThan(middle);
      expect(middle).toBeLessThan(coarse);
    }
  });
});

describe("uncertainties of a gauge", () => {
  it("are a rectangle over the limit, one over the step, and both scatters in one reading", () => {
    const rule = gauge("rule");
    expect(commonUncertaintyMm(rule)).toBeCloseTo(0.2 / 1.7320508, 8);
    expect(resolutionUncertaintyMm(rule)).toBeCloseTo(0.5 / 3.4641016, 8);
    expect(readingUncertaintyMm(rule) ** 2).toBeCloseTo(0.15 ** 2 + 0.25 / 12, 12);
    expect(readingUncertaintyMm(gauge("rule", { placing: null })) ** 2).toBeCloseTo(0.25 / 12, 12);
  });

  it("have a zero only where there are jaws", () => {
    expect(zeroUncertaintyMm(gauge("calipers"))).toBeCloseTo(0.01 / 3.4641016, 9);
    expect(zeroUncertaintyMm(gauge("microscope"))).toBe(0);
  });

  it("of a repeatability with a relative uncertainty of a quarter have eight degrees of freedom, and back [JCGM 100:2008 G.4.2]", () => {
    expect(degreesOfFreedomFrom(0.25)).toBe(8);
    expect(degreesOfFreedomFrom(0.5)).toBe(2);
    expect(relativeUncertaintyFrom(8)).toBe(0.25);
  });
});

describe("the table of usual gauges", () => {
  it("is what the documents say of each kind", () => {
    const rows = readFileSync("docs/methods/uncertainty.md", "utf8")
      .split("\n")
      .flatMap((line) => /^\| (rule|calipers|microscope|scan|eye) \| (.*) \|$/.exec(line) ?? []);
    const told = rows.flatMap((cell, i) => (i % 3 === 1 ? [[cell, (rows[i + 1] ?? "").split(" | ")] as const] : []));
    expect(told).toHaveLength(5);
    for (const [kind, cells] of told) {
      const gauge = usualGauge(gaugeKindSchema.parse(kind), "mm");
      const number = (value: number | undefined) => (value === undefined ? "none" : String(value));
      expect(
        [gauge.resolutionMm, gauge.limitMm, gauge.placing?.sdMm, gauge.placing?.relativeDoubt].map(number),
        kind,
      ).toEqual(cells);
    }
  });
});
