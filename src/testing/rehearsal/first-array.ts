/**
 * The first array on a random stock of one of the kinds in `practice/stock-response`.
 *
 * The surface adds noise of 4 % of the best mark (SD). Half of this is a texture that reaches over 1.6 cells, half differs from cell to cell.
 */
import { answerOf } from "../../core/marking/array-answer";
import type { ArrayAnswer, ArrayGiven, ScoredCell, Span } from "../../core/marking/array-given";
import { type Random, seeded, seedOf } from "../../practice/random";
import { STOCK_KINDS, type StockResponse, stockResponse } from "../../practice/stock-response";

/** SD of the surface, as a share of the best mark. */
export const ROUGHNESS = 0.04;

/** Settings of a cell, in half spans of the first array. */
type At = { x: number; y: number };

/** @param name of the set of random stocks */
export function firstArray(name: string, seed: number, side: number, mixed = false) {
  const kind = STOCK_KINDS[seed % STOCK_KINDS.length] ?? "energy";
  const random = seeded(seedOf(name, seed));
  const stock = stockResponse(kind, random, ROUGHNESS);
  const whole = { low: -1, high: 1 };
  return {
    kind,
    stock,
    random,
    cells: burnedCells(stock, { x: whole, y: whole }, side, 0, random, mixed),
    step: { x: 2 / (side - 1), y: 2 / (side - 1) },
    /** True quality at a place. */
    quality: ({ x, y }: At) => stock.quality({ power: x, speed: y }),
  };
}

export function burnedCells(
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

/** @throws Error without an answer */
export function answered(given: ArrayGiven): ArrayAnswer {
  const answer = answerOf(given);
  if (typeof answer === "string") throw new Error(`No answer: ${answer}`);
  return answer;
}
