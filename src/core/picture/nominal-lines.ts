/** Every straight line of a piece as it is drawn, with the rows that a controller fills in: what a picture of it should show. */
import type { Piece } from "../coupon/piece";
import { scanRows } from "../coupon/scan-rows";
import { strokesOf } from "../coupon/strokes";
import { boundsOf, type Rect } from "../geometry/rect";

export type NominalLine = {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
  /** Id of its marking settings. */
  settings: string;
  /** Level lines that are rows. */
  row: boolean;
  /** How the controller fills its area, where it does; which of its rows went right is then taken from practice. */
  filled: "both" | "right-going" | null;
};

/** Around all of them; `undefined` where there are none. */
export function boxOf(lines: readonly NominalLine[]): Rect | undefined {
  return boundsOf(
    lines.flatMap(({ x0, y0, x1, y1 }) => [
      { x: x0, y: y0 },
      { x: x1, y: y1 },
    ]),
  );
}

/** As they lie on the stock, in the direction in which they are burned, as far as that is known; rows of a filled area go right from the lowest on. */
export function nominalLines(piece: Piece): NominalLine[] {
  const lines: NominalLine[] = [];
  for (const { settings, points, closed } of strokesOf(piece)) {
    if (settings.use === "scan" && settings.scan) {
      const { rowPitchMm, direction } = settings.scan;
      scanRows(points, rowPitchMm).forEach(({ y, x0, x1 }, i) => {
        const [from, to] = direction === "both" && i % 2 === 1 ? [x1, x0] : [x0, x1];
        lines.push({ x0: from, y0: y, x1: to, y1: y, settings: settings.id, row: true, filled: direction });
      });
      continue;
    }
    const all = closed ? [...points, ...points.slice(0, 1)] : points;
    for (let i = 1; i < all.length; i++) {
      const [a, b] = [all[i - 1] as (typeof all)[number], all[i] as (typeof all)[number]];
      const row = settings.use === "rows" || a.y === b.y;
      lines.push({ x0: a.x, y0: a.y, x1: b.x, y1: b.y, settings: settings.id, row, filled: null });
    }
  }
  const { seen } = piece;
  if (!seen) return lines;
  const onStock = (x: number) => seen.fromXMm + (x - seen.fromXMm) * seen.stretchX;
  return lines.map((l) => ({ ...l, x0: onStock(l.x0), x1: onStock(l.x1) }));
}
