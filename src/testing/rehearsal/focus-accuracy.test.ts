/** What is promised of the focus by widths, on fewer heads than the bench; their errors are named in `LADDER_ERRORS`. */
import { describe, expect, it } from "vitest";
import { focusSweep } from "./focus-accuracy";

const SEEDS = Array.from({ length: 120 }, (_, i) => 7001 + i);

describe("focus by widths on practice beams", () => {
  const heads = focusSweep(SEEDS);
  const solved = heads.flatMap((h) => (h.error !== null && h.marked >= 6 ? [h] : []));

  it("answers or says why not, on every head", () => {
    for (const { fit, marked } of heads)
      expect(fit.status === "solved" || fit.reason === "few cells" || marked >= 6).toBe(true);
    expect(solved.length).toBeGreaterThan(0.85 * heads.length);
  });

  it("is off by less than 0.03 mm in half of them, by less than 0.08 mm rms", () => {
    const errors = solved.map((h) => Math.abs(h.error ?? 0)).sort((a, b) => a - b);
    expect(errors[errors.length >> 1]).toBeLessThan(0.03);
    expect(Math.sqrt(errors.reduce((sum, e) => sum + e * e, 0) / errors.length)).toBeLessThan(0.08);
  });

  it("holds the truth in its 95 % interval as often as it says, within what chance allows of so few", () => {
    // Three SD of 120 tries at 95 %: 0.06.
    expect(solved.filter((h) => h.covered).length / solved.length).toBeGreaterThan(0.89);
  });

  it("by first and last is off by less than a quarter of a step rms, and by more than nothing", () => {
    const errors = heads.flatMap((h) => (h.byRange === null ? [] : [h.byRange]));
    expect(errors.length).toBeGreaterThan(60);
    const rms = Math.sqrt(errors.reduce((sum, e) => sum + e * e, 0) / errors.length);
    expect(rms).toBeLessThan(0.25);
    expect(rms).toBeGreaterThan(0.1);
  });
});
