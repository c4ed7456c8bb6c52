/**
 * Widths of lines in a picture: two edges of one blur, fitted across each line where it is straight.
 *
 * Lines wider than four blurs tell their own blur and depth. Narrower ones do not: blur and depth of the wide ones, or of the ends of
 * lines where none is wide, are taken as known to some part, and what that leaves open is in the uncertainty.
 */

import { median } from "../fitting/median";
import { mean, pooled } from "../fitting/repeats";
import { effectiveFreedom } from "../fitting/student-t";
import type { Affine } from "../geometry/affine";
import type { Rect } from "../geometry/rect";
import { fitEdge, fitLine, type LineLook, type LineStart } from "./edge-fit";
import type { GreyPicture } from "./grey-picture";
import type { NominalLine } from "./nominal-lines";
import { eachPixel, pixelMm } from "./picture-window";
import { type Profile, ProfileGathering } from "./profile";
import { profileAcross, type RowSeen, seenIn } from "./row-profile";

/** Of the length of a line, as much of its middle as is looked at. */
const MIDDLE_SHARE = 0.7;
/** A line this many blurs wide tells its own blur. */
export const WIDE_IN_BLURS = 4;
/** How well blur and depth of other lines stand for those of a narrow one, as shares. (from synthetic scans, no source) */
const LOOK_SHARES = { blur: 0.04, depth: 0.05 };
/** How well the blur at the ends of lines stands for that across them, and how well shapes tell a depth. (from synthetic scans, no source) */
const [BLUR_FROM_ENDS, SHAPE_SHARE] = [0.06, 0.05];
/** So many lines tell by their shape how deep they are, of so many depths. */
const [BEST_SEEN, DEPTHS_TRIED] = [12, 16];
const WHITE = 255;
const NOTHING_USUAL = { sd: 0, freedom: 0 };
const REACH_MM = 0.9;
const BIN = 0.5;

/** A line looked at across. */
export type LineLooked = {
  line: NominalLine;
  profile: Profile;
  seen: RowSeen;
};

export type WidthSeen =
  | {
      ok: true;
      /** Mean of its lines, mm. */
      value: number;
      u: number;
      degreesOfFreedom: number;
      /** Each line: where its middle runs, and how wide it is. */
      lines: { y: number; x0: number; x1: number; width: number }[];
      /** Blur and depth of other lines stand in it. */
      narrow: boolean;
      blur: number;
    }
  | { ok: false; why: string };

/** Level lines whose middle lies in a rectangle, cut to it. */
export function linesWithin(lines: readonly NominalLine[], { x0, y0, x1, y1 }: Rect): NominalLine[] {
  return lines.flatMap((l) => {
    const [a, b] = [Math.max(x0, Math.min(l.x0, l.x1)), Math.min(x1, Math.max(l.x0, l.x1))];
    return l.row && l.y0 > y0 && l.y0 < y1 && b > a ? [{ ...l, x0: a, x1: b }] : [];
  });
}

/** Profiles across each line, mm. @param back inverse of `pose`; @param pitchMm to the next line: no profile reaches farther than half of it */
export function lookAcross(
  picture: GreyPicture,
  pose: Affine,
  back: Affine,
  lines: readonly NominalLine[],
  pitchMm: number,
): LineLooked[] {
  const reachMm = Math.min(REACH_MM, pitchMm / 2);
  return lines.flatMap((line) => {
    const margin = ((1 - MIDDLE_SHARE) / 2) * (line.x1 - line.x0);
    const span = { fromX: line.x0 + margin, toX: line.x1 - margin, reachMm };
    const { profile, inside } = profileAcross(picture, pose, back, { y0: line.y0, ...span });
    const seen = inside > 0.9 ? seenIn(profile) : null;
    return seen ? [{ line, profile, seen }] : [];
  });
}

function startOf({ seen }: LineLooked, pixel: number) {
  return { centre: seen.offset, width: Math.max(seen.width, pixel), blur: 1.2 * pixel };
}

/** How lines look, and how they might look just as well: each other look is one standard uncertainty away, by a cause of its own. */
export type KnownLook = LineLook & { others: LineLook[] };

/** Of the lines of a picture that are wide enough to tell it; of the ends and the shape of lines where none is. */
export function knownLook(
  picture: GreyPicture,
  pose: Affine,
  back: Affine,
  looked: readonly LineLooked[],
): KnownLook | null {
  const pixel = pixelMm(pose);
  const free = looked.flatMap((l) => {
    const fit = fitLine(l.profile, startOf(l, pixel), null);
    return fit && fit.width > WIDE_IN_BLURS * fit.blur ? [fit] : [];
  });
  if (free.length >= 3) {
    const blur = median(free.map((f) => f.blur));
    const look = lookOf(blur, median(free.map((f) => (f.depth > 0 ? f.depth / f.ground : f.depth))));
    const others = [{ ...look, blur: blur * (1 + LOOK_SHARES.blur) }, scaled(look, 1 + LOOK_SHARES.depth)];
    return { ...look, others };
  }
  const edges = looked.flatMap((l) => endsOf(picture, pose, back, l));
  if (edges.length < 4) return null;
  const blur = median(edges.map((e) => e.blur));
  const other = lookByShape(looked, pixel, blur * (1 + BLUR_FROM_ENDS));
  const look = lookByShape(looked, pixel, blur);
  return look && other && { ...look, others: [other, scaled(look, 1 + SHAPE_SHARE)] };
}

