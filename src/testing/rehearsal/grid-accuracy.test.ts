/** The benchmark measures 300 heads, this test a few. The simulated errors are listed in grid-accuracy.ts. */
import { describe, expect, it } from "vitest";
import { type GridCase, gridTrial } from "./grid-accuracy";

const SEEDS = Array.from({ length: 40 }, (_, i) => 5000 + i);
const quantile = (values: readonly number[], share: number) =>
  [...values].sort((a, b) => a - b)[Math.floor(share * values.length)] ?? Number.NaN;

function over(how: GridCase) {
  const trials = SEEDS.map((seed) => gridTrial(seed, how));
  const sum = (of: (t: (typeof trials)[number]) => number) => trials.reduce((s, t) => s + of(t), 0);
  return {
    rms: quantile(
      trials.map((t) => t.rms),
      0.5,
    ),
    worst: quantile(
      trials.map((t) => t.worst),
      0.5,
    ),
    shape: quantile(
      trials.map((t) => t.shape),
      0.5,
    ),
    held: sum((t) => t.held) / sum((t) => t.of),
    degrees: trials.map((t) => t.degree),
  };
}

describe("a field after one correction by a table", () => {
  it("is right to some micrometres from two scans, within its stated uncertainty", () => {
    const found = over({ pictures: "two", lengths: "diagonals" });
    expect(found.rms).toBeLessThan(0.007);
    expect(found.worst).toBeLessThan(0.017);
    expect(found.shape).toBeLessThan(0.005);
    expect(found.held).toBeGreaterThan(0.9);
    expect(found.held).toBeLessThan(0.985);
    expect(found.degrees.filter((d) => d === 5).length).toBeGreaterThan(35);
  });

  it("is nearly as right from one scan with diagonals, and says that it is less so with two lengths alone", () => {
    const diagonals = over({ pictures: "one", lengths: "diagonals" });
    expect(diagonals.rms).toBeLessThan(0.01);
    expect(diagonals.held).toBeGreaterThan(0.9);
    const sides = over({ pictures: "one", lengths: "sides" });
    expect(sides.rms).toBeLessThan(0.02);
    expect(sides.rms).toBeGreaterThan(diagonals.rms);
    expect(sides.held).toBeGreaterThan(0.9);
  });
});
