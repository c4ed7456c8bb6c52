import { describe, expect, it } from "vitest";
import { isSameOptic, opticAt } from "./fitted-optic";

const FITTINGS = [
  { kind: "optic", partId: 1, from: 100, to: 200 },
  { kind: "rotary", partId: 9, from: 120, to: null },
  { kind: "optic", partId: 2, from: 200, to: 300 },
  { kind: "optic", partId: 1, from: 300, to: null },
];

describe("the optic that was fitted", () => {
  it("is known at every moment, also where there was none", () => {
    expect([50, 100, 199, 200, 299, 300, Infinity].map((at) => opticAt(FITTINGS, at))).toEqual([
      ...[null, 1, 1, 2, 2, 1, 1],
    ]);
  });

  it("tells what still holds: an older time with the same lens does, a newer one with another does not", () => {
    expect(isSameOptic(FITTINGS, 150, Infinity)).toBe(true);
    expect(isSameOptic(FITTINGS, 250, Infinity)).toBe(false);
    expect(isSameOptic(FITTINGS, 50, Infinity)).toBe(false);
  });
});
