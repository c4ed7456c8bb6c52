import { describe, expect, it } from "vitest";
import { type Choice, fitChoices } from "./choices";

/** A vague prior: sd of 1000 logits. */
const VAGUE = 1000;

/** Choices from a table of wins: row against column. */
function gamesOf(teams: number, wins: readonly (readonly number[])[]): Choice[] {
  return wins.flatMap((row, i) =>
    row.flatMap((times, j) => {
      const x = new Float64Array(teams);
      x[i] = 1;
      x[j] = -1;
      return i === j || times === 0 ? [] : [{ x, times }];
    }),
  );
}

describe("choices between two", () => {
  /**
   * The American League in 1987: Milwaukee, Detroit, Toronto, New York, Boston, Cleveland, Baltimore; 13 games of each pair. Estimates against Baltimore
   * 1.58, 1.44, 1.29, 1.25, 1.11, 0.68. [Agresti, Categorical Data Analysis, 2nd ed. 2002, table 10.10 and 10.6.3; from memory]
   */
  it("agree with the published fit of a baseball season", () => {
    const wins = [
      [0, 7, 9, 7, 7, 9, 11],
      [6, 0, 7, 5, 11, 9, 9],
      [4, 6, 0, 7, 7, 8, 12],
      [6, 8, 6, 0, 6, 7, 10],
      [6, 2, 6, 7, 0, 7, 12],
      [4, 4, 5, 6, 6, 0, 6],
      [2, 4, 1, 3, 1, 7, 0],
    ];
    for (const [i, row] of wins.entries())
      for (const [j, won] of row.entries()) if (i !== j) expect(won + (wins[j]?.[i] ?? 0)).toBe(13);
    const { w } = fitChoices(gamesOf(7, wins), 7, VAGUE);
    const against = Array.from(w, (v) => v - (w[6] ?? Number.NaN));
    for (const [i, published] of [1.58, 1.44, 1.29, 1.25, 1.11, 0.68, 0].entries())
      expect(against[i]).toBeCloseTo(published, 2);
  });

  it("by hand: chosen 3 times of 4 is a difference of ln 3 with a standard deviation of sqrt(1/3 + 1)", () => {
    const x = Float64Array.of(1);
    const { w, lower } = fitChoices(
      [
        { x, times: 3 },
        { x: Float64Array.of(-1), times: 1 },
      ],
      1,
      VAGUE,
    );
    expect(w[0]).toBeCloseTo(Math.log(3), 5);
    expect(1 / (lower[0] ?? Number.NaN)).toBeCloseTo(Math.sqrt(1 / 3 + 1), 4);
  });

  it("stay finite if one thing is always chosen, and prefer the likelier model", () => {
    const always = [{ x: Float64Array.of(1), times: 20 }];
    const wide = fitChoices(always, 1, 10);
    const narrow = fitChoices(always, 1, 0.1);
    expect(Number.isFinite(wide.w[0])).toBe(true);
    expect(wide.log).toBeGreaterThan(narrow.log);
    // The same by a sum over w. The approximation may differ by a factor of e.
    let sum = 0;
    for (let v = -60; v <= 60; v += 0.01)
      sum += (0.01 * Math.exp(-(v * v) / 200)) / Math.sqrt(2 * Math.PI * 100) / (1 + Math.exp(-v)) ** 20;
    expect(wide.log).toBeGreaterThan(Math.log(sum) - 1);
    expect(wide.log).toBeLessThan(Math.log(sum) + 1);
  });

  it("return the prior without choices", () => {
    const { w, lower, log } = fitChoices([], 2, 3);
    expect(Array.from(w)).toEqual([0, 0]);
    expect(1 / (lower[0] ?? Number.NaN)).toBeCloseTo(3, 9);
    expect(log).toBeCloseTo(0, 9);
  });
});
