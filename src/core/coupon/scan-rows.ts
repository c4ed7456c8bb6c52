/**
 * The rows with which an area is filled: level, a row pitch apart, the first half a pitch above its lowest point.
 * What lies inside is told by counting crossings (even-odd). [W3C SVG 1.1 (Second Edition), 11.3, fill-rule evenodd]
 */
import { elementAt } from "../fitting/element-at";
import type { CouponPoint } from "../geometry/frames";
import { boundsOf } from "../geometry/rect";

export type ScanRow = { y: number; x0: number; x1: number };

/** @param outline closed; the last point is joined to the first */
export function scanRows(outline: readonly CouponPoint[], rowPitchMm: number): ScanRow[] {
  return rowsInside([outline], rowPitchMm);
}

/** Rows inside several closed outlines: an outline within another one is a hole. */
export function rowsInside(outlines: readonly (readonly CouponPoint[])[], rowPitchMm: number): ScanRow[] {
  if (!(rowPitchMm > 0)) throw new RangeError("rowPitchMm must be positive");
  const bounds = boundsOf(outlines.flat());
  if (!bounds) return [];
  const rows: ScanRow[] = [];
  for (let y = bounds.y0 + rowPitchMm / 2; y < bounds.y1; y += rowPitchMm) {
    const xs = outlines.flatMap((outline) => crossings(outline, y)).sort((p, q) => p - q);
    for (let i = 0; i + 1 < xs.length; i += 2) rows.push({ y, x0: elementAt(xs, i), x1: elementAt(xs, i + 1) });
  }
  return rows;
}

/** Where the outline crosses a level. An edge holds its lower end, not its upper one. */
function crossings(outline: readonly CouponPoint[], y: number): number[] {
  const xs: number[] = [];
  let a = elementAt(outline, outline.length - 1);
  for (const b of outline) {
    if (a.y <= y !== b.y <= y) xs.push(a.x + ((y - a.y) / (b.y - a.y)) * (b.x - a.x));
    a = b;
  }
  return xs;
}
