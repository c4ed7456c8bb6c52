/** Against SciPy on the same points (name and version in the file), left out one by one in truth there; and by hand. */
import { describe, expect, it } from "vitest";
import { seeded } from "../../practice/random";
import {
  fitPlaneMap,
  fitWithBestDegree,
  type MeasuredPoint,
  mapPoint,
  mapUncertainty,
  powersOf,
  unmapPoint,
} from "./plane-map";
import reference from "./plane-map.reference.json";

const POINTS = reference.points.map((p): MeasuredPoint => {
  const [x = 0, y = 0, toX = 0, toY = 0] = p;
  return { from: { x, y }, to: { x: toX, y: toY } };
});
const { half } = reference;

describe("a map of the plane", () => {
  it.each(reference.fits.map((f) => [f.degree, f] as const))("of degree %i agrees with SciPy", (degree, wanted) => {
    const fit = fitPlaneMap(POINTS, degree, half);
    if (!fit) throw new Error("not fitted");
    wanted.x.forEach((c, j) => {
      expect(fit.map.x[j]).toBeCloseTo(c, 9);
      expect(fit.map.y[j]).toBeCloseTo(wanted.y[j] ?? Number.NaN, 9);
    });
    expect(fit.leftOutRms / wanted.leftOutRms).toBeCloseTo(1, 9);
    expect(fit.sd.x / wanted.sdX).toBeCloseTo(1, 9);
    expect(mapUncertainty(fit, { x: 0.6 * half, y: -0.3 * half }).x / wanted.uX).toBeCloseTo(1, 9);
  });

  it("takes the lowest degree that predicts a point that is left out as well as the best does", () => {
    const chosen = fitWithBestDegree(POINTS, half);
    expect(chosen?.all.map((f) => f.map.degree)).toEqual([1, 2, 3, 4, 5]);
    // Its quintic terms are within the noise.
    expect(chosen?.best.map.degree).toBe(3);
    const quiet = POINTS.map(({ from }) => ({ from, to: { x: from.x + (from.x / half) ** 5, y: from.y } }));
    expect(fitWithBestDegree(quiet, half)?.best.map.degree).toBe(5);
    const random = seeded(3);
    const straight = POINTS.map(({ from }) => ({
      from,
      to: { x: 1.01 * from.x + 0.01 * random.normal(), y: 0.99 * from.y + 0.01 * random.normal() },
    }));
    expect(fitWithBestDegree(straight, half)?.best.map.degree).toBe(1);
    expect(fitWithBestDegree(POINTS.slice(0, 3), half)).toBeNull();
  });

  it("of degree 5 is the model of Brown, Photogrammetric Engineering 32 (1966) 444, in the coefficients of its expansion", () => {
    const [k1, k2, p1, p2] = [0.02, -0.004, 0.003, -0.001];
    const bent = POINTS.map(({ from }) => {
      const [u, v] = [from.x / half, from.y / half];
      const r2 = u * u + v * v;
      const radial = 1 + k1 * r2 + k2 * r2 * r2;
      return {
        from,
        to: {
          x: half * (u * radial + 2 * p1 * u * v + p2 * (r2 + 2 * u * u)),
          y: half * (v * radial + p1 * (r2 + 2 * v * v) + 2 * p2 * u * v),
        },
      };
    });
    const map = fitWithBestDegree(bent, half)?.best.map;
    expect(map?.degree).toBe(5);
    const x = (p: number, q: number) => map?.x[powersOf(5).findIndex(([a, b]) => a === p && b === q)];
    const y = (p: number, q: number) => map?.y[powersOf(5).findIndex(([a, b]) => a === p && b === q)];
    // u (1 + k1 (u^2 + v^2) + k2 (u^4 + 2 u^2 v^2 + v^4)) + 2 p1 u v + p2 (3 u^2 + v^2), and the same with u and v, p1 and p2 changed.
    expect([x(1, 0), x(3, 0), x(1, 2), x(3, 2), x(1, 1), x(2, 0)].map((c) => (c ?? 0) / half)).toEqual(
      [1, k1, k1, 2 * k2, 2 * p1, 3 * p2].map((c) => expect.closeTo(c, 9)),
    );
    expect([y(0, 1), y(2, 1), y(0, 5), y(0, 2), y(2, 0), y(1, 1)].map((c) => (c ?? 0) / half)).toEqual(
      [1, k1, k2, 3 * p1, p1, 2 * p2].map((c) => expect.closeTo(c, 9)),
    );
  });

  it("is inverted by steps on the map itself, and nowhere else than where there is such a point", () => {
    const map = fitPlaneMap(POINTS, 5, half)?.map;
    if (!map) throw new Error("not fitted");
    for (const { from } of POINTS) {
      const back = unmapPoint(map, mapPoint(map, from));
      expect(back?.x).toBeCloseTo(from.x, 8);
      expect(back?.y).toBeCloseTo(from.y, 8);
    }
    // By hand: x' = x (1 + x^2/H^2) reaches 2 H at x = H.
    const cubic = { degree: 3, half: 10, x: [0, 10, 0, 0, 0, 0, 10, 0, 0, 0], y: [0, 0, 10, 0, 0, 0, 0, 0, 0, 0] };
    expect(powersOf(3)[6]).toEqual([3, 0]);
    expect(mapPoint(cubic, { x: 10, y: 4 })).toEqual({ x: 20, y: 4 });
    expect(unmapPoint(cubic, { x: 20, y: 4 })?.x).toBeCloseTo(10, 9);
    // x' = x - x^3 / (3 H^2) turns back at x = H, where it reaches 2/3 H: nothing lies beyond.
    const folded = { ...cubic, x: [0, 10, 0, 0, 0, 0, -10 / 3, 0, 0, 0] };
    expect(unmapPoint(folded, { x: 9, y: 0 })).toBeNull();
  });
});
