/**
 * What an array of cells says of two settings: the best cell, how much it may fall short of the best there is, which cells are as good, and where
 * to look next.
 *
 * All of it is counted over responses drawn from what scores leave possible (`core/fitting/response-surface`), or comparisons of two
 * (`core/fitting/preference-surface`): with m the largest value of
 * a response, b the blank stock, a cell of value f falls short by (m - f) / (m - b).
 *
 *   short        mean and 95 % quantile of what a cell falls short by
 *   as good      short by at most 2 % in 95 of 100 responses
 *   at the edge  the best within half a cell of the edge beats the best further in by more than 2 % in most responses
 *
 * Cells that pass or fail: `pass-answer.ts`.
 */
import { elementAt } from "../fitting/element-at";
import { seededDraws } from "../fitting/seeded-draws";
import { fitOf, isOfOneColour } from "./array-fit";
import type { ArrayAnswer, ArrayGiven, NoAnswer, Span } from "./array-given";
import { type ArrayMap, between, MAP_SIDE, mapOf, shownMap } from "./array-map";
import { DRAWS, indexOfLargest, meanAndMost, middleOf, SURE, share } from "./over-draws";
import { passAnswer } from "./pass-answer";

export const AS_GOOD = 0.02;
const EDGE_GAIN = 0.02;
/** Another peak counts if the way between has a dip of this share, and it may be the higher one with this probability. */
const OTHER_PEAK = { dip: 0.03, chance: 0.1 };

/** @param progress share of the work that is done */
export function answerOf(given: ArrayGiven, progress: (share: number) => void = () => {}): ArrayAnswer | NoAnswer {
  const { cells } = given;
  const why = whyNone(given);
  if (why) return why;
  if (given.passes) return passAnswer({ ...given, ...given.passes }, progress);
  const map = mapOf(given);
  const { grid, open } = map;
  const fit = fitOf(given, map.points, progress);
  const { blank } = fit;
  const responses = fit.draw(DRAWS, seededDraws(cells.length));
  const draws = responses.map((d) => d.map((v, i) => (open[i] ? v : Number.NEGATIVE_INFINITY)));
  const expected = Array.from(fit.mean.subarray(0, cells.length));
  const values = Array.from(fit.mean.subarray(cells.length));
  const openValues = values.map((v, i) => (open[cells.length + i] ? v : Number.NEGATIVE_INFINITY));
  const chosen = fit.judged.reduce(
    (best, index) =>
      open[index] && !fit.odd.includes(index) && (best < 0 || elementAt(expected, index) > elementAt(expected, best))
        ? index
        : best,
    -1,
  );
  if (chosen < 0) return "none good";
  const maxima = draws.map((d) =>
    fit.bestAmong === "judged" ? Math.max(...fit.judged.map((i) => elementAt(d, i))) : elementAt(d, indexOfLargest(d)),
  );
  const lacks = cells.map((_, i) =>
    draws.map((d, k) => {
      const most = elementAt(maxima, k);
      return most > blank ? (most - elementAt(d, i)) / (most - blank) : 1;
    }),
  );
  const top = indexOfLargest(openValues);
  const bests = draws.map((d) => elementAt(grid, indexOfLargest(d.subarray(cells.length))));
  return {
    chosen,
    merit: elementAt(expected, chosen),
    peak: { ...topBetween(openValues, top, map), value: elementAt(values, top) },
    best: { x: middleOf(bests.map((b) => b.x)), y: middleOf(bests.map((b) => b.y)) },
    short: lacks.map(meanAndMost),
    asGood: fit.judged.filter((i) => share(elementAt(lacks, i), (lack) => lack <= AS_GOOD) >= SURE),
    edges: edgesOf(draws, cells.length, map, blank, bests),
    second: fit.hasGroups ? secondPeak(openValues, draws, cells.length, grid, blank) : null,
    odd: fit.odd,
    expected,
    energy: fit.energy(responses),
    noise: fit.noise,
    map: shownMap(map, values),
  };
}

/** With fewer cells no response can be told from chance. */
export const LEAST_CELLS = 9;
/** Fewer comparisons cannot be told from chance. */
export const LEAST_COMPARISONS = 5;

function whyNone({ cells, blank, comparisons, colours, passes }: ArrayGiven): NoAnswer | null {
  if (comparisons) return comparisons.length < LEAST_COMPARISONS ? "few" : null;
  const scores = cells.flatMap((c) => c.score ?? []);
  if (scores.length < LEAST_CELLS) return "few";
  if (passes) return null;
  if (colours) return isOfOneColour(cells, colours.of) ? "all equal" : null;
  if (scores.every((v) => v === scores[0])) return "all equal";
  return scores.every((v) => v <= blank) ? "below blank" : null;
}

/** Where the largest value lies between the places of the map: the top of a parabola through three of them along each axis. */
function topBetween(values: readonly number[], top: number, spans: { x: Span; y: Span }): { x: number; y: number } {
  const [column, row] = [top % MAP_SIDE, Math.floor(top / MAP_SIDE)];
  const shift = (before: number | undefined, after: number | undefined) => {
    const at = elementAt(values, top);
    if (before === undefined || after === undefined) return 0;
    const bend = before - 2 * at + after;
    return Number.isFinite(bend) && bend < 0 ? (before - after) / (2 * bend) : 0;
  };
  const inside = (k: number) => k > 0 && k < MAP_SIDE - 1;
  const dx = inside(column) ? shift(values[top - 1], values[top + 1]) : 0;
  const dy = inside(row) ? shift(values[top - MAP_SIDE], values[top + MAP_SIDE]) : 0;
  return { x: between(spans.x, (column + dx) / (MAP_SIDE - 1)), y: between(spans.y, (row + dy) / (MAP_SIDE - 1)) };
}

