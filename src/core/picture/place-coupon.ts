/** Where a coupon lies in a picture, and whether the scale agrees with it; what is wrong with a picture in which it cannot be found. */
import type { Piece } from "../coupon/piece";
import { type Affine, mapped } from "../geometry/affine";
import { CouponSearch, type FoundCoupon, WHOLE_OUT } from "./find-coupon";
import { checkedPicture, type GreyPicture } from "./grey-picture";
import { type NominalLine, nominalLines } from "./nominal-lines";
import { type PictureScale, scaleTimes } from "./picture-scale";
import { type RefinedPose, refinedPose } from "./refined-pose";

/** Pixels. */
export type PicturePoint = { x: number; y: number };

export type CouponPlacement = {
  pose: Affine;
  /** Corners of the stock in the picture, counter-clockwise from its lower left. */
  outline: PicturePoint[];
  /** Share by which distances across rows are longer than the scale says; `null` where no rows tell. */
  scaleError: number | null;
};

/** Less than this is another picture. */
const LEAST = { score: 0.15, covered: 0.2, explained: 0.6 };
const LEAST_INSIDE = 0.9;
/** Rows that scatter more about the pose, as a share of half their distance, are not those that are drawn. (from synthetic scans) */
const MOST_SCATTER = 0.15;
/** Rows that lie closer or wider by more than this contradict the scale. */
export const SCALE_DOUBT = 0.015;
/** The coupon is looked for at the scale that is said first, and where it is not there at scales a little off. */
const NEARLY = [0.988, 1.012, 0.976, 1.024];
/** A scale that is wrong by one of these is met often: dots of another setting, inches for centimetres. (common practice, no source) */
const SCALE_SLIPS = [0.5, 2 / 3, 0.75, 0.8, 0.9, 0.95, 1.05, 1.1, 1.25, 4 / 3, 1.5, 2, 2.54, 3, 4];
/** At so many of them it is looked for closely. */
const CLOSELY = 2;

/** Where a coupon lies, and how much longer lengths are by the scale of the picture than by the coupon as it lies. */
export type Lying = {
  pose: Affine;
  longer: { x: number; y: number };
  /** Whether rows tell the latter across them. */
  byRows: boolean;
};

export type PlacedCoupon =
  | ({ ok: true; lines: NominalLine[] } & Lying)
  | {
      ok: false;
      why: string;
      /** So many times as many pixels as said has a mm, by the rows of the coupon; `null` where they do not tell. */
      scaleTimes: number | null;
    };

/** @param brighter marks are brighter than the stock, as on metal */
export function placeCoupon(picture: GreyPicture, piece: Piece, scale: PictureScale, brighter = false): PlacedCoupon {
  checkedPicture(picture);
  const lines = nominalLines(piece);
  const search = new CouponSearch(picture, lines, scale, brighter);
  const looked: Looked = { search, picture, lines, scale };
  // Most pictures show all of it, which is soon found.
  const whole = foundAt(looked, 1, WHOLE_OUT);
  const first = whole && isOnItsRows(whole) ? whole : foundAt(looked, 1);
  const there = first && isOnItsRows(first) ? first : bestOf([...NEARLY.map((slip) => foundAt(looked, slip)), first]);
  if (!there) return wrongScale(looked) ?? refused(NOT_THERE);
  const { found, slip, refined } = there;
  if (found.mirrored) return refused(MIRRORED);
  if (found.inside < LEAST_INSIDE)
    return refused(`Only ${Math.round(100 * found.inside)} % of the coupon is in this picture: take one of all of it.`);
  return { ok: true, lines, ...lyingAt(refined, slip) };
}

/** @param slip the scale by which it was found, over the one that is said */
export function lyingAt({ pose, pitchRatio }: RefinedPose, slip: number): Lying {
  return { pose, longer: { x: slip, y: slip * (pitchRatio ?? 1) }, byRows: pitchRatio !== null };
}

function refused(why: string): PlacedCoupon {
  return { ok: false, why, scaleTimes: null };
}

type Looked = { search: CouponSearch; picture: GreyPicture; lines: readonly NominalLine[]; scale: PictureScale };
type There = { found: FoundCoupon; slip: number; refined: RefinedPose };

function foundAt({ search, picture, lines, scale }: Looked, slip: number, out?: number): There | null {
  const found = search.find(scaleTimes(scale, slip), out);
  return found && isThere(found) ? { found, slip, refined: refinedPose(picture, found.pose, lines) } : null;
}

/** At a scale by which a block has a row more or less, rows lie anywhere between those that are drawn. */
function isOnItsRows({ refined }: There): boolean {
  return refined.scatter < MOST_SCATTER;
}

function bestOf(all: readonly (There | null)[]): There | null {
  const agreed = (one: There) => Number(isOnItsRows(one)) + one.found.covered * one.found.explained;
  return all.reduce((best, one) => (one && (!best || agreed(one) > agreed(best)) ? one : best), null);
}

const NOT_THERE =
  "This coupon cannot be found in the picture. Is it a picture of this one, sharp, and of all of it? Is the scale right?";
const MIRRORED = "The coupon is mirrored in this picture: flip the picture, or scan the marked face.";

function isThere({ score, covered, explained }: FoundCoupon): boolean {
  return score >= LEAST.score && covered >= LEAST.covered && explained >= LEAST.explained;
}

/** @returns `null` where the coupon would not be there with another scale either */
function wrongScale(looked: Looked): PlacedCoupon | null {
  const { search, scale } = looked;
  const ranked = SCALE_SLIPS.map((slip) => ({ slip, score: search.fromAfar(scaleTimes(scale, slip))?.score ?? 0 }));
  for (const { slip } of ranked.sort((a, b) => b.score - a.score).slice(0, CLOSELY)) {
    const there = foundAt(looked, slip);
    if (!there || there.found.inside < LEAST_INSIDE) continue;
    const times = slip * (there.refined.pitchRatio ?? 1);
    const why = `The scale is wrong: by the coupon itself, a mm has ${times.toFixed(3)} times as many pixels as said. Give the right dots per inch, or go by the rows of the coupon.`;
    return { ok: false, why, scaleTimes: times };
  }
  return null;
}

/** What can be shown of a coupon before its sites are read. */
export function placementOf({ pose, longer, byRows }: Lying, piece: Piece): CouponPlacement {
  const corners = [
    { x: 0, y: 0 },
    { x: piece.widthMm, y: 0 },
    { x: piece.widthMm, y: piece.heightMm },
    { x: 0, y: piece.heightMm },
  ];
  return {
    pose,
    scaleError: byRows ? longer.y - 1 : null,
    outline: corners.map((p) => mapped(pose, p)),
  };
}
