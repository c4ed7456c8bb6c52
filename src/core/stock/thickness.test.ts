import { describe, expect, it } from "vitest";
import { type Gauge, gaugeAsUsual } from "../metrology/gauge";
import { thicknessOf } from "./thickness";

const CALIPERS: Gauge = gaugeAsUsual("calipers", { id: "c" });

describe("the thickness of a batch", () => {
  it("is the mean of its places, with the least and the most of them", () => {
    // s of 2, 4, 4, 4, 5, 5, 7, 9 is sqrt(32/7). [NIST/SEMATECH e-Handbook 1.3.5.6, from memory]
    const found = thicknessOf([2, 4, 4, 4, 5, 5, 7, 9], null);
    expect(found).toMatchObject({ meanMm: 5, leastMm: 2, mostMm: 9, count: 8 });
    expect(found?.sdMm).toBeCloseTo(Math.sqrt(32 / 7), 12);
    expect(found?.uMm).toBeCloseTo(Math.sqrt(32 / 7 / 8), 12);
  });

  it("is no surer than the limit of its gauge, however many places are squeezed", () => {
    const many = thicknessOf(
      Array.from({ length: 400 }, (_, i) => 3 + 0.01 * ((i % 5) - 2)),
      CALIPERS,
    );
    expect(many?.uMm).toBeGreaterThan(CALIPERS.limitMm / Math.sqrt(3));
    expect(many?.uMm).toBeLessThan(1.1 * (CALIPERS.limitMm / Math.sqrt(3)));
  });

  it("of one place is as unsure as one reading, and of none there is nothing", () => {
    expect(thicknessOf([3.02], CALIPERS)).toMatchObject({ sdMm: 0, count: 1 });
    expect(thicknessOf([3.02], CALIPERS)?.uMm).toBeGreaterThan(0.02);
    expect(thicknessOf([], CALIPERS)).toBeNull();
  });
});
