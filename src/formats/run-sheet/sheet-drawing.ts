/**
 * A piece as an engineering drawing at true scale: stock and datum, strokes with the pens of their groups, dimension lines,
 * and every site named by its number at the side.
 */
import { type GroupPen, groupPen } from "../../core/coupon/group-pen";
import type { MarkingSettings, Piece } from "../../core/coupon/piece";
import { scanRows } from "../../core/coupon/scan-rows";
import { strokeBounds, strokesOf } from "../../core/coupon/strokes";
import { plain } from "../../core/metrology/quantity-text";
import { line, type SheetItem, text } from "../paper/sheet-page";
import type { SheetSite } from "./sheet-content";

/** Room beside the stock for numbers and dimension lines, mm. */
const SIDE_MM = 26;
const NUMBER_RADIUS_MM = 3.2;
const NUMBER_PITCH_MM = 7.4;
const NUMBER_OFF_MM = 9;
/** Width of a letter of a dimension. */
const LETTER_MM = 2.1;
const ROW_PEN_MM = 0.12;
const ARROW_MM = 2.4;
const DIMENSION_OFF_MM = 8;
const STOCK_DASH_MM = [3, 1.6];

export type SheetDrawing = { widthMm: number; heightMm: number; items: SheetItem[] };

/** Upper left corner at 0, 0; Y down, so that y = top - Y of the coupon. */
export function sheetDrawing(piece: Piece, sites: readonly SheetSite[]): SheetDrawing {
  const here = sites.filter((s) => s.site.place?.piece === piece.id);
  const columns = { left: besides(piece, here, "left"), right: besides(piece, here, "right") };
  const extra = Math.max(0, ...[...columns.left, ...columns.right].map((b) => -b.y + NUMBER_RADIUS_MM));
  const top = SIDE_MM + extra;
  const x = (mm: number) => SIDE_MM + mm;
  const y = (mm: number) => top + piece.heightMm - mm;
  const lowest = Math.max(
    0,
    ...[...columns.left, ...columns.right].map((b) => b.y + NUMBER_RADIUS_MM - piece.heightMm),
  );
  return {
    widthMm: piece.widthMm + 2 * SIDE_MM,
    heightMm: top + piece.heightMm + Math.max(SIDE_MM, lowest + 2),
    items: [
      ...stock(piece, x, y),
      ...marks(piece, x, y),
      ...dimensions(piece, x, y),
      ...columns.left.flatMap((b) => numbered(b, x, y, top, x(-NUMBER_OFF_MM))),
      ...columns.right.flatMap((b) => numbered(b, x, y, top, x(piece.widthMm + NUMBER_OFF_MM))),
    ],
  };
}

type Axis = (mm: number) => number;

/** A number's height beside the stock, mm below its upper edge. */
type Beside = { n: number; at: { x: number; y: number }; y: number };

/** Numbers of one side from the top down, pushed apart until they can be read. */
function besides(piece: Piece, sites: readonly SheetSite[], side: "left" | "right"): Beside[] {
  const list = sites
    .flatMap(({ n, site }) => (site.place ? [{ n, at: site.place.at, y: piece.heightMm - site.place.at.y }] : []))
    .filter(({ at }) => (at.x < piece.widthMm / 2 ? "left" : "right") === side)
    .sort((a, b) => a.y - b.y || a.n - b.n);
  for (let i = 1; i < list.length; i++) {
    const [before, here] = [list[i - 1], list[i]];
    if (before && here) here.y = Math.max(here.y, before.y + NUMBER_PITCH_MM);
  }
  const below = Math.max(0, (list.at(-1)?.y ?? 0) - piece.heightMm);
  return list.map((b) => ({ ...b, y: b.y - below / 2 }));
}

function numbered(beside: Beside, x: Axis, y: Axis, top: number, cx: number): SheetItem[] {
  const cy = top + beside.y;
  const inward = cx > x(beside.at.x) ? -NUMBER_RADIUS_MM : NUMBER_RADIUS_MM;
  return [
    line(cx + inward, cy, x(beside.at.x), y(beside.at.y), 0.12, "faint"),
    { kind: "circle", x: x(beside.at.x), y: y(beside.at.y), radiusMm: 0.6, widthMm: 0.2, ink: "ink", fill: null },
    { kind: "circle", x: cx, y: cy, radiusMm: NUMBER_RADIUS_MM, widthMm: 0.25, ink: "ink", fill: "paper" },
    text(cx, cy + 1.2, String(beside.n), { face: "figures", anchor: "middle", sizePt: 9 }),
  ];
}

