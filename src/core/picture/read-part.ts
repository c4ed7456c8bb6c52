/**
 * One place of a coupon, in a box of a picture that shows it and little else: a microscope shot, or a scan in which the rest is not.
 *
 * It lies as it is drawn (a little turned is no matter), and all marks that are read there are in the box: which of them is which is
 * told by where they begin and end.
 */
import type { Piece } from "../coupon/piece";
import type { Site } from "../coupon/site";
import type { Affine } from "../geometry/affine";
import type { Rect } from "../geometry/rect";
import { checkedPicture, type GreyPicture } from "./grey-picture";
import { linesWithin } from "./line-widths";
import { type NominalLine, nominalLines } from "./nominal-lines";
import type { PictureScale } from "./picture-scale";
import { type Lying, lyingAt, type PicturePoint } from "./place-coupon";
import { placePart } from "./place-part";
import { readSites, type SiteMark, type SiteRead } from "./read-picture";
import { endSet } from "./row-ends";
import { witnessOf } from "./stagger";

/** Whole pixels of the picture: x0, y0 in it, x1, y1 beyond it. */
export type PixelBox = Rect;

/** Which place a part of the picture shows. */
export type PicturePart = { site: string; box: PixelBox };

export type PartRead = { read: SiteRead; pose: Affine | null };

/** Of a row, as much from its end inward as is looked for, mm. */
const OF_A_ROW_MM = 4.5;
const NO_SUCH = "This place cannot be told in a picture of it alone: take one of the whole coupon.";

/** Whether a picture of a site alone can show what is asked for there. */
export function isSeen(piece: Piece, site: Site): boolean {
  return linesRead(nominalLines(piece), site).length > 0;
}

/** @throws RangeError where the box does not lie in the picture */
export function readPart(
  picture: GreyPicture,
  piece: Piece,
  site: Site,
  box: PixelBox,
  scale: PictureScale,
  brighter = false,
): PartRead {
  const failed = (why: string): PartRead => ({
    read: { site: site.id, ok: false, why, isBlank: false, marks: [] },
    pose: null,
  });
  const lines = nominalLines(piece);
  const part = linesRead(lines, site);
  if (part.length === 0) return failed(NO_SUCH);
  const shown = cropped(picture, box);
  const placed = placePart(shown, part, site, scale, brighter);
  if (!placed.ok) return failed(placed.why);
  const lying = lyingAt(placed.refined, 1);
  const [read] = readSites(shown, { ...lying, lines }, [site], scale);
  return read ? { read: moved(read, box), pose: movedPose(lying, box) } : failed(NO_SUCH);
}

/** The marks that answer a site, of long rows the part at the end that is measured; none where they do not tell their place. */
function linesRead(lines: readonly NominalLine[], { measurand }: Site): NominalLine[] {
  if (measurand.kind === "width" && measurand.of.kind === "line" && !measurand.of.along) {
    const { x0, x1, y0, y1 } = measurand.of.within;
    // A line that goes on beyond shows nowhere how far along it the place is, one alone not which it is.
    const whole = linesWithin(lines, { x0: -Infinity, x1: Infinity, y0, y1 }).filter((l) => l.x1 > x0 && l.x0 < x1);
    return whole.length > 1 && whole.every((l) => l.x0 >= x0 && l.x1 <= x1) ? whole : [];
  }
  if (measurand.kind !== "distance" || measurand.from.kind !== "row ends" || measurand.to.kind !== "row ends")
    return [];
  const sets = [measurand.from, measurand.to].map((feature) => endSet(lines, feature));
  const block = sets.flatMap(({ rows }) => rows);
  // The one-way rows beside a filled block show which of its rows went right.
  const witness = block.some((row) => row.filled === "both") ? witnessOf(lines, block) : [];
  const { end } = measurand.from;
  return [
    ...sets.flatMap((set) => set.rows.map((row) => atItsEnd(row, set.end))),
    ...witness.map((row) => atItsEnd(row, end)),
  ];
}

function atItsEnd(row: NominalLine, end: "left" | "right"): NominalLine {
  const [left, right] = [Math.min(row.x0, row.x1), Math.max(row.x0, row.x1)];
  return end === "right"
    ? { ...row, x0: Math.max(left, right - OF_A_ROW_MM), x1: right }
    : { ...row, x0: left, x1: Math.min(right, left + OF_A_ROW_MM) };
}

function cropped({ width, height, grey }: GreyPicture, { x0, y0, x1, y1 }: PixelBox): GreyPicture {
  if (!(x0 >= 0 && y0 >= 0 && x1 <= width && y1 <= height && x1 > x0 && y1 > y0))
    throw new RangeError("box: it does not lie in the picture");
  const [across, down] = [x1 - x0, y1 - y0];
  const part = new Uint8Array(across * down);
  for (let row = 0; row < down; row++)
    part.set(grey.subarray((y0 + row) * width + x0, (y0 + row) * width + x1), row * across);
  return checkedPicture({ width: across, height: down, grey: part });
}

/** From the box to the picture it was taken from. */
function moved(read: SiteRead, { x0, y0 }: PixelBox): SiteRead {
  const to = ({ x, y }: PicturePoint) => ({ x: x + x0, y: y + y0 });
  const marks = read.marks.map(
    (m): SiteMark => (m.kind === "point" ? { ...m, at: to(m.at) } : { ...m, from: to(m.from), to: to(m.to) }),
  );
  return { ...read, marks };
}

function movedPose({ pose }: Lying, { x0, y0 }: PixelBox): Affine {
  return { ...pose, e: pose.e + x0, f: pose.f + y0 };
}
