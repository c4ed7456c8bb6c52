/** Arrays judged by an eye, by taps and by comparisons, and the energy verdict on arrays. Simulated errors: `first-array.ts`, and an eye of 4 % (SD). */
import { elementAt } from "../../core/fitting/element-at";
import { normalCdf } from "../../core/fitting/normal";
import type { Comparison } from "../../core/fitting/preference-surface";
import { answerOf, nextArray } from "../../core/marking/array-answer";
import type { ArrayAnswer, ScoredCell } from "../../core/marking/array-given";
import type { EnergyVerdict } from "../../core/marking/energy-alone";
import { nextComparison } from "../../core/marking/next-comparison";
import { tappedComparisons } from "../../core/marking/tapped-comparisons";
import { answered, burnedCells, firstArray, ROUGHNESS } from "./first-array";

/**
 * One array, judged by an eye with a repeatability of 4 %.
 *
 * @returns loss against the best burned cell: of the picked cell, and of the cell chosen by the tapped range
 */
export function eyeTrial(seed: number, side: number): { picked: number; tapped: number; most: number } {
  const array = firstArray("array by eye", seed, side);
  const { cells, random, step } = array;
  const quality = cells.map(array.quality);
  const best = Math.max(...quality);
  const seen = cells.map((c) => (c.score ?? 0) + EYE_SD * random.normal());
  const most = Math.max(...seen);
  const good = seen.flatMap((v, i) => (v >= most - EYE_ALIKE ? [i] : []));
  const answer = answered({
    cells: cells.map((c) => ({ ...c, score: null })),
    step,
    blank: 0,
    comparisons: tappedComparisons(cells.length, seen.indexOf(most), good),
  });
  const lack = (i: number) => (best - (quality[i] ?? 0)) / best;
  return {
    picked: lack(seen.indexOf(most)),
    tapped: lack(answer.chosen),
    most: answer.short[answer.chosen]?.most ?? Number.NaN,
  };
}

/**
 * One array, compared by the same eye in the order of the page.
 *
 * @returns loss of the chosen cell against the best burned one, and its stated bound
 */
export function comparisonTrial(seed: number, side: number, count: number): { lacks: number; most: number } {
  const array = firstArray("array by comparisons", seed, side);
  const { cells, random, step } = array;
  const quality = cells.map(array.quality);
  const comparisons: Comparison[] = [];
  for (let n = 0; n < count; n++) {
    const [a, b] = nextComparison(
      cells.map(({ x, y }) => ({ u: x, v: y })),
      comparisons,
    );
    const look = (i: number) => (cells[i]?.score ?? 0) + EYE_SD * random.normal();
    const [first, second] = [look(a), look(b)];
    comparisons.push({
      better: first >= second ? a : b,
      worse: first >= second ? b : a,
      alike: Math.abs(first - second) < EYE_SD / 2,
    });
  }
  const answer = answered({ cells: cells.map((c) => ({ ...c, score: null })), step, blank: 0, comparisons });
  const best = Math.max(...quality);
  return {
    lacks: (best - (quality[answer.chosen] ?? 0)) / best,
    most: answer.short[answer.chosen]?.most ?? Number.NaN,
  };
}

/** Repeatability of the eye, and the largest difference that looks alike, as shares of the best mark. */
const [EYE_SD, EYE_ALIKE] = [0.04, 0.03];

/** A cell passes from this quality on, as a practice technician calls it. */
const PASSES_FROM = 0.6;

export type PassTrial = {
  /** Whether a cell was called sure. */
  isSure: boolean;
  /** True chance of the chosen cell to fail when it is marked and called again, and its stated bound. */
  fails: number;
  most: number;
  /** Time of the chosen cell, by that of the fastest cell of the first array that truly passes in 95 of 100; `null` = there is none. */
  slower: number | null;
};

/**
 * One array whose cells pass or fail, by their quality with the surface and an eye of 4 % (SD), and a second one if no cell is sure.
 *
 * @returns the result of each; empty if no cell passed
 */
export function passTrial(seed: number, side: number): PassTrial[] {
  const { cells: first, stock, random, step, quality } = firstArray("array, yes or no", seed, side);
  const called = (cells: readonly ScoredCell[]) =>
    cells.map((c) => ({ ...c, score: (c.score ?? 0) + EYE_SD * random.normal() >= PASSES_FROM ? 1 : 0 }));
  // Along x is ln(speed) in half spans.
  const passes = { slower: { x: -ENERGY_STEP / 2, y: 0 } };
  const time = ({ x }: ScoredCell) => Math.exp(passes.slower.x * x);
  const sd = Math.hypot(ROUGHNESS, EYE_SD);
  const fails = (cell: ScoredCell) => normalCdf((PASSES_FROM - quality(cell)) / sd);
  const fastest = Math.min(...first.filter((c) => fails(c) <= 0.05).map(time));
  const outcome = (cells: readonly ScoredCell[], answer: ArrayAnswer): PassTrial => {
    const chosen = elementAt(cells, answer.chosen);
    return {
      isSure: answer.asGood.includes(answer.chosen),
      fails: fails(chosen),
      most: elementAt(answer.short, answer.chosen).most,
      slower: Number.isFinite(fastest) ? time(chosen) / fastest : null,
    };
  };
  const one = called(first);
  const answer = answerOf({ cells: one, step, blank: 0, passes });
  if (typeof answer === "string") return [];
  const once = outcome(one, answer);
  if (once.isSure) return [once];
  const spans = nextArray(answer);
  const two = [...one, ...called(burnedCells(stock, spans, side, 1, random, false))];
  const finer = { x: (spans.x.high - spans.x.low) / (side - 1), y: (spans.y.high - spans.y.low) / (side - 1) };
  const both = answerOf({ cells: two, step: finer, blank: 0, passes });
  return typeof both === "string" ? [once] : [once, outcome(two, both)];
}

/** The energy verdict on an ordered array, and the true rms difference of cells with equal energy, as a share of the best. */
export function energyTrial(seed: number, side: number): { said: EnergyVerdict["explains"] | null; differ: number } {
  const array = firstArray("array and energy", seed, side);
  const { cells, step } = array;
  const quality = cells.map(array.quality);
  const best = Math.max(...quality);
  const at = (i: number) => ({ column: i % side, row: Math.floor(i / side) });
  const energy = (i: number) => at(i).column - at(i).row;
  const withEnergy = cells.map((c, i) => ({ ...c, energy: (ENERGY_STEP / (side - 1)) * energy(i) }));
  const answer = answered({ cells: withEnergy, step, blank: 0 });
  const squares = quality.flatMap((q, i) => {
    const same = quality.filter((_, k) => energy(k) === energy(i));
    return same.length > 1 ? [(q - same.reduce((s, v) => s + v, 0) / same.length) ** 2] : [];
  });
  return {
    said: answer.energy?.explains ?? null,
    differ: Math.sqrt(squares.reduce((s, v) => s + v, 0) / squares.length) / best,
  };
}

/** ln of the range of one setting. */
const ENERGY_STEP = Math.log(6);
