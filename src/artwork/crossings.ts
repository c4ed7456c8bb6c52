/** Where outlines cross themselves or each other. Segments are looked for in a grid, so that long outlines take no longer than they must. */
import { type Contour, type Point, type Problem, placeText } from "./contour";

type Segment = { contour: number; index: number; a: Point; b: Point };

/** So many faults are named; more help nobody. */
const MOST_NAMED = 20;
const SMALLEST_CELL_MM = 0.1;

/** The faults of each outline and of each pair, one apiece. */
export function crossingsOf(contours: readonly Contour[]): Problem[] {
  const segments = contours.flatMap((c, contour) =>
    c.points.map((a, index): Segment => ({ contour, index, a, b: c.points[(index + 1) % c.points.length] as Point })),
  );
  const named = new Map<string, Problem>();
  for (const cell of gridOf(segments).values())
    for (let i = 0; i < cell.length; i++)
      for (let k = i + 1; k < cell.length; k++) {
        if (named.size >= MOST_NAMED) return [...named.values()];
        const [s, t] = [cell[i] as Segment, cell[k] as Segment];
        if (areNeighbours(s, t, contours) || areApart(s, t)) continue;
        const key = `${Math.min(s.contour, t.contour)} ${Math.max(s.contour, t.contour)}`;
        if (named.has(key)) continue;
        const at = crossing(s, t);
        if (at) named.set(key, problemAt(at, s, t, contours));
      }
  return [...named.values()];
}

function problemAt(at: Point, s: Segment, t: Segment, contours: readonly Contour[]): Problem {
  const points = (contours[s.contour] as Contour).points;
  if (s.contour === t.contour)
    return {
      kind: "self-crossing",
      at,
      points,
      text: `This outline crosses itself at ${placeText(at)}: it has no clear inside. Unite it, or draw it anew there.`,
    };
  const isTwice = isSame(contours[s.contour] as Contour, contours[t.contour] as Contour);
  return isTwice
    ? {
        kind: "drawn twice",
        at,
        points,
        text: `This outline is drawn twice, at ${placeText(at)}: it would be cut twice. Take one out.`,
      }
    : {
        kind: "overlapping",
        at,
        points,
        text: `Two outlines cross at ${placeText(at)}: which is inside the other cannot be told. Unite them, or move them apart.`,
      };
}

/** Cells of a row and a column have one number; two cells that share one only cost a look more. */
const ROW = 1 << 21;

/** Segments by the cells that their boxes touch. */
function gridOf(segments: readonly Segment[]): Map<number, Segment[]> {
  const length = segments.reduce((sum, { a, b }) => sum + Math.hypot(a.x - b.x, a.y - b.y), 0);
  const cell = Math.max(SMALLEST_CELL_MM, (2 * length) / Math.max(1, segments.length));
  const grid = new Map<number, Segment[]>();
  for (const s of segments)
    for (const key of cellsAlong(s, cell)) {
      const here = grid.get(key);
      if (here) here.push(s);
      else grid.set(key, [s]);
    }
  return grid;
}

/** A long slanted segment is walked, so that it is not in every cell of its box. */
function cellsAlong({ a, b }: Segment, cell: number): number[] {
  const steps = Math.max(1, Math.ceil(Math.max(Math.abs(a.x - b.x), Math.abs(a.y - b.y)) / cell));
  const keys: number[] = [];
  for (let i = 0; i < steps; i++) {
    const [p, q] = [along(a, b, i / steps), along(a, b, (i + 1) / steps)];
    for (let x = Math.floor(Math.min(p.x, q.x) / cell); x <= Math.floor(Math.max(p.x, q.x) / cell); x++)
      for (let y = Math.floor(Math.min(p.y, q.y) / cell); y <= Math.floor(Math.max(p.y, q.y) / cell); y++)
        if (!keys.includes(x * ROW + y)) keys.push(x * ROW + y);
  }
  return keys;
}

function along(a: Point, b: Point, share: number): Point {
  return { x: a.x + share * (b.x - a.x), y: a.y + share * (b.y - a.y) };
}

/** Segments of one outline that follow on each other meet in a corner. */
function areNeighbours(s: Segment, t: Segment, contours: readonly Contour[]): boolean {
  if (s.contour !== t.contour) return false;
  const count = (contours[s.contour] as Contour).points.length;
  const apart = Math.abs(s.index - t.index);
  return apart <= 1 || apart === count - 1;
}

/** Their boxes do not touch. */
function areApart({ a, b }: Segment, { a: c, b: d }: Segment): boolean {
  return (
    Math.max(a.x, b.x) < Math.min(c.x, d.x) ||
    Math.max(c.x, d.x) < Math.min(a.x, b.x) ||
    Math.max(a.y, b.y) < Math.min(c.y, d.y) ||
    Math.max(c.y, d.y) < Math.min(a.y, b.y)
  );
}

/** Where two segments meet, touching counted in; `null` where they do not. */
function crossing({ a, b }: Segment, { a: c, b: d }: Segment): Point | null {
  const [ux, uy, vx, vy] = [b.x - a.x, b.y - a.y, d.x - c.x, d.y - c.y];
  const turned = ux * vy - uy * vx;
  const [wx, wy] = [c.x - a.x, c.y - a.y];
  if (Math.abs(turned) <= 1e-12 * Math.hypot(ux, uy) * Math.hypot(vx, vy)) return overlap(a, b, c, d);
  const [s, t] = [(wx * vy - wy * vx) / turned, (wx * uy - wy * ux) / turned];
  return s >= 0 && s <= 1 && t >= 0 && t <= 1 ? along(a, b, s) : null;
}

/** Parallel segments: the middle of what they have in common, on one line. */
function overlap(a: Point, b: Point, c: Point, d: Point): Point | null {
  const length = Math.hypot(b.x - a.x, b.y - a.y);
  if (length === 0) return null;
  const [ux, uy] = [(b.x - a.x) / length, (b.y - a.y) / length];
  const off = (c.x - a.x) * uy - (c.y - a.y) * ux;
  if (Math.abs(off) > 1e-9) return null;
  const place = (p: Point) => (p.x - a.x) * ux + (p.y - a.y) * uy;
  const low = Math.max(0, Math.min(place(c), place(d)));
  const high = Math.min(length, Math.max(place(c), place(d)));
  return high >= low ? { x: a.x + (ux * (low + high)) / 2, y: a.y + (uy * (low + high)) / 2 } : null;
}

function isSame({ points: p }: Contour, { points: q }: Contour): boolean {
  const near = (a: Point, b: Point) => Math.hypot(a.x - b.x, a.y - b.y) < 1e-6;
  return p.length === q.length && p.every((a) => q.some((b) => near(a, b)));
}
