import { describe, expect, it } from "vitest";
import { thresholdShare } from "./stock-map";

const GRAIN = { seed: 5, sd: 0.03, sizeMm: 6 };

describe("a map of what a stock bears", () => {
  const places = Array.from({ length: 3000 }, (_, i) => ({ x: (i % 60) * 7.3, y: Math.floor(i / 60) * 8.9 }));
  const shares = places.map((at) => thresholdShare(GRAIN, at));

  it("scatters about the usual by what it says, and is the same each time", () => {
    const mean = shares.reduce((sum, s) => sum + s, 0) / shares.length;
    const sd = Math.sqrt(shares.reduce((sum, s) => sum + (s - mean) ** 2, 0) / shares.length);
    expect(mean).toBeCloseTo(1, 2);
    expect(sd).toBeGreaterThan(0.026);
    expect(sd).toBeLessThan(0.034);
    expect(places.map((at) => thresholdShare(GRAIN, at))).toEqual(shares);
  });

  it("changes little over a fraction of its grain, and is even where there is none", () => {
    const steps = places.map((at) =>
      Math.abs(thresholdShare(GRAIN, at) - thresholdShare(GRAIN, { ...at, x: at.x + 0.1 })),
    );
    expect(Math.max(...steps)).toBeLessThan(0.02);
    expect(thresholdShare({ ...GRAIN, sd: 0 }, { x: 12, y: 7 })).toBe(1);
  });
});
