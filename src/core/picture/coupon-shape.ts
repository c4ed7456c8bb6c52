/**
 * Compares known lengths of the coupon with the picture: the scale error along the rows, and the distortion of a picture taken at an angle.
 *
 * All rows of a group end at the same X, so it does not matter which row is which. With x the nominal end of a row and y its position,
 *
 *   end - x = a + b x + c y + k x y
 *
 * b is the scale error along X. k times the height is the share by which the top is wider than the bottom. A view from the side turns the
 * upper rows against the lower ones.
 */
import { median } from "../fitting/median";
import type { Affine } from "../geometry/affine";
import { inverseOf } from "../geometry/affine";
import type { GreyPicture } from "./grey-picture";
import type { NominalLine } from "./nominal-lines";
import { eachPixel, pixelMm } from "./picture-window";
import { ProfileGathering } from "./profile";
import { rowAcross } from "./row-profile";
import { trimmedFit } from "./trimmed-fit";

export type CouponShape = {
  /** Scale error along X as a share, positive if lengths are too long. */
  alongX: number;
  /** Share by which the coupon is wider at its top than at its bottom. */
  wider: number;
  /** Turn of the upper rows against the lower ones, rad. */
  fanned: number;
};

/** Ends are searched within this distance of the drawn end, mm. */
const REACH_MM = 3.5;
/** The grey of the row is read this far inside the end, mm. */
const INSIDE_MM = 4;
const LOOKED_AT = 40;
const LEAST_ROW_MM = 12;
const FEWEST = 8;
/** An end is where the grey crosses this share of the contrast of its row. */
const HALF = 0.5;
/** Least contrast of a row, grey levels. */
const LEAST_CONTRAST = 10;
/** Least share of the window of an end that must be in the picture. */
const LEAST_INSIDE = 0.9;
/** Rows are searched within this distance of the drawn row, mm. */
const REACH_ACROSS_MM = 0.4;
/** Share of the rows that counts as the upper ones, and as the lower ones. */
const SHARE_OF_ROWS = 0.3;

/** @returns `null` if too few row ends are seen */
export function couponShape(picture: GreyPicture, pose: Affine, lines: readonly NominalLine[]): CouponShape | null {
  const back = inverseOf(pose);
  const level = lines.filter((l) => l.row && l.y0 === l.y1 && Math.abs(l.x1 - l.x0) >= LEAST_ROW_MM);
  const every = Math.max(1, Math.ceil(level.length / LOOKED_AT));
  const looked = level.filter((_, i) => i % every === 0);
  const ends = looked.flatMap((row) =>
    [Math.min(row.x0, row.x1), Math.max(row.x0, row.x1)].flatMap((x, i) => {
      const off = endOff(picture, pose, back, row.y0, x, i === 0 ? 1 : -1);
      return off === null ? [] : [{ x, y: row.y0, off }];
    }),
  );
  if (ends.length < FEWEST) return null;
  const [middleX, middleY] = [median(ends.map((e) => e.x)), median(ends.map((e) => e.y))];
  const fit = trimmedFit(
    ends.map((e) => [1, e.x - middleX, e.y - middleY, (e.x - middleX) * (e.y - middleY)]),
    ends.map((e) => e.off),
  );
  if (!fit) return null;
  const ys = ends.map((e) => e.y);
  const height = Math.max(...ys) - Math.min(...ys);
  return {
    alongX: fit.x[1] ?? Number.NaN,
    wider: (fit.x[3] ?? Number.NaN) * height,
    fanned: fannedOf(picture, pose, back, looked),
  };
}

/** Where a row ends relative to its drawn end, along X, mm; `null` if no end is seen. @param inward +1 at a left end, -1 at a right end */
function endOff(picture: GreyPicture, pose: Affine, back: Affine, y: number, x: number, inward: 1 | -1): number | null {
  const half = pixelMm(pose);
  const inner = rowAcross(picture, pose, back, lineAt(y), {
    fromX: Math.min(x + inward * INSIDE_MM, x + 2 * inward * INSIDE_MM),
    toX: Math.max(x + inward * INSIDE_MM, x + 2 * inward * INSIDE_MM),
    reachMm: REACH_ACROSS_MM,
  });
  if (!inner || Math.abs(inner.depth) < LEAST_CONTRAST) return null;
  const gathering = new ProfileGathering(-REACH_MM, REACH_MM, pixelMm(pose));
  const at = y + inner.offset;
  const area = { x0: x - REACH_MM, x1: x + REACH_MM, y0: at - half, y1: at + half };
  if (eachPixel(picture, pose, back, area, (px, _, grey) => gathering.add(px - x, grey)) < LEAST_INSIDE) return null;
  const { at: places, grey } = gathering.profile();
  if (places.length < FEWEST) return null;
  const [outside, inside] = endsOf(places, grey, inward);
  if (Math.abs(outside - inside) < HALF * Math.abs(inner.depth)) return null;
  const level = outside + HALF * (inside - outside);
  const isInside = (g: number) => inside > outside === g > level;
  // From outside inward: the last place outside the row.
  const order = inward === 1 ? places.map((_, i) => i) : places.map((_, i) => places.length - 1 - i);
  const last = order.findLastIndex((i) => !isInside(grey[i] ?? Number.NaN));
  return last < 0 || last === order.length - 1 ? null : (places[order[last] ?? Number.NaN] ?? Number.NaN);
}

/** Grey outside the end and inside the row, medians of the outer fifths. */
function endsOf(places: readonly number[], grey: readonly number[], inward: 1 | -1): [number, number] {
  const fifth = Math.max(1, Math.floor(places.length / 5));
  const [left, right] = [median(grey.slice(0, fifth)), median(grey.slice(-fifth))];
  return inward === 1 ? [left, right] : [right, left];
}

function lineAt(y: number): NominalLine {
  return { x0: 0, y0: y, x1: 0, y1: y, settings: "", row: true, filled: null };
}

/** Turn of the upper rows minus turn of the lower rows, from the middle of each row near both ends. */
function fannedOf(picture: GreyPicture, pose: Affine, back: Affine, rows: readonly NominalLine[]): number {
  const turns = rows.flatMap((row) => {
    const [left, right] = [Math.min(row.x0, row.x1), Math.max(row.x0, row.x1)];
    const [a, b] = [left + 0.1 * (right - left), right - 0.1 * (right - left)];
    const offs = [a, b].map((x) =>
      rowAcross(picture, pose, back, row, { fromX: x - 0.5, toX: x + 0.5, reachMm: REACH_ACROSS_MM }),
    );
    const [first, second] = offs;
    return first && second ? [{ y: row.y0, turn: (second.offset - first.offset) / (b - a) }] : [];
  });
  turns.sort((a, b) => a.y - b.y);
  const some = Math.floor(SHARE_OF_ROWS * turns.length);
  if (some < 2) return 0;
  return median(turns.slice(-some).map((t) => t.turn)) - median(turns.slice(0, some).map((t) => t.turn));
}
