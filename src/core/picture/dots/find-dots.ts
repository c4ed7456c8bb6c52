/**
 * Round dots in a picture, each with its centre to a small part of a pixel.
 *
 *   1. Light: the median of each tile of the picture, between tiles by straight lines. What is darker by half the contrast of the dots is mark.
 *   2. Runs of mark in each row, joined with those of the row above by union and find: area, box and moments of each piece.
 *   3. Round pieces are dots; what is ragged, long or at the edge of the picture is told apart.
 *   4. Centre: mean place of the pixels around, weighted with their contrast to a plane through the ring outside the dot. Contrast below 20 %
 *      and above 92 % of that of the dot is clipped: there paper and saturation say more than the place of the edge.
 */
import { checkedPicture, type GreyPicture } from "../grey-picture";
import { type Light, lightOf } from "./light";
import { type Piece, piecesIn } from "./pieces";

export type Dot = {
  /** Pixels from the upper left corner of the picture; the middle of the first pixel is 0.5, 0.5. */
  x: number;
  y: number;
  /** Of a disc of the same area, pixels. */
  radiusPx: number;
  /** Darker than the paper around by this much, grey levels. */
  contrast: number;
};

export type DotsFound = {
  dots: Dot[];
  /** Pieces of mark that are no dots, by what they are. */
  other: { atEdge: number; notRound: number; specks: number };
};

/** Smaller pieces are specks, pixels. */
const LEAST_AREA = 9;
/** Ratio of the axes of the ellipse with the moments of the piece. */
const MOST_LONG = 1.5;
/** Area by that of the ellipse with the same moments: 1 for a disc. */
const FULL = { least: 0.85, most: 1.1 };
/** Weights begin and end at these shares of the contrast of the dot. */
const CLIP = { low: 0.2, high: 0.92 };
/** Radii of the disc that is weighted and of the ring of paper, in radii of the dot, and least width, pixels. */
const AROUND = { disc: 1.5, ring: 2.3, leastPx: 2.5 };
const CENTRINGS = 3;

/** @param brighter whether dots are brighter than what they are on, as on black anodised metal */
export function findDots(picture: GreyPicture, brighter = false): DotsFound {
  const { width, height } = checkedPicture(picture);
  const light = lightOf(picture, brighter);
  const other = { atEdge: 0, notRound: 0, specks: 0 };
  if (light.threshold === null) return { dots: [], other };
  const dots: Dot[] = [];
  for (const piece of piecesIn(picture, light)) {
    if (piece.area < LEAST_AREA) other.specks++;
    else if (piece.left === 0 || piece.top === 0 || piece.right === width - 1 || piece.bottom === height - 1)
      other.atEdge++;
    else if (!isRound(piece)) other.notRound++;
    else dots.push(centred(picture, light, piece));
  }
  return { dots, other };
}

/** Also true of squares. */
export function isRound({ area, xx, yy, xy }: Piece): boolean {
  const half = (xx + yy) / 2;
  const apart = Math.hypot((xx - yy) / 2, xy);
  const [long, short] = [half + apart, half - apart];
  // A disc of radius r has moments of r^2/4; a pixel by itself one of 1/12.
  const full = area / (4 * Math.PI * Math.sqrt(Math.max(1e-9, long * short)));
  return long <= MOST_LONG ** 2 * short && full >= FULL.least && full <= FULL.most;
}

function centred(picture: GreyPicture, light: Light, piece: Piece): Dot {
  const radiusPx = Math.sqrt(piece.area / Math.PI);
  let [x, y] = [piece.x, piece.y];
  let contrast = 0;
  for (let k = 0; k < CENTRINGS; k++) {
    const paper = paperAround(picture, light, x, y, radiusPx);
    contrast = contrastOf(picture, light, paper, x, y, radiusPx);
    const to = weightedCentre(picture, light, paper, contrast, x, y, radiusPx);
    if (!to) break;
    [x, y] = [to.x, to.y];
  }
  return { x: x + 0.5, y: y + 0.5, radiusPx, contrast };
}

/** Grey of the paper, a plane: level + a (x - x0) + b (y - y0). */
type Plane = { level: number; a: number; b: number; x0: number; y0: number };

/** Counts of values while a dot is looked at: used again for each. */
const GREYS = new Uint32Array(256);
/** Counts of contrasts, in quarters of a grey level. */
const CONTRASTS = new Uint32Array(4 * 512);

/** @returns the value below which a share of all counted values lies */
function quantileOf(counts: Uint32Array, all: number, share: number): number {
  let below = 0;
  for (let v = 0; v < counts.length; v++) {
    below += counts[v] ?? 0;
    if (below > share * all) return v;
  }
  return counts.length - 1;
}

