/**
 * Seeds 91000 on. Simulated: lags, backlash, scale, scatter of row ends, shift of scanned rows that grows with the speed; calipers with
 * placing scatter, step, common error and zero. Tips three times, gaps once. The truth is where the practice controller puts rows.
 */
import { expect, it } from "vitest";
import { accuracyCases, CALIPER_ERRORS, summaryOf } from "./scan-offset-accuracy";

const CASES = 120;
/** Three standard deviations of a share of 95 % among the cases. */
const LEAST = 0.95 - 3 * Math.sqrt((0.95 * 0.05) / CASES);

it("finds the shift at each speed, the difference of the lags and the offsets within their intervals, and corrects them", () => {
  const cases = accuracyCases(91000, CASES, { ...CALIPER_ERRORS, shift: "by speed" });
  const { estimates, shareUnder30um } = summaryOf(cases);
  expect(estimates.filter((e) => e.id.includes("shift at"))).toHaveLength(12);
  for (const { id, coverage, widthByError } of estimates) {
    expect(coverage, id).toBeGreaterThanOrEqual(LEAST);
    // Half width over the rms error.
    expect(widthByError, id).toBeLessThan(2.75);
  }
  expect(shareUnder30um).toBeGreaterThanOrEqual(0.98);
  const worst = cases.map((c) => Math.max(...c.shiftsLeftMm.map(Math.abs)));
  expect(worst.filter((w) => w < 0.035).length / CASES).toBeGreaterThanOrEqual(0.98);
});
