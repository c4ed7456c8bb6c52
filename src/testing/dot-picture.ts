/**
 * Pictures of dots by their exact cover of each pixel's neighbourhood, for tests and benchmarks: blurred discs on uneven paper with grain.
 *
 * A disc that is blurred by a bell of the deviation s has at the distance d from its edge the share (1 - erf(d / (s sqrt 2))) / 2, where it is
 * large against s. Nothing here knows how dots are looked for.
 */
import { quickNormalCdf } from "../core/fitting/normal";
import type { GreyPicture } from "../core/picture/grey-picture";
import type { Random } from "../practice/random";

export type DrawnDot = { x: number; y: number; r: number };

export type DotLook = {
  width: number;
  height: number;
  blurPx: number;
  /** Grain of single pixels and of cells of 4 pixels, grey levels. */
  noise: number;
  grain: number;
  /** By how much light falls off from corner to corner, as a share. */
  light: number;
};

const [PAPER, INK] = [215, 55];
const CELL_PX = 4;

export function dotPicture(dots: readonly DrawnDot[], look: DotLook, random: Random): GreyPicture {
  const { width, height } = look;
  const cover = new Float32Array(width * height);
  for (const dot of dots) drawDot(cover, dot, look);
  const columns = Math.ceil(width / CELL_PX) + 2;
  const cells = Float32Array.from(
    { length: columns * (Math.ceil(height / CELL_PX) + 2) },
    () => look.grain * random.normal(),
  );
  const noises = Float32Array.from({ length: 65_537 }, () => look.noise * random.normal());
  const grey = new Uint8Array(width * height);
  let drawn = Math.floor(65_537 * random.even());
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const at = y * width + x;
      const lit = 1 - look.light * 0.5 * (x / width + y / height);
      const cell = cells[Math.floor(y / CELL_PX) * columns + Math.floor(x / CELL_PX)] ?? 0;
      drawn = (drawn + 1) % noises.length;
      const value = lit * (PAPER + (INK - PAPER) * (cover[at] ?? 0)) + cell + (noises[drawn] ?? 0);
      grey[at] = Math.max(0, Math.min(255, Math.round(value)));
    }
  return { width, height, grey };
}

function drawDot(cover: Float32Array, { x, y, r }: DrawnDot, { width, height, blurPx }: DotLook): void {
  const reach = r + 4 * blurPx;
  const bottom = Math.min(height - 1, Math.ceil(y + reach));
  for (let row = Math.max(0, Math.floor(y - reach)); row <= bottom; row++) {
    const right = Math.min(width - 1, Math.ceil(x + reach));
    for (let column = Math.max(0, Math.floor(x - reach)); column <= right; column++) {
      const d = Math.hypot(column + 0.5 - x, row + 0.5 - y) - r;
      if (d > 4 * blurPx) continue;
      const at = row * width + column;
      cover[at] = Math.max(cover[at] ?? 0, quickNormalCdf(-d / blurPx));
    }
  }
}
