import chisquare from "@stdlib/stats-base-dists-chisquare-cdf";
import { describe, expect, it } from "vitest";
import { chiSquaredUpperTail } from "./chi-squared";

describe("chi-squared", () => {
  it("agrees with a general statistics library", () => {
    for (const nu of [1, 2, 5, 10, 30])
      for (const x of [0.1, 1, 4.2, 12, 40]) expect(chiSquaredUpperTail(x, nu)).toBeCloseTo(1 - chisquare(x, nu), 11);
  });
});
