/** The dots of a practice stock as a practice scanner shows them, and which is which: without a picture, for readings at a press. */
import type { Measurand, Site } from "../core/coupon/site";
import { MM_PER_INCH } from "../core/metrology/units";
import { indexGrid } from "../core/picture/dots/index-grid";
import { cameraFromSeed, photographed } from "../practice/camera";
import { dotsOnStock } from "../practice/dots-on-stock";
import type { Mark } from "../practice/gantry";
import { type Random, seeded } from "../practice/random";
import { SCAN_LOOK, scanPicture } from "../practice/scan-picture";
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
  { across, turnedDeg, part, photo }: Extract<Measurand, { kind: "dots" }>,
  { nominal }: Extract<Site["ask"], { kind: "points" }>,
  marks: readonly Mark[],
  seed: number,
  random: Random,
): ScannedDots {
  const show = photo ? photoOf(marks, seed) : scanOf(seed, turnedDeg, random);
  const shown = dotsOnStock(inPart(marks, part)).map(({ x, y, radiusMm }) => {
    const at = show({ x, y });
    const [px, py] = [at.x + SCATTER_MM * random.normal(), at.y + SCATTER_MM * random.normal()];
    return { at: { x: px, y: py }, dot: { x: px, y: -py, radiusPx: radiusMm, contrast: 1 } };
  });
  const indexed = indexGrid(
    shown.map((s) => s.dot),
    across,
    part !== undefined,
  );
  if (indexed.status === "refused") return { ok: false, why: "The practice stock shows no whole grid of dots." };
  const half = (across - 1) / 2;
  const points: ({ x: number; y: number } | null)[] = nominal.map(() => null);
  for (const { column, row, dot } of indexed.dots)
    points[(row + half) * across + column + half] = { x: dot.x, y: -dot.y };
  return { ok: true, points };
}

type Show = (at: { x: number; y: number }) => { x: number; y: number };

/** Laid on the glass of a scanner, which is the same for every scan of a machine. */
function scanOf(seed: number, turnedDeg: number, random: Random): Show {
  const scanner = scannerFromSeed(seed);
  const laid = onGlass(turnedDeg, random);
  return (at) => scannedAt(scanner, laidOnGlass(laid, at));
}

/** Seen by a camera from aside, over the middle of the stock. */
function photoOf(marks: readonly Mark[], seed: number): Show {
  const camera = cameraFromSeed(seed);
  const xs = marks.map((m) => m.x0);
  const ys = marks.map((m) => m.y0);
  const [cx, cy] = [(least(xs) - least(xs.map((x) => -x))) / 2, (least(ys) - least(ys.map((y) => -y))) / 2];
  return ({ x, y }) => photographed(camera, { x: x - cx, y: y - cy });
}

type Part = Extract<Measurand, { kind: "dots" }>["part"];

/** Beyond the middle a part goes on for so much of half the stock. */
const OVERLAP = 0.6;

/** Marks that lie on the glass where a stock is scanned part by part. */
function inPart(marks: readonly Mark[], part: Part): readonly Mark[] {
  if (!part) return marks;
  const xs = marks.map((m) => m.x0);
  const ys = marks.map((m) => m.y0);
  const [x0, x1, y0, y1] = [least(xs), -least(xs.map((x) => -x)), least(ys), -least(ys.map((y) => -y))];
  const isRight = part.n % 2 === 0;
  const isBack = part.of === 4 && part.n > 2;
  const within = (at: number, low: number, high: number, isUpper: boolean) => {
    const share = (2 * (at - low)) / (high - low) - 1;
    return isUpper ? share > -OVERLAP : share < OVERLAP;
  };
  return marks.filter((m) => within(m.x0, x0, x1, isRight) && (part.of === 2 || within(m.y0, y0, y1, isBack)));
}

/** Marks as a practice scanner shows them, with the box that holds them all. @param seed of the practice machine */
function marksOnGlass(
  all: readonly Mark[],
  { turnedDeg, part, photo }: Extract<Measurand, { kind: "dots" }>,
  seed: number,
  random: Random,
) {
  const marks = inPart(all, part);
  const show = photo ? photoOf(marks, seed) : scanOf(seed, turnedDeg, random);
  const moved = marks.map((mark): Mark => {
    const [a, b] = [show({ x: mark.x0, y: mark.y0 }), show({ x: mark.x1, y: mark.y1 })];
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

/**
 * A scan of the grid, with the errors of the practice scanner, which is the same for every scan of a machine.
 *
 * @param machine seed of the practice machine @param seed of this scan: how the stock lies, grain, dirt
 */
export function scanOfDots(
  all: readonly Mark[],
  dots: Extract<Measurand, { kind: "dots" }>,
  machine: number,
  dpi: number,
  seed: number,
) {
  const { marks, corner, area } = marksOnGlass(all, dots, machine, seeded(seed));
  const picture = scanPicture(marks, corner, area, { ...SCAN_LOOK, dpi, turnDeg: 0 }, seed);
  return { ...picture, pixelsPerMm: dpi / MM_PER_INCH };
}

function least(values: readonly number[]): number {
  return values.reduce((a, b) => Math.min(a, b), Number.POSITIVE_INFINITY);
}
