/**
 * A picture seen from afar: how much darker each small square is than its surroundings, whatever the light.
 *
 * Marks can be darker or brighter than the stock; what counts is the difference.
 */
import type { GreyPicture } from "./grey-picture";

export type DarknessMap = {
  width: number;
  height: number;
  /** Pixels of the picture to a square. */
  cellPx: number;
  /** By how much each square is darker than what lies around it, >= 0, grey levels. */
  dark: Float32Array;
};

/** A picture in small squares: each the mean of its pixels. */
export type ShrunkPicture = { width: number; height: number; cellPx: number; mean: Float32Array };

/** Surroundings reach so far, mm. */
const AROUND_MM = 3;

/** Of a square this large every other row of pixels tells as much. */
const LARGE_PX = 5;

/** @param cellPx side of a square, pixels */
export function shrunk({ width: full, height: tall, grey }: GreyPicture, cellPx: number): ShrunkPicture {
  const [width, height] = [Math.max(1, Math.floor(full / cellPx)), Math.max(1, Math.floor(tall / cellPx))];
  const mean = new Float32Array(width * height);
  const sums = new Uint32Array(width);
  const every = cellPx >= LARGE_PX ? 2 : 1;
  const share = 1 / (cellPx * Math.ceil(cellPx / every));
  for (let row = 0; row < height; row++) {
    sums.fill(0);
    for (let dy = 0; dy < cellPx; dy += every) {
      let at = (row * cellPx + dy) * full;
      for (let column = 0; column < width; column++) {
        let sum = 0;
        for (let dx = 0; dx < cellPx; dx++) sum += grey[at++] ?? Number.NaN;
        sums[column] = (sums[column] ?? Number.NaN) + sum;
      }
    }
    for (let column = 0; column < width; column++) mean[row * width + column] = (sums[column] ?? Number.NaN) * share;
  }
  return { width, height, cellPx, mean };
}

/**
 * @param fine the picture in squares
 * @param times so many of them to a side
 * @param perMm pixels of the picture to a mm
 * @param brighter marks are brighter than the stock, as on metal
 * @param grain of what is looked for, beside a coupon: surroundings reach so much less far
 */
export function darknessMap(
  fine: ShrunkPicture,
  times: number,
  perMm: number,
  brighter: boolean,
  grain: number,
): DarknessMap {
  const { width, height, cellPx, mean } = times > 1 ? shrunkAgain(fine, times) : fine;
  const around = boxMean(mean, width, height, Math.max(1, Math.round((grain * AROUND_MM * perMm) / cellPx)));
  const sign = brighter ? -1 : 1;
  const dark = new Float32Array(width * height);
  for (let i = 0; i < dark.length; i++)
    dark[i] = Math.max(0, sign * ((around[i] ?? Number.NaN) - (mean[i] ?? Number.NaN)));
  return { width, height, cellPx, dark };
}

function shrunkAgain(fine: ShrunkPicture, times: number): ShrunkPicture {
  const [width, height] = [Math.max(1, Math.floor(fine.width / times)), Math.max(1, Math.floor(fine.height / times))];
  const mean = new Float32Array(width * height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      let sum = 0;
      for (let dy = 0; dy < times; dy++) {
        const at = (y * times + dy) * fine.width + x * times;
        for (let dx = 0; dx < times; dx++) sum += fine.mean[at + dx] ?? Number.NaN;
      }
      mean[y * width + x] = sum / times ** 2;
    }
  return { width, height, cellPx: fine.cellPx * times, mean };
}

/** Mean over the squares around each, as far as there are some. */
function boxMean(of: Float32Array, width: number, height: number, reach: number): Float32Array {
  const sums = new Float64Array((width + 1) * (height + 1));
  for (let y = 0; y < height; y++) {
    let row = 0;
    for (let x = 0; x < width; x++) {
      row += of[y * width + x] ?? Number.NaN;
      sums[(y + 1) * (width + 1) + x + 1] = (sums[y * (width + 1) + x + 1] ?? Number.NaN) + row;
    }
  }
  const mean = new Float32Array(width * height);
  for (let y = 0; y < height; y++) {
    const [y0, y1] = [Math.max(0, y - reach), Math.min(height, y + reach + 1)];
    for (let x = 0; x < width; x++) {
      const [x0, x1] = [Math.max(0, x - reach), Math.min(width, x + reach + 1)];
      const [above, below] = [y0 * (width + 1), y1 * (width + 1)];
      const sum =
        (sums[below + x1] ?? Number.NaN) -
        (sums[above + x1] ?? Number.NaN) -
        (sums[below + x0] ?? Number.NaN) +
        (sums[above + x0] ?? Number.NaN);
      mean[y * width + x] = sum / ((y1 - y0) * (x1 - x0));
    }
  }
  return mean;
}
