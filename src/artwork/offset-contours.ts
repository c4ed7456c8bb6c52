/**
 * Outlines that make up for the kerf: the outside of a part grows, a hole shrinks, by the offset per side.
 *
 * Offsetting itself is left to a standard library for polygons (Clipper2). Corners stay corners: a square is a square after it; a corner
 * sharper than the limit is cut off square.
 */
import { EndType, inflatePathsD, JoinType } from "clipper2-ts";
import { type Point, type Problem, placeText, signedArea } from "./contour";
import type { Nested } from "./nesting";

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
      ...{ ...common, kind: "vanishes" },
      text: `${what} at ${placeText(at)} is narrower than the cut: nothing is left of it at ${size} mm a side. Make it larger, or take it out.`,
    };
  if (pieces.length > 1)
    return {
      ...{ ...common, kind: "falls apart" },
      text: `${what} at ${placeText(at)} falls into ${pieces.length} pieces: a neck in it is narrower than the cut, ${size} mm a side. Widen the neck.`,
    };
  const lost = closedSlit(contour.points, pieces, by);
  if (lost)
    return {
      ...{ kind: "closes", at: lost, points: contour.points },
      text: `A slit in this outline at ${placeText(lost)} is narrower than the cut: it closes at ${size} mm a side. Widen it, or take it out.`,
    };
  return null;
}

/** Less than so many offsets squared is lost at corners that were cut off. */
const CORNERS = 2;
/** So many offsets from what comes back a corner was lost. */
const FAR = 4;

/** Taken back by as much, an outline is itself again, unless a slit in it closed: there it is far from what it was. */
function closedSlit(points: readonly Point[], pieces: readonly Point[][], by: number): Point | null {
  if (by === 0) return null;
  const back = pieces.flatMap((piece) => offsetOf(piece, -by));
  const area = back.reduce((sum, piece) => sum + Math.abs(signedArea(piece)), 0);
  if (Math.abs(area - Math.abs(signedArea(points))) <= CORNERS * by ** 2) return null;
  const far = (p: Point) =>
    back.every((piece) =>
      piece.every((q, i) => distance(p, q, piece[(i + 1) % piece.length] as Point) > FAR * Math.abs(by)),
    );
  return points.find(far) ?? null;
}

function distance(p: Point, a: Point, b: Point): number {
  const [ux, uy] = [b.x - a.x, b.y - a.y];
  const size = ux * ux + uy * uy;
  const share = size > 0 ? Math.max(0, Math.min(1, ((p.x - a.x) * ux + (p.y - a.y) * uy) / size)) : 0;
  return Math.hypot(p.x - a.x - share * ux, p.y - a.y - share * uy);
}
