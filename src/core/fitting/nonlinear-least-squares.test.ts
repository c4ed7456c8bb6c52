/** Bounds, several starts, covariance and how it ends. Figures: linear least squares on the same readings, and arithmetic by hand. */
import { describe, expect, it } from "vitest";
import { leastSquares } from "./least-squares";
import { minimise, minimiseFromSeveral } from "./nonlinear-least-squares";

const LINE = [1, 2, 3, 4, 6].map((x) => ({ x, y: 0.5 + 2 * x + 0.1 * Math.sin(7 * x), u: 0.05 * x }));
const ofLine = ([a = 0, b = 0]: readonly number[]) => LINE.map((p) => (p.y - a - b * p.x) / p.u);
/** Rosenbrock's valley; its least, 0, is at (1, 1). */
const valley = ([x = 0, y = 0]: readonly number[]) => [10 * (y - x * x), 1 - x];

describe("nonlinear least squares", () => {
  it("agrees with linear least squares where the model is a line, covariance and all", () => {
    const linear = leastSquares(LINE.map((p) => ({ row: [1, p.x], y: p.y, u: p.u })));
    if (linear.status !== "solved") throw new Error(linear.status);
    const fit = minimise({ residuals: ofLine, start: [0, 0] });
    expect(fit.ended).toMatch(/^small/);
    expect(fit.degreesOfFreedom).toBe(3);
    fit.x.forEach((value, j) => {
      expect(value).toBeCloseTo(linear.x[j] ?? Number.NaN, 9);
    });
    fit.covariance?.forEach((row, j) => {
      row.forEach((value, k) => {
        expect(value).toBeCloseTo(linear.covariance[j]?.[k] ?? Number.NaN, 9);
      });
    });
    expect(fit.chiSquared).toBeCloseTo(linear.chiSquared, 9);
  });

  it("follows a bent valley to its end", () => {
    const fit = minimise({ residuals: valley, start: [-1.2, 1] });
    expect(fit.x[0]).toBeCloseTo(1, 8);
    expect(fit.x[1]).toBeCloseTo(1, 8);
    expect(fit.onBound).toEqual([false, false]);
  });

  it("stays within bounds, says which it lies on, and is best there", () => {
    // Along x = 0.5 the least is y = 0.25, sum (1 - 0.5)^2.
    const fit = minimise({ residuals: valley, start: [-1.2, 1], low: [-2, -2], high: [0.5, 2] });
    expect(fit.x[0]).toBe(0.5);
    expect(fit.x[1]).toBeCloseTo(0.25, 8);
    expect(fit.chiSquared).toBeCloseTo(0.25, 10);
    expect(fit.onBound).toEqual([true, false]);
  });

  it("takes the best of several starts, also where one makes no sense", () => {
    // Two hollows: the deeper at x = 3.
    const residuals = ([x = 0]: readonly number[]) => [x < -5 ? Number.NaN : (x + 2) * (x - 3), 0.3 * (x - 3)];
    expect(minimise({ residuals, start: [-3] }).x[0]).toBeLessThan(0);
    expect(minimiseFromSeveral({ residuals }, [[-9], [-3], [4]]).x[0]).toBeCloseTo(3, 8);
    expect(minimise({ residuals, start: [-9] }).ended).toBe("not finite at the start");
  });

  it("gives no covariance where the residuals do not tell two parameters apart", () => {
    const fit = minimise({ residuals: ([a = 0, b = 0]) => [a + b - 1, 2 * (a + b) - 2, a + b], start: [0, 0] });
    expect((fit.x[0] ?? 0) + (fit.x[1] ?? 0)).toBeCloseTo(5 / 6, 8);
    expect(fit.covariance).toBeNull();
  });

  it("does not take what it cannot do", () => {
    expect(() => minimise({ residuals: valley, start: [3, 0], high: [2, 2] })).toThrow("start: it must lie within");
    expect(() => minimise({ residuals: () => [1], start: [0, 0] })).toThrow("residuals: there must be at least");
    expect(() => minimiseFromSeveral({ residuals: valley }, [])).toThrow("starts:");
  });
});
