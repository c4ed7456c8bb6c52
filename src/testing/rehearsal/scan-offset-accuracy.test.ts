/**
 * Seeds were fixed before the solver was tuned: 1000 to 1299 here, 7000 to 7599 for the coverage of intervals, which has files of its
 * own so that both run at once. More of them and a second set run in the bench.
 */
import { describe, expect, it } from "vitest";
import { mean } from "../../core/fitting/repeats";
import { accuracyCases, CALIPER_ERRORS, summaryOf } from "./scan-offset-accuracy";

describe("scan offset over seeded practice gantries", () => {
  it("leaves under 0.03 mm at every speed in 99 of 100, median of the worst speed under 0.012 mm", () => {
    const summary = summaryOf(accuracyCases(1000, 300, CALIPER_ERRORS));
    expect(summary.shareUnder30um).toBeGreaterThanOrEqual(0.99);
    expect(summary.medianWorstMm).toBeLessThan(0.012);
  });

  it("holds its intervals where the drive bends by 0.02 mm, and leaves under 0.03 mm of offset in 99 of 100", () => {
    const cases = accuracyCases(1000, 100, { ...CALIPER_ERRORS, bendMm: 0.02 });
    const { estimates } = summaryOf(cases);
    const offsets = estimates.filter((e) => e.id.includes("offset"));
    expect(offsets).toHaveLength(12);
    const proofs = offsets.filter((e) => e.id.startsWith("proof"));
    expect(proofs).toHaveLength(6);
    // 600 numbers of 100 gantries: 94 % promised, less what 100 seeds may differ.
    expect(mean(offsets.map((e) => e.coverage))).toBeGreaterThanOrEqual(0.93);
    expect(mean(proofs.map((e) => e.coverage))).toBeGreaterThanOrEqual(0.93);
    const offsetsLeft = cases.map((c) => Math.max(...c.residualsMm.map(Math.abs)) / 2);
    expect(offsetsLeft.filter((left) => left < 0.03).length).toBeGreaterThanOrEqual(99);
    // Of the stagger, which is twice the offset.
    expect(summaryOf(cases).shareUnder30um).toBeGreaterThanOrEqual(0.95);
  });

  it("leaves no more than the controller's rounding when all noise is off", () => {
    const quiet = accuracyCases(300, 30, { placingMm: 0, limitMm: 0, resolutionMm: 0, jaws: false, noise: false });
    for (const c of quiet) {
      // An entry is rounded to 0.001 mm, so half of that, in each of the two directions.
      expect(Math.max(...c.residualsMm.map(Math.abs))).toBeLessThanOrEqual(0.001);
    }
  });
});
