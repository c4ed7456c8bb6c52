/** The rows of a coupon as they lie in a picture: how far off across they are, and how wide. */
import type { Affine } from "../geometry/affine";
import type { GreyPicture } from "./grey-picture";
import type { NominalLine } from "./nominal-lines";
import { eachPixel, pixelMm } from "./picture-window";
import { type Profile, ProfileGathering } from "./profile";

/** Bins across a row, of a pixel. */
const BIN = 0.5;

export type RowSeen = {
  /** Middle of the row across, minus where it is drawn, mm. */
  offset: number;
  /** Width at half its depth, mm. */
  width: number;
  /** How much darker (or brighter) it is than beside it. */
  depth: number;
};

/** Grey across a level line between two places along it. */
export function profileAcross(
  picture: GreyPicture,
  pose: Affine,
  back: Affine,
  { y0, fromX, toX, reachMm }: { y0: number; fromX: number; toX: number; reachMm: number },
): { profile: Profile; inside: number } {
  const gathering = new ProfileGathering(-reachMm, reachMm, BIN * pixelMm(pose));
  const area = { x0: fromX, x1: toX, y0: y0 - reachMm, y1: y0 + reachMm };
  const inside = eachPixel(picture, pose, back, area, (_, y, grey) => gathering.add(y - y0, grey));
  return { profile: gathering.profile(), inside };
}

/**
 * Where a row lies across, between two places along it, within half the way to its neighbours.
 *
 * @returns `null` where nothing stands out from the stock
 */
export function rowAcross(
  picture: GreyPicture,
  pose: Affine,
  back: Affine,
  line: NominalLine,
  span: { fromX: number; toX: number; reachMm: number },
): RowSeen | null {
  const { profile, inside } = profileAcross(picture, pose, back, { y0: line.y0, ...span });
  if (inside < 0.9 || profile.at.length < 5) return null;
  return seenIn(profile);
}

/** Noise of a mean of several pixels, grey levels: less is no row. */
const LEAST_DEPTH = 8;

/** Where a row lies in a profile across it; `null` where nothing stands out. */
export function seenIn({ at, grey }: Profile): RowSeen | null {
  const sorted = [...grey].sort((a, b) => a - b);
  const pick = (share: number) => sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? Number.NaN;
  // Stock is what there is more of.
  const middle = pick(0.5);
  const [lowest, highest] = [sorted[0] ?? Number.NaN, sorted[sorted.length - 1] ?? Number.NaN];
  const darker = middle - lowest >= highest - middle;
  const [ground, peak] = darker ? [pick(0.8), lowest] : [pick(0.2), highest];
  const depth = ground - peak;
  if (Math.abs(depth) < LEAST_DEPTH) return null;
  const shares = grey.map((g) => (ground - g) / depth);
  let [weight, moment, above] = [0, 0, 0];
  const step = ((at[at.length - 1] ?? Number.NaN) - (at[0] ?? Number.NaN)) / Math.max(1, at.length - 1);
  shares.forEach((share, i) => {
    if (share > 0.5) above += step;
    const w = Math.max(0, Math.min(1, share) - 0.2);
    weight += w;
    moment += w * (at[i] ?? Number.NaN);
  });
  return weight > 0 ? { offset: moment / weight, width: above, depth } : null;
}
