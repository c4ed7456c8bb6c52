/** From afar: where a drawing, as squares, covers best what is dark in a map, by correlation over its box. */
import type { Affine } from "../geometry/affine";
import { boundsOf } from "../geometry/rect";
import type { DarknessMap } from "./darkness-map";

type Place = { x: number; y: number };
type Square = Place & { weight: number };

/** Many lines through a square make it no darker than it can be. */
const MOST_WEIGHT = 2;
/** More than any map is wide. */
const KEY_ROW = 65_536;

/** What is worked out for one map serves every way in which the drawing may lie. */
export class FarSearch {
  private readonly sums: Integral;
  private readonly squares: Integral;

  /** @param out such a share of the drawing may hang out of the picture, each way */
  constructor(
    private readonly map: DarknessMap,
    private readonly out: number,
  ) {
    this.sums = new Integral(map, (value) => value);
    this.squares = new Integral(map, (value) => value * value);
  }

  /**
   * @param samples places along the lines, mm
   * @param corners of what is covered besides, where nothing is drawn, mm
   * @param linear how the drawing is turned and scaled
   * @returns shift in pixels with the best correlation
   */
  place(samples: readonly Place[], corners: readonly Place[], linear: Affine): (Place & { score: number }) | null {
    const { cellPx, width, height } = this.map;
    const squares = inSquares(samples, linear, cellPx);
    const box = boundsOf([...squares, ...inSquares(corners, linear, cellPx)]);
    if (!box) return null;
    const [w, h] = [box.x1 - box.x0 + 1, box.y1 - box.y0 + 1];
    const [marginX, marginY] = [Math.ceil(this.out * w), Math.ceil(this.out * h)];
    // With room around it no square is asked whether it lies inside.
    const [roomX, roomY] = [marginX + w, marginY + h];
    const across = width + 2 * roomX;
    const padded = this.padded(roomX, roomY);
    const offsets = Int32Array.from(squares, (s) => (s.y - box.y0) * across + s.x - box.x0);
    const weights = Float64Array.from(squares, (s) => Math.min(MOST_WEIGHT, s.weight));
    const cells = w * h;
    const meanWeight = weights.reduce((a, b) => a + b, 0) / cells;
    const spread = weights.reduce((a, b) => a + b * b, 0) - cells * meanWeight ** 2;
    let best: (Place & { score: number }) | null = null;
    for (let y = -marginY; y + h <= height + marginY; y++)
      for (let x = -marginX; x + w <= width + marginX; x++) {
        const dark = this.sums.over(x, y, x + w, y + h);
        const variance = this.squares.over(x, y, x + w, y + h) - (dark * dark) / cells;
        if (variance <= 0) continue;
        const from = (y + roomY) * across + x + roomX;
        let product = 0;
        for (let i = 0; i < offsets.length; i++)
          product += (weights[i] ?? Number.NaN) * (padded[from + (offsets[i] ?? Number.NaN)] ?? Number.NaN);
        const score = (product - meanWeight * dark) / Math.sqrt(spread * variance);
        if (!best || score > best.score) best = { x, y, score };
      }
    // The middle of a square stands for all its samples.
    return best && { x: (best.x - box.x0) * cellPx, y: (best.y - box.y0) * cellPx, score: best.score };
  }

  private padded(roomX: number, roomY: number): Float32Array {
    const { width, height, dark } = this.map;
    const across = width + 2 * roomX;
    const padded = new Float32Array(across * (height + 2 * roomY));
    for (let y = 0; y < height; y++)
      padded.set(dark.subarray(y * width, (y + 1) * width), (y + roomY) * across + roomX);
    return padded;
  }
}

/** The drawing as squares of the map, each with how many samples it holds. */
function inSquares(samples: readonly Place[], { a, b, c, d }: Affine, cellPx: number): Square[] {
  const squares = new Map<number, Square>();
  for (const p of samples) {
    const [x, y] = [Math.floor((a * p.x + c * p.y) / cellPx), Math.floor((b * p.x + d * p.y) / cellPx)];
    const key = y * KEY_ROW + x;
    const square = squares.get(key);
    if (square) square.weight++;
    else squares.set(key, { x, y, weight: 1 });
  }
  return [...squares.values()];
}

/** Sums from the corner on: what any box holds is told by four of them. */
class Integral {
  private readonly sums: Float64Array;

  constructor(
    private readonly map: DarknessMap,
    of: (dark: number) => number,
  ) {
    const { width, height, dark } = map;
    this.sums = new Float64Array((width + 1) * (height + 1));
    for (let y = 0; y < height; y++) {
      let row = 0;
      for (let x = 0; x < width; x++) {
        row += of(dark[y * width + x] ?? Number.NaN);
        const at = (y + 1) * (width + 1) + x + 1;
        this.sums[at] = (this.sums[at - width - 1] ?? Number.NaN) + row;
      }
    }
  }

  /** Cut off at the edges. */
  over(x0: number, y0: number, x1: number, y1: number): number {
    const { width, height } = this.map;
    const { sums } = this;
    const [l, r] = [Math.max(0, Math.min(width, x0)), Math.max(0, Math.min(width, x1))];
    const [t, b] = [Math.max(0, Math.min(height, y0)), Math.max(0, Math.min(height, y1))];
    const [top, bottom] = [t * (width + 1), b * (width + 1)];
    return (
      (sums[bottom + r] ?? Number.NaN) -
      (sums[top + r] ?? Number.NaN) -
      (sums[bottom + l] ?? Number.NaN) +
      (sums[top + l] ?? Number.NaN)
    );
  }
}
