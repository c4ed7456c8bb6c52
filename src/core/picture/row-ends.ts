/**
 * Ends of rows in a picture, and how far those of one set lie beyond those of another.
 *
 * Each end is an edge along its row, of one blur for all rows of a set. All ends of both sets together are a line across (rows can lie
 * turned) and a step between the sets:
 *
 *   end_i = a + b y_i + S (1 where i is of the second set)
 *
 * with what lies far off left out. A lost row takes nothing from the others: each row is known by where it is drawn.
 */
import type { Feature } from "../coupon/site";
import { median } from "../fitting/median";
import type { Affine } from "../geometry/affine";
import type { Rect } from "../geometry/rect";
import { type EdgeFit, fitEdge } from "./edge-fit";
import type { GreyPicture } from "./grey-picture";
import type { NominalLine } from "./nominal-lines";
import { eachPixel, pixelMm } from "./picture-window";
import { type Profile, ProfileGathering } from "./profile";
import { type RowSeen, rowAcross } from "./row-profile";
import { trimmedFit } from "./trimmed-fit";

type RowEnds = Extract<Feature, { kind: "row ends" }>;

export type EndSeen = {
  /** Along X of the coupon, mm. */
  x: number;
  /** Middle of the row there. */
  y: number;
  /** Whether it counts to the second set. */
  second: boolean;
  kept: boolean;
};

export type EndDistance =
  | {
      ok: true;
      /** Second set minus first along X, mm. */
      value: number;
      u: number;
      degreesOfFreedom: number;
      ends: EndSeen[];
      /** Rows that should be there and could not be seen. */
      lost: number;
      /** Scatter of single ends, mm. */
      scatter: number;
      blur: number;
    }
  | { ok: false; why: string };

/** An end is looked for so far either side of where it is drawn. */
const REACH_MM = 1.2;
/** Along the row, inside the end, for where it lies across. */
const [INSIDE_FROM_MM, INSIDE_TO_MM] = [1, 4];
/** Of the width of a row, as much of its middle as is looked at. */
const BAND = 0.35;
/** Around where the grey is half way, so many pixels are fitted. */
const FITTED_PX = 12;
/** Bins along a row, of a pixel. */
const BIN = 0.5;
const FEWEST = 3;
/** A row in which less stands out than this share of the others is no row. */
const FAINT = 0.4;

/** Rows, and which of their ends. */
export type EndSet = { rows: readonly NominalLine[]; end: "left" | "right" };

/** Rows and ends that a feature speaks of. */
export function endSet(lines: readonly NominalLine[], feature: RowEnds): EndSet {
  return { rows: rowsOf(lines, feature), end: feature.end };
}

/** @param reachMm rows are looked for so far across from where they are drawn */
export function endDistance(
  picture: GreyPicture,
  pose: Affine,
  back: Affine,
  from: EndSet,
  to: EndSet,
  reachMm: number,
): EndDistance {
  const [first, second] = [from.rows, to.rows];
  if (first.length < FEWEST || second.length < FEWEST) return { ok: false, why: "The drawing has no such rows." };
  const sought = [
    ...first.map((line) => ({ line, end: from.end, second: false })),
    ...second.map((line) => ({ line, end: to.end, second: true })),
  ];
  const looked = sought.map((row) => ({ ...row, ...lookAt(picture, pose, back, row.line, row.end, reachMm) }));
  const depth = median(looked.flatMap((r) => (r.seen ? [Math.abs(r.seen.depth)] : [])).concat(0));
  const good = looked.flatMap((r) =>
    r.seen && r.profile && Math.abs(r.seen.depth) > FAINT * depth ? [{ ...r, profile: r.profile, seen: r.seen }] : [],
  );
  const free = good.map((r) => ({
    ...r,
    edge: fitEdge(r.profile, { at: middleOf(r.profile), blur: 1.2 * pixelMm(pose) }),
  }));
  const blurs = free.flatMap((r) => (r.edge ? [r.edge.blur] : []));
  if (blurs.length < 2 * FEWEST) return { ok: false, why: "Too few ends of these rows can be seen." };
  const blur = median(blurs);
  const fitted = free.flatMap((r): (typeof r & { edge: EdgeFit })[] => {
    const edge = r.edge && fitEdge(r.profile, { at: r.edge.at, blur }, blur);
    return edge ? [{ ...r, edge }] : [];
  });
  const counts = [false, true].map((s) => fitted.filter((r) => r.second === s).length);
  if (counts.some((n) => n < FEWEST)) return { ok: false, why: "Too few ends of these rows can be seen." };
  const middle = fitted.reduce((sum, r) => sum + r.line.y0, 0) / fitted.length;
  const xs = fitted.map((r) => endX(r.line, r.end) + r.edge.at);
  const fit = levelledFit(
    fitted.map((r) => [1, r.line.y0 - middle, r.second ? 1 : 0]),
    xs,
  );
  if (!fit) return { ok: false, why: "The ends of these rows do not lie on a line." };
  return {
    ok: true,
    value: fit.x[2] ?? Number.NaN,
    u: Math.sqrt(fit.covariance[2]?.[2] ?? 0),
    degreesOfFreedom: fit.degreesOfFreedom,
    ends: fitted.map((r, i) => ({
      x: xs[i] ?? Number.NaN,
      y: r.line.y0 + r.seen.offset,
      second: r.second,
      kept: fit.kept[i] as boolean,
    })),
    lost: sought.length - fitted.length,
    scatter: fit.sd,
    blur,
  };
}

