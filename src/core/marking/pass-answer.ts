/**
 * What an array says whose cells pass or fail: marked or not, cut through or not.
 *
 * Counted over chances drawn from what the outcomes leave possible (`core/fitting/pass-surface`):
 *
 *   short    mean and 95 % quantile of the chance that a cell fails
 *   as good  passes with a chance of at least 95 % in 95 of 100
 *   chosen   of the cells that are as good, the one that takes least time for an area; of equally fast ones the surest. Without any, the surest cell
 *            that passed
 *   best     where the fastest place lies that passes with 95 %
 */
import { elementAt } from "../fitting/element-at";
import { fitPasses } from "../fitting/pass-surface";
import type { ArrayAnswer, ArrayGiven, NoAnswer } from "./array-given";
import { type ArrayMap, type MapSide, mapOf, shownMap } from "./array-map";
import { DRAWS, indexOfLargest, meanAndMost, middleOf, share } from "./over-draws";

/** Chance with which a cell has to pass. */
const PASSES = 0.95;
/** Times that differ by less are equal, as a logarithm. */
const SAME_TIME = 1e-6;
/** A cell contradicts the others if they give its outcome less than this chance. */
const ODD = 0.1;

type Wanted = Pick<ArrayGiven, "cells" | "step"> & { slower: { x: number; y: number } };

/** @param given.cells score 1 = passes, 0 = fails */
export function passAnswer(given: Wanted, progress: (share: number) => void): ArrayAnswer | NoAnswer {
  const { cells, slower } = given;
  const judged = cells.flatMap((c, at) => (c.score === null ? [] : [{ at, passed: c.score > 0 }]));
  const map = mapOf(given);
  const good = judged.filter(({ at, passed }) => passed && map.open[at]);
  if (!judged.some((j) => j.passed)) return "none passes";
  if (good.length === 0) return "none good";
  const { mean, draws } = fitPasses(judged, map.points, { count: DRAWS, progress });
  const time = [...cells, ...map.grid].map(({ x, y }) => slower.x * x + slower.y * y);
  const short = cells.map((_, i) => meanAndMost(draws.map((d) => 1 - elementAt(d, i))));
  const asGood = judged.flatMap(({ at }) => (map.open[at] && elementAt(short, at).most <= 1 - PASSES ? [at] : []));
  const expected = Array.from(mean.subarray(0, cells.length));
  const surest = (among: readonly number[]) =>
    among.reduce((a, b) => (elementAt(short, b).most < elementAt(short, a).most ? b : a));
  const chosen = asGood.length > 0 ? fastestIn(asGood, time, expected) : surest(good.map(({ at }) => at));
  const skip = cells.length;
  const onMap = map.grid.flatMap((_, i) => (map.open[skip + i] ? [skip + i] : []));
  const placeIn = (chances: Float64Array) => {
    const sure = onMap.filter((i) => elementAt(chances, i) >= PASSES);
    return sure.length > 0
      ? fastestIn(sure, time, chances)
      : elementAt(onMap, indexOfLargest(onMap.map((i) => elementAt(chances, i))));
  };
  const bests = draws.map((d) => elementAt(map.grid, placeIn(d) - skip));
  const peak = elementAt(map.grid, placeIn(mean) - skip);
  return {
    chosen,
    // A block with a sure cell is better than any without one, and the faster the better.
    merit: asGood.length > 0 ? 1 + Math.exp(-elementAt(time, chosen)) : elementAt(expected, chosen),
    peak: { ...peak, value: 1 },
    best: { x: middleOf(bests.map((b) => b.x)), y: middleOf(bests.map((b) => b.y)) },
    short,
    asGood,
    edges: slower.x === 0 && slower.y === 0 ? [] : edgesOf(map, bests),
    second: null,
    odd: judged.flatMap(({ at, passed }) => (withoutIt(draws, at, passed) < ODD ? [at] : [])),
    expected,
    // Passing has no size that energy could explain.
    energy: null,
    noise: 0,
    map: shownMap(map, Array.from(mean.subarray(skip))),
  };
}

/**
 * Chance of an outcome by all other outcomes: the harmonic mean of its chance over the draws. [Gelfand, in Markov Chain Monte Carlo in Practice, 1996, ch. 9,
 * from memory]
 */
function withoutIt(draws: readonly Float64Array[], at: number, passed: boolean): number {
  const inverse = draws.reduce((sum, d) => sum + 1 / (passed ? elementAt(d, at) : 1 - elementAt(d, at)), 0);
  return draws.length / inverse;
}

/** Of equally fast ones the surest. */
function fastestIn(among: readonly number[], time: readonly number[], chances: ArrayLike<number>): number {
  const least = Math.min(...among.map((i) => elementAt(time, i)));
  const fast = among.filter((i) => elementAt(time, i) <= least + SAME_TIME);
  return elementAt(fast, indexOfLargest(fast.map((i) => chances[i] ?? 0)));
}

const MAP_SIDES: readonly MapSide[] = ["left", "right", "low", "high"];

/** Sides at which the fastest place lies in most draws. */
function edgesOf({ isAt }: ArrayMap, bests: readonly { x: number; y: number }[]): MapSide[] {
  return MAP_SIDES.filter((side) => share(bests, isAt[side]) > 0.5);
}
