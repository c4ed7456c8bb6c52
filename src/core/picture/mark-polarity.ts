/**
 * Whether marks are darker or brighter than the stock, by blank stock near them: between rows that lie close together the gaps look like
 * marks of the other kind.
 */
import type { Affine } from "../geometry/affine";
import type { Rect } from "../geometry/rect";
import type { ShrunkPicture } from "./darkness-map";

/** Blank stock is so far away from every line, mm. */
const BLANK_MM = 1.2;
/** Lines are compared with blank stock of their own tile, so that uneven light does not matter, mm. */
const TILE_MM = 12;
const FEWEST = 20;

/**
 * @param lines places along the drawn lines that marked, mm
 * @param stock in which blank places are looked for, mm
 * @returns grey of blank stock minus grey of the lines beside it: positive where marks are darker; `null` where no stock is blank
 */
export function blankMinusMarks(
  { width, height, cellPx, mean }: ShrunkPicture,
  lines: readonly { x: number; y: number }[],
  pose: Affine,
  stock: Rect,
): number | null {
  const perMm = Math.sqrt(Math.abs(pose.a * pose.d - pose.b * pose.c));
  const cellMm = cellPx / perMm;
  const greyAt = (x: number, y: number) => {
    const column = Math.floor((pose.a * x + pose.c * y + pose.e) / cellPx);
    const row = Math.floor((pose.b * x + pose.d * y + pose.f) / cellPx);
    return column >= 0 && row >= 0 && column < width && row < height ? (mean[row * width + column] as number) : null;
  };
  // Places that are near a line, in squares of half the distance.
  const square = BLANK_MM / 2;
  const key = (x: number, y: number) => `${Math.round(x / square)} ${Math.round(y / square)}`;
  const taken = new Set<string>();
  for (const { x, y } of lines)
    for (let i = -2; i <= 2; i++) for (let j = -2; j <= 2; j++) taken.add(key(x + i * square, y + j * square));
  const tiles = new Map<string, { blank: number[]; marks: number[] }>();
  const tileAt = (x: number, y: number) => {
    const name = `${Math.floor(x / TILE_MM)} ${Math.floor(y / TILE_MM)}`;
    const tile = tiles.get(name) ?? { blank: [], marks: [] };
    tiles.set(name, tile);
    return tile;
  };
  for (const { x, y } of lines) {
    const grey = greyAt(x, y);
    if (grey !== null) tileAt(x, y).marks.push(grey);
  }
  const step = Math.max(square, 2 * cellMm);
  for (let y = stock.y0 + BLANK_MM; y < stock.y1 - BLANK_MM; y += step)
    for (let x = stock.x0 + BLANK_MM; x < stock.x1 - BLANK_MM; x += step) {
      const grey = taken.has(key(x, y)) ? null : greyAt(x, y);
      if (grey !== null) tileAt(x, y).blank.push(grey);
    }
  const both = [...tiles.values()].filter((t) => t.blank.length >= FEWEST && t.marks.length >= FEWEST);
  const weight = both.reduce((sum, t) => sum + t.marks.length, 0);
  if (weight === 0) return null;
  return both.reduce((sum, t) => sum + t.marks.length * (average(t.blank) - average(t.marks)), 0) / weight;
}

function average(of: readonly number[]): number {
  return of.reduce((a, b) => a + b, 0) / of.length;
}
