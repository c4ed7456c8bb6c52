/**
 * Arrays burned on stocks that nobody has seen: one array, then the one that the first asks for.
 *
 * Stocks are drawn by chance, as many of each kind in `practice/stock-response`. The surface adds noise of 4 % of the best mark (SD), half of it a
 * texture that lies at places of the stock and keeps its sign over 1.6 cells, half of it from cell to cell. The second array is burned on another
 * batch: 4 % (SD) off in power and speed each, 5 % (SD) in darkness. The reader sees every score as it is.
 */

import { nextArray } from "../../core/marking/array-answer";
import type { ArrayAnswer, ScoredCell, Span } from "../../core/marking/array-given";
import type { Random } from "../../practice/random";
import type { StockKind, StockResponse } from "../../practice/stock-response";
import { answered, burnedCells, firstArray } from "./first-array";

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

export function arrayTrial(seed: number, side: number, withSecond: boolean, mixed = false): ArrayTrial {
  const { kind, stock, random, cells: first, step, quality } = firstArray("array", seed, side, mixed);
  const answer = answered({ cells: first, step, blank: 0 });
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
  const cells = burnedCells(stock.otherBatch(random), spans, side, 1, random, mixed);
  const step = { x: (spans.x.high - spans.x.low) / (side - 1), y: (spans.y.high - spans.y.low) / (side - 1) };
  const both = answered({ cells: [...first, ...cells], step, blank: 0 });
  return (machine - quality(both.peak)) / machine;
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
