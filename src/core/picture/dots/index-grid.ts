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
import { type Surface, surfaceThrough } from "./surface";

/** Columns to the right and rows away from the operator, from the centre of the grid. */
export type Node = { column: number; row: number };
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

/** Why no index is told. */
export type Refused =
  | "few dots"
  | "no grid"
  | "contradictions"
  | "no L"
  | "L fits several ways"
  | "mirrored"
  | "larger than told"
  | "part of the grid";

/** Steps of the L of larger dots along X and along Y. A mirrored L shares all but three of its dots, one with swapped arms all but two. */
const ARMS = { x: 5, y: 3 };

export const LARGE_NODES: readonly Node[] = [
  ...Array.from({ length: ARMS.x + 1 }, (_, column) => ({ column, row: 0 })),
  ...Array.from({ length: ARMS.y }, (_, i) => ({ column: 0, row: i + 1 })),
];

/** A dot this much larger than most belongs to the L. */
const LARGER = 1.3;
/** Of the nodes of the L so many must be seen, and so many more than with any other placement. */
const SEEN_OF_L = { least: 5, clear: 1 };
const FEWEST = 9;
/** A dot is where its neighbour says to within this share of a step; farther across a gap. */
const NEAR = { step: 0.28, gap: 0.35, surface: 0.22, pitch: 0.2 };
/** Specks that were followed may contradict for this share of all dots, as long as the surface then leaves nearly every index as it was. */
const CONTRADICTIONS = { grown: 0.25, settled: 0.05 };
/** So many dots, as a share, may lie outside the grid that was told. */
const OUTSIDE = 0.02;
const ROUNDS = 3;
/** So many of the nodes must be found, and so many on each side of the grid. */
const FOUND = { all: 0.6, side: 0.3 };
const SEEDS = 16;

/** @param across odd number of dots along each side of the grid */
export function indexGrid(dots: readonly Dot[], across: number): GridIndexed {
  const refused = (reason: Refused): GridIndexed => ({ status: "refused", reason, found: dots.length });
  if (dots.length < FEWEST) return refused("few dots");
  const near = new Near(dots);
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
  const lies = wayItLies(dots, settled.nodes);
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
  if (inside.length < FOUND.all * across * across || sides.some((side) => side.length < FOUND.side * across))
    return refused("part of the grid");
  const used = new Set(inside.map((d) => d.dot));
  return {
    status: "indexed",
    dots: inside.sort((a, b) => a.row - b.row || a.column - b.column),
    missing,
    strays: dots.filter((d) => !used.has(d)),
    pitchPx: near.pitchPx,
  };
}

const keyOf = ({ column, row }: Node) => `${column} ${row}`;

function everyNode(half: number): Node[] {
  const side = Array.from({ length: 2 * half + 1 }, (_, i) => i - half);
  return side.flatMap((row) => side.map((column) => ({ column, row })));
}

type Vector = { x: number; y: number };

/** Dots by the cell they lie in, for what is near a place. */
class Near {
  readonly pitchPx: number;
  private readonly cells: number[][];
  private readonly cellPx: number;
  private readonly left: number;
  private readonly top: number;
  private readonly columns: number;
  private readonly rows: number;

  constructor(private readonly dots: readonly Dot[]) {
    const [xs, ys] = [dots.map((d) => d.x), dots.map((d) => d.y)];
    this.left = Math.min(...xs);
    this.top = Math.min(...ys);
    const [width, height] = [Math.max(...xs) - this.left, Math.max(...ys) - this.top];
    this.cellPx = Math.max(1, Math.sqrt((width * height) / dots.length));
    this.columns = 1 + Math.floor(width / this.cellPx);
    this.rows = 1 + Math.floor(height / this.cellPx);
    this.cells = Array.from({ length: this.columns * this.rows }, () => []);
    dots.forEach((d, i) => {
      this.cells[this.columns * this.down(d.y) + this.across(d.x)]?.push(i);
    });
    this.pitchPx = median(dots.map((d, i) => this.within(d, 4 * this.cellPx, i)[0]?.far ?? this.cellPx));
  }

  private across(x: number): number {
    return Math.floor((x - this.left) / this.cellPx);
  }

  private down(y: number): number {
    return Math.floor((y - this.top) / this.cellPx);
  }

