/** Where one place of a coupon lies in a picture of little else: by its rows across, by where they end along. */
import type { Site } from "../coupon/site";
import { type Affine, composed, mapped } from "../geometry/affine";
import type { Rect } from "../geometry/rect";
import { CouponSearch } from "./find-coupon";
import type { GreyPicture } from "./grey-picture";
import { boxOf, type NominalLine } from "./nominal-lines";
import type { PictureScale } from "./picture-scale";
import { pixelMm } from "./picture-window";
import { type RefinedPose, reachOf, refinedPose } from "./refined-pose";

/** The size of a coupon for which the search is made, mm: a smaller part is looked for with finer squares, down to this share. */
const [USUAL_MM, FINEST] = [60, 0.08];
/** Beyond the end of rows and lines nothing is marked for so long, mm. */
const BLANK_MM = 0.8;
/** What is dark there weighs so many times what is dark on the marks. */
const OUTSIDE_COUNTS = 3;
const [LEAST_COVERED, LEAST_INSIDE] = [0.5, 0.9];

const NOT_THERE =
  "The marks were not found in this box. Draw the box around all marks of the point, including the one-way rows beside its block. Check the scale.";
const CUT_OFF =
  "Some marks of this point are outside the box. Include all of them, and the one-way rows beside the block.";

const WHICH_ROW =
  "The rows in this box cannot be identified. Make the box higher, so that it includes the first row, the last row and the one-way rows.";

/**
 * @param part the marks that answer the site, of long rows the end that is measured
 * @param brighter marks are brighter than the stock, as on metal
 */
export function placePart(
  shown: GreyPicture,
  part: readonly NominalLine[],
  { measurand }: Site,
  scale: PictureScale,
  brighter: boolean,
): { ok: true; refined: RefinedPose } | { ok: false; why: string } {
  const drawn = drawnBox(part);
  const grain = Math.min(1, Math.max(FINEST, Math.min(drawn.x1 - drawn.x0, drawn.y1 - drawn.y0) / USUAL_MM));
  const window = windowOf(drawn, measurand);
  const found = new CouponSearch(shown, part, scale, brighter, { grain, window }).find(scale);
  if (!found || found.covered < LEAST_COVERED) return { ok: false, why: NOT_THERE };
  const nearly = onItsRows(shown, found.pose, part);
  const refined = onItsRows(shown, placedAlong(shown, nearly.pose, part, window, brighter), part);
  if (insideOf(shown, refined.pose, part) < LEAST_INSIDE) return { ok: false, why: CUT_OFF };
  // Of rows that go either way the sign hangs on which is which.
  if (measurand.kind === "distance" && refined.seen <= refined.nextBest) return { ok: false, why: WHICH_ROW };
  return { ok: true, refined };
}

function drawnBox(part: readonly NominalLine[]): Rect {
  const box = boxOf(part);
  if (!box) throw new RangeError("part: nothing is drawn there");
  return box;
}

/** As it was found, or so many rows up or down that most of them are seen; and how many are seen a row beside that. */
function onItsRows(
  shown: GreyPicture,
  found: Affine,
  rows: readonly NominalLine[],
): RefinedPose & { nextBest: number } {
  const ys = rows.map((row) => row.y0).sort((a, b) => a - b);
  const pitch = Math.min(...ys.slice(1).map((y, i) => y - (ys[i] ?? Number.NaN)));
  const moved = (from: Affine, by: number) =>
    refinedPose(shown, composed(from, { a: 1, b: 0, c: 0, d: 1, e: 0, f: by * pitch }), rows);
  let here = refinedPose(shown, found, rows);
  for (let step = 0; step < rows.length; step++) {
    const beside = [moved(here.pose, -1), moved(here.pose, 1)] as const;
    const better = beside[0].seen > beside[1].seen ? beside[0] : beside[1];
    if (better.seen <= here.seen) return { ...here, nextBest: better.seen };
    here = better;
  }
  return { ...here, nextBest: here.seen };
}

/** So many rows tell where they end. */
const ROWS_LOOKED_AT = 16;

/** Moved along its rows to where they are dark on the marks and no more beyond them. */
function placedAlong(
  shown: GreyPicture,
  pose: Affine,
  rows: readonly NominalLine[],
  window: Rect,
  brighter: boolean,
): Affine {
  const step = pixelMm(pose);
  const every = Math.max(1, Math.floor(rows.length / ROWS_LOOKED_AT));
  const looked = rows.filter((_, i) => i % every === 0);
  const between = reachOf(rows);
  const reach = (step * Math.hypot(shown.width, shown.height)) / 2;
  const steps = Math.ceil(reach / step);
  const greyAt = (x: number, y: number) => {
    const at = mapped(pose, { x, y });
    const [column, row] = [Math.floor(at.x), Math.floor(at.y)];
    const isThere = column >= 0 && row >= 0 && column < shown.width && row < shown.height;
    return isThere ? (shown.grey[row * shown.width + column] ?? Number.NaN) : null;
  };
  /** By how much rows stand out from beside them there; nothing beyond the picture. */
  const standOut = (x: number) =>
    looked.reduce((sum, { y0 }) => {
      const [on, beside] = [greyAt(x, y0), greyAt(x, y0 + between)];
      return on === null || beside === null ? sum : sum + (brighter ? on - beside : beside - on);
    }, 0) / looked.length;
  const [first, last] = [window.x0 - steps * step, window.x1 + steps * step];
  const sums = [0];
  for (let x = first; x < last; x += step) sums.push((sums.at(-1) ?? 0) + standOut(x));
  const over = (x0: number, x1: number) => {
    const upTo = (x: number) =>
      sums[Math.max(0, Math.min(sums.length - 1, Math.round((x - first) / step)))] ?? Number.NaN;
    return upTo(x1) - upTo(x0);
  };
  const drawn = drawnBox(rows);
  const agreement = (by: number) =>
    over(drawn.x0 + by, drawn.x1 + by) -
    OUTSIDE_COUNTS * (over(window.x0 + by, drawn.x0 + by) + over(drawn.x1 + by, window.x1 + by));
  const shifts = Array.from({ length: 2 * steps + 1 }, (_, i) => (i - steps) * step);
  const best = shifts.reduce((a, b) => (agreement(b) > agreement(a) ? b : a), 0);
  return composed(pose, { a: 1, b: 0, c: 0, d: 1, e: best, f: 0 });
}

function insideOf({ width, height }: GreyPicture, pose: Affine, rows: readonly NominalLine[]): number {
  const ends = rows.flatMap(({ x0, x1, y0 }) => [x0, x1].map((x) => mapped(pose, { x, y: y0 })));
  return ends.filter(({ x, y }) => x >= 0 && y >= 0 && x < width && y < height).length / ends.length;
}

/** With what is blank around the marks, as far as something is known of it. */
function windowOf({ x0, y0, x1, y1 }: Rect, measurand: Site["measurand"]): Rect {
  const ends = measurand.kind === "distance" && measurand.from.kind === "row ends" ? measurand.from.end : "both";
  return { x0: ends === "right" ? x0 : x0 - BLANK_MM, y0, x1: ends === "left" ? x1 : x1 + BLANK_MM, y1 };
}
