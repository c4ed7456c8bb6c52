/**
 * Which dot of a grid is which: every dot gets its column and row, counted from the centre.
 *
 *   1. Growth: from a dot whose neighbours lie at right angles, step by step along both directions. Each dot hands on the directions as they
 *      are there, so that a bent grid is followed; a missing dot is stepped over.
 *   2. Check: a bicubic polynomial through all places, without those that lie far off, assigns every dot once more, three times.
 *   3. Which way it lies: an L of larger dots, its corner at the centre, five steps along X and three along Y.
 *
 * Where the L fits more than one way, or dots contradict each other, nothing is said. A wrong index would be a wrong field.
 */
import { median } from "../../fitting/median";
import type { Dot } from "./find-dots";
import { keyOf, type Node, type Nodes } from "./grid-node";
import { NearDots, type Vector } from "./near-dots";
import { type Surface, surfaceThrough } from "./surface";
import { turnByTheL, type UnclearL } from "./turn-by-the-l";

export type IndexedDot = Node & {
  dot: Dot;
  /** From where its neighbours say it should be, pixels. */
  residualPx: number;
};

export type GridIndexed =
  | {
      status: "indexed";
      dots: IndexedDot[];
      missing: Node[];
      /** Dots that belong to no node. */
      strays: Dot[];
      pitchPx: number;
    }
  | { status: "refused"; reason: Refused; found: number };

/** Why no dot gets a number. */
export type Refused = "few dots" | "no grid" | "contradictions" | UnclearL | "larger than told" | "part of the grid";

const FEWEST = 9;
/** A dot is where its neighbour says to within this share of a step; farther across a gap. */
const NEAR = { step: 0.28, gap: 0.35, surface: 0.22, pitch: 0.2 };
/** Largest distance of a dot from the surface: this share of a step, or this many times the usual distance. */
const SURE = { pitch: 0.03, times: 6 };
/** Specks that were followed may contradict for this share of all dots, as long as the surface then leaves nearly every index as it was. */
const CONTRADICTIONS = { grown: 0.25, settled: 0.05 };
/** So many dots, as a share, may lie outside the grid that was told. */
const OUTSIDE = 0.02;
const ROUNDS = 3;
/** So many of the nodes must be found, and so many on each side of the grid. */
const FOUND = { all: 0.6, side: 0.3, part: 0.2 };
const SEEDS = 16;

/** @param across odd number of dots along each side of the grid @param isPart a part of it with the L may be all there is */
export function indexGrid(dots: readonly Dot[], across: number, isPart = false): GridIndexed {
  const refused = (reason: Refused): GridIndexed => ({ status: "refused", reason, found: dots.length });
  if (dots.length < FEWEST) return refused("few dots");
  const near = new NearDots(dots);
  const grown = grownFrom(dots, near);
  if (!grown) return refused("no grid");
  if (grown.contradictions > CONTRADICTIONS.grown * dots.length) return refused("contradictions");
  const settled = settledOn(dots, near, grown.nodes, near.pitchPx);
  if (!settled) return refused("no grid");
  const changed = [...settled.nodes].filter(([index, node]) => {
    const before = grown.nodes.get(index);
    return before !== undefined && keyOf(before) !== keyOf(node);
  });
  if (changed.length > CONTRADICTIONS.settled * settled.nodes.size) return refused("contradictions");
  const lies = turnByTheL(dots, settled.nodes);
  if (typeof lies === "string") return refused(lies);
  const half = (across - 1) / 2;
  const all = [...settled.nodes].map(([index, raw]): IndexedDot => {
    const node = lies(raw);
    return { ...node, dot: dots[index] as Dot, residualPx: settled.residual(index, raw) };
  });
  const inside = all.filter((d) => Math.abs(d.column) <= half && Math.abs(d.row) <= half);
  if (all.length - inside.length > OUTSIDE * all.length) return refused("larger than told");
  const seen = new Set(inside.map(keyOf));
  const missing = everyNode(half).filter((node) => !seen.has(keyOf(node)));
  const sides = [
    inside.filter((d) => d.column === -half),
    inside.filter((d) => d.column === half),
    inside.filter((d) => d.row === -half),
    inside.filter((d) => d.row === half),
  ];
  const isWhole =
    inside.length >= FOUND.all * across * across && sides.every((side) => side.length >= FOUND.side * across);
  if (!isWhole && !(isPart && inside.length >= FOUND.part * across * across)) return refused("part of the grid");
  const used = new Set(inside.map((d) => d.dot));
  return {
    status: "indexed",
    dots: inside.sort((a, b) => a.row - b.row || a.column - b.column),
    missing,
    strays: dots.filter((d) => !used.has(d)),
    pitchPx: near.pitchPx,
  };
}

