import { describe, expect, it } from "vitest";
import { mean, pooled } from "./repeats";

describe("repeats", () => {
  it("have the mean of the voltages of an example: 5.007, 4.994, 5.005, 4.990, 4.999 V [JCGM 100:2008 H.2, table H.2]", () => {
    expect(mean([5.007, 4.994, 5.005, 4.99, 4.999])).toBeCloseTo(4.999, 12);
  });

  it("scatter about their own means, with what is usual: (2·1² + 2 + 8) / (2 + 1 + 2) by hand", () => {
    const { sd, freedom } = pooled([[1, 3], [10, 12, 14], [7], []], { sd: 1, freedom: 2 });
    expect(freedom).toBe(5);
    expect(sd ** 2).toBeCloseTo(12 / 5, 12);
  });

  it("are what is usual before anything was repeated", () => {
    expect(pooled([[4], [9]], { sd: 0.3, freedom: 2 })).toEqual({ sd: 0.3, freedom: 2 });
  });
});
