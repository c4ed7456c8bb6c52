import { describe, expect, it } from "vitest";
import { leastSquares } from "../fitting/least-squares";
import { trimmedFit } from "./trimmed-fit";

const places = Array.from({ length: 21 }, (_, i) => i - 10);
const rows = places.map((x) => [1, x]);
/** Scatter without a trend, of sd about 0.1. */
const scatter = (i: number) => [0.1, -0.13, 0.04, -0.08, 0.12, -0.05][i % 6] ?? 0;
const values = places.map((x, i) => 2 + 0.5 * x + scatter(i));

describe("a trimmed fit", () => {
  it("leaves out a speck, and is then the plain fit of the rest with its covariance by their scatter", () => {
    const spoiled = values.map((y, i) => (i === 4 ? y + 3 : y));
    const fit = trimmedFit(rows, spoiled);
    expect(fit?.kept.flatMap((k, i) => (k ? [] : [i]))).toEqual([4]);
    const plain = leastSquares(rows.flatMap((row, i) => (i === 4 ? [] : [{ row, y: values[i] ?? 0, u: 1 }])));
    if (plain.status !== "solved" || !fit) throw new Error("not solved");
    expect(fit.x[0]).toBeCloseTo(plain.x[0] ?? 0, 12);
    expect(fit.x[1]).toBeCloseTo(plain.x[1] ?? 0, 12);
    const variance = plain.chiSquared / plain.degreesOfFreedom;
    expect(fit.sd).toBeCloseTo(Math.sqrt(variance), 12);
    expect(fit.covariance[1]?.[1]).toBeCloseTo(variance * (plain.covariance[1]?.[1] ?? 0), 15);
    expect(fit.degreesOfFreedom).toBe(18);
  });

  it("keeps everything where all scatter alike, and tells nothing from too little", () => {
    expect(trimmedFit(rows, values)?.kept.every(Boolean)).toBe(true);
    expect(trimmedFit(rows.slice(0, 2), values.slice(0, 2))).toBeNull();
    expect(
      trimmedFit(
        rows.map(() => [1, 1]),
        values,
      ),
    ).toBeNull();
  });
});
