/** Cells that pass or fail along a diagonal, as a cut through a sheet does. */
import { describe, expect, it } from "vitest";
import { elementAt } from "../fitting/element-at";
import { answerOf } from "./array-answer";
import type { ArrayAnswer, ScoredCell } from "./array-given";

const SIDE = 9;
const STEP = { x: 0.25, y: 0.25 };
/** x is ln(speed), y is ln(power): faster cells take less time. */
const FASTER = { slower: { x: -1, y: 0 } };

function cellsWhere(passes: (x: number, y: number) => boolean): ScoredCell[] {
  return Array.from({ length: SIDE * SIDE }, (_, i) => {
    const [column, row] = [i % SIDE, Math.floor(i / SIDE)];
    const [x, y] = [column / 4 - 1, row / 4 - 1];
    return { x, y, place: { x: column, y: row }, burn: 0, score: passes(x, y) ? 1 : 0 };
  });
}

function answer(cells: readonly ScoredCell[], passes = FASTER): ArrayAnswer {
  const found = answerOf({ cells, step: STEP, blank: 0, passes });
  if (typeof found === "string") throw new Error(found);
  return found;
}

describe("an array whose cells pass or fail", () => {
  const diagonal = cellsWhere((x, y) => y - x > 0.1);

  it("chooses the fastest cell that surely passes", () => {
    const { chosen, asGood, short, best, edges } = answer(diagonal);
    const { x, y } = elementAt(diagonal, chosen);
    expect(elementAt(diagonal, chosen).score).toBe(1);
    expect(elementAt(short, chosen).most).toBeLessThanOrEqual(0.05);
    for (const i of asGood) expect(elementAt(diagonal, i).x).toBeLessThanOrEqual(x);
    // The fastest passing cells lie at the strongest power, one step inside the limit at x = 0.9.
    expect(y).toBeGreaterThanOrEqual(0.75);
    expect(x).toBeGreaterThanOrEqual(0.25);
    expect(x).toBeLessThanOrEqual(0.75);
    expect(best.x.low).toBeLessThan(0.9);
    expect(best.x.high).toBeGreaterThan(x);
    // More power would allow more speed.
    expect(edges).toContain("high");
    expect(edges).not.toContain("left");
  });

  it("prefers weak power where power takes the time, and the surest cell where nothing does", () => {
    const low = elementAt(diagonal, answer(diagonal, { slower: { x: 0, y: 1 } }).chosen);
    expect(low.y).toBeLessThanOrEqual(0);
    const still = answer(diagonal, { slower: { x: 0, y: 0 } });
    const failing = still.short.map((s) => s.mean);
    expect(elementAt(failing, still.chosen)).toBeLessThan(0.01);
    expect(still.edges).toEqual([]);
  });

  it("names a cell that contradicts its neighbours, and is less sure of it", () => {
    const knot = diagonal.findIndex((c) => c.x === -0.75 && c.y === 0.75);
    const found = answer(diagonal.map((c, i) => (i === knot ? { ...c, score: 0 } : c)));
    expect(found.odd).toEqual([knot]);
    expect(elementAt(found.short, knot).mean).toBeGreaterThan(elementAt(answer(diagonal).short, knot).mean);
  });

  it("excludes charred cells, and what is next to them", () => {
    const charred = diagonal.map((c) => ({ ...c, noGood: c.y > 0.7 }));
    const { chosen, map } = answer(charred);
    expect(elementAt(charred, chosen).y).toBeLessThan(0.7);
    expect(map.values.at(-1)).toBeNull();
  });

  it("has no answer where none passes, and continues where all pass", () => {
    const none = answerOf({ cells: cellsWhere(() => false), step: STEP, blank: 0, passes: FASTER });
    expect(none).toBe("none passes");
    const all = cellsWhere(() => true);
    expect(answer(all).edges).toEqual(["right"]);
    const bad = answerOf({ cells: all.map((c) => ({ ...c, noGood: true })), step: STEP, blank: 0, passes: FASTER });
    expect(bad).toBe("none good");
  });
});
