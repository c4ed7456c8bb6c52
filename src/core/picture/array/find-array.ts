/**
 * Where an array of cells lies in a picture: by its five dots, four at the corners and one more that tells which corner is which.
 *
 *   1. Light: the brightest part of each large tile is the blank stock. What stands out by a share of the strongest marks is mark.
 *   2. Round pieces of mark are candidates; cells of the array are among them.
 *   3. Each two candidates are tried as front left and back right. Their distance gives the scale, by which their size must fit. The other dots are
 *      looked for where they should be.
 *   4. Of all that fit, the one whose fifth dot lies nearest to where the four corners put it.
 */
import type { PlanePoint } from "../../fitting/plane-map";
import { type Projective, projected, projectiveThrough } from "../../fitting/projective";
import { isRound } from "../dots/find-dots";
import type { Light } from "../dots/light";
import { piecesIn } from "../dots/pieces";
import type { GreyPicture } from "../grey-picture";

export type ArrayFound =
  | { ok: true; toPicture: Projective; dots: PlanePoint[]; pxPerMm: number }
  | { ok: false; reason: "no dots" | "not found" | "mirrored" };

const TILE_PX = 256;
/** Share of the pixels of a tile that are brighter than its blank stock. */
const BRIGHTER = 0.15;
/** Of the contrast of the strongest marks. */
const THRESHOLD = 0.35;
const LEAST_CONTRAST = 12;
const LEAST_AREA = 12;
/** Size of a dot against its nominal one; how far a dot may lie from its place, as a share of the diagonal. */
const FITS = { size: { least: 0.6, most: 1.5 }, off: 0.05 };
/** The fifth dot from where the corners put it, in radii. */
const FIFTH = 0.6;
const MOST_CANDIDATES = 700;

type Candidate = PlanePoint & { radius: number };

/** @param dots nominal places on the coupon, mm: front left, front right, back right, back left, and one more @param radiusMm of a dot */
export function findArray(
  picture: GreyPicture,
  dots: readonly PlanePoint[],
  radiusMm: number,
  brighter: boolean,
): ArrayFound {
  const light = arrayLight(picture, brighter);
  if (light.threshold === null) return { ok: false, reason: "no dots" };
  const candidates = piecesIn(picture, light)
    .filter((p) => p.area >= LEAST_AREA && isRound(p))
    .map((p): Candidate => ({ x: p.x + 0.5, y: p.y + 0.5, radius: Math.sqrt(p.area / Math.PI) }))
    .slice(0, MOST_CANDIDATES);
  const upright = bestOf(candidates, dots, radiusMm, 1);
  if (upright) return { ok: true, ...upright };
  return { ok: false, reason: bestOf(candidates, dots, radiusMm, -1) ? "mirrored" : "not found" };
}

type Best = { toPicture: Projective; dots: PlanePoint[]; pxPerMm: number };

function bestOf(
  candidates: readonly Candidate[],
  nominal: readonly PlanePoint[],
  radiusMm: number,
  sense: 1 | -1,
): Best | null {
  const [a, , c] = nominal;
  if (!a || !c) return null;
  const diagonal = Math.hypot(c.x - a.x, c.y - a.y);
  const near = nearest(candidates);
  let best: (Best & { off: number }) | null = null;
  for (const from of candidates)
    for (const to of candidates) {
      const long = Math.hypot(to.x - from.x, to.y - from.y);
      const scale = long / diagonal;
      if (!fitsSize(from, scale * radiusMm) || !fitsSize(to, scale * radiusMm)) continue;
      const place = similarity(a, c, from, to, sense);
      const found = nominal.map((dot) => near(place(dot), FITS.off * long, scale * radiusMm));
      const whole = found.flatMap((dot) => dot ?? []);
      if (whole.length < nominal.length || new Set(whole).size < nominal.length) continue;
      const toPicture = projectiveThrough(
        whole.slice(0, 4).map((dot, i) => ({ from: nominal[i] ?? dot, to: { x: dot.x, y: dot.y } })),
      );
      const [fifth, last] = [nominal[4], whole[4]];
      if (!toPicture || !fifth || !last) continue;
      const at = projected(toPicture, fifth);
      const off = Math.hypot(at.x - last.x, at.y - last.y) / (scale * radiusMm);
      if (off > FIFTH || (best && off >= best.off)) continue;
      best = { toPicture, dots: whole.map(({ x, y }) => ({ x, y })), pxPerMm: scale, off };
    }
  return best && { toPicture: best.toPicture, dots: best.dots, pxPerMm: best.pxPerMm };
}

