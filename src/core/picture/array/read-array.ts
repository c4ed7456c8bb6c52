/**
 * How every cell of an array looks beside the blank stock around it.
 *
 *   darkness  1 - g/b        contrast  (b - g)/(b + g)        evenness  1 - s/(b - g)        sharpness  1/edge
 *
 * g is the mean grey of the inner part of a cell, b that of the blank stock beside its four sides, interpolated to the middle of the cell: uneven light
 * cancels as far as it is straight over one cell. s is the SD of small blocks of the cell, less what the blank stock shows by itself. `edge` is the width
 * from 10 to 90 % of the left and the right edge, mm. Where marks are brighter than the stock, g and b change places. Grey levels are as the picture has
 * them: a scanner that is set to change contrast by itself changes them.
 */
import type { Measurand } from "../../coupon/site";
import type { PlanePoint } from "../../fitting/plane-map";
import { type Projective, projected } from "../../fitting/projective";
import { corners, type Rect } from "../../geometry/rect";
import { fitEdge } from "../edge-fit";
import { checkedPicture, type GreyPicture } from "../grey-picture";
import { ProfileGathering } from "../profile";
import { findArray } from "./find-array";

/** What is looked for, in which cells, around which dots. */
export type ArrayLook = Omit<Extract<Measurand, { kind: "cell look" }>, "kind">;

export type ArrayRead =
  | {
      ok: true;
      /** In the order of the cells; `null` where a cell lies outside the picture, or is marked too weakly. */
      scores: (number | null)[];
      /** Corners of each cell in the picture, and the dots, pixels. */
      outlines: PlanePoint[][];
      dots: PlanePoint[];
      pxPerMm: number;
    }
  | { ok: false; why: string };

/** Changes with anything that changes what is read. */
export const ARRAY_READER_VERSION = 2;

/** Of the side of a cell: its rim is not looked at. */
const RIM = 0.15;
/** Of the gap: where the blank stock beside a cell is looked at. */
const BESIDE = { from: 0.25, to: 0.75 };
/** Blocks along each side by which evenness is told. */
const BLOCKS = 8;
/** Samples along each side of a cell, at most. */
const MOST_SAMPLES = 64;
const EDGE_WIDTH_BY_SD = 2.563;
/** A mark must stand out so many grey levels before its evenness or its edges mean anything. */
const LEAST_DEPTH = 6;
/** Pixels a mm, at least. */
const LEAST_PX_PER_MM = 4;

const WHY = {
  "no dots": "The picture shows no marks. Check whether they are darker or brighter than the stock.",
  "not found":
    "The five dots around this array are not visible. Check that the picture shows the whole array of this coupon, and scan it again.",
  mirrored:
    "The picture is mirrored. Switch off mirroring in the scanner, or lay the stock with its marks on the glass.",
} as const;

export function readArray(
  picture: GreyPicture,
  { of, cells, dots: nominal, radiusMm, gapMm }: ArrayLook,
  brighter = false,
): ArrayRead {
  checkedPicture(picture);
  const found = findArray(picture, nominal, radiusMm, brighter);
  if (!found.ok) return { ok: false, why: WHY[found.reason] };
  const { toPicture, dots, pxPerMm } = found;
  if (pxPerMm < LEAST_PX_PER_MM)
    return { ok: false, why: "The picture has too few pixels for the cells. Use at least 300 dots per inch." };
  const look = new Looking(picture, toPicture, brighter, pxPerMm);
  return {
    ok: true,
    scores: cells.map((cell) => look.score(of, cell, gapMm)),
    outlines: cells.map((cell) => corners(cell).map((p) => projected(toPicture, p))),
    dots,
    pxPerMm,
  };
}

class Looking {
  constructor(
    private readonly picture: GreyPicture,
    private readonly toPicture: Projective,
    private readonly brighter: boolean,
    private readonly pxPerMm: number,
  ) {}

  score(of: ArrayLook["of"], cell: Rect, gapMm: number): number | null {
    const seen = this.samples(inset(cell, RIM * (cell.x1 - cell.x0)));
    const b = this.blank(cell, gapMm);
    if (!seen || b === null || b.level <= 0) return null;
    const g = meanOf(seen.greys);
    const [dark, light] = this.brighter ? [b.level, g] : [g, b.level];
    const depth = light - dark;
    switch (of) {
      case "darkness":
        return light > 0 ? 1 - dark / light : 0;
      case "contrast":
        return light + dark > 0 ? depth / (light + dark) : 0;
      case "evenness":
        if (depth < LEAST_DEPTH) return null;
        return 1 - Math.sqrt(Math.max(0, spreadOf(seen) ** 2 - b.spread ** 2)) / depth;
      case "sharpness":
        return depth < LEAST_DEPTH ? null : this.sharpness(cell, gapMm);
    }
  }