function everyNode(half: number): Node[] {
  const side = Array.from({ length: 2 * half + 1 }, (_, i) => i - half);
  return side.flatMap((row) => side.map((column) => ({ column, row })));
}

type Grown = { nodes: Nodes; contradictions: number };

function grownFrom(dots: readonly Dot[], near: NearDots): Grown | null {
  const middle = { x: median(dots.map((d) => d.x)), y: median(dots.map((d) => d.y)) };
  const seeds = dots
    .map((d, index) => ({ index, far: Math.hypot(d.x - middle.x, d.y - middle.y) }))
    .sort((a, b) => a.far - b.far)
    .slice(0, SEEDS);
  let best: Grown | null = null;
  for (const { index } of seeds) {
    const basis = basisAt(dots, near, index);
    if (!basis) continue;
    const grown = growth(dots, near, index, basis);
    if (!best || grown.nodes.size > best.nodes.size) best = grown;
    if (best.nodes.size > 0.9 * dots.length) break;
  }
  return best && best.nodes.size >= FEWEST ? best : null;
}

type Basis = { u: Vector; v: Vector };

/** Directions to two neighbours at right angles, each with its opposite. */
function basisAt(dots: readonly Dot[], near: NearDots, index: number): Basis | null {
  const here = dots[index] as Dot;
  const around = near.within(here, 1.4 * near.pitchPx, index).slice(0, 8);
  const arrows = around.map(({ index: to }) => {
    const d = dots[to] as Dot;
    return { x: d.x - here.x, y: d.y - here.y };
  });
  const hasOpposite = (a: Vector) =>
    arrows.some((b) => Math.hypot(a.x + b.x, a.y + b.y) < NEAR.step * Math.hypot(a.x, a.y));
  // A speck in the middle of four dots has neighbours at right angles too, but nearer.
  const isStep = (a: Vector) => Math.abs(Math.hypot(a.x, a.y) / near.pitchPx - 1) < NEAR.pitch;
  const straight = arrows.filter((a) => isStep(a) && hasOpposite(a));
  const u = straight[0];
  if (!u) return null;
  const v = straight.find((a) => {
    const [long, other] = [Math.hypot(u.x, u.y), Math.hypot(a.x, a.y)];
    return Math.abs(u.x * a.x + u.y * a.y) < 0.25 * long * other && Math.abs(other / long - 1) < 0.25;
  });
  return v ? { u, v } : null;
}

function growth(dots: readonly Dot[], near: NearDots, seed: number, basis: Basis): Grown {
  const nodes: Nodes = new Map([[seed, { column: 0, row: 0 }]]);
  const taken = new Map([["0 0", seed]]);
  const queue: { index: number; basis: Basis }[] = [{ index: seed, basis }];
  let contradictions = 0;
  for (let q = 0; q < queue.length; q++) {
    const { index, basis: here } = queue[q] as (typeof queue)[number];
    const from = dots[index] as Dot;
    const node = nodes.get(index) as Node;
    for (const [du, dv] of STEPS) {
      const step = { x: du * here.u.x + dv * here.v.x, y: du * here.u.y + dv * here.v.y };
      const size = Math.hypot(step.x, step.y);
      const isGap = Math.abs(du) + Math.abs(dv) > 1;
      const tolerance = (isGap ? NEAR.gap : NEAR.step) * near.pitchPx;
      const [found] = near.within({ x: from.x + step.x, y: from.y + step.y }, Math.min(tolerance, 0.45 * size));
      if (!found) continue;
      const to = { column: node.column + du, row: node.row + dv };
      const before = nodes.get(found.index);
      const other = taken.get(keyOf(to));
      if (before !== undefined || other !== undefined) {
        // Across a gap a dot may be met that another way already named: then both must agree.
        if (before && keyOf(before) !== keyOf(to)) contradictions++;
        continue;
      }
      nodes.set(found.index, to);
      taken.set(keyOf(to), found.index);
      const dot = dots[found.index] as Dot;
      queue.push({ index: found.index, basis: turned(here, { x: dot.x - from.x, y: dot.y - from.y }, du, dv) });
    }
  }
  return { nodes, contradictions };
}

