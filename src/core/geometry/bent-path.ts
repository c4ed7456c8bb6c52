/** A path sent through a bend: cut into pieces until no chord lies farther from its curve than is said. */
import { elementAt } from "../fitting/element-at";

type Point = { x: number; y: number };

/** No piece is cut more often in two than this: a bend that is rougher than it is smooth ends. */
const MOST_CUTS = 14;

/**
 * @param bend from flat to sent
 * @param chordErrorMm how far a chord may lie from its curve, > 0
 * @returns at least as many points as came in, the first and the last bent from theirs
 */
export function bentPath(points: readonly Point[], bend: (p: Point) => Point, chordErrorMm: number): Point[] {
  const [first] = points;
  if (!first) return [];
  const out = [bend(first)];
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [elementAt(points, i - 1), elementAt(points, i)];
    cut(a, b, bend(a), bend(b), bend, chordErrorMm, MOST_CUTS, out);
  }
  return out;
}

function cut(
  a: Point,
  b: Point,
  sentA: Point,
  sentB: Point,
  bend: (p: Point) => Point,
  within: number,
  left: number,
  out: Point[],
): void {
  const at = (share: number) => ({ x: a.x + share * (b.x - a.x), y: a.y + share * (b.y - a.y) });
  const middle = at(0.5);
  const sent = bend(middle);
  // A bend that goes to both sides alike passes through the middle: quarters are looked at too.
  const strays = [sent, bend(at(0.25)), bend(at(0.75))].some((p) => distance(p, sentA, sentB) > within);
  if (!strays || left === 0) {
    out.push(sentB);
    return;
  }
  cut(a, middle, sentA, sent, bend, within, left - 1, out);
  cut(middle, b, sent, sentB, bend, within, left - 1, out);
}

/** Of a point from the line between two others. */
function distance(p: Point, a: Point, b: Point): number {
  const length = Math.hypot(b.x - a.x, b.y - a.y);
  if (length === 0) return Math.hypot(p.x - a.x, p.y - a.y);
  return Math.abs((b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x)) / length;
}