/** @param depth of dark marks as a share of the grey beside them, which goes with the light; of bright ones as it is, below 0 */
function lookOf(blur: number, depth: number): LineLook {
  return depth > 0 ? { blur, base: 0, share: depth } : { blur, base: depth, share: 0 };
}

function scaled({ blur, base, share }: LineLook, times: number): LineLook {
  return { blur, base: times * base, share: times * share };
}

/**
 * How dark lines are that are all narrow, by their shape: of all depths from what their middles show to black (or white), the one
 * with which the best seen of them together leave the least over.
 */
function lookByShape(looked: readonly LineLooked[], pixel: number, blur: number): LineLook | null {
  const seen = [...looked].sort(
    (a, b) => Math.abs(b.seen.depth) * b.seen.width - Math.abs(a.seen.depth) * a.seen.width,
  );
  const best = seen.slice(0, BEST_SEEN);
  const shown = best.map((l) => (l.seen.depth > 0 ? l.seen.depth / median(l.profile.grey) : l.seen.depth));
  const least = median(shown);
  const most = least > 0 ? 1 : -WHITE;
  const left = (depth: number) =>
    best.reduce((sum, l) => {
      const fit = fitLine(l.profile, { ...startOf(l, pixel), blur }, lookOf(blur, depth));
      return sum + (fit?.left ?? Infinity);
    }, 0);
  const depths = Array.from({ length: DEPTHS_TRIED }, (_, i) => least + ((i + 0.5) / DEPTHS_TRIED) * (most - least));
  const lefts = depths.map(left);
  const at = lefts.indexOf(Math.min(...lefts));
  return Number.isFinite(lefts[at]) ? lookOf(blur, depths[at] ?? Number.NaN) : null;
}

function endsOf(picture: GreyPicture, pose: Affine, back: Affine, { line, seen }: LineLooked) {
  const half = Math.max(0.35 * seen.width, pixelMm(pose) / 2);
  const y = line.y0 + seen.offset;
  const reach = Math.min(REACH_MM, (line.x1 - line.x0) / 4);
  return [line.x0, line.x1].flatMap((x) => {
    const gathering = new ProfileGathering(-reach, reach, BIN * pixelMm(pose));
    const area = { x0: x - reach, x1: x + reach, y0: y - half, y1: y + half };
    eachPixel(picture, pose, back, area, (px, _, grey) => gathering.add(px - x, grey));
    const edge = fitEdge(gathering.profile(), { at: 0, blur: 1.2 * pixelMm(pose) });
    return edge && Math.abs(edge.height) > 0.3 * Math.abs(seen.depth) ? [edge] : [];
  });
}

/** @param known of the picture as a whole; `null` where it tells none: then only wide lines are measured */
export function widthOf(looked: readonly LineLooked[], pose: Affine, known: KnownLook | null): WidthSeen {
  const pixel = pixelMm(pose);
  if (looked.length === 0) return { ok: false, why: "Nothing marked there." };
  const fits = looked.flatMap((l) => {
    const start = startOf(l, pixel);
    const free = fitLine(l.profile, start, null);
    if (free && free.width > WIDE_IN_BLURS * free.blur) return [{ l, fit: free, common: 0 }];
    const narrow = known && fitNarrow(l, { ...start, blur: known.blur }, known);
    return narrow ? [{ l, ...narrow }] : [];
  });
  const widths = fits.map((f) => f.fit.width);
  const value = mean(widths);
  // What blur and depth leave open is common to all narrow lines; how lines differ is not.
  const common = Math.max(...fits.map((f) => f.common));
  if (fits.length === 0 || common > value / 2)
    return { ok: false, why: "These lines are too narrow for this picture: take one with more dots per inch." };
  const own = Math.sqrt(fits.reduce((s, f) => s + f.fit.u ** 2, 0)) / fits.length;
  const spread = widths.length > 1 ? pooled([widths], NOTHING_USUAL).sd / Math.sqrt(widths.length) : 0;
  const degreesOfFreedom = effectiveFreedom([
    { u: Math.hypot(own, common), degreesOfFreedom: Infinity },
    { u: spread, degreesOfFreedom: Math.max(1, widths.length - 1) },
  ]);
  return {
    ok: true,
    value,
    u: Math.hypot(own, common, spread),
    degreesOfFreedom,
    narrow: common > 0,
    blur: median(fits.map((f) => f.fit.blur)),
    lines: fits.map(({ l, fit }) => ({
      y: l.line.y0 + fit.centre,
      x0: l.line.x0,
      x1: l.line.x1,
      width: fit.width,
    })),
  };
}

/** @returns with what other looks make of its width, standard uncertainty */
function fitNarrow({ profile }: LineLooked, start: LineStart, { others, ...look }: KnownLook) {
  const fit = fitLine(profile, start, look);
  const apart = others.map((other) => {
    const as = fit && fitLine(profile, { ...start, blur: other.blur }, other);
    return as ? as.width - fit.width : null;
  });
  // Where another look finds no line at all the width is anything.
  const known = apart.filter((a) => a !== null);
  return fit && { fit, common: known.length < apart.length ? fit.width : Math.hypot(...known) };
}
