/** A picture of a grid of dots, read: every dot with its place in the grid, what is missing, what is no dot; or why it cannot be. */
import { median } from "../../fitting/median";
import { fitPlaneMap, MOST_DEGREE } from "../../fitting/plane-map";
import { countText } from "../../metrology/count-text";
import type { GreyPicture } from "../grey-picture";
import { type Dot, findDots } from "./find-dots";
import { type GridIndexed, indexGrid, type Refused } from "./index-grid";

export type PixelPoint = { x: number; y: number };

export type GridDot = {
  /** Index in the order of the grid: rows from the front, each from the left. */
  index: number;
  /** Pixels from the upper left corner. */
  x: number;
  y: number;
  radiusPx: number;
  /** From where a smooth map through all dots puts it, pixels. */
  residualPx: number;
};

export type GridRead =
  | {
      ok: true;
      dots: GridDot[];
      /** Indices without a dot. */
      missing: number[];
      /** Round pieces that are no dot of the grid. */
      strays: PixelPoint[];
      pitchPx: number;
      /** Scatter of the dots about a smooth grid, along each axis, pixels. */
      scatterPx: number;
    }
  | { ok: false; why: string };

/** Dots this near to a spot of dirt are not used, radii. */
const DIRT = 1;

/**
 * @param across dots along each side
 * @param brighter dots are brighter than the stock
 * @param dirt round spots that the user marked as dirt, pixels
 * @param isPart one of several overlapping scans
 */
export function readGrid(
  picture: GreyPicture,
  across: number,
  brighter: boolean,
  dirt: readonly PixelPoint[] = [],
  isPart = false,
): GridRead {
  const { dots, other } = findDots(picture, brighter);
  const clean = dots.filter((d) => !dirt.some((p) => Math.hypot(p.x - d.x, p.y - d.y) < DIRT * d.radiusPx));
  const indexed = indexGrid(clean, across, isPart);
  if (indexed.status === "refused")
    return { ok: false, why: whyOf(indexed.reason, clean.length, across, other.atEdge) };
  const others = strangers(indexed);
  if (others > SECOND_GRID * indexed.dots.length)
    return {
      ok: false,
      why: `The picture shows ${countText(others, "dot")} of the same size beside this grid. Scan one coupon alone.`,
    };
  return gridOf(indexed, across);
}

/** More foreign dots than this share are a second grid. Then the scan does not show which grid was meant. */
const SECOND_GRID = 0.25;
/** Radii of dots of one burn, against the usual one. */
const ALIKE = { least: 0.75, most: 1.75 } as const;

/** Dots that belong to no node, as large as those that do. */
function strangers({ dots, strays }: Extract<GridIndexed, { status: "indexed" }>): number {
  const usual = median(dots.map((d) => d.dot.radiusPx));
  return strays.filter((s) => s.radiusPx > ALIKE.least * usual && s.radiusPx < ALIKE.most * usual).length;
}

function gridOf(indexed: Extract<GridIndexed, { status: "indexed" }>, across: number): GridRead {
  const half = (across - 1) / 2;
  const indexOf = ({ column, row }: { column: number; row: number }) => (row + half) * across + column + half;
  const smooth = fitPlaneMap(
    indexed.dots.map(({ column, row, dot }) => ({ from: { x: column, y: row }, to: { x: dot.x, y: dot.y } })),
    MOST_DEGREE,
    half,
  );
  const residuals = indexed.dots.map(({ residualPx }, i) => {
    const e = smooth?.residuals[i];
    return e ? Math.hypot(e.x, e.y) : residualPx;
  });
  return {
    ok: true,
    dots: indexed.dots.map(({ dot, ...node }, i) => ({
      index: indexOf(node),
      x: dot.x,
      y: dot.y,
      radiusPx: dot.radiusPx,
      residualPx: residuals[i] ?? 0,
    })),
    missing: indexed.missing.map(indexOf),
    strays: indexed.strays.map(({ x, y }: Dot) => ({ x, y })),
    pitchPx: indexed.pitchPx,
    // Median of a distance in the plane, for normal scatter 1.18 times that along an axis.
    scatterPx: median(residuals) / 1.1774,
  };
}

const WHYS: Readonly<Record<Refused, (found: string, side: string) => string>> = {
  "few dots": (found) =>
    `The picture shows ${found}. Check whether the dots are darker or brighter than the stock, and scan again.`,
  "no grid": (found) => `The picture shows ${found}, but no square grid. Scan the whole stock, flat on the glass.`,
  contradictions: (found) =>
    `The picture shows ${found}, but their rows contradict each other. Wipe the stock and the glass, and scan again.`,
  "no L": () => "The larger dots in the middle are not visible. Scan the whole stock again, with more dots per inch.",
  "L fits several ways": () =>
    "The larger dots in the middle fit in more than one way. Wipe the stock and the glass, and scan the whole stock again.",
  mirrored: () =>
    "The picture is mirrored. Switch off mirroring in the scanner, or lay the stock with its marks on the glass.",
  "larger than told": (_, side) =>
    `The picture shows more dots than ${side} × ${side}. Check that it shows this coupon, and one coupon alone.`,
  "part of the grid": (_, side) =>
    `The picture shows a part of the ${side} × ${side} dots only. Scan the whole stock, or burn with more power.`,
};

function whyOf(reason: Refused, found: number, across: number, atEdge: number): string {
  const cut = atEdge > 2 ? ` ${countText(atEdge, "dot")} touch the edge of the picture.` : "";
  return `${WHYS[reason](countText(found, "dot"), String(across))}${cut}`;
}
