/**
 * Outlines that make up for the kerf: the outside of a part grows, a hole shrinks, by the offset per side.
 *
 * Where sides are lost it is left to a standard library for polygons (Clipper2). Corners stay corners: a square is a square after it; a corner
 * sharper than the limit is cut off square.
 */
import { EndType, inflatePathsD, JoinType } from "clipper2-ts";
import { type Point, type Problem, placeText, signedArea } from "./contour";
import type { Nested } from "./nesting";
import { plainOffset } from "./plain-offset";

/** A corner may reach so many offsets out. */
const MITER_LIMIT = 4;
/** Digits behind the point, mm: it reckons in whole numbers of these. */
const PRECISION = 6;

export type Grown = { contours: Nested[]; problems: Problem[] };

/** @param offsetMm per side; below 0 it is taken back */
export function grownBy(contours: readonly Nested[], offsetMm: number): Grown {
  const problems: Problem[] = [];
  const grown = contours.flatMap((contour): Nested[] => {
    const by = contour.isHole ? -offsetMm : offsetMm;
    const pieces = offsetOf(contour.points, by);
    const problem = problemOf(contour, pieces, by);
    if (problem) problems.push(problem);
    return pieces.map((points) => ({ ...contour, points }));
  });
  return { contours: grown, problems };
}

/** What is left of one outline, each turned as it was. */
function offsetOf(points: readonly Point[], by: number): Point[][] {
  if (by === 0) return [[...points]];
  const turns = signedArea(points) > 0;
  const outward = turns ? points : [...points].reverse();
  const plain = plainOffset(outward, by, MITER_LIMIT);
  if (plain) return [turns ? plain : plain.reverse()];
  const grown = inflatePathsD([[...outward]], by, JoinType.Miter, EndType.Polygon, MITER_LIMIT, PRECISION);
  return grown
    .map((path) => path.map(({ x, y }) => ({ x, y })))
    .filter((path) => path.length > 2)
    .map((path) => (turns ? path : path.reverse()));
}

function problemOf(contour: Nested, pieces: readonly Point[][], by: number): Problem | null {
  const at = contour.points[0] as Point;
  const what = contour.isHole ? "This hole" : "This outline";
  const size = Math.abs(by).toFixed(3);
  const common = { at, points: contour.points };
  if (pieces.length === 0)
    return {
      ...common,
      kind: "vanishes",
      text: `${what} at ${placeText(at)} is narrower than the cut: nothing is left of it at ${size} mm a side. Make it larger, or take it out.`,
    };
  if (pieces.length > 1)
    return {
      ...common,
      kind: "falls apart",
      text: `${what} at ${placeText(at)} falls into ${pieces.length} pieces: a neck in it is narrower than the cut, ${size} mm a side. Widen the neck.`,
    };
  const lost = closedSlit(contour.points, pieces, by);
  if (lost)
    return {
      kind: "closes",
      at: lost,
      points: contour.points,
      text: `A slit in this outline at ${placeText(lost)} is narrower than the cut: it closes at ${size} mm a side. Widen it, or take it out.`,
    };
  return null;
}

/** Less than so many offsets squared is no slit. */
const NO_SLIT = 2;
/** Areas are told to this share of their outline, mm: whole numbers are rounded. */
const ROUNDING_MM = 1e-5;
/** So many offsets from what comes back a corner was lost. */
const FAR = 4;

/**
 * An outline whose corners stay corners has the area that they tell, unless a slit in it closed. Taken back by as much it is itself
 * again then, except where it was lost: that place is looked for only where the area says so.
 */
function closedSlit(points: readonly Point[], pieces: readonly Point[][], by: number): Point | null {
  if (by === 0) return null;
  const area = pieces.reduce((sum, piece) => sum + Math.abs(signedArea(piece)), 0);
  const { expected, around } = areaGrown(points, by);
  if (Math.abs(area - expected) <= NO_SLIT * by ** 2 + ROUNDING_MM * around) return null;
  const back = pieces.flatMap((piece) => offsetOf(piece, -by));
  const isLost = (p: Point, i: number) =>
    back.every((piece) => !isNear(p, piece, Math.floor((i * piece.length) / points.length), FAR * Math.abs(by)));
  return points.find(isLost) ?? null;
}

/** Looked for from a place on both ways: what belongs to a corner lies about as far along what comes back. */
function isNear(p: Point, piece: readonly Point[], from: number, within: number): boolean {
  const count = piece.length;
  for (let step = 0; step <= count / 2 + 1; step++)
    for (const k of [from + step, from - step]) {
      const i = ((k % count) + count) % count;
      if (distance(p, piece[i] as Point, piece[(i + 1) % count] as Point) <= within) return true;
    }
  return false;
}

/** A + by P + by^2 sum tan(turn / 2): each side moves out by as much, and at each corner two of them meet. */
function areaGrown(points: readonly Point[], by: number): { expected: number; around: number } {
  const area = Math.abs(signedArea(points));
  const way = signedArea(points) > 0 ? 1 : -1;
  let [around, corners] = [0, 0];
  for (let i = 0; i < points.length; i++) {
    const [p, q, r] = [i, i + 1, i + 2].map((k) => points[k % points.length] as Point) as [Point, Point, Point];
    const [ux, uy, vx, vy] = [q.x - p.x, q.y - p.y, r.x - q.x, r.y - q.y];
    around += Math.hypot(ux, uy);
    corners += Math.tan(Math.atan2(way * (ux * vy - uy * vx), ux * vx + uy * vy) / 2);
  }
  return { expected: area + by * around + by ** 2 * corners, around };
}

function distance(p: Point, a: Point, b: Point): number {
  const [ux, uy] = [b.x - a.x, b.y - a.y];
  const size = ux * ux + uy * uy;
  const share = size > 0 ? Math.max(0, Math.min(1, ((p.x - a.x) * ux + (p.y - a.y) * uy) / size)) : 0;
  return Math.hypot(p.x - a.x - share * ux, p.y - a.y - share * uy);
}
