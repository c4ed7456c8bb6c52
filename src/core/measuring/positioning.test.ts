import { describe, expect, it } from "vitest";
import { mean } from "../fitting/repeats";
import { positioning } from "./positioning";

/** Five approaches from each side at four places, um; written down for this test. */
const UP = [
  [1, 2, 0, 1, 3],
  [4, 5, 3, 6, 4],
  [2, 2, 4, 3, 1],
  [-1, 0, 1, -2, 0],
];
const DOWN = [
  [-3, -2, -4, -3, -1],
  [-1, 0, 2, -2, 0],
  [-4, -3, -5, -2, -4],
  [-6, -5, -7, -5, -4],
];

/** The quantities worked out another way: by sums of squares about each pair. [ISO 230-2:2014, 3 and 6, from memory] */
function reference() {
  const sd = (v: number[]) => {
    let pairs = 0;
    for (const a of v) for (const b of v) pairs += (a - b) ** 2;
    return Math.sqrt(pairs / (2 * v.length * (v.length - 1)));
  };
  const b = UP.map((u, i) => mean(u) - mean(DOWN[i] ?? []));
  const r = UP.map((u, i) => {
    const [su, sdn] = [sd(u), sd(DOWN[i] ?? [])];
    return Math.max(2 * su + 2 * sdn + Math.abs(b[i] ?? 0), 4 * su, 4 * sdn);
  });
  return { reversal: Math.max(...b.map(Math.abs)), repeatability: Math.max(...r), b };
}

describe("reversal and repeatability of positioning", () => {
  it("agree with the same quantities worked out another way", () => {
    const found = positioning(UP.map((up, i) => ({ nominalMm: i, up, down: DOWN[i] ?? [] })));
    const wanted = reference();
    expect(found?.reversalMm).toBeCloseTo(wanted.reversal, 12);
    expect(found?.repeatability?.value).toBeCloseTo(wanted.repeatability, 12);
    // At the third place the variance from each side is 1.3 um2, with four degrees of freedom.
    expect(found?.repeatability?.degreesOfFreedom).toBe(4);
    expect(found?.repeatability?.standardUncertainty).toBeCloseTo((2 * Math.sqrt(1.3 + 1.3)) / Math.sqrt(8), 12);
    for (const [i, value] of (found?.reversals ?? []).entries())
      expect(value).toBeCloseTo(wanted.b[i] ?? Number.NaN, 12);
    // By hand: at the third place 2.4 - (-3.6) = 6.0
    expect(found?.reversals[2]).toBeCloseTo(6, 12);
  });

  it("tell the reversal alone from single approaches, and nothing from one side", () => {
    expect(positioning([{ nominalMm: 0, up: [0.1], down: [0.02] }])).toEqual({
      reversals: [expect.closeTo(0.08, 12)],
      reversalMm: expect.closeTo(0.08, 12),
      repeatability: null,
    });
    expect(positioning([{ nominalMm: 0, up: [0.1, 0.2], down: [] }])).toBeNull();
  });
});