function paperAround(picture: GreyPicture, { sign }: Light, x0: number, y0: number, radius: number): Plane {
  const { grey, width } = picture;
  const outer = Math.max(AROUND.ring * radius, AROUND.disc * radius + AROUND.leastPx);
  const inner = (AROUND.disc * radius) ** 2;
  GREYS.fill(0);
  let all = 0;
  for (const row of rowsWithin(picture, x0, y0, outer)) {
    for (let x = row.from; x <= row.to; x++) {
      if ((x - x0) ** 2 + row.dy2 < inner) continue;
      const v = grey[row.y * width + x] ?? 0;
      GREYS[v] = (GREYS[v] ?? 0) + 1;
      all++;
    }
  }
  if (all === 0) return { level: 0, a: 0, b: 0, x0, y0 };
  // Dirt and the next dot are darker than paper: the darker part of the ring does not count.
  const middle = quantileOf(GREYS, all, sign > 0 ? 0.6 : 0.4);
  const darker = quantileOf(GREYS, all, sign > 0 ? 0.25 : 0.75);
  const most = 2.5 * Math.max(3, Math.abs(middle - darker));
  let [n, sx, sy, sv, sxx, syy, sxy, sxv, syv] = [0, 0, 0, 0, 0, 0, 0, 0, 0];
  for (const row of rowsWithin(picture, x0, y0, outer)) {
    const dy = row.y - y0;
    for (let x = row.from; x <= row.to; x++) {
      const dx = x - x0;
      if (dx * dx + row.dy2 < inner) continue;
      const v = grey[row.y * width + x] ?? 0;
      if (v - middle > most || middle - v > most) continue;
      n++;
      sx += dx;
      sy += dy;
      sv += v;
      sxx += dx * dx;
      syy += dy * dy;
      sxy += dx * dy;
      sxv += dx * v;
      syv += dy * v;
    }
  }
  if (n < 7) return { level: sign * middle, a: 0, b: 0, x0, y0 };
  const [mx, my, mv] = [sx / n, sy / n, sv / n];
  const [cxx, cyy, cxy] = [sxx / n - mx * mx, syy / n - my * my, sxy / n - mx * my];
  const [cxv, cyv] = [sxv / n - mx * mv, syv / n - my * mv];
  const determinant = cxx * cyy - cxy * cxy;
  if (!(determinant > 1e-9)) return { level: sign * mv, a: 0, b: 0, x0, y0 };
  const a = (cxv * cyy - cyv * cxy) / determinant;
  const b = (cyv * cxx - cxv * cxy) / determinant;
  return { level: sign * (mv - a * mx - b * my), a: sign * a, b: sign * b, x0, y0 };
}

/** Middle of the pixels well inside the dot, below the paper. */
function contrastOf(picture: GreyPicture, { sign }: Light, paper: Plane, x: number, y: number, radius: number): number {
  const { grey, width } = picture;
  CONTRASTS.fill(0);
  let all = 0;
  for (const row of rowsWithin(picture, x, y, Math.max(1, 0.6 * radius))) {
    const level = paper.level + paper.b * (row.y - paper.y0) - paper.a * paper.x0;
    for (let px = row.from; px <= row.to; px++) {
      const below = level + paper.a * px - sign * (grey[row.y * width + px] ?? 0);
      const bin = Math.max(0, Math.min(CONTRASTS.length - 1, Math.round(4 * (below + 256))));
      CONTRASTS[bin] = (CONTRASTS[bin] ?? 0) + 1;
      all++;
    }
  }
  return all === 0 ? 0 : quantileOf(CONTRASTS, all, 0.5) / 4 - 256;
}

function weightedCentre(
  picture: GreyPicture,
  { sign }: Light,
  paper: Plane,
  contrast: number,
  x: number,
  y: number,
  radius: number,
): { x: number; y: number } | null {
  if (!(contrast > 0)) return null;
  const { grey, width } = picture;
  let [sum, sx, sy] = [0, 0, 0];
  for (const row of rowsWithin(picture, x, y, Math.max(AROUND.disc * radius, radius + AROUND.leastPx))) {
    const level = paper.level + paper.b * (row.y - paper.y0) - paper.a * paper.x0;
    for (let px = row.from; px <= row.to; px++) {
      const share = (level + paper.a * px - sign * (grey[row.y * width + px] ?? 0)) / contrast;
      if (share <= CLIP.low) continue;
      const weight = Math.min(share, CLIP.high) - CLIP.low;
      sum += weight;
      sx += weight * (px - x);
      sy += weight * (row.y - y);
    }
  }
  return sum > 0 ? { x: x + sx / sum, y: y + sy / sum } : null;
}

/** Pixels of a row whose middles lie within a distance of a point; `dy2` the square of how far the row is. */
type RowWithin = { y: number; from: number; to: number; dy2: number };

function* rowsWithin({ width, height }: GreyPicture, x: number, y: number, reach: number): Generator<RowWithin> {
  const bottom = Math.min(height - 1, Math.floor(y + reach));
  for (let row = Math.max(0, Math.ceil(y - reach)); row <= bottom; row++) {
    const dy2 = (row - y) ** 2;
    const half = Math.sqrt(Math.max(0, reach * reach - dy2));
    yield { y: row, from: Math.max(0, Math.ceil(x - half)), to: Math.min(width - 1, Math.floor(x + half)), dy2 };
  }
}
