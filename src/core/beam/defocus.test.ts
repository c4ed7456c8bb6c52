import { describe, expect, it } from "vitest";
import { defocusFor } from "./defocus";
import { markWidth } from "./mark-width-law";

/** w0 = 0.1, zR = 2, R = 10: a spot is widest, 0.27125 mm, 3.2734 mm from focus; a line 0.60653 at 11.9646 mm (methods' check values). */
const SPOT = { z0: 20, zR: 2, w0: 0.1, lnR: Math.log(10) };

describe("out of focus on purpose", () => {
  it.each([1, 2] as const)("finds the height at which a mark is as wide as wished, p = %i", (p) => {
    const found = defocusFor(0.25, SPOT, p);
    if (found.status !== "solved") throw new Error(found.status);
    for (const side of [-1, 1]) expect(markWidth(SPOT.z0 + side * found.asideMm, SPOT, p)).toBeCloseTo(0.25, 9);
    // (w0/w)^p, from the area of the beam.
    const area = 1 + (found.asideMm / SPOT.zR) ** 2;
    expect(found.energyShare).toBeCloseTo(p === 2 ? 1 / area : 1 / Math.sqrt(area), 12);
  });

  it("says how wide it can become at most, and how narrow at least", () => {
    expect(defocusFor(0.3, SPOT, 2)).toMatchObject({ status: "too wide", limitMm: expect.closeTo(0.27125, 5) });
    expect(defocusFor(0.7, SPOT, 1)).toMatchObject({ status: "too wide", limitMm: expect.closeTo(0.60653, 5) });
    const inFocus = markWidth(SPOT.z0, SPOT, 2);
    expect(defocusFor(0.9 * inFocus, SPOT, 2)).toMatchObject({ status: "too narrow", limitMm: inFocus });
  });

  it("takes the way on which marks only fade, where the widest is in focus", () => {
    const weak = { ...SPOT, lnR: 0.4 };
    const found = defocusFor(0.05, weak, 2);
    if (found.status !== "solved") throw new Error(found.status);
    expect(markWidth(weak.z0 + found.asideMm, weak, 2)).toBeCloseTo(0.05, 9);
  });
});
