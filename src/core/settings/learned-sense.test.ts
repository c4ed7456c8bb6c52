import { describe, expect, it } from "vitest";
import { slopeOfNewest } from "./learned-sense";

const burn = (value: number, result: number, u = 0.1) => ({ value, result, u });

describe("the effect of a larger value", () => {
  it("is the slope between the two newest burns", () => {
    expect(slopeOfNewest([burn(9, 9), burn(2, 1), burn(4, 0)], 3)).toBe(-0.5);
    expect(slopeOfNewest([burn(4, 0), burn(2, 1)], 3)).toBe(-0.5);
    expect(slopeOfNewest([burn(2, 0), burn(4, 1)], 3)).toBe(0.5);
  });

  it("is not known from one burn, from equal values, or from a change within the uncertainty", () => {
    expect(slopeOfNewest([burn(2, 1)], 3)).toBeNull();
    expect(slopeOfNewest([burn(2, 1), burn(2, 5)], 3)).toBeNull();
    // 3 hypot(0.3, 0.4) = 1.5
    expect(slopeOfNewest([burn(0, 0, 0.3), burn(1, 1.49, 0.4)], 3)).toBeNull();
    expect(slopeOfNewest([burn(0, 0, 0.3), burn(1, 1.51, 0.4)], 3)).toBe(1.51);
  });
});