/** Columns are square to rows to about this, machine and scanner together, mm a mm. (common practice, no source) */
const SQUARE = 0.0015;

/** The slope over the rows is known a little beforehand: few rows close together do not tell it. */
function levelledFit(rows: readonly number[][], xs: readonly number[]) {
  const free = trimmedFit(rows, xs);
  if (!free || free.sd === 0) return free;
  return trimmedFit([...rows, [0, free.sd / SQUARE, 0]], [...xs, 0]);
}

function middleOf({ at }: Profile): number {
  return ((at[0] ?? Number.NaN) + (at[at.length - 1] ?? Number.NaN)) / 2;
}

/** Rows whose middle lies inside, going the way that is asked for. */
function rowsOf(lines: readonly NominalLine[], { within, going }: RowEnds): NominalLine[] {
  return lines.filter((line) => {
    const goes = line.x1 > line.x0 ? "right" : "left";
    return line.row && goes === going && isInside(line, within);
  });
}

function isInside({ x0, y0, x1, y1 }: NominalLine, within: Rect): boolean {
  const [x, y] = [(x0 + x1) / 2, (y0 + y1) / 2];
  return x > within.x0 && x < within.x1 && y > within.y0 && y < within.y1;
}

function endX({ x0, x1 }: NominalLine, end: "left" | "right"): number {
  return end === "right" ? Math.max(x0, x1) : Math.min(x0, x1);
}

/** Where the row lies across near its end, and the grey along its middle over the end. */
function lookAt(
  picture: GreyPicture,
  pose: Affine,
  back: Affine,
  line: NominalLine,
  end: "left" | "right",
  reachMm: number,
): { seen: RowSeen | null; profile: Profile | null } {
  const x = endX(line, end);
  const way = end === "right" ? -1 : 1;
  const [a, b] = [x + way * INSIDE_FROM_MM, x + way * INSIDE_TO_MM];
  const seen = rowAcross(picture, pose, back, line, { fromX: Math.min(a, b), toX: Math.max(a, b), reachMm });
  if (!seen) return { seen, profile: null };
  const half = Math.max(BAND * seen.width, pixelMm(pose) / 2);
  const y = line.y0 + seen.offset;
  const gathering = new ProfileGathering(-REACH_MM, REACH_MM, BIN * pixelMm(pose));
  const area = { x0: x - REACH_MM, x1: x + REACH_MM, y0: y - half, y1: y + half };
  const inside = eachPixel(picture, pose, back, area, (px, _, grey) => gathering.add(px - x, grey));
  return { seen, profile: inside > 0.9 ? aroundEdge(gathering.profile(), way, FITTED_PX * pixelMm(pose)) : null };
}

/** The part of a profile around where the row ends: coming from inside, the first place that is half as bright as outside. */
function aroundEdge({ at, grey, count }: Profile, way: 1 | -1, reachMm: number): Profile | null {
  const order = way > 0 ? at.map((_, i) => at.length - 1 - i) : at.map((_, i) => i);
  const quarter = Math.floor(at.length / 4);
  const level = (from: readonly number[]) => median(from.map((i) => grey[i] ?? Number.NaN));
  if (quarter < 2) return null;
  const half = (level(order.slice(0, quarter)) + level(order.slice(-quarter))) / 2;
  const isInside = (i: number) =>
    (grey[order[0] ?? Number.NaN] ?? Number.NaN) < half === (grey[i] ?? Number.NaN) < half;
  const first = order.find((i) => !isInside(i));
  if (first === undefined) return null;
  const edge = at[first] ?? Number.NaN;
  const kept = at.flatMap((t, i) => (Math.abs(t - edge) <= reachMm ? [i] : []));
  const pick = (of: readonly number[]) => kept.map((i) => of[i] ?? Number.NaN);
  return { at: pick(at), grey: pick(grey), count: pick(count) };
}
