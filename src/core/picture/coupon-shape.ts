/**
 * The coupon's own lengths against the picture: how much longer it is along its rows than the scale says, and whether its far end is
 * smaller than its near end, as where a page is photographed at an angle.
 *
 * All rows of a group end at the same X, whichever row is which. With x the nominal place of an end and y its row,
 *
 *   end - x = a + b x + c y + k x y
 *
 * b is the scale error along X, k times the height the share by which the top is wider than the bottom. What a view from the side does
 * shows in the turn of the rows, which differs between top and bottom.
 */
import { median } from "../fitting/robust-line";
import type { Affine } from "../geometry/affine";
import type { GreyPicture } from "./grey-picture";
import type { NominalLine } from "./nominal-lines";
import { eachPixel, inverted, pixelMm } from "./picture-window";
import { ProfileGathering } from "./profile";
import { rowAcross } from "./row-profile";
import { trimmedFit } from "./trimmed-fit";

export type CouponShape = {
  /** Share by which lengths along X are longer than the scale says. */
  alongX: number;
  /** Share by which the coupon is wider at its top than at its bottom. */
  wider: number;
  /** By how much its upper rows are turned against its lower ones, rad. */
  fanned: number;
};

/** Ends are looked for so far around where they are drawn, mm. */
const REACH_MM = 3.5;
/** Inside the end so much of the row must be dark, mm. */
const INSIDE_MM = 4;
const LOOKED_AT = 40;
const LEAST_ROW_MM = 12;
const FEWEST = 8;
/** Of the contrast of its row, an end is where the grey crosses this share. */
const HALF = 0.5;
/** Grey levels: less is no row. */
const LEAST_CONTRAST = 10;

/** @returns `null` where too few row ends are seen to tell */
export function couponShape(picture: GreyPicture, pose: Affine, lines: readonly NominalLine[]): CouponShape | null {
  const back = inverted(pose);
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
    alongX: fit.x[1] as number,
    wider: (fit.x[3] as number) * height,
    fanned: fannedOf(picture, pose, back, looked),
  };
}

/** How far inside (positive `inward`) or outside its drawn place a row ends, along X; `null` where no end is seen. */
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
  if (eachPixel(picture, pose, back, area, (px, _, grey) => gathering.add(px - x, grey)) < 0.9) return null;
  const { at: places, grey } = gathering.profile();
  if (places.length < FEWEST) return null;
  const [outside, inside] = endsOf(places, grey, inward);
  if (Math.abs(outside - inside) < HALF * Math.abs(inner.depth)) return null;
  const level = outside + HALF * (inside - outside);
  const isInside = (g: number) => inside > outside === g > level;
  // From outside inward, the first place from which on the row stays.
  const order = inward === 1 ? places.map((_, i) => i) : places.map((_, i) => places.length - 1 - i);
  const last = order.findLastIndex((i) => !isInside(grey[i] as number));
  return last < 0 || last === order.length - 1 ? null : (places[order[last] as number] as number);
}

/** Grey beyond the end and along the row, from the outer fifths. */
function endsOf(places: readonly number[], grey: readonly number[], inward: 1 | -1): [number, number] {
  const fifth = Math.max(1, Math.floor(places.length / 5));
  const [left, right] = [median(grey.slice(0, fifth)), median(grey.slice(-fifth))];
  return inward === 1 ? [left, right] : [right, left];
}

const REACH_ACROSS_MM = 0.4;
const SHARE_OF_ROWS = 0.3;

function lineAt(y: number): NominalLine {
  return { x0: 0, y0: y, x1: 0, y1: y, settings: "", row: true, filled: null };
}

/** Turn of the upper rows minus that of the lower ones, by the middles of each row near both ends. */
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
