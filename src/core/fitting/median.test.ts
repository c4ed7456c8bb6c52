import { describe, expect, it } from "vitest";
import { median } from "./median";

describe("a median", () => {
  it("is the middle of an odd number, whatever their order, and between the middle two of an even one", () => {
    expect(median([9])).toBe(9);
    expect(median([5, 1, 100])).toBe(5);
    expect(median([3, 1, 2, 100, -7])).toBe(2);
    expect(median([4, 1, 3, 100])).toBe(3.5);
  });
});
