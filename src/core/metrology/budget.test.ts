import { describe, expect, it } from "vitest";
import { studentQuantile } from "../fitting/student-t";
import { type BudgetPart, joined, shareOf, times } from "./budget";
import { freedomOf } from "./measured";

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
