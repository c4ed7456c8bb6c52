/**
 * ELLIPSE and SPLINE of DXF as chords. [Autodesk DXF Reference, ELLIPSE, SPLINE]
 *
 * A span of a B-spline of degree p over the knots t is a Bézier curve; its control points are the values of the span's blossom at
 * the ends of the span, each taken p - j and j times. [de Boor, A Practical Guide to Splines (2001), X; the blossom, from memory]
 */
import { elementAt } from "../core/fitting/element-at";
import { cubicOfQuadratic, type EllipseArc, flattenedCubic, flattenedEllipse, onEllipse } from "../core/geometry/curve";
import type { Entity } from "./dxf-structure";
import { numberIn, toNumber } from "./dxf-tags";
import { FormatFault } from "./parsed";

type Point = { x: number; y: number };
type Shape = { points: Point[]; closed: boolean };

const RATIONAL = 4;
const CLOSED = 1;
const TURN = 2 * Math.PI;

/** @throws FormatFault @throws RangeError when it would take more chords than can be meant */
export function ellipseShape({ tags, line }: Entity, chordErrorMm: number): Shape {
  const major = { x: numberIn(tags, 11), y: numberIn(tags, 21) };
  const rx = Math.hypot(major.x, major.y);
  const ratio = numberIn(tags, 40);
  if (!(rx > 0 && ratio > 0 && ratio <= 1))
    throw new FormatFault(line, 1, "An ellipse needs an axis, and a ratio up to 1.");
  const startRad = numberIn(tags, 41, 0);
  const turn = numberIn(tags, 42, TURN) - startRad;
  const sweepRad = ((turn % TURN) + TURN) % TURN || TURN;
  const arc: EllipseArc = {
    centre: { x: numberIn(tags, 10), y: numberIn(tags, 20) },
    rx,
    ry: rx * ratio,
    turnRad: Math.atan2(major.y, major.x),
    startRad,
    sweepRad,
  };
  const points = flattenedEllipse(arc, chordErrorMm);
  if (sweepRad === TURN) return { points, closed: true };
  return { points: [onEllipse(arc, startRad), ...points], closed: false };
}

/** @throws FormatFault @throws RangeError when it would take more chords than can be meant */
export function splineShape(entity: Entity, chordErrorMm: number): Shape {
  const { degree, knots, controls, closed } = splineOf(entity);
  const points: Point[] = [];
  for (let k = degree; k < controls.length; k++) {
    const [from, to] = [elementAt(knots, k), elementAt(knots, k + 1)];
    if (to <= from) continue;
    const bezier = Array.from({ length: degree + 1 }, (_, j) =>
      blossom(knots, controls, degree, k, [...Array(degree - j).fill(from), ...Array(j).fill(to)]),
    ) as [Point, Point, Point, Point];
    if (points.length === 0) points.push(bezier[0]);
    for (const p of spanPoints(bezier, degree, chordErrorMm)) points.push(p);
  }
  const [first, last] = [points[0], points.at(-1)];
  if (!first || !last) throw new FormatFault(entity.line, 1, "The knots of this spline leave nothing to draw.");
  if (closed && Math.hypot(first.x - last.x, first.y - last.y) < 1e-9) points.pop();
  return { points, closed };
}

function spanPoints(bezier: readonly [Point, Point, Point, Point], degree: number, chordErrorMm: number): Point[] {
  const [a, b, c] = bezier;
  if (degree === 1) return [b];
  return flattenedCubic(degree === 2 ? cubicOfQuadratic(a, b, c) : bezier, chordErrorMm);
}

function splineOf({ tags, line }: Entity) {
  const all = (code: number) => tags.filter((t) => t.code === code).map(toNumber);
  const degree = numberIn(tags, 71);
  const [knots, xs, ys, weights] = [all(40), all(10), all(20), all(41)];
  if (![1, 2, 3].includes(degree))
    throw new FormatFault(line, 1, `A spline of degree ${degree} is not understood: 1 to 3 are.`);
  if (xs.length !== ys.length || xs.length <= degree || knots.length !== xs.length + degree + 1)
    throw new FormatFault(line, 1, "The control points and knots of this spline do not fit each other.");
  if (knots.some((t, i) => i > 0 && t < elementAt(knots, i - 1)))
    throw new FormatFault(line, 1, "The knots of a spline must rise.");
  const flags = numberIn(tags, 70, 0);
  if ((flags & RATIONAL) !== 0 && weights.some((w) => w !== weights[0]))
    throw new FormatFault(line, 1, "A spline with weights is not understood: turn it into polylines.");
  const controls = xs.map((x, i) => ({ x, y: elementAt(ys, i) }));
  return { degree, knots, controls, closed: (flags & CLOSED) !== 0 };
}

/** The blossom of span k at `degree` arguments. */
function blossom(
  t: readonly number[],
  controls: readonly Point[],
  degree: number,
  k: number,
  args: readonly number[],
): Point {
  const d = controls.slice(k - degree, k + 1).map((p) => ({ ...p }));
  for (let r = 1; r <= degree; r++) {
    const u = elementAt(args, r - 1);
    for (let j = degree; j >= r; j--) {
      const [low, high] = [elementAt(t, j + k - degree), elementAt(t, j + 1 + k - r)];
      const share = (u - low) / (high - low);
      const [a, b] = [d[j - 1] as Point, d[j] as Point];
      d[j] = { x: a.x + (b.x - a.x) * share, y: a.y + (b.y - a.y) * share };
    }
  }
  return d[degree] as Point;
}
