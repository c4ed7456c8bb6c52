import { describe, expect, it } from "vitest";
import { cholesky, solveLower, solveLowerTransposed } from "./cholesky";
import { pivotedCholesky } from "./pivoted-cholesky";
import { fitSurface, type SurfaceModels, type SurfaceReading } from "./response-surface";
import reference from "./response-surface.reference.json";
import { seededDraws } from "./seeded-draws";

const READINGS: SurfaceReading[] = reference.at.map(([u = 0, v = 0], i) => ({
  at: { u, v },
  value: reference.values[i] ?? 0,
  burn: 0,
  place: { x: i % 5, y: Math.floor(i / 5) },
}));
const TARGETS = reference.targets.map(([u = 0, v = 0]) => ({ u, v }));
const [ROUND, LONG, WIDE] = reference.models;
const modelsOf = (...models: (typeof ROUND)[]): SurfaceModels => ({
  kernels: models.flatMap((m) => (m ? [{ length: m.length, ratio: m.ratio, direction: m.direction }] : [])),
  nuggets: models.flatMap((m) => (m ? [m.nugget] : [])),
  textureShare: 0,
  oddShare: 0.1,
});

/** Reference values: scikit-learn 1.9.1, GaussianProcessRegressor with fixed kernels, stored beside this test. */
describe("a response surface", () => {
  it.each([
    ["round", ROUND],
    ["long, turned by 45 degrees", LONG],
  ])("of one kernel has the mean of scikit-learn: %s", (_name, model) => {
    const { mean } = fitSurface(READINGS, TARGETS, undefined, modelsOf(model));
    for (const [i, wanted] of (model?.mean ?? []).entries()) expect(mean[i]).toBeCloseTo(wanted, 5);
  });

  it("draws responses with the variance of scikit-learn, scaled by what the readings say of it", () => {
    const fit = fitSurface(READINGS, TARGETS, undefined, modelsOf(ROUND));
    const draws = fit.draw(20_000, seededDraws(3));
    const n = READINGS.length;
    for (const [i, variance] of (ROUND?.variance ?? []).entries()) {
      const values = draws.map((d) => d[i] ?? Number.NaN);
      const middle = values.reduce((s, v) => s + v, 0) / values.length;
      const own = values.reduce((s, v) => s + (v - middle) ** 2, 0) / values.length;
      // Student t of n degrees of freedom: s^2 z'V^-1 z / n, widened by n / (n - 2).
      const wanted = (variance * (ROUND?.squares ?? 0)) / (n - 2);
      expect(middle).toBeCloseTo(fit.mean[i] ?? Number.NaN, 3);
      expect(own / wanted).toBeGreaterThan(0.95);
      expect(own / wanted).toBeLessThan(1.05);
    }
  });

  it("weighs kernels by how likely they make the readings, as the likelihoods of scikit-learn do", () => {
    const only = { ...modelsOf(ROUND, WIDE), nuggets: [ROUND?.nugget ?? 0] };
    const both = fitSurface(READINGS, TARGETS, undefined, only).mean;
    expect(Math.min(...reference.weights)).toBeGreaterThan(0.03);
    for (const [i, wanted] of reference.averaged.entries()) expect(both[i]).toBeCloseTo(wanted, 5);
  });

  it("leaves out a reading that contradicts all others, and no other", () => {
    const wrong = READINGS.map((r, i) => (i === 7 ? { ...r, value: r.value + 0.5 } : r));
    const fit = fitSurface(wrong, TARGETS);
    expect(fit.odd).toEqual([7]);
    const clean = fitSurface(
      READINGS.filter((_, i) => i !== 7),
      TARGETS,
    );
    for (const i of TARGETS.keys()) expect(fit.mean[i]).toBeCloseTo(clean.mean[i] ?? Number.NaN, 2);
    expect(fitSurface(READINGS, TARGETS).odd).toEqual([]);
  });

  it("takes a difference between two burns for the burns, not for the settings", () => {
    const second = READINGS.map((r) => ({ ...r, burn: 1, value: r.value + 0.1 }));
    const both = fitSurface([...READINGS, ...second], TARGETS);
    const asOne = fitSurface([...READINGS, ...second.map((r) => ({ ...r, burn: 0 }))], TARGETS);
    const first = fitSurface(READINGS, TARGETS);
    const off = (fit: { mean: Float64Array }, i: number) => Math.abs((fit.mean[i] ?? 0) - (first.mean[i] ?? 0));
    for (const i of TARGETS.keys()) {
      expect(off(both, i)).toBeLessThan(0.03);
      expect(off(both, i)).toBeLessThan(off(asOne, i));
    }
  });

  it("refuses too few readings, and equal ones", () => {
    expect(() => fitSurface(READINGS.slice(0, 3), TARGETS)).toThrow(/at least 4/);
    expect(() =>
      fitSurface(
        READINGS.map((r) => ({ ...r, value: 1 })),
        TARGETS,
      ),
    ).toThrow(/equal/);
  });
});

