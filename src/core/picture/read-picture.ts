/**
 * A picture of a burned coupon, read: where the coupon lies, whether the scale agrees with it, and what every site shows.
 *
 * Sites are read by what physical quantity answers them, never by the procedure that asks.
 */

import type { Piece } from "../coupon/piece";
import type { Site } from "../coupon/site";
import { effectiveFreedom } from "../fitting/student-t";
import { type Affine, inverseOf, mapped } from "../geometry/affine";
import { countText } from "../metrology/count-text";
import type { GreyPicture } from "./grey-picture";
import { knownLook, type LineLooked, linesWithin, lookAcross, widthOf } from "./line-widths";
import type { NominalLine } from "./nominal-lines";
import { contradicted, type PictureScale } from "./picture-scale";
import { type CouponPlacement, type Lying, type PicturePoint, placeCoupon, placementOf } from "./place-coupon";
import { reachOf } from "./refined-pose";
import { endSet } from "./row-ends";
import { endsApart } from "./stagger";

/** Changes with anything that changes what is read from a picture. */
export const READER_VERSION = 3;

/** What is drawn over the picture at a site: pixels. */
export type SiteMark =
  | { kind: "point"; at: PicturePoint; set: "first" | "second"; kept: boolean }
  | { kind: "line"; from: PicturePoint; to: PicturePoint; set: "first" | "second" };

export type SiteRead = { site: string; marks: SiteMark[] } & (
  | { ok: true; value: number; u: number; degreesOfFreedom: number; note: string }
  | { ok: false; why: string; isBlank: boolean }
);

export type PictureRead =
  | ({ ok: true; sites: SiteRead[] } & CouponPlacement)
  | { ok: false; why: string; scaleTimes: number | null };

/** @param brighter marks are brighter than the stock, as on metal */
export function readPicture(
  picture: GreyPicture,
  piece: Piece,
  sites: readonly Site[],
  scale: PictureScale,
  brighter = false,
): PictureRead {
  const placed = placeCoupon(picture, piece, scale, brighter);
  if (!placed.ok) return placed;
  return { ...placementOf(placed, piece), ok: true, sites: readSites(picture, placed, sites, scale) };
}

/** What every site shows, with the coupon lying where it was found. */
export function readSites(
  picture: GreyPicture,
  { lines, ...lying }: Lying & { lines: readonly NominalLine[] },
  sites: readonly Site[],
  given: PictureScale,
): SiteRead[] {
  const { pose, longer } = lying;
  // A scale that the coupon contradicts has at least this uncertainty.
  const relative = contradicted(given, lying.byRows ? longer.y - 1 : null).relative;
  const scale = { ...given, relative };
  const back = inverseOf(pose);
  const widths = widthSites(picture, pose, back, lines, sites);
  const known = knownLook(...([picture, pose, back] as const), [...widths.values()].flat());
  return sites.flatMap((site): SiteRead[] => {
    const { measurand } = site;
    if (measurand.kind === "width" && measurand.of.kind === "line") {
      // Lines are looked for along X alone.
      if (measurand.of.along === "y") return [];
      const looked = widths.get(site.id) ?? [];
      return [readWidth(site.id, looked, lying, known, scale)];
    }
    if (measurand.kind !== "distance" || measurand.along !== "x") return [];
    const { from, to } = measurand;
    if (from.kind !== "row ends" || to.kind !== "row ends") return [];
    const seen = endsApart(picture, pose, back, lines, endSet(lines, from), endSet(lines, to));
    if (!seen.ok) return [{ site: site.id, ok: false, why: seen.why, isBlank: false, marks: [] }];
    const lost = seen.lost > 0 ? `, ${seen.lost} not seen` : "";
    return [
      {
        site: site.id,
        ok: true,
        value: longer.x * seen.value,
        ...withScale(seen, scale),
        note: `${seen.ends.length} ends${lost}`,
        marks: seen.ends.map((end) => ({
          kind: "point",
          at: mapped(pose, end),
          set: end.second ? "second" : "first",
          kept: end.kept,
        })),
      },
    ];
  });
}

function widthSites(
  picture: GreyPicture,
  pose: Affine,
  back: Affine,
  lines: readonly NominalLine[],
  sites: readonly Site[],
): Map<string, LineLooked[]> {
  return new Map(
    sites.flatMap((site): [string, LineLooked[]][] => {
      const { measurand } = site;
      if (measurand.kind !== "width" || measurand.of.kind !== "line") return [];
      const here = linesWithin(lines, measurand.of.within);
      return [[site.id, lookAcross(picture, pose, back, here, 2 * reachOf(here))]];
    }),
  );
}

function readWidth(
  site: string,
  looked: readonly LineLooked[],
  { pose, longer }: Lying,
  known: Parameters<typeof widthOf>[2],
  scale: PictureScale,
): SiteRead {
  const seen = widthOf(looked, pose, known);
  if (!seen.ok) return { site, ok: false, why: seen.why, isBlank: looked.length === 0, marks: [] };
  return {
    site,
    ok: true,
    value: longer.y * seen.value,
    ...withScale(seen, scale),
    note: `${countText(seen.lines.length, "line")}${seen.narrow ? ", narrow beside their blur" : ""}`,
    marks: seen.lines.flatMap(({ y, x0, x1, width }): SiteMark[] => [
      line(pose, x0, x1, y - width / 2, "first"),
      line(pose, x0, x1, y + width / 2, "second"),
    ]),
  };
}

/** Adds the uncertainty of the scale, which has infinite degrees of freedom. [JCGM 100:2008 G.4.1] */
function withScale(
  { value, u, degreesOfFreedom }: { value: number; u: number; degreesOfFreedom: number },
  { relative }: PictureScale,
): { u: number; degreesOfFreedom: number } {
  const ofScale = relative * value;
  const freedom = effectiveFreedom([
    { u, degreesOfFreedom },
    { u: Math.abs(ofScale), degreesOfFreedom: Infinity },
  ]);
  return { u: Math.hypot(u, ofScale), degreesOfFreedom: Math.min(MOST_FREEDOM, Math.max(1, freedom)) };
}

/** Larger degrees of freedom do not change the coverage factor. */
const MOST_FREEDOM = 1000;

function line(pose: Affine, x0: number, x1: number, y: number, set: "first" | "second"): SiteMark {
  return { kind: "line", from: mapped(pose, { x: x0, y }), to: mapped(pose, { x: x1, y }), set };
}
