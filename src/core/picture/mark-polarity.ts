/**
 * Whether the marks are darker or brighter than the stock, compared with blank stock near them. Gaps between close rows cannot be used,
 * because they look like marks of the other brightness.
 */
import { mean } from "../fitting/repeats";
import type { Affine } from "../geometry/affine";
import type { Rect } from "../geometry/rect";
import type { ShrunkPicture } from "./darkness-map";
import { pixelMm } from "./picture-window";

/** Distance of blank stock from every line, mm. */
const BLANK_MM = 1.2;
/** Lines are compared with blank stock in the same tile, mm. Uneven light then has no effect. */
const TILE_MM = 12;
const FEWEST = 20;

/**
 * @param lines points on the drawn lines that marked, mm
 * @param stock area in which blank stock is looked for, mm
 * @returns grey of blank stock minus grey of the lines near it, positive if marks are darker; `null` without blank stock
 */
export function blankMinusMarks(
  { width, height, cellPx, mean: greys }: ShrunkPicture,
  lines: readonly { x: number; y: number }[],
  pose: Affine,
  stock: Rect,
): number | null {
  const cellMm = cellPx * pixelMm(pose);
  const greyAt = (x: number, y: number) => {
    const column = Math.floor((pose.a * x + pose.c * y + pose.e) / cellPx);
    const row = Math.floor((pose.b * x + pose.d * y + pose.f) / cellPx);
    return column >= 0 && row >= 0 && column < width && row < height
      ? (greys[row * width + column] ?? Number.NaN)
      : null;
  };
  // Squares near a line, of half the distance.
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
  return both.reduce((sum, t) => sum + t.marks.length * (mean(t.blank) - mean(t.marks)), 0) / weight;
}
