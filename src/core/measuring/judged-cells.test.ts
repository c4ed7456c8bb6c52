import { describe, expect, it } from "vitest";
import { seeded } from "../../practice/random";
import { expandedUncertainty } from "../metrology/measured";
import { middleOfMarked, middleOfSharpest } from "./judged-cells";

const HEIGHTS = Array.from({ length: 21 }, (_, i) => 40 + 0.5 * i);

/** 4000 ranges of marked cells, each edge misjudged by a cell with this chance: error of the middle, mm, and share of true intervals. */
function judged(seed: number, misjudged: number): { rms: number; held: number } {
  const random = seeded(seed);
  const slip = () => (random.even() < misjudged ? (random.even() < 0.5 ? 1 : -1) : 0);
  const tries = 4000;
  let [squares, held] = [0, 0];
  for (let i = 0; i < tries; i++) {
    const z0 = random.between(44, 46);
    const half = random.between(0.6, 3);
    const marked = HEIGHTS.flatMap((z, k) => (Math.abs(z - z0) < half ? [k] : []));
    const [first, last] = [(marked[0] ?? 0) + slip(), (marked.at(-1) ?? 0) + slip()];
    const range = middleOfMarked(HEIGHTS, Math.min(first, last), Math.max(first, last));
    if (range.status !== "solved") throw new Error(range.side);
    squares += (range.z0.value - z0) ** 2;
    if (Math.abs(range.z0.value - z0) <= expandedUncertainty(range.z0)) held++;
  }
  return { rms: Math.sqrt(squares / tries), held: held / tries };
}

describe("first and last marked", () => {
  it("give the middle, known to the step, and to one edge in seven that is misjudged by a cell", () => {
    const range = middleOfMarked(HEIGHTS, 4, 11);
    expect(range).toMatchObject({ status: "solved", z0: { value: 43.75, degreesOfFreedom: "infinite" } });
    // 0.5 sqrt((1/12 + 0.15) / 2)
    expect(range.status === "solved" && range.z0.standardUncertainty).toBeCloseTo(0.17078, 5);
  });

  it("are off by a quarter of a step rms at most, and hold the truth as often as they say, wherever the range lies", () => {
    const { rms, held } = judged(11, 0);
    expect(rms / 0.5).toBeLessThan(0.25);
    expect(held).toBeGreaterThan(0.94);
  });

  it("hold the truth also where one edge in ten is misjudged by a cell", () => {
    expect(judged(12, 0.1).held).toBeGreaterThan(0.94);
  });

  it("say nothing where the ladder ends inside the range, and on which side to go on", () => {
    expect(middleOfMarked(HEIGHTS, 0, 11)).toEqual({ status: "too short", side: "before the first" });
    expect(middleOfMarked(HEIGHTS, 4, 20)).toEqual({ status: "too short", side: "beyond the last" });
    expect(middleOfMarked(HEIGHTS, 0, 20)).toEqual({ status: "too short", side: "both sides" });
    expect(() => middleOfMarked(HEIGHTS, 5, 4)).toThrow("no such cells");
    expect(() => middleOfMarked(HEIGHTS, 5, 21)).toThrow("no such cells");
  });
});

describe("the sharpest cell", () => {
  it("is known to half a step by one look, and better by several", () => {
    const once = middleOfSharpest(HEIGHTS, [[8, 8]]);
    const often = middleOfSharpest(HEIGHTS, [
      [8, 8],
      [8, 8],
      [9, 9],
      [8, 8],
    ]);
    expect(once.value).toBe(44);
    expect(once.standardUncertainty / 0.5).toBeCloseTo(0.534, 2);
    expect(often.value).toBe(44.125);
    expect(often.standardUncertainty).toBeLessThan(0.75 * once.standardUncertainty);
  });

  it("is, of several that are equally sharp, the middle, with their ends as the bracket", () => {
    const tied = middleOfSharpest(HEIGHTS, [[6, 11]]);
    expect(tied.value).toBe(44.25);
    // Six cells wide: 3 mm by the root of 12, and the eye
    expect(tied.standardUncertainty).toBeCloseTo(Math.hypot(3 / Math.sqrt(12), 0.225), 6);
  });

  it("does not take judgements of what is not there", () => {
    expect(() => middleOfSharpest(HEIGHTS, [])).toThrow("at least one");
    expect(() => middleOfSharpest(HEIGHTS, [[3, 30]])).toThrow("no such cells");
  });
});
