/** By how much the lines of a picture are turned against its edges: lines of a coupon run along two axes. */
import type { Rect } from "../geometry/rect";
import type { DarknessMap } from "./darkness-map";

/**
 * The direction of all edges together, each taken four times so that both axes and both sides of a line agree.
 *
 * @returns radians, -pi/4 to pi/4: turning the picture axes by it lays them along the lines (Y down)
 */
export function turnOf({ width, height, dark }: DarknessMap): number {
  let [cosines, sines] = [0, 0];
  for (let y = 1; y < height - 1; y++)
    for (let x = 1; x < width - 1; x++) {
      const i = y * width + x;
      const [above, below] = [i - width, i + width];
      const [nw, ne] = [dark[above - 1] ?? Number.NaN, dark[above + 1] ?? Number.NaN];
      const [sw, se] = [dark[below - 1] ?? Number.NaN, dark[below + 1] ?? Number.NaN];
      const gx = ne - nw + 2 * ((dark[i + 1] ?? Number.NaN) - (dark[i - 1] ?? Number.NaN)) + se - sw;
      const gy = sw - nw + 2 * ((dark[below] ?? Number.NaN) - (dark[above] ?? Number.NaN)) + se - ne;
      const squared = gx * gx + gy * gy;
      if (squared === 0) continue;
      // cos 4a and sin 4a of the direction a, times the square of the slope.
      const [c2, s2] = [(gx * gx - gy * gy) / squared, (2 * gx * gy) / squared];
      cosines += squared * (c2 * c2 - s2 * s2);
      sines += squared * 2 * c2 * s2;
    }
  return Math.atan2(sines, cosines) / 4;
}

/** The turn is refined within this angle of the first estimate, rad. Coarse pixels make the first estimate inexact. */
const AROUND_RAD = 0.03;
const TURNS_TRIED = 19;
const REFINEMENTS = 3;
/** Most dark squares used. */
const MOST_SQUARES = 40_000;
/** Squares below this share of the darkest hundredth are not part of a line. */
const LINE_SHARE = 0.3;

/**
 * The turn with the sharpest rows or columns. The darkness is added up along each axis, and the sum of the squares of these sums is largest
 * at this turn.
 *
 * @param start first estimate, rad
 * @param area part of the map in squares; default is the whole map
 * @returns rad; `start` if nothing is dark
 */
export function sharpestTurn({ width, height, dark }: DarknessMap, start: number, area?: Rect): number {
  const { x0, y0, x1, y1 } = area ?? { x0: 0, y0: 0, x1: width, y1: height };
  const least = LINE_SHARE * darkest(dark);
  const xs: number[] = [];
  const ys: number[] = [];
  const weights: number[] = [];
  for (let y = Math.max(0, Math.floor(y0)); y < Math.min(height, y1); y++)
    for (let x = Math.max(0, Math.floor(x0)); x < Math.min(width, x1); x++) {
      const value = dark[y * width + x] ?? Number.NaN;
      if (value <= least) continue;
      xs.push(x - width / 2);
      ys.push(y - height / 2);
      weights.push(value);
    }
  if (weights.length === 0) return start;
  const every = Math.max(1, Math.floor(weights.length / MOST_SQUARES));
  const reach = Math.ceil(Math.hypot(width, height)) + 2;
  const [along, across] = [new Float64Array(2 * reach), new Float64Array(2 * reach)];
  const sharpness = (turn: number) => {
    const [c, s] = [Math.cos(turn), Math.sin(turn)];
    along.fill(0);
    across.fill(0);
    for (let i = 0; i < weights.length; i += every) {
      const [x, y, w] = [xs[i] ?? Number.NaN, ys[i] ?? Number.NaN, weights[i] ?? Number.NaN];
      const [u, v] = [Math.floor(c * x + s * y) + reach, Math.floor(c * y - s * x) + reach];
      along[u] = (along[u] ?? Number.NaN) + w;
      across[v] = (across[v] ?? Number.NaN) + w;
    }
    return Math.max(squares(along), squares(across));
  };
  let [best, around] = [start, AROUND_RAD];
  for (let round = 0; round < REFINEMENTS; round++) {
    const from = best;
    let most = -1;
    for (let k = 0; k < TURNS_TRIED; k++) {
      const turn = from + around * ((2 * k) / (TURNS_TRIED - 1) - 1);
      const score = sharpness(turn);
      if (score > most) [best, most] = [turn, score];
    }
    around /= (TURNS_TRIED - 1) / 4;
  }
  return best;
}

function squares(of: Float64Array): number {
  let sum = 0;
  for (const value of of) sum += value * value;
  return sum;
}

/** Darkness that 99 % of the squares do not exceed. */
function darkest(dark: Float32Array): number {
  const some = dark.filter((_, i) => i % 7 === 0).sort();
  return some[Math.floor(0.99 * some.length)] ?? 0;
}