function edgesOf(
  draws: readonly Float64Array[],
  skip: number,
  { grid, isAt }: ArrayMap,
  blank: number,
  bests: readonly { x: number; y: number }[],
): ArrayAnswer["edges"] {
  const outer = grid.map((p) => isAt.left(p) || isAt.right(p) || isAt.low(p) || isAt.high(p));
  const gains = draws.map((d) => {
    let [out, inside] = [Number.NEGATIVE_INFINITY, Number.NEGATIVE_INFINITY];
    for (let i = 0; i < grid.length; i++) {
      const value = elementAt(d, skip + i);
      if (outer[i]) out = Math.max(out, value);
      else inside = Math.max(inside, value);
    }
    return (out - inside) / (Math.max(out, inside) - blank);
  });
  if (share(gains, (g) => g > EDGE_GAIN) <= 0.5) return [];
  const most = (is: (p: { x: number; y: number }) => boolean) => share(bests, is) > 0.4;
  return [
    ...(most(isAt.left) ? ["left" as const] : []),
    ...(most(isAt.right) ? ["right" as const] : []),
    ...(most(isAt.low) ? ["low" as const] : []),
    ...(most(isAt.high) ? ["high" as const] : []),
  ];
}

/** The highest peak of the map that a dip parts from the highest, if it may be higher. */
function secondPeak(
  values: readonly number[],
  draws: readonly Float64Array[],
  skip: number,
  grid: readonly { x: number; y: number }[],
  blank: number,
): ArrayAnswer["second"] {
  const top = indexOfLargest(values);
  const height = elementAt(values, top) - blank;
  // From the highest value down: a place joins the peaks of its neighbours. The lower of two peaks that meet ends at this saddle.
  const peakOf = new Map<number, number>();
  const saddles = new Map<number, number>();
  const rootOf = (i: number): number => {
    const up = peakOf.get(i) ?? i;
    return up === i ? i : rootOf(up);
  };
  const order = values.map((_, i) => i).sort((a, b) => elementAt(values, b) - elementAt(values, a));
  for (const i of order) {
    const roots = [...new Set(neighbours(i).flatMap((n) => (peakOf.has(n) ? [rootOf(n)] : [])))];
    const highest = roots.reduce((a, b) => (elementAt(values, a) >= elementAt(values, b) ? a : b), roots[0] ?? i);
    peakOf.set(i, highest);
    for (const root of roots) {
      if (root === highest) continue;
      saddles.set(root, elementAt(values, i));
      peakOf.set(root, highest);
    }
  }
  const others = [...saddles]
    .filter(([peak, saddle]) => elementAt(values, peak) - saddle > OTHER_PEAK.dip * height)
    .map(([peak]) => peak)
    .sort((a, b) => elementAt(values, b) - elementAt(values, a));
  const [other] = others;
  if (other === undefined) return null;
  const chance = share(draws, (d) => elementAt(d, skip + other) > elementAt(d, skip + top));
  return Number.isFinite(elementAt(values, other)) && chance >= OTHER_PEAK.chance ? elementAt(grid, other) : null;
}

function neighbours(i: number): number[] {
  const [column, row] = [i % MAP_SIDE, Math.floor(i / MAP_SIDE)];
  return [-1, 0, 1].flatMap((dy) =>
    [-1, 0, 1].flatMap((dx) => {
      const [c, r] = [column + dx, row + dy];
      return (dx === 0 && dy === 0) || c < 0 || r < 0 || c >= MAP_SIDE || r >= MAP_SIDE ? [] : [r * MAP_SIDE + c];
    }),
  );
}

export type NextArray = { x: Span; y: Span };

/**
 * Where the next array lies: half as wide around the best; at an edge three quarters as wide, its middle moved on; as wide as it takes to cover
 * two edges, or two peaks that cannot be told apart.
 */
export function nextArray({ peak, edges, second, map }: ArrayAnswer): NextArray {
  const isAt = (edge: ArrayAnswer["edges"][number]) => edges.includes(edge);
  return {
    x: nextSpan(map.x, peak.x, second?.x ?? null, { low: isAt("left"), high: isAt("right") }),
    y: nextSpan(map.y, peak.y, second?.y ?? null, { low: isAt("low"), high: isAt("high") }),
  };
}

function nextSpan(span: Span, at: number, other: number | null, isAt: { low: boolean; high: boolean }): Span {
  const half = (span.high - span.low) / 2;
  const around = (middle: number, reach: number): Span => ({ low: middle - reach, high: middle + reach });
  const wanted = [
    ...(isAt.low ? [around(Math.min(at, span.low + half / 4) - half / 2, 0.75 * half)] : []),
    ...(isAt.high ? [around(Math.max(at, span.high - half / 4) + half / 2, 0.75 * half)] : []),
    ...(other === null ? [] : [around(at, half / 4), around(other, half / 4)]),
  ];
  if (wanted.length === 0) return around(at, half / 2);
  return { low: Math.min(...wanted.map((w) => w.low)), high: Math.max(...wanted.map((w) => w.high)) };
}
