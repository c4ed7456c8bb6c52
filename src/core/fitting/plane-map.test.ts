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
