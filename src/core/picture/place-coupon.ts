/**
 * Finds a coupon in a picture and checks the scale, or says what is wrong with the picture.
 *
 * A placement is accepted if no other placement is nearly as good, rows are where rows are drawn, the known lengths agree with one scale
 * in both directions, and the marks have the expected brightness. Every other picture is refused with the reason.
 */
import type { Piece } from "../coupon/piece";
import { type Affine, mapped } from "../geometry/affine";
import { type CouponShape, couponShape } from "./coupon-shape";
import { CouponSearch, type FoundCoupon, WHOLE_OUT } from "./find-coupon";
import { checkedPicture, type GreyPicture } from "./grey-picture";
import { type NominalLine, nominalLines } from "./nominal-lines";
import { FILE_SCALE_ERROR, type PictureScale, scaleTimes } from "./picture-scale";
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
/** Least evidence against every other placement. (right placements have 0.8 to 1.1 on synthetic scans) */
const CLEARLY = 0.5;
/** A typed scale may be off by this share. The difference becomes part of the uncertainty. A scale from a file may be off by `FILE_SCALE_ERROR`. */
const MOST_SCALE_ERROR = 0.04;
/** Largest distortion as a share. More is a picture taken at an angle, or a stretched picture. */
const MOST_SHAPE = 0.015;
/** From this distortion on, scattered rows are explained by a picture taken at an angle. */
const SLIGHT_SHAPE = 0.006;
/** Least contrast to blank stock, as a share of the contrast to the surroundings. */
const LEAST_STANDING_OUT = 0.3;
/** Without long rows, the coupon is also searched at these scales. */
const NEARLY = [0.988, 1.012, 0.976, 1.024];
/** A scale that is wrong by one of these is met often: dots of another setting, inches for centimetres. (common practice, no source) */
const SCALE_SLIPS = [0.5, 2 / 3, 0.75, 0.8, 0.9, 1.1, 1.25, 4 / 3, 1.5, 2, 2.54, 3, 4];
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
  const looked: Looked = { search: new CouponSearch(picture, lines, scale, brighter), picture, lines, scale };
  const { best, given } = bestPlace(looked);
  if (best && isRight(best)) {
    const refusal = standsOutWrongly(looked, best, piece) ?? contradiction(best, scale);
    if (refusal) return refusal;
    if (best.found.mirrored) return refused(MIRRORED);
    if (best.found.inside < LEAST_INSIDE)
      return refused(
        `The picture shows only ${Math.round(100 * best.found.inside)} % of the coupon. Scan the whole coupon.`,
      );
    return { ok: true, lines, ...lyingAt(best.refined, best.slip.y) };
  }
  return (
    wrongPolarity(picture, lines, scale, brighter) ??
    atAnAngle(given?.shape ?? null, SLIGHT_SHAPE) ??
    wrongScale(looked) ??
    refused(given && isThere(given.found) && isOnItsRows(given) ? UNCLEAR : NOT_THERE)
  );
}

/** @param slip the scale by which it was found, over the one that is said */
export function lyingAt({ pose, pitchRatio }: RefinedPose, slip: number): Lying {
  return { pose, longer: { x: slip, y: slip * (pitchRatio ?? 1) }, byRows: pitchRatio !== null };
}

function refused(why: string, scaleTimes: number | null = null): Extract<PlacedCoupon, { ok: false }> {
  return { ok: false, why, scaleTimes };
}

type Looked = { search: CouponSearch; picture: GreyPicture; lines: readonly NominalLine[]; scale: PictureScale };
/** Scales divided by the given ones. */
type Slip = { x: number; y: number };
type There = { found: FoundCoupon; slip: Slip; refined: RefinedPose; shape: CouponShape | null };

function foundAt({ search, picture, lines, scale }: Looked, slip: Slip, out?: number): There | null {
  const found = search.find(
    { ...scale, xPixelsPerMm: slip.x * scale.xPixelsPerMm, yPixelsPerMm: slip.y * scale.yPixelsPerMm },
    out,
  );
  if (!found) return null;
  const refined = refinedPose(picture, found.pose, lines);
  return { found, slip, refined, shape: couponShape(picture, refined.pose, lines) };
}

/**
 * Searches at the given scale first, then at the scales that the known lengths suggest.
 *
 * @returns `best` is the accepted placement; `given` is the best placement at the given scale
 */
function bestPlace(looked: Looked): { best: There | null; given: There | null } {
  // Most pictures show the whole coupon. This search is short.
  const whole = foundAt(looked, { x: 1, y: 1 }, WHOLE_OUT);
  if (whole && isRight(whole)) return { best: whole, given: whole };
  const given = foundAt(looked, { x: 1, y: 1 });
  if (given && isRight(given)) return { best: given, given };
  const seen = given ?? whole;
  const slips = seen ? slipsToldBy(seen) : [];
  for (const slip of slips.length > 0 ? slips : NEARLY.map((nearly) => ({ x: nearly, y: nearly }))) {
    const there = foundAt(looked, slip);
    const nearer = there && !isRight(there) ? slipsToldBy(there)[0] : undefined;
    const best = nearer ? foundAt(looked, nearer) : there;
    if (best && isRight(best)) return { best, given: seen };
  }
  return { best: null, given: seen };
}

/**
 * Scales suggested by the known lengths. They do not need to know which row is which: row ends give the scale along X, row distances along Y.
 */
