import { describe, expect, it } from "vitest";
import { comparisonsOf, nextComparison } from "./next-comparison";

const CELLS = Array.from({ length: 25 }, (_, i) => ({ id: `c${i}`, u: (i % 5) / 2 - 1, v: Math.floor(i / 5) / 2 - 1 }));

describe("the next comparison", () => {
  it("starts with the cell in the middle", () => {
    const [a, b] = nextComparison(CELLS, []);
    expect(a).toBe(12);
    expect(b).not.toBe(12);
  });

  it("contains the best cell so far, alternately first and second", () => {
    const won = [3, 7, 11].map((worse) => ({ better: 18, worse, alike: false }));
    expect(nextComparison(CELLS, won)[1]).toBe(18);
    expect(nextComparison(CELLS, [...won, { better: 18, worse: 0, alike: false }])[0]).toBe(18);
  });

  it("repeats two cells at most once while others remain", () => {
    const twice = [1, 2].map(() => ({ better: 0, worse: 1, alike: false }));
    const three = CELLS.slice(0, 3);
    expect([...nextComparison(three, twice)].sort()).toEqual([0, 2]);
    const all = [
      ...twice,
      ...twice.map((c) => ({ ...c, worse: 2 })),
      ...twice.map((c) => ({ ...c, better: 1, worse: 2 })),
    ];
    const [a, b] = nextComparison(three, all);
    expect(a).not.toBe(b);
  });

  it("ignores comparisons of unknown cells and other answers", () => {
    const read = (better: string, worse: string) => ({ kind: "comparison" as const, better, worse, alike: false });
    expect(comparisonsOf(CELLS, [read("c3", "c4"), read("c3", "gone"), { kind: "count", value: 2 }])).toEqual([
      { better: 3, worse: 4, alike: false },
    ]);
  });
});
