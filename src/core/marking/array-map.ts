/** The map of an array: places over the spans of its cells, which of them may be the best, and its sides. */
import type { SurfacePoint } from "../fitting/kernel";
import type { ArrayAnswer, ArrayGiven, ScoredCell, Span } from "./array-given";

/** Places of the map along each axis. */
export const MAP_SIDE = 21;

type Place = { x: number; y: number };
export type MapSide = ArrayAnswer["edges"][number];

export type ArrayMap = {
  x: Span;
  y: Span;
  /** Row by row from low y. */
  grid: Place[];
  /** Cells first, then the grid, from -1 to 1 over the first burn. */
  points: SurfacePoint[];
  /** Which of the points may be the best. */
  open: boolean[];
  /** Whether a place lies within half a cell of a side. */
  isAt: Record<MapSide, (place: Place) => boolean>;
};

export function mapOf({ cells, step }: Pick<ArrayGiven, "cells" | "step">): ArrayMap {
  const x = spanOf(cells.map((c) => c.x));
  const y = spanOf(cells.map((c) => c.y));
  const grid = Array.from({ length: MAP_SIDE * MAP_SIDE }, (_, i) => ({
    x: between(x, (i % MAP_SIDE) / (MAP_SIDE - 1)),
    y: between(y, Math.floor(i / MAP_SIDE) / (MAP_SIDE - 1)),
  }));
  return {
    x,
    y,
    grid,
    points: [...cells, ...grid].map(scaleBy(cells.filter((c) => c.burn === 0))),
    open: openPlaces(cells, grid, step),
    isAt: {
      left: (p) => p.x < x.low + step.x / 2,
      right: (p) => p.x > x.high - step.x / 2,
      low: (p) => p.y < y.low + step.y / 2,
      high: (p) => p.y > y.high - step.y / 2,
    },
  };
}

/** Values of the map as they are shown: none beside cells that are no good. */
export function shownMap({ x, y, open, grid }: ArrayMap, values: readonly number[]): ArrayAnswer["map"] {
  const skip = open.length - grid.length;
  return { columns: MAP_SIDE, rows: MAP_SIDE, x, y, values: values.map((v, i) => (open[skip + i] ? v : null)) };
}

function spanOf(values: readonly number[]): Span {
  return { low: Math.min(...values), high: Math.max(...values) };
}

export function between({ low, high }: Span, at: number): number {
  return low + at * (high - low);
}

/** Cells and places of the map that may be the best: not those that lie nearest to a cell that is no good. */
function openPlaces(cells: readonly ScoredCell[], grid: readonly Place[], step: ArrayGiven["step"]): boolean[] {
  if (!cells.some((c) => c.noGood)) return [...cells, ...grid].map(() => true);
  const off = (a: Place, b: Place) => ((a.x - b.x) / step.x) ** 2 + ((a.y - b.y) / step.y) ** 2;
  const isOpen = (at: Place) => !cells.reduce((near, c) => (off(at, c) < off(at, near) ? c : near)).noGood;
  return [...cells.map((c) => !c.noGood), ...grid.map(isOpen)];
}

/** The axes of the first burn from -1 to 1. */
function scaleBy(first: readonly Place[]): (at: Place) => SurfacePoint {
  const [x, y] = [spanOf(first.map((c) => c.x)), spanOf(first.map((c) => c.y))];
  const to = ({ low, high }: Span, v: number) => (high > low ? (2 * (v - low)) / (high - low) - 1 : 0);
  return (at) => ({ u: to(x, at.x), v: to(y, at.y) });
}
