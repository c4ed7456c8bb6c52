import { describe, expect, it } from "vitest";
import { elementAt } from "./element-at";
import type { SurfacePoint } from "./kernel";
import { type Comparison, fitPreferences } from "./preference-surface";
import { seededDraws } from "./seeded-draws";

const ROUND = [{ length: 0.6, ratio: 1, direction: 0 }];

describe("a response from comparisons", () => {
  /** Too far apart for any covariance. */
  const apart: SurfacePoint[] = [
    { u: -9, v: 0 },
    { u: 9, v: 0 },
  ];

  it("agrees with a sum over all differences of two places", () => {
    const won = (times: number): Comparison[] =>
      Array.from({ length: times }, () => ({ better: 0, worse: 1, alike: false }));
    const { draws } = fitPreferences(won(3), apart, { count: 4000, kernels: ROUND });
    const differences = draws.map((d) => elementAt(d, 0) - elementAt(d, 1));
    const found = differences.reduce((s, d) => s + d, 0) / differences.length;
    const below = differences.filter((d) => d < 0).length / differences.length;
    // The difference has variance 2 s^2 beforehand; sizes weigh by how likely they make three wins, by the same sum.
    let [weight, mean, negative] = [0, 0, 0];
    for (const size of [4, 12])
      for (let d = -120; d <= 120; d += 0.01) {
        const p = Math.exp(-(d * d) / (4 * size * size)) / size / (1 + Math.exp(-d)) ** 3;
        weight += p;
        mean += p * d;
        negative += d < 0 ? p : 0;
      }
    // The weights of the sizes are approximate.
    expect(found / (mean / weight)).toBeGreaterThan(0.85);
    expect(found / (mean / weight)).toBeLessThan(1.15);
    expect(Math.abs(below - negative / weight)).toBeLessThan(0.02);
  });

  it("finds the top of a hill from noisy comparisons", () => {
    const cells = Array.from({ length: 49 }, (_, i) => ({ u: (i % 7) / 3 - 1, v: Math.floor(i / 7) / 3 - 1 }));
    const quality = ({ u, v }: SurfacePoint) => 25 * Math.exp(-((u - 0.4) ** 2 + (v + 0.3) ** 2));
    const chance = seededDraws(5);
    const comparisons = Array.from({ length: 60 }, (): Comparison => {
      const [a, b] = [Math.floor(49 * chance.even()), Math.floor(49 * chance.even())];
      const better = quality(elementAt(cells, a)) + chance.normal() > quality(elementAt(cells, b)) + chance.normal();
      return { better: better ? a : b, worse: better ? b : a, alike: a === b };
    });
    const { mean } = fitPreferences(comparisons, cells, { count: 200 });
    const top = elementAt(cells, mean.indexOf(Math.max(...mean)));
    expect(Math.hypot(top.u - 0.4, top.v + 0.3)).toBeLessThan(0.5);
    // With all comparisons reversed the top becomes the bottom.
    const turned = comparisons.map((c) => ({ ...c, better: c.worse, worse: c.better }));
    const other = fitPreferences(turned, cells, { count: 200 }).mean;
    expect(elementAt(Array.from(other), mean.indexOf(Math.max(...mean)))).toBeLessThan(0);
  });

  it("treats alike places as equal", () => {
    const alike = Array.from({ length: 12 }, (): Comparison => ({ better: 0, worse: 1, alike: true }));
    const { mean } = fitPreferences(alike, apart, { count: 1000, kernels: ROUND });
    expect(Math.abs(elementAt(Array.from(mean), 0) - elementAt(Array.from(mean), 1))).toBeLessThan(0.3);
  });
});
