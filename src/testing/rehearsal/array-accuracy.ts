/**
 * Arrays burned on stocks that nobody has seen: one array, then the one that the first asks for.
 *
 * Stocks are drawn by chance, as many of each kind in `practice/stock-response`. The surface adds noise of 4 % of the best mark (SD), half of it a
 * texture that lies at places of the stock and keeps its sign over 1.6 cells, half of it from cell to cell. The second array is burned on another
 * batch: 4 % (SD) off in power and speed each, 5 % (SD) in darkness. The reader sees every score as it is.
 */

import type { Comparison } from "../../core/fitting/preference-surface";
import { type ArrayAnswer, answerOf, nextArray, type ScoredCell, type Span } from "../../core/marking/array-answer";
import type { EnergyVerdict } from "../../core/marking/energy-alone";
import { nextPair } from "../../core/marking/next-pair";
import { tappedPairs } from "../../core/marking/tapped-pairs";
import { type Random, seeded, seedOf } from "../../practice/random";
import { STOCK_KINDS, type StockKind, type StockResponse, stockResponse } from "../../practice/stock-response";

/** SD of the surface, as a share of the best mark. */
export const ROUGHNESS = 0.04;

/** As far as this machine goes, from the middle of the first array, in half spans of it. */
const REACH = 1.5;

export type ArrayTrial = {
  kind: StockKind;
  /** What the chosen cell lacks against the best burned one, and against the best within the array, as shares of the best. */
  lacks: { burned: number; array: number };
  /** Stated for it. */
  short: number;
  /** Cells called as good, and how many of them are. */
  asGood: { called: number; right: number };
  /** Whether the best of the stock lies at or beyond the edge (`null` = between), and what was said. */
  edge: { is: boolean | null; said: boolean };
  /** What the fitted point lacks against the best of the machine after both arrays. */
  second: number | null;
};

/**
 * One array of 10 by 10 cells that an eye with a repeatability of 4 % looks at, solved as taps are.
 *
 * @returns what the chosen cell lacks against the best burned one: as picked, and by the response to best and as good
 */
export function eyeTrial(seed: number, side: number): { picked: number; tapped: number; most: number } {
  const kind = STOCK_KINDS[seed % STOCK_KINDS.length] ?? "energy";
  const random = seeded(seedOf("array by eye", seed));
  const stock = stockResponse(kind, random, ROUGHNESS);
  const whole = { low: -1, high: 1 };
  const cells = burned(stock, { x: whole, y: whole }, side, 0, random, false);
  const quality = cells.map((c) => stock.quality({ power: c.x, speed: c.y }));
  const best = Math.max(...quality);
  const seen = cells.map((c) => (c.score ?? 0) + EYE_SD * random.normal());
  const most = Math.max(...seen);
  const step = { x: 2 / (side - 1), y: 2 / (side - 1) };
  const good = seen.flatMap((v, i) => (v >= most - EYE_ALIKE ? [i] : []));
  const answer = given(
    answerOf({
      cells: cells.map((c) => ({ ...c, score: null })),
      step,
      blank: 0,
      comparisons: tappedPairs(cells.length, seen.indexOf(most), good),
    }),
  );
  const lack = (i: number) => (best - (quality[i] ?? 0)) / best;
  return {
    picked: lack(seen.indexOf(most)),
    tapped: lack(answer.chosen),
    most: answer.short[answer.chosen]?.most ?? Number.NaN,
  };
}

/**
 * One array of cells that the same eye compares two by two, as the page shows them.
 *
 * @returns what the chosen cell lacks against the best burned one, and what it is said to lack at most
 */
