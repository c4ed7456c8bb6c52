import { describe, expect, it } from "vitest";
import { type CutStock, Cutter, taperedBy } from "./cut-width";
import { focusOf, gantryFromSeed } from "./gantry-truth";
import { feltAs, handFromSeed, snugGapOf } from "./judge-mate";
import { seeded } from "./random";

const HEAD = focusOf(gantryFromSeed(417));
const SHEET: CutStock = { stock: "birch/1", thicknessMm: 3, passes: 1, focusBelowMm: 0 };
const width = (changes: Partial<CutStock>, power = 0.6, speed = 10, exact = true) =>
  new Cutter(HEAD, { ...SHEET, ...changes }, 1, exact).width(power, speed, "x");

describe("the cut of a practice beam", () => {
  it("is as wide as such beams leave it, wider where it is slower or stronger, narrower in thicker stock", () => {
    expect(width({})).toBeGreaterThan(0.05);
    expect(width({})).toBeLessThan(0.5);
    expect(width({}, 0.6, 6)).toBeGreaterThan(width({}));
    expect(width({}, 0.8)).toBeGreaterThan(width({}));
    expect(width({ thicknessMm: 5 })).toBeLessThan(width({}));
    expect(width({ passes: 2, thicknessMm: 5 })).toBeGreaterThan(width({ thicknessMm: 5 }));
  });

  it("does not go through where it is far too weak, and differs from stock to stock", () => {
    expect(width({}, 0.05, 100)).toBe(0);
    expect(width({ stock: "cork/1" })).not.toBe(width({}));
    // Batches of one stock are alike here.
    expect(width({ stock: "birch/2" })).toBe(width({}));
  });

  it("differs a little from cut to cut, unless it is to be exact", () => {
    const cutter = new Cutter(HEAD, SHEET, 1, false);
    const widths = Array.from({ length: 400 }, () => cutter.width(0.6, 10, "x"));
    const mean = widths.reduce((a, b) => a + b) / widths.length;
    const sd = Math.sqrt(widths.reduce((s, w) => s + (w - mean) ** 2, 0) / widths.length);
    expect(sd).toBeGreaterThan(0.002);
    expect(sd).toBeLessThan(0.004);
    expect(taperedBy(SHEET)).toBeGreaterThan(0);
  });
});

describe("a practice hand", () => {
  it("has words that follow on each other as the gap falls", () => {
    const hand = { ...handFromSeed(5), sdMm: 0 };
    const words = [0.3, 0.1, snugGapOf(hand), -0.03, -0.3].map((gap) => feltAs(gap, hand, seeded(1)));
    expect(words[0]).toBe(0);
    expect(words[2]).toBe(2);
    expect(words[4]).toBe(4);
    expect([...words].sort()).toEqual(words);
  });
});
