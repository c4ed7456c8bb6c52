import { describe, expect, it } from "vitest";
import { comparisonsOf, nextPair } from "./next-pair";

const CELLS = Array.from({ length: 25 }, (_, i) => ({ id: `c${i}`, u: (i % 5) / 2 - 1, v: Math.floor(i / 5) / 2 - 1 }));

describe("the next pair", () => {
  it("begins in the middle, with another cell", () => {
    const [a, b] = nextPair(CELLS, []);
    expect(a).toBe(12);
    expect(b).not.toBe(12);
  });

  it("has the best cell so far in it, on either side in turn", () => {
    const won = [3, 7, 11].map((worse) => ({ better: 18, worse, alike: false }));
    expect(nextPair(CELLS, won)[1]).toBe(18);
    expect(nextPair(CELLS, [...won, { better: 18, worse: 0, alike: false }])[0]).toBe(18);
  });

  it("shows two cells together twice at most, as long as there are others", () => {
    const twice = [1, 2].map(() => ({ better: 0, worse: 1, alike: false }));
    const three = CELLS.slice(0, 3);
    expect([...nextPair(three, twice)].sort()).toEqual([0, 2]);
    const all = [
      ...twice,
      ...twice.map((c) => ({ ...c, worse: 2 })),
      ...twice.map((c) => ({ ...c, better: 1, worse: 2 })),
    ];
    const [a, b] = nextPair(three, all);
    expect(a).not.toBe(b);
  });

  it("counts what was compared at its site, and nothing of cells that are not there", () => {
    const read = (better: string, worse: string) => ({ kind: "comparison" as const, better, worse, alike: false });
    expect(comparisonsOf(CELLS, [read("c3", "c4"), read("c3", "gone"), { kind: "count", value: 2 }])).toEqual([
      { better: 3, worse: 4, alike: false },
    ]);
  });
});