export function pairsTrial(seed: number, side: number, pairs: number): { lacks: number; most: number } {
  const kind = STOCK_KINDS[seed % STOCK_KINDS.length] ?? "energy";
  const random = seeded(seedOf("array by pairs", seed));
  const stock = stockResponse(kind, random, ROUGHNESS);
  const whole = { low: -1, high: 1 };
  const cells = burned(stock, { x: whole, y: whole }, side, 0, random, false);
  const quality = cells.map((c) => stock.quality({ power: c.x, speed: c.y }));
  const comparisons: Comparison[] = [];
  for (let n = 0; n < pairs; n++) {
    const [a, b] = nextPair(
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
  const step = { x: 2 / (side - 1), y: 2 / (side - 1) };
  const answer = given(answerOf({ cells: cells.map((c) => ({ ...c, score: null })), step, blank: 0, comparisons }));
  const best = Math.max(...quality);
  return {
    lacks: (best - (quality[answer.chosen] ?? 0)) / best,
    most: answer.short[answer.chosen]?.most ?? Number.NaN,
  };
}

/** Repeatability of an eye, and below which two cells look alike to it, as shares of the best mark. */
const [EYE_SD, EYE_ALIKE] = [0.04, 0.03];

/** Whether energy alone decides: what is said of an ordered array, and by how much cells of equal energy truly differ, as a share of the best (rms). */
export function energyTrial(seed: number, side: number): { said: EnergyVerdict["explains"] | null; differ: number } {
  const kind = STOCK_KINDS[seed % STOCK_KINDS.length] ?? "energy";
  const random = seeded(seedOf("array and energy", seed));
  const stock = stockResponse(kind, random, ROUGHNESS);
  const whole = { low: -1, high: 1 };
  const cells = burned(stock, { x: whole, y: whole }, side, 0, random, false);
  const quality = cells.map((c) => stock.quality({ power: c.x, speed: c.y }));
  const best = Math.max(...quality);
  const at = (i: number) => ({ column: i % side, row: Math.floor(i / side) });
  const energy = (i: number) => at(i).column - at(i).row;
  const step = { x: 2 / (side - 1), y: 2 / (side - 1) };
  const withEnergy = cells.map((c, i) => ({ ...c, energy: (ENERGY_STEP / (side - 1)) * energy(i) }));
  const answer = given(answerOf({ cells: withEnergy, step, blank: 0 }));
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

export function arrayTrial(seed: number, side: number, withSecond: boolean, mixed = false): ArrayTrial {
  const kind = STOCK_KINDS[seed % STOCK_KINDS.length] ?? "energy";
  const random = seeded(seedOf("array", seed));
  const stock = stockResponse(kind, random, ROUGHNESS);
  const whole = { low: -1, high: 1 };
  const first = burned(stock, { x: whole, y: whole }, side, 0, random, mixed);
  const step = { x: 2 / (side - 1), y: 2 / (side - 1) };
  const answer = given(answerOf({ cells: first, step, blank: 0 }));
  const quality = (p: { x: number; y: number }) => stock.quality({ power: p.x, speed: p.y });
  const chosen = first[answer.chosen];
  const bestBurned = Math.max(...first.map(quality));
  const inArray = bestWithin(quality, 1);
  const machine = bestWithin(quality, REACH);
  const inner = bestWithin(quality, 1 - step.x / 2);
  return {
    kind,
    lacks: {
      burned: chosen ? (bestBurned - quality(chosen)) / bestBurned : 1,
      array: chosen ? (inArray - quality(chosen)) / inArray : 1,
    },
    short: answer.short[answer.chosen]?.most ?? Number.NaN,
    asGood: {
      called: answer.asGood.length,
      right: answer.asGood.filter((i) => (inArray - quality(first[i] ?? { x: 9, y: 9 })) / inArray <= 0.02).length,
    },
    edge: {
      is: (machine - inner) / machine > 0.05 ? true : (machine - inner) / machine < 0.01 ? false : null,
      said: answer.edges.length > 0,
    },
    second: withSecond ? secondLack(stock, first, answer, side, random, { quality, machine, mixed }) : null,
  };
}

function secondLack(
  stock: StockResponse,
  first: readonly ScoredCell[],
  answer: ArrayAnswer,
  side: number,
  random: Random,
  { quality, machine, mixed }: { quality: (p: { x: number; y: number }) => number; machine: number; mixed: boolean },
): number {
  const within = ({ low, high }: Span): Span => ({ low: Math.max(-REACH, low), high: Math.min(REACH, high) });
  const next = nextArray(answer);
  const spans = { x: within(next.x), y: within(next.y) };
  const cells = burned(stock.otherBatch(random), spans, side, 1, random, mixed);
  const step = { x: (spans.x.high - spans.x.low) / (side - 1), y: (spans.y.high - spans.y.low) / (side - 1) };
  const both = given(answerOf({ cells: [...first, ...cells], step, blank: 0 }));
  return (machine - quality(both.peak)) / machine;
}

function burned(
  stock: StockResponse,
  { x, y }: { x: Span; y: Span },
  side: number,
  burn: number,
  random: Random,
  mixed: boolean,
): ScoredCell[] {
  const at = ({ low, high }: Span, i: number) => low + (i / (side - 1)) * (high - low);
  const places = Array.from({ length: side * side }, (_, i) => ({ x: i % side, y: Math.floor(i / side) }));
  if (mixed) shuffle(places, random);
  return places.map((place, i) => {
    const [px, py] = [at(x, i % side), at(y, Math.floor(i / side))];
    const score = stock.quality({ power: px, speed: py }) + stock.surface(place, random);
    return { x: px, y: py, place, burn, score };
  });
}

function shuffle<T>(all: T[], random: Random): void {
  for (let i = all.length - 1; i > 0; i--) {
    const j = Math.floor(random.even() * (i + 1));
    const [a, b] = [all[i], all[j]];
    if (a !== undefined && b !== undefined) [all[i], all[j]] = [b, a];
  }
}

function bestWithin(quality: (p: { x: number; y: number }) => number, reach: number): number {
  const side = 81;
  let best = 0;
  for (let i = 0; i < side * side; i++) {
    const at = (k: number) => reach * ((2 * k) / (side - 1) - 1);
    best = Math.max(best, quality({ x: at(i % side), y: at(Math.floor(i / side)) }));
  }
  return best;
}

function given(answer: ReturnType<typeof answerOf>): ArrayAnswer {
  if (typeof answer === "string") throw new Error(`No answer: ${answer}`);
  return answer;
}
