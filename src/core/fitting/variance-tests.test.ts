import chisquare from "@stdlib/stats-base-dists-chisquare-cdf";
import { describe, expect, it } from "vitest";
import { chiSquaredUpperTail } from "./chi-squared";
import { fUpperTail } from "./f-distribution";
import { studentCdf } from "./student-t";

describe("chi-squared", () => {
  it("agrees with a general statistics library", () => {
    for (const nu of [1, 2, 5, 10, 30])
      for (const x of [0.1, 1, 4.2, 12, 40]) expect(chiSquaredUpperTail(x, nu)).toBeCloseTo(1 - chisquare(x, nu), 11);
  });
});

describe("the F ratio", () => {
  it("is the square of t when one degree of freedom stands above the line", () => {
    for (const t of [0.3, 1, 2.5]) expect(fUpperTail(t * t, 1, 9)).toBeCloseTo(2 * (1 - studentCdf(t, 9)), 12);
  });

  it("becomes chi-squared when the scatter is known for certain", () => {
    expect(fUpperTail(9.4 / 4, 4, Infinity)).toBeCloseTo(chiSquaredUpperTail(9.4, 4), 6);
  });

  it("is certain for no difference at all", () => {
    expect(fUpperTail(0, 4, 28)).toBe(1);
  });
});