/** Steps to the next dots first; two at a time only where the next one is missing. */
const STEPS: readonly (readonly [number, number])[] = [
  [1, 0],
  [-1, 0],
  [0, 1],
  [0, -1],
  [1, 1],
  [1, -1],
  [-1, 1],
  [-1, -1],
  [2, 0],
  [-2, 0],
  [0, 2],
  [0, -2],
];

/** The directions as they are where a step ended: half of what they were, half of the step itself. */
function turned({ u, v }: Basis, step: Vector, du: number, dv: number): Basis {
  const mixed = (old: Vector, per: number): Vector => ({
    x: 0.5 * old.x + (0.5 * step.x) / per,
    y: 0.5 * old.y + (0.5 * step.y) / per,
  });
  if (dv === 0) return { u: mixed(u, du), v };
  return du === 0 ? { u, v: mixed(v, dv) } : { u, v };
}

type Settled = { nodes: Nodes; residual: (index: number, node: Node) => number };

/** All dots once more by a smooth surface through their places. */
function settledOn(dots: readonly Dot[], near: NearDots, first: Nodes, pitchPx: number): Settled | null {
  let nodes = first;
  let surface: Surface | null = null;
  for (let round = 0; round < ROUNDS; round++) {
    surface = surfaceThrough(
      [...nodes].map(([index, node]) => ({ ...node, x: dots[index]?.x ?? 0, y: dots[index]?.y ?? 0 })),
    );
    if (!surface) return null;
    nodes = byNearest(near, boxOf(nodes), surface, pitchPx);
    if (nodes.size < FEWEST) return null;
  }
  const settled = surface;
  if (!settled) return null;
  const residual = (index: number, node: Node) => {
    const at = settled(node);
    return Math.hypot((dots[index]?.x ?? 0) - at.x, (dots[index]?.y ?? 0) - at.y);
  };
  // Where a dot is missing, a speck near its place is none.
  const usual = median([...nodes].map(([index, node]) => residual(index, node)));
  const most = Math.max(SURE.pitch * pitchPx, SURE.times * usual);
  return { nodes: new Map([...nodes].filter(([index, node]) => residual(index, node) <= most)), residual };
}

type Box = { left: number; right: number; low: number; high: number };

function boxOf(nodes: Nodes): Box {
  const [columns, rows] = [[...nodes.values()].map((n) => n.column), [...nodes.values()].map((n) => n.row)];
  return { left: Math.min(...columns), right: Math.max(...columns), low: Math.min(...rows), high: Math.max(...rows) };
}

/** Each node takes the dot that is nearest to its place, one step beyond the box too; a dot serves one node. */
function byNearest(near: NearDots, { left, right, low, high }: Box, surface: Surface, pitchPx: number): Nodes {
  const best = new Map<number, { node: Node; far: number }>();
  for (let row = low - 1; row <= high + 1; row++)
    for (let column = left - 1; column <= right + 1; column++) {
      const [found] = near.within(surface({ column, row }), NEAR.surface * pitchPx);
      const before = found && best.get(found.index);
      if (found && (!before || found.far < before.far))
        best.set(found.index, { node: { column, row }, far: found.far });
    }
  return new Map([...best].map(([index, { node }]) => [index, node]));
}
