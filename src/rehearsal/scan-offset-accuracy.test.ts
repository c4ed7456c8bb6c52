/**
 * Seeds were fixed before the solver was tuned: 1000 to 1299 here, 7000 to 7599 for the coverage of intervals, which has files of its
 * own so that both run at once. More of them and a second set run in the bench.
 */
import { describe, expect, it } from "vitest";
import { mean } from "../core/fitting/repeats";
import { accuracyCases, CALIPER_ERRORS, summaryOf } from "./scan-offset-accuracy";

describe("scan offset over seeded practice gantries", () => {
  it("leaves under 0.03 mm at every speed in 99 of 100, median of the worst speed under 0.012 mm", () => {
    const summary = summaryOf(accuracyCases(1000, 300, CALIPER_ERRORS));
    expect(summary.shareUnder30um).toBeGreaterThanOrEqual(0.99);
    expect(summary.medianWorstMm).toBeLessThan(0.012);
  });

  it("holds its intervals nearly as well where the drive bends by 0.02 mm, and leaves under 0.03 mm in 19 of 20", () => {
    const summary = summaryOf(accuracyCases(1000, 100, { ...CALIPER_ERRORS, bendMm: 0.02 }));
    const offsets = summary.estimates.filter((e) => e.id.includes("offset"));
    expect(offsets).toHaveLength(12);
    expect(mean(offsets.map((e) => e.coverage))).toBeGreaterThanOrEqual(0.9);
    // A proof goes by the readings at each speed, whatever the drive does between them.
    const proofs = offsets.filter((e) => e.id.startsWith("proof"));
    expect(proofs).toHaveLength(6);
    expect(mean(proofs.map((e) => e.coverage))).toBeGreaterThanOrEqual(0.92);
    expect(summary.shareUnder30um).toBeGreaterThanOrEqual(0.95);
  });

  it("leaves no more than the controller's rounding when all noise is off", () => {
    const quiet = accuracyCases(300, 30, { placingMm: 0, limitMm: 0, resolutionMm: 0, jaws: false, noise: false });
    for (const c of quiet) {
      // An entry is rounded to 0.001 mm, so half of that, in each of the two directions.
      expect(Math.max(...c.residualsMm.map(Math.abs))).toBeLessThanOrEqual(0.001);
    }
  });
});
