import { describe, expect, it } from "vitest";
import { answerOf, nextArray } from "./array-answer";
import type { ArrayAnswer, ScoredCell } from "./array-given";

/** A little rough, the same each time: digits of a sine far behind the point. */
function rough(i: number): number {
  const digits = 43_758.5453 * Math.sin(12.9898 * (i + 1));
  return 0.02 * (digits - Math.floor(digits) - 0.5);
}

function array(side: number, score: (x: number, y: number) => number, burn = 0): ScoredCell[] {
  return Array.from({ length: side * side }, (_, i) => {
    const [c, r] = [i % side, Math.floor(i / side)];
    const [x, y] = [-1 + (2 * c) / (side - 1), -1 + (2 * r) / (side - 1)];
    return { x, y, place: { x: c, y: r }, burn, score: score(x, y) + rough(i) };
  });
}

function answered(cells: ScoredCell[], side = 7): ArrayAnswer {
  const answer = answerOf({ cells, step: { x: 2 / (side - 1), y: 2 / (side - 1) }, blank: 0 });
  if (typeof answer === "string") throw new Error(answer);
  return answer;
}

const peakAt = (px: number, py: number) => (x: number, y: number) => 1 / (1 + 3 * ((x - px) ** 2 + (y - py) ** 2));

describe("the answer of an array", () => {
  it("is the cell nearest to the peak, with the peak between the cells", () => {
    const cells = array(7, peakAt(0.25, -0.4));
    const answer = answered(cells);
    expect(cells[answer.chosen]?.x).toBeCloseTo(1 / 3, 9);
    expect(cells[answer.chosen]?.y).toBeCloseTo(-1 / 3, 9);
    expect(Math.abs(answer.peak.x - 0.25)).toBeLessThan(0.08);
    expect(Math.abs(answer.peak.y + 0.4)).toBeLessThan(0.08);
    expect(answer.best.x.low).toBeLessThan(0.25);
    expect(answer.best.x.high).toBeGreaterThan(0.25);
    expect(answer.edges).toEqual([]);
    expect(answer.second).toBeNull();
    expect(answer.short[answer.chosen]?.most).toBeGreaterThan(0);
    expect(answer.short[answer.chosen]?.most).toBeLessThan(0.1);
    // The back left corner is far down: 1/(1 + 3 r^2) with r^2 = 1.25^2 + 1.4^2 is 0.086.
    expect(answer.short[42]?.mean).toBeCloseTo(1 - 0.086, 1);
  });

  it.each([
    ["right", peakAt(1.6, 0), "right"],
    ["left", peakAt(-1.6, 0), "left"],
    ["high", peakAt(0, 1.6), "high"],
    ["low", peakAt(0, -1.6), "low"],
  ])("lies at the edge where the scores still rise there: %s", (_name, score, side) => {
    const answer = answered(array(7, score));
    expect(answer.edges).toEqual([side]);
    const next = nextArray(answer);
    const reach = {
      right: next.x.high > 1.2,
      left: next.x.low < -1.2,
      high: next.y.high > 1.2,
      low: next.y.low < -1.2,
    };
    expect(reach).toEqual({ right: false, left: false, high: false, low: false, [side]: true });
  });

  it("names a second peak that may be the higher one, and lays the next array over both", () => {
    const two = (x: number, y: number) =>
      Math.max(Math.exp(-8 * ((x + 0.5) ** 2 + (y + 0.5) ** 2)), Math.exp(-8 * ((x - 0.5) ** 2 + (y - 0.5) ** 2)));
    const answer = answered(array(9, two), 9);
    expect(answer.second).not.toBeNull();
    const next = nextArray(answer);
    for (const axis of [next.x, next.y]) {
      expect(axis.low).toBeLessThan(-0.4);
      expect(axis.high).toBeGreaterThan(0.4);
    }
  });

  it("continues beyond both edges where either may be the better one", () => {
    const answer = answered(array(7, (x) => 1 + x * x));
    const next = nextArray({ ...answer, edges: ["left", "right"] });
    expect(next.x.low).toBeLessThan(-1.2);
    expect(next.x.high).toBeGreaterThan(1.2);
  });

  it("covers a second peak far from the edge that it continues beyond", () => {
    const answer = answered(array(7, (x) => 1 - x));
    const next = nextArray({ ...answer, edges: ["left"], second: { x: 0.8, y: 0 } });
    expect(next.x.low).toBeLessThan(-1.2);
    expect(next.x.high).toBeGreaterThan(1);
  });

  it("is laid out half as wide around a peak inside", () => {
    const next = nextArray(answered(array(7, peakAt(0.2, 0.2))));
    expect(next.x.high - next.x.low).toBeCloseTo(1, 6);
    expect(next.y.high - next.y.low).toBeCloseTo(1, 6);
  });

  it("never is a cell that is no good, nor what lies beside it", () => {
    const cells = array(7, (x, y) => x + y + 3).map((c) => ({ ...c, noGood: c.x + c.y > 0.5 }));
    const answer = answered(cells);
    const chosen = cells[answer.chosen];
    expect(chosen?.noGood).toBe(false);
    expect((chosen?.x ?? 9) + (chosen?.y ?? 9)).toBeGreaterThan(-0.1);
    expect(answer.peak.x + answer.peak.y).toBeLessThan(0.7);
    // The back right corner of the map is not looked for.
    expect(answer.map.values.at(-1)).toBeNull();
    expect(answer.map.values[0]).not.toBeNull();
  });

  it("leaves a wild score out and says which", () => {
    const cells = array(7, peakAt(0, 0)).map((c, i) => (i === 3 ? { ...c, score: 1.6 } : c));
    const answer = answered(cells);
    expect(answer.odd).toEqual([3]);
    expect(answer.chosen).toBe(24);
  });

  it("falls short by more in a noisier array", () => {
    const broad = (x: number, y: number) => 1 / (1 + x * x + y * y);
    const quiet = answered(array(7, broad));
    const loud = answered(array(7, broad).map((c, i) => ({ ...c, score: (c.score ?? 0) + 8 * rough(i + 99) })));
    const short = (a: ArrayAnswer) => a.short[a.chosen]?.most ?? Number.NaN;
    expect(short(loud)).toBeGreaterThan(short(quiet) + 0.01);
    expect(loud.noise).toBeGreaterThan(3 * quiet.noise);
  });

  it("needs enough cells, different scores, and one that is good", () => {
    const step = { x: 1, y: 1 };
    const cells = array(5, peakAt(0, 0));
    const few = cells.map((c, i) => ({ ...c, score: i < 8 ? c.score : null }));
    expect(answerOf({ cells: few, step, blank: 0 })).toBe("few");
    expect(answerOf({ cells: cells.map((c) => ({ ...c, score: 0 })), step, blank: 0 })).toBe("all equal");
    expect(answerOf({ cells: cells.map((c) => ({ ...c, noGood: true })), step, blank: 0 })).toBe("none good");
    const below = cells.map((c) => ({ ...c, score: (c.score ?? 0) - 2 }));
    expect(answerOf({ cells: below, step, blank: 0 })).toBe("below blank");
  });
});
