import { describe, expect, it } from "vitest";
import { median, robustLine } from "./robust-line";

const line = (off: number[]) =>
  off.map((d, i) => ({ x: 100 * (i + 1), y: 0.02 + 0.0005 * 100 * (i + 1) + d, u: 0.004 }));

describe("robust line", () => {
  it("is not pulled by one bad point, and flags it", () => {
    const fit = robustLine(line([0.001, -0.001, 0.0, 0.04, 0.001, -0.001]));
    expect(fit.slope).toBeCloseTo(0.0005, 5);
    expect(fit.flagged).toEqual([3]);
  });

  it("flags nothing below five points, and nothing that its own doubt explains", () => {
    expect(robustLine(line([0, 0, 0.05, 0])).flagged).toEqual([]);
    expect(robustLine(line([0, 0, 0, 0.012, 0, 0])).flagged).toEqual([]);
  });

  it("needs two different places", () => {
    expect(() =>
      robustLine([
        { x: 1, y: 1, u: 1 },
        { x: 1, y: 2, u: 1 },
      ]),
    ).toThrow(/two different x/);
  });

  it("takes the middle of an even number between the two middle ones", () => {
    expect(median([4, 1, 3, 2])).toBe(2.5);
  });
});