function stock(piece: Piece, x: Axis, y: Axis): SheetItem[] {
  const [x0, x1, y0, y1] = [x(0), x(piece.widthMm), y(piece.heightMm), y(0)];
  const outline: SheetItem = {
    kind: "path",
    points: [
      { x: x0, y: y0 },
      { x: x1, y: y0 },
      { x: x1, y: y1 },
      { x: x0, y: y1 },
    ],
    closed: true,
    widthMm: 0.25,
    dashMm: STOCK_DASH_MM,
    ink: "second" as const,
    fill: null,
  };
  const [ax, ay] = [x0 - 3, y1 + 3];
  return [
    outline,
    ...arrow(ax, ay, ax + 12, ay),
    ...arrow(ax, ay, ax, ay - 12),
    text(ax + 13.5, ay + 1.2, "X", { sizePt: 9 }),
    text(ax - 1, ay - 13.5, "Y", { sizePt: 9 }),
  ];
}

/** Single rows are drawn full: their ends are what is looked at. */
export function sheetPen(piece: Piece, settings: MarkingSettings): GroupPen {
  const pen = groupPen(piece, settings);
  return settings.use === "rows" ? { ...pen, dashMm: [] } : pen;
}

/** Areas to scan as their outline with the pen of their group, and the rows that will fill it. */
function marks(piece: Piece, x: Axis, y: Axis): SheetItem[] {
  return [...strokesOf(piece)].flatMap(({ settings, points, closed }): SheetItem[] => {
    const { widthMm, dashMm } = sheetPen(piece, settings);
    const outline: SheetItem = {
      kind: "path",
      points: points.map((p) => ({ x: x(p.x), y: y(p.y) })),
      closed,
      widthMm,
      dashMm,
      ink: "ink",
      fill: null,
    };
    const rows = settings.scan ? scanRows(points, settings.scan.rowPitchMm) : [];
    return [...rows.map((row) => line(x(row.x0), y(row.y), x(row.x1), y(row.y), ROW_PEN_MM, "second")), outline];
  });
}

/** The stock above and at its right; what is burned below and at the left, from its lower left corner. */
function dimensions(piece: Piece, x: Axis, y: Axis): SheetItem[] {
  const high = y(piece.heightMm) - DIMENSION_OFF_MM - 6;
  const items = level(x(0), x(piece.widthMm), high, `stock ${plain(piece.widthMm)} mm`, y(piece.heightMm));
  items.push(
    ...upright(y(piece.heightMm), y(0), x(piece.widthMm) + 21, `stock ${plain(piece.heightMm)} mm`, x(piece.widthMm)),
  );
  const bounds = strokeBounds(piece);
  if (bounds) {
    const width = `burned ${plain(bounds.x1 - bounds.x0)} mm`;
    items.push(...level(x(bounds.x0), x(bounds.x1), y(0) + DIMENSION_OFF_MM + 4, width, y(bounds.y0)));
  }
  return items;
}

function level(x0: number, x1: number, at: number, words: string, from: number): SheetItem[] {
  const middle = (x0 + x1) / 2;
  const beyond = at + (at < from ? -1.5 : 1.5);
  const narrow = words.length * LETTER_MM > x1 - x0;
  const style = { sizePt: 9, face: "figures" } as const;
  return [
    line(x0, from, x0, beyond, 0.12, "second"),
    line(x1, from, x1, beyond, 0.12, "second"),
    ...arrow(middle, at, x0, at),
    ...arrow(middle, at, x1, at),
    narrow ? text(x1 + 3, at + 1.1, words, style) : text(middle, at - 1.2, words, { ...style, anchor: "middle" }),
  ];
}

function upright(y0: number, y1: number, at: number, words: string, from: number): SheetItem[] {
  const middle = (y0 + y1) / 2;
  return [
    line(from, y0, at + 1.5, y0, 0.12, "second"),
    line(from, y1, at + 1.5, y1, 0.12, "second"),
    ...arrow(at, middle, at, y0),
    ...arrow(at, middle, at, y1),
    text(at - 1.2, middle, words, { sizePt: 9, face: "figures", anchor: "middle", turned: true }),
  ];
}

function arrow(x0: number, y0: number, x1: number, y1: number): SheetItem[] {
  const length = Math.hypot(x1 - x0, y1 - y0) || 1;
  const [ux, uy] = [(x1 - x0) / length, (y1 - y0) / length];
  const head = [
    { x: x1, y: y1 },
    { x: x1 - ARROW_MM * ux + 0.8 * uy, y: y1 - ARROW_MM * uy - 0.8 * ux },
    { x: x1 - ARROW_MM * ux - 0.8 * uy, y: y1 - ARROW_MM * uy + 0.8 * ux },
  ];
  return [
    line(x0, y0, x1, y1, 0.15),
    { kind: "path", points: head, closed: true, widthMm: 0, dashMm: [], ink: "ink", fill: "ink" },
  ];
}
