import { describe, expect, it } from "vitest";
import { studentQuantile } from "../fitting/student-t";
import { type BudgetPart, joined, shareOf, times } from "./budget";
import { freedomOf } from "./measured";
import { sourcedFit } from "./sourced-fit";

const part = (label: string, standardUncertainty: number, degreesOfFreedom: number | "infinite"): BudgetPart => ({
  id: label,
  label,
  kind: "B",
  standardUncertainty,
  degreesOfFreedom,
});

describe("a budget", () => {
  // JCGM 100:2008, H.1.6 and table H.1, nm
  it("reproduces the end-gauge example of JCGM 100:2008 H.1: u_c = 32 nm, nu_eff = 16, t99 = 2.92, U = 93 nm", () => {
    const { quantity, parts } = joined(50_000_838, [
      part("calibration of the standard", 25, 18),
      part("difference", 9.7, 25.6),
      part("expansion", 2.9, 50),
      part("temperature", 16.6, 2),
    ]);
    expect(quantity.standardUncertainty).toBeCloseTo(32, -0.3);
    expect(Math.round(quantity.standardUncertainty)).toBe(32);
    expect(Math.floor(freedomOf(quantity))).toBe(16);
    const t99 = studentQuantile(0.995, 16);
    expect(t99).toBeCloseTo(2.92, 2);
    expect(Math.round(t99 * 32)).toBe(93);
    expect(parts[0]?.label).toBe("calibration of the standard");
    expect(parts.reduce((sum, p) => sum + shareOf(p, parts), 0)).toBeCloseTo(1, 12);
  });

  it("keeps shares and freedom when the result is halved", () => {
    const whole = joined(2, [part("a", 3, 5), part("b", 4, "infinite")]);
    const half = times(whole, -0.5);
    expect(half.quantity).toEqual({ ...whole.quantity, value: -1, standardUncertainty: 2.5 });
    expect(half.parts.map((p) => shareOf(p, half.parts))).toEqual(whole.parts.map((p) => shareOf(p, whole.parts)));
  });
});

describe("a fit that knows its sources", () => {
  const placing = { id: "placing", label: "Placing", kind: "A" as const, degreesOfFreedom: 10 };
  const limit = { id: "limit", label: "Limit", kind: "B" as const, degreesOfFreedom: "infinite" as const };
  /** Two lengths and what the gauge always reads too much, c = 0 +- 0.01. */
  const fit = sourcedFit([
    { row: [1, 0, 1], y: 10.2, u: 0.03, source: placing },
    { row: [0, 1, 1], y: 4.1, u: 0.04, source: placing },
    { row: [0, 0, 1], y: 0, u: 0.01, source: limit },
  ]);

  it("keeps a common error in a sum twice, and takes it out of a difference", () => {
    const part = (coefficients: number[], id: string) =>
      fit?.combine(coefficients).parts.find((p) => p.id === id)?.standardUncertainty ?? Number.NaN;
    expect(part([1, 0], "limit")).toBeCloseTo(0.01, 12);
    expect(part([1, 1], "limit")).toBeCloseTo(0.02, 12);
    expect(part([1, -1], "limit")).toBeCloseTo(0, 12);
    expect(part([1, -1], "placing")).toBeCloseTo(0.05, 12);
    expect(fit?.combine([1, -1]).quantity.value).toBeCloseTo(6.1, 12);
  });

  it("gives each source its own degrees of freedom", () => {
    expect(
      freedomOf(fit?.combine([1, -1]).quantity ?? { value: 0, standardUncertainty: 0, degreesOfFreedom: 1 }),
    ).toBeCloseTo(10, 6);
  });

  it("says so when parameters cannot be told apart", () => {
    expect(
      sourcedFit([
        { row: [1, 1], y: 1, u: 1, source: placing },
        { row: [2, 2], y: 2, u: 1, source: placing },
      ]),
    ).toBeNull();
  });
});
