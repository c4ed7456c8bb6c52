/**
 * A drawing of one's own that is burned in every cell, as one line of text: contours with their points in a square of side 1, Y up.
 *
 *   0,0 1,0 1,1 0,1 z; 0.25,0.5 0.75,0.5        z closes a contour
 */
import type { CouponPoint } from "../geometry/frames";
import { boundsOf, type Rect } from "../geometry/rect";

export type Contour = { points: CouponPoint[]; closed: boolean };

/** Points of a drawing, at most: it is burned in up to 400 cells. */
export const MOST_DRAWING_POINTS = 2000;
const DECIMALS = 4;

/** @returns the drawing with its longer side 1, in the middle of the square; `null` for a drawing without a size */
export function drawingText(contours: readonly Contour[]): string | null {
  const bounds = boundsOf(contours.flatMap((c) => c.points));
  if (!bounds) return null;
  const [width, height] = [bounds.x1 - bounds.x0, bounds.y1 - bounds.y0];
  const side = Math.max(width, height);
  if (!(side > 0)) return null;
  const short = (v: number) => String(Number(v.toFixed(DECIMALS)));
  const place = ({ x, y }: CouponPoint) =>
    `${short((x - bounds.x0 - width / 2) / side + 0.5)},${short((y - bounds.y0 - height / 2) / side + 0.5)}`;
  return contours.map(({ points, closed }) => [...points.map(place), ...(closed ? ["z"] : [])].join(" ")).join("; ");
}

/** @returns `null` if the text is no drawing */
export function contoursIn(text: string): Contour[] | null {
  const contours = text.split(";").map((part): Contour | null => {
    const words = part.trim().split(/\s+/);
    const closed = words.at(-1) === "z";
    const points = (closed ? words.slice(0, -1) : words).map(pointOf);
    const whole = points.flatMap((p) => p ?? []);
    return whole.length === points.length && whole.length >= 2 ? { points: whole, closed } : null;
  });
  const known = contours.flatMap((c) => c ?? []);
  return known.length === contours.length ? known : null;
}

const INSIDE = { least: -0.001, most: 1.001 };

function pointOf(word: string): CouponPoint | null {
  const match = /^(-?[\d.]+),(-?[\d.]+)$/.exec(word);
  const [x, y] = [Number(match?.[1] ?? "none"), Number(match?.[2] ?? "none")];
  const isInside = [x, y].every((v) => v >= INSIDE.least && v <= INSIDE.most);
  return isInside ? { x, y } : null;
}

/** The drawing in a square of the coupon. */
export function placedIn(contours: readonly Contour[], { x0, y0, x1, y1 }: Rect): Contour[] {
  return contours.map(({ points, closed }) => ({
    points: points.map((p) => ({ x: x0 + p.x * (x1 - x0), y: y0 + p.y * (y1 - y0) })),
    closed,
  }));
}

/** Length of all contours, in sides of the square. */
export function drawingLength(contours: readonly Contour[]): number {
  return contours.reduce((sum, { points, closed }) => {
    const from = closed ? points : points.slice(0, -1);
    return sum + from.reduce((s, p, i) => s + distance(p, points[(i + 1) % points.length] ?? p), 0);
  }, 0);
}

function distance(a: CouponPoint, b: CouponPoint): number {
  return Math.hypot(a.x - b.x, a.y - b.y);
}
