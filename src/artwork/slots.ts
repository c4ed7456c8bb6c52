/**
 * Slots and notches of a given width, made to fit a sheet of another thickness.
 *
 * With the part to the left of its outlines, the end of a slot is a straight side as long as the slot is wide, at both of whose corners the outline
 * turns right, square. The two walls beside it move apart or together by half of the change each; tongues, at whose corners it turns left, stay.
 */
import type { Point } from "./contour";
import type { Nested } from "./nesting";

/** A slot is as wide as it is said to be, to within this, mm. */
const WITHIN_MM = 0.02;
/** Corners are square to within this, as a sine. */
const SQUARE = 0.02;

export type Rewidthed = { contours: Nested[]; slots: { at: Point; contour: number }[] };

/** @param fromMm width as it is drawn @param toMm width that it is to have */
export function rewidthed(contours: readonly Nested[], fromMm: number, toMm: number): Rewidthed {
  const slots: Rewidthed["slots"] = [];
  const changed = contours.map((contour, k) => {
    const { points } = contour;
    const moved = new Map<number, Point>();
    for (let i = 0; i < points.length; i++) {
      const ends = slotEnd(points, i, fromMm);
      if (!ends) continue;
      const half = (toMm - fromMm) / 2;
      const [left, right] = [
        { x: -ends.ux * half, y: -ends.uy * half },
        { x: ends.ux * half, y: ends.uy * half },
      ];
      for (const at of [ends.before, i]) moved.set(at, left);
      for (const at of [ends.next, ends.after]) moved.set(at, right);
      const [a, b] = [points[i] as Point, points[ends.next] as Point];
      slots.push({ at: { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 }, contour: k });
    }
    if (moved.size === 0) return contour;
    return {
      ...contour,
      points: points.map((p, i) => ({ x: p.x + (moved.get(i)?.x ?? 0), y: p.y + (moved.get(i)?.y ?? 0) })),
    };
  });
  return { contours: changed, slots };
}

/** The side from corner i to the next, where it is the end of a slot. */
function slotEnd(points: readonly Point[], i: number, widthMm: number) {
  const count = points.length;
  if (count < 4) return null;
  const [before, next, after] = [(i + count - 1) % count, (i + 1) % count, (i + 2) % count];
  const [p, a, b, q] = [before, i, next, after].map((k) => points[k] as Point) as [Point, Point, Point, Point];
  const width = Math.hypot(b.x - a.x, b.y - a.y);
  if (Math.abs(width - widthMm) > WITHIN_MM) return null;
  const [ux, uy] = [(b.x - a.x) / width, (b.y - a.y) / width];
  const corner = (vx: number, vy: number) => {
    const length = Math.hypot(vx, vy);
    return { turn: (ux * vy - uy * vx) / length, along: (ux * vx + uy * vy) / length };
  };
  // Both walls as they leave the end: to its right, where it turns right at both corners.
  const [one, other] = [corner(p.x - a.x, p.y - a.y), corner(q.x - b.x, q.y - b.y)];
  const isSquare = Math.abs(one.along) < SQUARE && Math.abs(other.along) < SQUARE;
  return isSquare && one.turn < 0 && other.turn < 0 ? { before, next, after, ux, uy } : null;
}
