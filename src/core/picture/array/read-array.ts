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
import type { PlanePoint } from "../../fitting/plane-map";
import { type Projective, projected } from "../../fitting/projective";
import type { Rect } from "../../geometry/rect";
import { fitEdge } from "../edge-fit";
import { checkedPicture, type GreyPicture } from "../grey-picture";
import { ProfileGathering } from "../profile";
import { findArray } from "./find-array";

export type CellMeasures = { darkness: number; contrast: number; evenness: number | null; sharpness: number | null };

export type ArrayRead =
  | {
      ok: true;
      /** In the order of the cells; `null` where the cell lies outside the picture. */
      cells: (CellMeasures | null)[];
      /** Corners of each cell in the picture, and the dots, pixels. */
      outlines: PlanePoint[][];
      dots: PlanePoint[];
      pxPerMm: number;
    }
  | { ok: false; why: string };

/** Changes with anything that changes what is read. */
export const ARRAY_READER_VERSION = 1;

/** Of the side of a cell: its rim is not looked at. */
const RIM = 0.15;
/** Of the gap: where the blank stock beside a cell is looked at. */
const BESIDE = { from: 0.25, to: 0.75 };
/** Blocks along each side by which evenness is told. */
const BLOCKS = 8;
/** Samples along each side of a cell, at most. */
const MOST_SAMPLES = 120;
const EDGE_WIDTH_BY_SD = 2.563;
/** A mark must stand out so many grey levels before its evenness or its edges mean anything. */
const LEAST_DEPTH = 6;
/** Pixels a mm, at least. */
const LEAST_PX_PER_MM = 4;

export type ArrayShape = {
  cells: readonly Rect[];
  dots: readonly PlanePoint[];
  /** Of a dot, mm. */
  radiusMm: number;
  /** Blank stock between cells, mm. */
  gapMm: number;
};

const WHY = {
  "no dots": "The picture shows no marks. Check whether they are darker or brighter than the stock.",
  "not found":
    "The five dots around this array are not visible. Check that the picture shows the whole array of this coupon, and scan it again.",
  mirrored:
    "The picture is mirrored. Switch off mirroring in the scanner, or lay the stock with its marks on the glass.",
} as const;

export function readArray(picture: GreyPicture, shape: ArrayShape, brighter = false): ArrayRead {
  checkedPicture(picture);
  const found = findArray(picture, shape.dots, shape.radiusMm, brighter);
  if (!found.ok) return { ok: false, why: WHY[found.reason] };
  const { toPicture, dots, pxPerMm } = found;
  if (pxPerMm < LEAST_PX_PER_MM)
    return { ok: false, why: "The picture has too few pixels for the cells. Use at least 300 dots per inch." };
  const look = new Looking(picture, toPicture, brighter, pxPerMm);
  return {
    ok: true,
    cells: shape.cells.map((cell) => look.cell(cell, shape.gapMm)),
    outlines: shape.cells.map((cell) => cornersOf(cell).map((p) => projected(toPicture, p))),
    dots,
    pxPerMm,
  };
}

function cornersOf({ x0, y0, x1, y1 }: Rect): PlanePoint[] {
  return [
    { x: x0, y: y0 },
    { x: x1, y: y0 },
    { x: x1, y: y1 },
    { x: x0, y: y1 },
  ];
}

class Looking {
  constructor(
    private readonly picture: GreyPicture,
    private readonly toPicture: Projective,
    private readonly brighter: boolean,
    private readonly pxPerMm: number,
  ) {}

  cell(cell: Rect, gapMm: number): CellMeasures | null {
    const side = cell.x1 - cell.x0;
    const inner = inset(cell, RIM * side);
    const g = this.mean(inner);
    const b = this.blank(cell, gapMm);
    if (g === null || b === null || b.level <= 0) return null;
    const [dark, light] = this.brighter ? [b.level, g] : [g, b.level];
    const depth = light - dark;
    const spread = this.spread(inner);
    const stands = depth >= LEAST_DEPTH;
    return {
      darkness: light > 0 ? 1 - dark / light : 0,
      contrast: light + dark > 0 ? depth / (light + dark) : 0,
      evenness: stands && spread !== null ? 1 - Math.sqrt(Math.max(0, spread ** 2 - b.spread ** 2)) / depth : null,
      sharpness: stands ? this.sharpness(cell, gapMm) : null,
    };
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
    const opposite = [strips.slice(0, 2), strips.slice(2)].flatMap((pair) => {
      const levels = pair.map((strip) => this.median(strip));
      const [a, b] = levels;
      return a === null || b === null || a === undefined || b === undefined ? [] : [(a + b) / 2];
    });
    if (opposite.length === 0) return null;
    const spreads = strips.flatMap((strip) => this.spread(strip) ?? []).sort((a, b) => a - b);
    return {
      level: opposite.reduce((s, v) => s + v, 0) / opposite.length,
      spread: spreads[0] ?? 0,
    };
  }

