/**
 * A burned piece as a scanner or a microscope sees it: a little turned, unevenly lit, on stock with a grain, blurred, with specks.
 *
 * Marks are drawn by the share of each pixel that they cover, then smeared three times with a box; light, grain and noise come on top.
 * Nothing here knows how edges are looked for.
 */
import { onCoupon, type Placement } from "../core/geometry/frames";
import { MM_PER_INCH } from "../core/metrology/units";
import { MOST_PIXELS } from "../formats/largest-file";
import type { Mark } from "./gantry";
import { boxBetween, drawMark } from "./marks-picture";
import { type Random, seeded, seedOf } from "./random";

export type ScanLook = {
  /** Pixels per inch. */
  dpi: number;
  /** Counter-clockwise as seen, degrees. */
  turnDeg: number;
  /** Around the piece, mm. */
  marginMm: number;
  /** Smear, sd in pixels. */
  blurPx: number;
  /** By how much the light falls off from one corner to the other, as a share. */
  light: number;
  /** Grain of the stock, sd in grey levels, and noise of single pixels. */
  grain: number;
  noise: number;
  /** Specks of dirt on the whole picture. */
  specks: number;
  shades: { stock: number; mark: number };
};

export const SCAN_LOOK: ScanLook = {
  dpi: 1200,
  turnDeg: 0.7,
  marginMm: 3,
  blurPx: 1.1,
  light: 0.12,
  grain: 3,
  noise: 1.5,
  specks: 25,
  shades: { stock: 205, mark: 60 },
};

/** `grey` row by row from the top. */
export type ScanPicture = { width: number; height: number; grey: Uint8Array; dpi: number };

/**
 * @param area of the piece, mm
 * @throws RangeError when the picture would be too large
 */
export function scanPicture(
  marks: readonly Mark[],
  placement: Placement,
  area: { widthMm: number; heightMm: number },
  look: ScanLook,
  seed: number,
): ScanPicture {
  const perMm = look.dpi / MM_PER_INCH;
  const turn = (look.turnDeg * Math.PI) / 180;
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const reach = {
    x: Math.abs(c) * area.widthMm + Math.abs(s) * area.heightMm + 2 * look.marginMm,
    y: Math.abs(s) * area.widthMm + Math.abs(c) * area.heightMm + 2 * look.marginMm,
  };
  const [width, height] = [Math.round(reach.x * perMm), Math.round(reach.y * perMm)];
  if (!(width >= 1 && height >= 1 && width * height <= MOST_PIXELS))
    throw new RangeError(`dpi: a picture of ${width} × ${height} pixels cannot be drawn`);
  const { shades } = look;
  const grey = new Uint8Array(width * height).fill(shades.stock);
  const onPicture = (p: { x: number; y: number }) => {
    const [x, y] = [p.x - area.widthMm / 2, p.y - area.heightMm / 2];
    return { x: width / 2 + (c * x - s * y) * perMm, y: height / 2 - (s * x + c * y) * perMm };
  };
  for (const mark of marks) {
    const [a, b] = [onCoupon({ x: mark.x0, y: mark.y0 }, placement), onCoupon({ x: mark.x1, y: mark.y1 }, placement)];
    drawMark({ width, height, grey }, boxBetween(onPicture(a), onPicture(b), mark.widthMm * perMm), {
      ...shades,
      ...(mark.shade === undefined ? {} : { mark: mark.shade }),
    });
  }
  const random = seeded(seedOf(seed, "scan"));
  for (let i = 0; i < look.specks; i++) speck(grey, width, height, random);
  const smeared = smear(grey, width, height, look.blurPx);
  lightUp(smeared, width, height, look, random);
  return { width, height, grey: smeared, dpi: look.dpi };
}

function speck(grey: Uint8Array, width: number, height: number, random: Random): void {
  const [x, y] = [random.between(0, width), random.between(0, height)];
  const radius = random.between(1, 4);
  for (let row = Math.max(0, Math.floor(y - radius)); row <= Math.min(height - 1, y + radius); row++)
    for (let column = Math.max(0, Math.floor(x - radius)); column <= Math.min(width - 1, x + radius); column++)
      if (Math.hypot(column - x, row - y) < radius) grey[row * width + column] = 70;
}

/** Three boxes one after the other, of fractional width: nearly a bell. */
function smear(grey: Uint8Array, width: number, height: number, sd: number): Uint8Array {
  if (!(sd > 0)) return grey;
  // A box of weight 1 in the middle and e at either side has the variance 2e/(1 + 2e).
  const variance = sd ** 2 / 3;
  let from = grey;
  let left = variance;
  const steps: number[] = [];
  while (left > 1e-9) {
    const part = Math.min(left, 0.6);
    steps.push(part);
    left -= part;
  }
  for (let pass = 0; pass < 3; pass++)
    for (const part of steps) {
      const e = part / 2 / (1 - part);
      from = along(along(from, width, height, 1, width, e), height, width, width, 1, e);
    }
  return from;
}

/** Smears along one direction: `count` places `step` apart, on each of `others` lines `apart` from one another. */
function along(from: Uint8Array, count: number, others: number, step: number, apart: number, e: number): Uint8Array {
  const to = new Uint8Array(from.length);
  const share = 1 / (1 + 2 * e);
  for (let line = 0; line < others; line++) {
    const start = line * apart;
    for (let i = 0; i < count; i++) {
      const at = start + i * step;
      const here = from[at] ?? 0;
      const before = i > 0 ? (from[at - step] ?? 0) : here;
      const after = i < count - 1 ? (from[at + step] ?? 0) : here;
      to[at] = Math.round(share * (here + e * (before + after)));
    }
  }
  return to;
}

function lightUp(grey: Uint8Array, width: number, height: number, { light, grain, noise }: ScanLook, random: Random) {
  const cell = 5;
  const columns = Math.ceil(width / cell) + 1;
  const rows = Math.ceil(height / cell) + 1;
  const cells = Float32Array.from({ length: grain > 0 ? columns * rows : 0 }, () => grain * random.normal());
  // Enough different values; drawing one for each pixel would take most of the time.
  const noises = Float32Array.from({ length: 65_537 }, () => noise * random.normal());
  let drawn = 0;
  for (let y = 0; y < height; y++) {
    const [cy, fy] = [Math.floor(y / cell), (y % cell) / cell];
    for (let x = 0; x < width; x++) {
      const at = y * width + x;
      const lit = 1 - light * (x / width + y / height) * 0.5;
      let value = (grey[at] ?? 0) * lit;
      if (grain > 0) {
        const [cx, fx] = [Math.floor(x / cell), (x % cell) / cell];
        const node = (dx: number, dy: number) => cells[(cy + dy) * columns + cx + dx] ?? 0;
        value += (1 - fy) * ((1 - fx) * node(0, 0) + fx * node(1, 0)) + fy * ((1 - fx) * node(0, 1) + fx * node(1, 1));
      }
      drawn = (drawn + 1) % noises.length;
      value += noises[drawn] ?? 0;
      grey[at] = Math.max(0, Math.min(255, Math.round(value)));
    }
  }
}