  /** Strips beside the four sides: their mean is the blank stock in the middle of the cell wherever light changes evenly. */
  private blank({ x0, y0, x1, y1 }: Rect, gapMm: number): { level: number; spread: number } | null {
    const [near, far] = [BESIDE.from * gapMm, BESIDE.to * gapMm];
    const strips: Rect[] = [
      { x0: x0 - far, y0, x1: x0 - near, y1 },
      { x0: x1 + near, y0, x1: x1 + far, y1 },
      { x0, y0: y0 - far, x1, y1: y0 - near },
      { x0, y0: y1 + near, x1, y1: y1 + far },
    ];
    const sampled = strips.map((strip) => this.samples(strip));
    const opposite = [sampled.slice(0, 2), sampled.slice(2)].flatMap(([a, b]) =>
      a && b ? [(middleOf(a.greys) + middleOf(b.greys)) / 2] : [],
    );
    if (opposite.length === 0) return null;
    const spreads = sampled.flatMap((strip) => (strip ? [spreadOf(strip)] : []));
    return { level: opposite.reduce((s, v) => s + v, 0) / opposite.length, spread: Math.min(...spreads) };
  }

  /** Greys of a grid of samples about a pixel apart; `null` where any lies outside the picture. */
  private samples({ x0, y0, x1, y1 }: Rect): Samples | null {
    const count = (mm: number) => Math.max(3, Math.min(MOST_SAMPLES, Math.round(mm * this.pxPerMm)));
    const [columns, rows] = [count(x1 - x0), count(y1 - y0)];
    const greys = new Uint8Array(columns * rows);
    const step = (x1 - x0) / columns;
    for (let j = 0; j < rows; j++) {
      const y = y0 + ((j + 0.5) / rows) * (y1 - y0);
      if (!this.along({ x: x0 + step / 2, y }, step, greys.subarray(j * columns, (j + 1) * columns))) return null;
    }
    return { columns, rows, greys };
  }

  /** Greys of places one step apart along X. @returns whether all lie in the picture */
  private along({ x, y }: PlanePoint, step: number, greys: Uint8Array): boolean {
    const { width, height, grey } = this.picture;
    const [a = 0, b = 0, c = 0, d = 0, e = 0, f = 0, g = 0, h = 0] = this.toPicture;
    const [atX, atY, atW] = [b * y + c, e * y + f, h * y + 1];
    for (let i = 0; i < greys.length; i++) {
      const at = x + i * step;
      const w = g * at + atW;
      const column = Math.floor((a * at + atX) / w);
      const row = Math.floor((d * at + atY) / w);
      if (column < 0 || row < 0 || column >= width || row >= height) return false;
      greys[i] = grey[row * width + column] ?? 0;
    }
    return true;
  }

  /** Left and right edge, each over the middle of its height. */
  private sharpness({ x0, y0, x1, y1 }: Rect, gapMm: number): number | null {
    const reach = Math.min(gapMm * BESIDE.to, (x1 - x0) / 3);
    const widths = [x0, x1].flatMap((edge) => {
      const gathered = new ProfileGathering(-reach, reach, 0.5 / this.pxPerMm);
      const greys = new Uint8Array(Math.round(4 * reach * this.pxPerMm));
      const step = (2 * reach) / greys.length;
      const rows = Math.min(MOST_SAMPLES, Math.round((y1 - y0) * (1 - 2 * RIM) * this.pxPerMm));
      for (let j = 0; j < rows; j++) {
        const y = y0 + (RIM + ((1 - 2 * RIM) * (j + 0.5)) / rows) * (y1 - y0);
        if (!this.along({ x: edge - reach + step / 2, y }, step, greys)) continue;
        greys.forEach((g, i) => {
          gathered.add(-reach + (i + 0.5) * step, g);
        });
      }
      const fit = fitEdge(gathered.profile(), { at: 0, blur: 1.5 / this.pxPerMm });
      return fit ? [EDGE_WIDTH_BY_SD * fit.blur] : [];
    });
    if (widths.length === 0) return null;
    return widths.length / widths.reduce((s, v) => s + v, 0);
  }
}

function inset({ x0, y0, x1, y1 }: Rect, by: number): Rect {
  return { x0: x0 + by, y0: y0 + by, x1: x1 - by, y1: y1 - by };
}

type Samples = { columns: number; rows: number; greys: Uint8Array };

function meanOf(greys: Uint8Array): number {
  return greys.reduce((s, v) => s + v, 0) / greys.length;
}

/** Grey levels are whole: the mean of the middle half is finer than their median. */
function middleOf(greys: Uint8Array): number {
  return meanOf(
    greys
      .slice()
      .sort()
      .subarray(Math.floor(greys.length / 4), Math.ceil((3 * greys.length) / 4)),
  );
}

/** SD of the means of blocks. */
function spreadOf({ columns, rows, greys }: Samples): number {
  const sums = new Float64Array(BLOCKS * BLOCKS);
  const counts = new Uint32Array(BLOCKS * BLOCKS);
  greys.forEach((g, k) => {
    const column = Math.floor(((k % columns) * BLOCKS) / columns);
    const row = Math.floor((Math.floor(k / columns) * BLOCKS) / rows);
    const block = row * BLOCKS + column;
    sums[block] = (sums[block] ?? 0) + g;
    counts[block] = (counts[block] ?? 0) + 1;
  });
  const means = Array.from(sums.entries()).flatMap(([i, sum]) => {
    const count = counts[i] ?? 0;
    return count > 0 ? [sum / count] : [];
  });
  const middle = means.reduce((s, v) => s + v, 0) / means.length;
  return Math.sqrt(means.reduce((s, v) => s + (v - middle) ** 2, 0) / Math.max(1, means.length - 1));
}