  private grey({ x, y }: PlanePoint): number | null {
    const at = projected(this.toPicture, { x, y });
    const [column, row] = [Math.floor(at.x), Math.floor(at.y)];
    const { width, height, grey } = this.picture;
    if (column < 0 || row < 0 || column >= width || row >= height) return null;
    return grey[row * width + column] ?? null;
  }

  /** Greys of a grid of samples about a pixel apart; `null` where any lies outside the picture. */
  private samples({ x0, y0, x1, y1 }: Rect): { columns: number; rows: number; greys: number[] } | null {
    const count = (mm: number) => Math.max(3, Math.min(MOST_SAMPLES, Math.round(mm * this.pxPerMm)));
    const [columns, rows] = [count(x1 - x0), count(y1 - y0)];
    const greys: number[] = [];
    for (let j = 0; j < rows; j++)
      for (let i = 0; i < columns; i++) {
        const g = this.grey({ x: x0 + ((i + 0.5) / columns) * (x1 - x0), y: y0 + ((j + 0.5) / rows) * (y1 - y0) });
        if (g === null) return null;
        greys.push(g);
      }
    return { columns, rows, greys };
  }

  private mean(area: Rect): number | null {
    const { greys } = this.samples(area) ?? { greys: [] };
    return greys.length === 0 ? null : greys.reduce((s, v) => s + v, 0) / greys.length;
  }

  private median(area: Rect): number | null {
    const { greys } = this.samples(area) ?? { greys: [] };
    if (greys.length === 0) return null;
    // Grey levels are whole: the mean of the middle half is finer than their median.
    const sorted = greys.sort((a, b) => a - b).slice(Math.floor(greys.length / 4), Math.ceil((3 * greys.length) / 4));
    return sorted.reduce((s, v) => s + v, 0) / sorted.length;
  }

  /** SD of the means of blocks. */
  private spread(area: Rect): number | null {
    const sampled = this.samples(area);
    if (!sampled) return null;
    const { columns, rows, greys } = sampled;
    const sums = new Map<number, { sum: number; count: number }>();
    greys.forEach((g, k) => {
      const column = Math.floor(((k % columns) * BLOCKS) / columns);
      const row = Math.floor((Math.floor(k / columns) * BLOCKS) / rows);
      const block = sums.get(row * BLOCKS + column) ?? { sum: 0, count: 0 };
      block.sum += g;
      block.count++;
      sums.set(row * BLOCKS + column, block);
    });
    const means = [...sums.values()].map(({ sum, count }) => sum / count);
    const middle = means.reduce((s, v) => s + v, 0) / means.length;
    return Math.sqrt(means.reduce((s, v) => s + (v - middle) ** 2, 0) / Math.max(1, means.length - 1));
  }

  /** Left and right edge, each over the middle of its height. */
  private sharpness({ x0, y0, x1, y1 }: Rect, gapMm: number): number | null {
    const reach = Math.min(gapMm * BESIDE.to, (x1 - x0) / 3);
    const widths = [x0, x1].flatMap((edge) => {
      const gathered = new ProfileGathering(-reach, reach, 0.5 / this.pxPerMm);
      const steps = Math.round(4 * reach * this.pxPerMm);
      const rows = Math.min(MOST_SAMPLES, Math.round((y1 - y0) * (1 - 2 * RIM) * this.pxPerMm));
      for (let j = 0; j < rows; j++) {
        const y = y0 + (RIM + ((1 - 2 * RIM) * (j + 0.5)) / rows) * (y1 - y0);
        for (let i = 0; i < steps; i++) {
          const t = -reach + ((i + 0.5) / steps) * 2 * reach;
          const g = this.grey({ x: edge + t, y });
          if (g !== null) gathered.add(t, g);
        }
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
