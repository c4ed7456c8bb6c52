import { describe, expect, it } from "vitest";
import { arrayTrial } from "./array-accuracy";
import { colourTrial } from "./coloured-array";
import { passTrial } from "./judged-array";

/** Stocks of every kind, six of each. The figures of 300 are in docs/methods/test-arrays.md. */
const TRIALS = Array.from({ length: 36 }, (_, seed) => arrayTrial(seed, 5, seed % 2 === 0));
const share = (is: readonly boolean[]) => is.filter(Boolean).length / is.length;

describe("an array of 5 x 5 on a stock that nobody has seen", () => {
  it("chooses a cell that lacks at most 5 % of the best burned one, nearly always", () => {
    expect(share(TRIALS.map((t) => t.lacks.burned <= 0.05))).toBeGreaterThanOrEqual(0.88);
  });

  it("states a loss that holds, and is not wide", () => {
    expect(share(TRIALS.map((t) => t.lacks.array <= t.short))).toBeGreaterThanOrEqual(0.86);
    expect(TRIALS.reduce((s, t) => s + t.short, 0) / TRIALS.length).toBeLessThan(0.09);
  });

  it("finds the best at the edge where it is there, and seldom where it is not", () => {
    const at = TRIALS.filter((t) => t.edge.is === true);
    const inside = TRIALS.filter((t) => t.edge.is === false);
    expect(share(at.map((t) => t.edge.said))).toBeGreaterThanOrEqual(0.9);
    expect(share(inside.map((t) => t.edge.said))).toBeLessThanOrEqual(0.15);
  });

  it("lacks at most 5 % of the best of the machine after a second array, nearly always", () => {
    const second = TRIALS.flatMap((t) => (t.second === null ? [] : [t.second]));
    expect(second.length).toBeGreaterThan(15);
    expect(share(second.map((lack) => lack <= 0.05))).toBeGreaterThanOrEqual(0.88);
  });
});

describe("an array of 5 x 5 whose cells pass or fail", () => {
  it("calls only cells sure that pass, and finds some", () => {
    const last = Array.from({ length: 16 }, (_, seed) => passTrial(seed, 5)).flatMap((t) => t.slice(-1));
    const sure = last.filter((t) => t.isSure);
    expect(sure.length).toBeGreaterThanOrEqual(4);
    expect(sure.filter((t) => t.fails > 0.05).length).toBeLessThanOrEqual(1);
    expect(share(last.map((t) => t.fails <= t.most))).toBeGreaterThanOrEqual(0.8);
  });
});

describe("an array of 7 x 7 of coloured steel", () => {
  it("chooses a cell near the nearest colour, with a bound that holds", () => {
    // Of 40 arrays 38 hold, of these 12 all but two.
    const trials = Array.from({ length: 12 }, (_, seed) => colourTrial(seed, 7));
    expect(share(trials.map((t) => t.beyond <= t.most))).toBeGreaterThanOrEqual(0.8);
    expect(trials.reduce((s, t) => s + t.beyond, 0) / trials.length).toBeLessThan(5);
    expect(trials.reduce((s, t) => s + t.most, 0) / trials.length).toBeLessThan(11);
  });
});
