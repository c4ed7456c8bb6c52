/** The dots of a practice stock as a practice scanner shows them, and which is which: without a picture, for readings at a press. */
import type { Measurand, Site } from "../core/coupon/site";
import { MM_PER_INCH } from "../core/metrology/units";
import { indexGrid } from "../core/picture/dots/index-grid";
import { dotsOnStock } from "../practice/dots-on-stock";
import type { Mark } from "../practice/gantry";
import type { Random } from "../practice/random";
import { laidOnGlass, type OnGlass, scannedAt, scannerFromSeed } from "../practice/scanner";

/** Scatter of a dot in a scan at 600 dots per inch, mm. */
const SCATTER_MM = (0.02 * MM_PER_INCH) / 600;
/** On the glass, off the straight way, rad. */
const MOST_TURN_RAD = 0.026;

/** How a stock is laid on the glass. */
export function onGlass(turnedDeg: number, random: Random): OnGlass {
  const turnRad = (turnedDeg * Math.PI) / 180 + random.between(-MOST_TURN_RAD, MOST_TURN_RAD);
  return { turnRad, atX: random.between(90, 120), atY: random.between(90, 120) };
}

export type ScannedDots = { ok: true; points: ({ x: number; y: number } | null)[] } | { ok: false; why: string };

/** @param seed of the practice machine: its scanner is always the same */
export function scannedDots(
  { across, turnedDeg }: Extract<Measurand, { kind: "dots" }>,
  { nominal }: Extract<Site["ask"], { kind: "points" }>,
  marks: readonly Mark[],
  seed: number,
  random: Random,
): ScannedDots {
  const scanner = scannerFromSeed(seed);
  const laid = onGlass(turnedDeg, random);
  const shown = dotsOnStock(marks).map(({ x, y, radiusMm }) => {
    const at = scannedAt(scanner, laidOnGlass(laid, { x, y }));
    const [px, py] = [at.x + SCATTER_MM * random.normal(), at.y + SCATTER_MM * random.normal()];
    return { at: { x: px, y: py }, dot: { x: px, y: -py, radiusPx: radiusMm, contrast: 1 } };
  });
  const indexed = indexGrid(
    shown.map((s) => s.dot),
    across,
  );
  if (indexed.status === "refused") return { ok: false, why: "The practice stock shows no whole grid of dots." };
  const half = (across - 1) / 2;
  const points: ({ x: number; y: number } | null)[] = nominal.map(() => null);
  for (const { column, row, dot } of indexed.dots)
    points[(row + half) * across + column + half] = { x: dot.x, y: -dot.y };
  return { ok: true, points };
}

/** Marks as a practice scanner shows them, with the box that holds them all. @param seed of the practice machine */
export function marksOnGlass(marks: readonly Mark[], turnedDeg: number, seed: number, random: Random) {
  const scanner = scannerFromSeed(seed);
  const laid = onGlass(turnedDeg, random);
  const middle = marks.reduce((sum, m) => ({ x: sum.x + m.x0 / marks.length, y: sum.y + m.y0 / marks.length }), {
    x: 0,
    y: 0,
  });
  const shown = (x: number, y: number) => scannedAt(scanner, laidOnGlass(laid, { x: x - middle.x, y: y - middle.y }));
  const moved = marks.map((mark): Mark => {
    const [a, b] = [shown(mark.x0, mark.y0), shown(mark.x1, mark.y1)];
    return { ...mark, x0: a.x, y0: a.y, x1: b.x, y1: b.y };
  });
  const xs = moved.flatMap((m) => [m.x0, m.x1]);
  const ys = moved.flatMap((m) => [m.y0, m.y1]);
  const [left, low] = [least(xs), least(ys)];
  return {
    marks: moved,
    corner: { xMm: left, yMm: low },
    area: { widthMm: -least(xs.map((x) => -x)) - left, heightMm: -least(ys.map((y) => -y)) - low },
  };
}

function least(values: readonly number[]): number {
  return values.reduce((a, b) => Math.min(a, b), Number.POSITIVE_INFINITY);
}