  /** Dots within a distance of a place, nearest first. @param except index of the dot itself */
  within(at: Vector, reach: number, except = -1): { index: number; far: number }[] {
    const found: { index: number; far: number }[] = [];
    const lastRow = Math.min(this.rows - 1, this.down(at.y + reach));
    const lastColumn = Math.min(this.columns - 1, this.across(at.x + reach));
    for (let row = Math.max(0, this.down(at.y - reach)); row <= lastRow; row++)
      for (let column = Math.max(0, this.across(at.x - reach)); column <= lastColumn; column++)
        for (const index of this.cells[this.columns * row + column] ?? []) {
          const dot = this.dots[index];
          if (!dot || index === except) continue;
          const far = Math.hypot(dot.x - at.x, dot.y - at.y);
          if (far <= reach) found.push({ index, far });
        }
    return found.sort((a, b) => a.far - b.far);
  }
}

type Nodes = Map<number, Node>;
type Grown = { nodes: Nodes; contradictions: number };

function grownFrom(dots: readonly Dot[], near: Near): Grown | null {
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
function basisAt(dots: readonly Dot[], near: Near, index: number): Basis | null {
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

function growth(dots: readonly Dot[], near: Near, seed: number, basis: Basis): Grown {
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
function settledOn(dots: readonly Dot[], near: Near, first: Nodes, pitchPx: number): Settled | null {
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
  return { nodes, residual };
}

type Box = { left: number; right: number; low: number; high: number };

function boxOf(nodes: Nodes): Box {
  const [columns, rows] = [[...nodes.values()].map((n) => n.column), [...nodes.values()].map((n) => n.row)];
  return { left: Math.min(...columns), right: Math.max(...columns), low: Math.min(...rows), high: Math.max(...rows) };
}

/** Each node takes the dot that is nearest to its place, one step beyond the box too; a dot serves one node. */
function byNearest(near: Near, { left, right, low, high }: Box, surface: Surface, pitchPx: number): Nodes {
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

type Turn = (node: Node) => Node;

/** The eight ways in which a grid can lie under its numbers; the first four without a mirror, where rows count downward in the picture. */
const TURNS: readonly Turn[] = [
  (n) => n,
  ({ column, row }) => ({ column: -row, row: column }),
  ({ column, row }) => ({ column: -column, row: -row }),
  ({ column, row }) => ({ column: row, row: -column }),
  ({ column, row }) => ({ column: -column, row }),
  ({ column, row }) => ({ column: row, row: column }),
  ({ column, row }) => ({ column, row: -row }),
  ({ column, row }) => ({ column: -row, row: -column }),
];

/** From the numbers of the growth to those from the centre, by the L. */
function wayItLies(dots: readonly Dot[], nodes: Nodes): Turn | Refused {
  const usual = median(dots.map((d) => d.radiusPx));
  const large = [...nodes].filter(([index]) => (dots[index]?.radiusPx ?? 0) > LARGER * usual).map(([, node]) => node);
  if (large.length < SEEN_OF_L.least) return "no L";
  const placements = TURNS.flatMap((turn, k) => {
    const seen = large.map(turn);
    const keys = new Set(seen.map(keyOf));
    // Any of the larger dots may be any node of the L.
    const corners = new Map(
      seen.flatMap((s) =>
        LARGE_NODES.map((l) => {
          const corner = { column: s.column - l.column, row: s.row - l.row };
          return [keyOf(corner), corner] as const;
        }),
      ),
    );
    return [...corners.values()].map((corner) => ({
      k,
      turn,
      corner,
      fits: LARGE_NODES.filter((l) => keys.has(keyOf({ column: corner.column + l.column, row: corner.row + l.row })))
        .length,
    }));
  }).sort((a, b) => b.fits - a.fits);
  const [best, next] = placements;
  if (!best || best.fits < SEEN_OF_L.least) return "no L";
  if (next && best.fits - next.fits < SEEN_OF_L.clear) return "L fits several ways";
  if (isMirrored(dots, nodes, best.turn)) return "mirrored";
  const { turn, corner } = best;
  return (node) => {
    const at = turn(node);
    return { column: at.column - corner.column, row: at.row - corner.row };
  };
}

/** Seen from above, rows go up in the picture where columns go to the right. */
function isMirrored(dots: readonly Dot[], nodes: Nodes, turn: Turn): boolean {
  const surface = surfaceThrough(
    [...nodes].map(([index, node]) => ({ ...turn(node), x: dots[index]?.x ?? 0, y: dots[index]?.y ?? 0 })),
  );
  if (!surface) return false;
  const all = [...nodes.values()].map(turn);
  const middle = { column: median(all.map((n) => n.column)), row: median(all.map((n) => n.row)) };
  const at = surface(middle);
  const right = surface({ ...middle, column: middle.column + 1 });
  const up = surface({ ...middle, row: middle.row + 1 });
  // The Y of a picture counts downward.
  return (right.x - at.x) * (up.y - at.y) - (right.y - at.y) * (up.x - at.x) > 0;
}
