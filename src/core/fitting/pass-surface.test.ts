import { describe, expect, it } from "vitest";
import { elementAt } from "./element-at";
import { fitPasses } from "./pass-surface";
import { seededDraws } from "./seeded-draws";

describe("a chance from places that pass or fail", () => {
  it.each([
    [3, 0],
    [4, 1],
    [1, 5],
  ])("agrees with an integral at one place: %i passed, %i failed", (passed, failed) => {
    const outcomes = Array.from({ length: passed + failed }, (_, i) => ({ at: 0, passed: i < passed }));
    const { mean } = fitPasses(outcomes, [{ u: 0, v: 0 }], { count: 4000 });
    // Level and response both have the size s, so f has the variance 2 s^2 beforehand. Sizes weigh by how likely they make the outcomes.
    let [weight, sum] = [0, 0];
    for (const size of [6, 20])
      for (let f = -150; f <= 150; f += 0.01) {
        const p = 1 / (1 + Math.exp(-f));
        const likely = (Math.exp(-(f * f) / (4 * size * size)) / size) * p ** passed * (1 - p) ** failed;
        weight += likely;
        sum += likely * p;
      }
    expect(Math.abs(elementAt(mean, 0) - sum / weight)).toBeLessThan(0.02);
  });

  it("finds a limit across the places, sharp or soft", () => {
    const places = Array.from({ length: 81 }, (_, i) => ({ u: (i % 9) / 4 - 1, v: Math.floor(i / 9) / 4 - 1 }));
    const random = seededDraws(3);
    for (const width of [0.02, 0.2]) {
      const chance = ({ u, v }: { u: number; v: number }) => 1 / (1 + Math.exp(-(v - u - 0.1) / width));
      const outcomes = places.map((p, at) => ({ at, passed: random.even() < chance(p) }));
      const { mean, draws } = fitPasses(outcomes, places, { count: 200 });
      const off = places.reduce((s, p, i) => s + Math.abs(elementAt(mean, i) - chance(p)), 0) / places.length;
      expect(off).toBeLessThan(0.08);
      for (const draw of draws) for (const p of draw) expect(p >= 0 && p <= 1).toBe(true);
    }
  });
});
