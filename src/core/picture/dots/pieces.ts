/**
 * Pieces of mark: pixels below the threshold that touch each other, diagonally too.
 *
 * Row by row, runs of mark are joined with the runs of the row above that they touch, by union and find with path halving. Neither a label
 * of each pixel nor a second pass is needed. [Rosenfeld & Pfaltz, J. ACM 13 (1966) 471, on runs; from memory]
 */
import type { GreyPicture } from "../grey-picture";
import { type Light, PaperLevels } from "./light";

export type Piece = {
  /** Pixels. */
  area: number;
  /** Mean place, from the middle of the first pixel. */
  x: number;
  y: number;
  /** Second moments about it, with that of a single pixel. */
  xx: number;
  yy: number;
  xy: number;
  left: number;
  right: number;
  top: number;
  bottom: number;
};

/** Of a pixel about its own middle, along each axis. */
const PIXEL_MOMENT = 1 / 12;

/** Sums of each label: area, x, y, x^2, y^2, xy; then the box. */
const FIELDS = 10;

export function piecesIn(picture: GreyPicture, light: Light): Piece[] {
  const { width, height, grey } = picture;
  const { sign } = light;
  const threshold = light.threshold ?? Number.POSITIVE_INFINITY;
  const levels = new PaperLevels(light, picture);
  const parent: number[] = [];
  const sums: number[] = [];
  const rootOf = (label: number): number => {
    let at = label;
    while (parent[at] !== at) {
      parent[at] = parent[parent[at] ?? at] ?? at;
      at = parent[at] ?? at;
    }
    return at;
  };
  const isMark = (paper: Float32Array, row: number, x: number) =>
    (paper[x] ?? 0) - sign * (grey[row + x] ?? 0) > threshold;
  let above: Run[] = [];
  let here: Run[] = [];
  for (let y = 0; y < height; y++) {
    const paper = levels.along(y);
    const row = y * width;
    here.length = 0;
    let k = 0;
    for (let x = 0; x < width; x++) {
      // Nearly every pixel is paper.
      if ((paper[x] ?? 0) - sign * (grey[row + x] ?? 0) <= threshold) continue;
      const from = x;
      while (x + 1 < width && isMark(paper, row, x + 1)) x++;
      while (k > 0 && (above[k - 1]?.to ?? -2) >= from - 1) k--;
      while (k < above.length && (above[k]?.to ?? 0) < from - 1) k++;
      let label = -1;
      for (let j = k; j < above.length; j++) {
        const touching = above[j];
        if (!touching || touching.from > x + 1) break;
        const root = rootOf(touching.label);
        if (label < 0) label = root;
        else if (label !== root) {
          parent[Math.max(label, root)] = Math.min(label, root);
          label = Math.min(label, root);
        }
      }
      if (label < 0) {
        label = parent.length;
        parent.push(label);
        sums.push(0, 0, 0, 0, 0, 0, width, -1, height, -1);
      }
      addRun(sums, label * FIELDS, from, x, y);
      here.push({ from, to: x, label });
    }
    [above, here] = [here, above];
  }
  for (let label = parent.length - 1; label > 0; label--) {
    const root = rootOf(label);
    if (root !== label) addSums(sums, root * FIELDS, label * FIELDS);
  }
  return parent.flatMap((_, label) => (rootOf(label) === label ? [pieceOf(sums, label * FIELDS)] : []));
}

type Run = { from: number; to: number; label: number };

function addRun(sums: number[], at: number, from: number, to: number, y: number): void {
  const n = to - from + 1;
  const sx = ((from + to) * n) / 2;
  // Sum of squares from `from` to `to`.
  const squares = (m: number) => (m * (m + 1) * (2 * m + 1)) / 6;
  const sxx = squares(to) - (from > 0 ? squares(from - 1) : 0);
  const add = (field: number, by: number) => {
    sums[at + field] = (sums[at + field] ?? 0) + by;
  };
  add(0, n);
  add(1, sx);
  add(2, n * y);
  add(3, sxx);
  add(4, n * y * y);
  add(5, sx * y);
  sums[at + 6] = Math.min(sums[at + 6] ?? from, from);
  sums[at + 7] = Math.max(sums[at + 7] ?? to, to);
  sums[at + 8] = Math.min(sums[at + 8] ?? y, y);
  sums[at + 9] = Math.max(sums[at + 9] ?? y, y);
}

function addSums(sums: number[], to: number, from: number): void {
  for (let field = 0; field < 6; field++) sums[to + field] = (sums[to + field] ?? 0) + (sums[from + field] ?? 0);
  for (const field of [6, 8]) sums[to + field] = Math.min(sums[to + field] ?? 0, sums[from + field] ?? 0);
  for (const field of [7, 9]) sums[to + field] = Math.max(sums[to + field] ?? 0, sums[from + field] ?? 0);
}

function pieceOf(sums: readonly number[], at: number): Piece {
  const value = (field: number) => sums[at + field] ?? Number.NaN;
  const area = value(0);
  const [x, y] = [value(1) / area, value(2) / area];
  return {
    area,
    x,
    y,
    xx: value(3) / area - x * x + PIXEL_MOMENT,
    yy: value(4) / area - y * y + PIXEL_MOMENT,
    xy: value(5) / area - x * y,
    left: value(6),
    right: value(7),
    top: value(8),
    bottom: value(9),
  };
}