describe("a Cholesky factor", () => {
  /** L L' of the 3 x 3 matrix 4 12 -16; 12 37 -43; -16 -43 98, a textbook example. (from memory) */
  const MATRIX = Float64Array.from([4, 12, -16, 12, 37, -43, -16, -43, 98]);

  it("is that of the textbook, and solves with it", () => {
    const l = cholesky(MATRIX, 3);
    expect([...l]).toEqual([2, 0, 0, 6, 1, 0, -8, 5, 3]);
    const x = Float64Array.from([1, 2, 3]);
    solveLower(l, 3, x);
    solveLowerTransposed(l, 3, x);
    const back = [0, 1, 2].map((i) => [0, 1, 2].reduce((s, j) => s + (MATRIX[3 * i + j] ?? 0) * (x[j] ?? 0), 0));
    expect(back.map((v) => Number(v.toFixed(9)))).toEqual([1, 2, 3]);
    expect(() => cholesky(Float64Array.from([1, 2, 2, 1]), 2)).toThrow(/positive definite/);
  });

  it("with pivots gives the covariance back to its tolerance, from fewer columns than points", () => {
    const points = Array.from({ length: 40 }, (_, i) => i / 20 - 1);
    const kernel = (i: number, j: number) => Math.exp(-(((points[i] ?? 0) - (points[j] ?? 0)) ** 2) / 2);
    const columns = pivotedCholesky(points.length, kernel, 1e-6);
    expect(columns.length).toBeLessThan(12);
    for (const i of points.keys())
      for (const j of points.keys()) {
        const back = columns.reduce((s, c) => s + (c[i] ?? 0) * (c[j] ?? 0), 0);
        expect(Math.abs(back - kernel(i, j))).toBeLessThan(1e-6);
      }
  });
});

describe("seeded draws", () => {
  it("have the moments that they say, and are the same for the same seed", () => {
    const draws = seededDraws(11);
    const moments = (values: number[]) => {
      const m = values.reduce((s, v) => s + v, 0) / values.length;
      return { mean: m, variance: values.reduce((s, v) => s + (v - m) ** 2, 0) / values.length };
    };
    const many = (one: () => number) => moments(Array.from({ length: 40_000 }, one));
    const normal = many(() => draws.normal());
    expect(Math.abs(normal.mean)).toBeLessThan(0.02);
    expect(Math.abs(normal.variance - 1)).toBeLessThan(0.03);
    // Chi-squared of nu degrees of freedom: mean nu, variance 2 nu.
    const chi = many(() => draws.chiSquared(7));
    expect(Math.abs(chi.mean - 7)).toBeLessThan(0.1);
    expect(Math.abs(chi.variance - 14)).toBeLessThan(0.6);
    expect(seededDraws(5).even()).toBe(seededDraws(5).even());
    expect(seededDraws(5).even()).not.toBe(seededDraws(6).even());
  });
});
