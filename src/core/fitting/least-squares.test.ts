import { describe, expect, it } from "vitest";
import { leastSquares } from "./least-squares";

function solved(observations: Parameters<typeof leastSquares>[0]) {
  const fit = leastSquares(observations);
  if (fit.status !== "solved") throw new Error(fit.status);
  return fit;
}

describe("least squares", () => {
  // JCGM 100:2008, H.3, table H.6: y1 = -0.1712, y2 = 0.00218, s(y1) = 0.0029, s(y2) = 0.00067, r = -0.930, s = 0.0035
  it("reproduces the thermometer calibration of JCGM 100:2008 H.3", () => {
    const t = [21.521, 22.012, 22.512, 23.003, 23.507, 23.999, 24.513, 25.002, 25.503, 26.01, 26.511];
    const b = [-171, -169, -166, -159, -164, -165, -156, -157, -159, -161, -160].map((x) => x / 1000);
    const fit = solved(t.map((ti, i) => ({ row: [1, ti - 20], y: b[i] ?? 0, u: 1 })));
    const s = Math.sqrt(fit.chiSquared / fit.degreesOfFreedom);
    const sd = (i: number) => s * Math.sqrt(fit.covariance[i]?.[i] ?? 0);
    expect(fit.x[0]).toBeCloseTo(-0.1712, 4);
    expect(fit.x[1]).toBeCloseTo(0.00218, 5);
    expect(s).toBeCloseTo(0.0035, 4);
    expect(sd(0)).toBeCloseTo(0.0029, 4);
    expect(sd(1)).toBeCloseTo(0.00067, 5);
    const r = (fit.covariance[0]?.[1] ?? 0) / Math.sqrt((fit.covariance[0]?.[0] ?? 0) * (fit.covariance[1]?.[1] ?? 0));
    expect(r).toBeCloseTo(-0.93, 3);
  });

  it("weighs by uncertainty: two values of one thing meet at their weighted mean", () => {
    const fit = solved([
      { row: [1], y: 10, u: 1 },
      { row: [1], y: 13, u: 2 },
    ]);
    expect(fit.x[0]).toBeCloseTo((10 / 1 + 13 / 4) / (1 + 1 / 4), 12);
    expect(fit.covariance[0]?.[0]).toBeCloseTo(1 / (1 + 1 / 4), 12);
  });

  it("carries every observation through its gain: x = G y, cov = G diag(u^2) G'", () => {
    const observations = [1, 2, 4, 7, 9].map((v, i) => ({
      row: [1, v * 1e-4, v * v],
      y: Math.sin(i),
      u: 0.1 + 0.05 * i,
    }));
    const fit = solved(observations);
    fit.gain.forEach((row, j) => {
      const x = row.reduce((sum, g, i) => sum + g * (observations[i]?.y ?? 0), 0);
      const variance = row.reduce((sum, g, i) => sum + (g * (observations[i]?.u ?? 0)) ** 2, 0);
      expect(x).toBeCloseTo(fit.x[j] ?? Number.NaN, 9);
      expect(variance / (fit.covariance[j]?.[j] ?? 1)).toBeCloseTo(1, 9);
    });
  });

  it("says which parameter cannot be found", () => {
    expect(leastSquares([{ row: [1, 0], y: 1, u: 1 }])).toMatchObject({ status: "singular" });
    const twins = [1, 2, 3].map((v) => ({ row: [v, 2 * v], y: v, u: 1 }));
    expect(leastSquares(twins)).toMatchObject({ status: "singular", parameter: 1 });
  });

  it("refuses observations without a positive uncertainty", () => {
    expect(() => leastSquares([{ row: [1], y: 1, u: 0 }])).toThrow(/every u/);
  });
});
