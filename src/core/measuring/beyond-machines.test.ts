import { describe, expect, it } from "vitest";
import { measured } from "../metrology/measured";
import type { Estimate } from "../trial/outcome";
import { beyondMachines } from "./beyond-machines";

const estimate = (id: string, value: number): Estimate => ({
  id,
  label: "Kerf",
  quantity: measured(value, 0.01, 10),
  unit: "mm",
  headline: true,
  budget: [],
  helps: null,
});
const LIMITS = [{ estimate: "kerf", low: 0.02, high: 0.6, check: "Look at the cut." }];

describe("a result held against what machines have", () => {
  it("causes a question outside the limits, which names both limits", () => {
    const [low] = beyondMachines([estimate("kerf x", -0.2)], LIMITS);
    expect(low?.headline).toBe("Kerf of −0.2 mm is unlikely.");
    expect(low?.text).toBe("Usual values are between 0.02 and 0.6 mm. Look at the cut.");
    expect(beyondMachines([estimate("kerf", 0)], LIMITS)).toHaveLength(1);
    expect(beyondMachines([estimate("kerf", 0.61)], LIMITS)).toHaveLength(1);
  });

  it("causes no question inside the limits, or without limits", () => {
    expect(beyondMachines([estimate("kerf", 0.02), estimate("kerf", 0.6), estimate("other", 99)], LIMITS)).toEqual([]);
  });
});