function fitsSize({ radius }: Candidate, wanted: number): boolean {
  return radius > FITS.size.least * wanted && radius < FITS.size.most * wanted;
}

/** Turn, scale and shift that take two places of the coupon to two of the picture, whose Y runs down; mirrored with sense -1. */
function similarity(a: PlanePoint, c: PlanePoint, from: PlanePoint, to: PlanePoint, sense: 1 | -1) {
  const [ux, uy] = [c.x - a.x, -sense * (c.y - a.y)];
  const [vx, vy] = [to.x - from.x, to.y - from.y];
  const size = ux * ux + uy * uy;
  const [cos, sin] = [(ux * vx + uy * vy) / size, (ux * vy - uy * vx) / size];
  return ({ x, y }: PlanePoint): PlanePoint => {
    const [dx, dy] = [x - a.x, -sense * (y - a.y)];
    return { x: from.x + cos * dx - sin * dy, y: from.y + sin * dx + cos * dy };
  };
}

function nearest(candidates: readonly Candidate[]) {
  return (at: PlanePoint, within: number, radius: number): Candidate | null => {
    let best: Candidate | null = null;
    let least = within;
    for (const c of candidates) {
      const off = Math.hypot(c.x - at.x, c.y - at.y);
      if (off >= least || !fitsSize(c, radius)) continue;
      least = off;
      best = c;
    }
    return best;
  };
}

/** Tiles are larger than cells and gaps together, so that each shows blank stock. */
function arrayLight(picture: GreyPicture, brighter: boolean): Light {
  const { width, height, grey } = picture;
  const sign = brighter ? -1 : 1;
  const columns = Math.max(1, Math.round(width / TILE_PX));
  const rows = Math.max(1, Math.round(height / TILE_PX));
  const levels = new Float32Array(columns * rows);
  const whole = new Uint32Array(256);
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++) {
      const counts = new Uint32Array(256);
      let all = 0;
      for (let y = Math.floor((row * height) / rows); y < Math.floor(((row + 1) * height) / rows); y += 2)
        for (let x = Math.floor((column * width) / columns); x < Math.floor(((column + 1) * width) / columns); x += 2) {
          const g = grey[y * width + x] ?? 0;
          counts[g] = (counts[g] ?? 0) + 1;
          all++;
        }
      levels[row * columns + column] = sign * levelOf(counts, all, sign > 0 ? 1 - BRIGHTER : BRIGHTER);
      for (let g = 0; g < 256; g++) whole[g] = (whole[g] ?? 0) + (counts[g] ?? 0);
    }
  const total = whole.reduce((s, v) => s + v, 0);
  const strongest = sign * levelOf(whole, total, sign > 0 ? 0.002 : 0.998);
  const blank = sign * levelOf(whole, total, sign > 0 ? 1 - BRIGHTER : BRIGHTER);
  const contrast = blank - strongest;
  return { sign, columns, rows, levels, threshold: contrast < LEAST_CONTRAST ? null : THRESHOLD * contrast };
}

function levelOf(counts: Uint32Array, all: number, share: number): number {
  let below = 0;
  for (let g = 0; g < counts.length; g++) {
    below += counts[g] ?? 0;
    if (below >= share * all) return g;
  }
  return counts.length - 1;
}