function slipsToldBy(there: There): Slip[] {
  const { slip, shape, refined } = there;
  const y = isOnItsRows(there) && refined.pitchRatio !== null ? slip.y * refined.pitchRatio : null;
  if (!shape) return y === null ? [] : [{ x: y, y }];
  const x = slip.x * (1 + shape.alongX);
  return [
    { x, y: x },
    { x, y: y ?? slip.y },
  ];
}

function isRight(there: There): boolean {
  const { clear } = there.found;
  return isThere(there.found) && isOnItsRows(there) && clear !== null && clear >= CLEARLY;
}

/** At a scale by which a block has a row more or less, rows lie anywhere between those that are drawn. */
function isOnItsRows({ refined }: There): boolean {
  return refined.scatter < MOST_SCATTER;
}

const NOT_THERE =
  "This coupon was not found in the picture. Check that the picture is sharp, shows the whole coupon, and has the right scale.";
const UNCLEAR =
  "The coupon fits this picture at more than one position. Scan it again with all lettering and all row ends.";
const MIRRORED = "The coupon is mirrored in this picture. Flip the picture, or scan the marked face.";

function isThere({ score, covered, explained }: FoundCoupon): boolean {
  return score >= LEAST.score && covered >= LEAST.covered && explained >= LEAST.explained;
}

/** A refusal if known lengths contradict the picture. */
function contradiction({ slip, refined, shape }: There, scale: PictureScale): PlacedCoupon | null {
  const [x, y] = [slip.x * (1 + (shape?.alongX ?? 0)), slip.y * (refined.pitchRatio ?? 1)];
  const tilted = atAnAngle(shape, MOST_SHAPE);
  if (tilted) return tilted;
  if (shape && Math.abs(x / y - 1) > MOST_SHAPE)
    return refused(
      `The picture is stretched. Compared with the dots per inch, the coupon is ${longerText(x - 1)} along its rows and ${longerText(y - 1)} across them. Enter the dots per inch of X and Y separately, or scan again.`,
    );
  const most = scale.source === "file" ? FILE_SCALE_ERROR : MOST_SCALE_ERROR;
  return refined.pitchRatio === null || Math.abs(y - 1) <= most ? null : scaleIsWrong(y);
}

function percent(share: number): string {
  return `${(100 * share).toFixed(1)} %`;
}

function longerText(share: number): string {
  return `${percent(Math.abs(share))} ${share < 0 ? "shorter" : "longer"}`;
}

function scaleIsWrong(times: number): PlacedCoupon {
  return refused(
    `The scale is wrong. On the coupon, 1 mm has ${times.toFixed(3)} times as many pixels. Enter the right dots per inch, or use the rows of the coupon.`,
    times,
  );
}

function atAnAngle(shape: CouponShape | null, most: number): PlacedCoupon | null {
  if (!shape) return null;
  const { wider, fanned } = shape;
  if (Math.max(Math.abs(wider), Math.abs(fanned)) <= most) return null;
  const how =
    Math.abs(wider) >= Math.abs(fanned)
      ? `The coupon is ${percent(Math.abs(wider))} ${wider < 0 ? "narrower" : "wider"} at the top than at the bottom.`
      : `The upper rows are turned by ${((180 / Math.PI) * Math.abs(fanned)).toFixed(2)}° against the lower rows.`;
  return refused(
    `The picture was taken at an angle. ${how} Use a scanner, or photograph the coupon from straight above.`,
  );
}

const POLARITY = {
  darker: "The marks are darker than the stock in this picture. Switch off “Marks are brighter than the stock”.",
  brighter: "The marks are brighter than the stock in this picture. Switch on “Marks are brighter than the stock”.",
};

function standsOutWrongly({ search, scale }: Looked, { found }: There, piece: Piece): PlacedCoupon | null {
  const stock = { x0: 0, y0: 0, x1: piece.widthMm, y1: piece.heightMm };
  const out = search.standsOut(found.pose, scale, stock);
  if (out === null || out >= LEAST_STANDING_OUT) return null;
  return refused(search.brighter ? POLARITY.darker : POLARITY.brighter);
}

/** @returns `null` if the coupon is not found with the other brightness either */
function wrongPolarity(
  picture: GreyPicture,
  lines: readonly NominalLine[],
  scale: PictureScale,
  brighter: boolean,
): PlacedCoupon | null {
  const search = new CouponSearch(picture, lines, scale, !brighter);
  const there = foundAt({ search, picture, lines, scale }, { x: 1, y: 1 });
  return there && isRight(there) ? refused(brighter ? POLARITY.darker : POLARITY.brighter) : null;
}

/** @returns `null` where the coupon would not be there with another scale either */
function wrongScale(looked: Looked): PlacedCoupon | null {
  const { search, scale } = looked;
  const ranked = SCALE_SLIPS.map((slip) => ({ slip, score: search.fromAfar(scaleTimes(scale, slip))?.score ?? 0 }));
  for (const { slip } of ranked.sort((a, b) => b.score - a.score).slice(0, CLOSELY)) {
    const near = foundAt(looked, { x: slip, y: slip });
    const nearer = slip * (1 + (near?.shape?.alongX ?? 0));
    const there = near && isRight(near) ? near : foundAt(looked, { x: nearer, y: nearer });
    if (!there || !isRight(there) || there.found.inside < LEAST_INSIDE) continue;
    return scaleIsWrong(there.slip.y * (there.refined.pitchRatio ?? 1));
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
