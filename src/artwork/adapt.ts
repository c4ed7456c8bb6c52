/** A drawing adapted to a kerf: closed, nested, its slots made to fit if wished, grown and shrunk, and every outline that suffers named. */
import { lineSettings, type Piece } from "../core/coupon/piece";
import { boundsOf } from "../core/geometry/rect";
import { closedContours } from "./close-contours";
import type { Contour, Point, Problem } from "./contour";
import { crossingsOf } from "./crossings";
import { type Nested, nested } from "./nesting";
import { grownBy } from "./offset-contours";
import { type DrawnPath, readDrawing, type SvgUnit } from "./read-drawing";
import { rewidthed } from "./slots";

export type AdaptOrder = {
  text: string;
  /** Offset per side, mm. */
  offsetMm: number;
  /** How far a chord may lie from its curve, mm. */
  chordErrorMm: number;
  /** Of an SVG that does not say its unit. */
  unit: SvgUnit | null;
  /** Slots of one width made another; left out where none are wished. `toMm` is what they are to measure once they are cut. */
  slots: { fromMm: number; toMm: number } | null;
  /** Layers that are not cut: they stay as they are drawn. */
  uncut: readonly string[];
};

export type Adapted = {
  ok: true;
  /** As drawn, with what each is. */
  before: readonly Nested[];
  /** As to be cut; empty where it cannot be told. */
  after: readonly Contour[];
  /** What is not cut, as drawn. */
  left: readonly DrawnPath[];
  /** All layers of the drawing, in its order. */
  layers: readonly string[];
  problems: readonly Problem[];
  notes: readonly string[];
  slots: readonly Point[];
  /** As to be cut, to be written as SVG or DXF; `null` while something must be mended first. */
  piece: Piece | null;
};

export type AdaptResult = Adapted | { ok: false; message: string; asksUnit: boolean };

/** Left free around what is cut, mm. */
const MARGIN_MM = 2;

export function adapt(order: AdaptOrder): AdaptResult {
  const drawing = readDrawing(order.text, order.unit, order.chordErrorMm);
  if (!drawing.ok) return drawing;
  const layers = [...new Set(drawing.paths.map((p) => p.layer))];
  const isLeft = ({ layer }: DrawnPath) => order.uncut.includes(layer);
  const left = drawing.paths.filter(isLeft);
  const { contours, open } = closedContours(drawing.paths.filter((p) => !isLeft(p)));
  if (drawing.paths.length === 0)
    return { ok: false, asksUnit: false, message: "The drawing holds no outline that encloses anything." };
  const before = nested(contours);
  const stuck = { ok: true, before, after: [], left, layers, notes: drawing.notes, slots: [], piece: null } as const;
  if (contours.length === 0 && open.length === 0)
    return { ...stuck, problems: [], notes: [...drawing.notes, "Nothing of it encloses anything that is to be cut."] };
  const faults = [...open, ...crossingsOf(contours)];
  if (faults.length > 0) return { ...stuck, problems: faults };
  const fitted = order.slots
    ? rewidthed(before, order.slots.fromMm, order.slots.toMm)
    : { contours: before, slots: [] };
  const noSlots = order.slots && fitted.slots.length === 0 ? [`No slot is ${order.slots.fromMm} mm wide.`] : [];
  const grown = grownBy(fitted.contours, order.offsetMm);
  const problems = [...grown.problems, ...grownTogether(grown.contours)];
  return {
    ...{ ok: true, before, after: grown.contours, left, layers, problems, notes: [...drawing.notes, ...noSlots] },
    slots: fitted.slots.map((s) => s.at),
    piece: problems.length === 0 ? pieceOf(layers, grown.contours, left, drawing.title) : null,
  };
}

/** Outlines that lay nearer to each other than the cut is wide. */
function grownTogether(contours: readonly Contour[]): Problem[] {
  return crossingsOf(contours).map((p) => ({
    ...p,
    kind: "grown together",
    text: `Two outlines lie nearer to each other than the cut is wide, at X ${p.at.x.toFixed(1)} Y ${p.at.y.toFixed(1)} mm: what is between them would burn away. Move them apart.`,
  }));
}

/** Layer by layer, as they were drawn, holes before what they are in. */
function pieceOf(
  layers: readonly string[],
  contours: readonly Nested[],
  left: readonly DrawnPath[],
  title: string,
): Piece {
  const cut = [...contours].sort((a, b) => b.depth - a.depth).map((c): DrawnPath => ({ ...c, closed: true }));
  const all = [...left, ...cut];
  const box = boundsOf(all.flatMap((c) => c.points)) ?? { x0: 0, y0: 0, x1: 0, y1: 0 };
  const [x0, y0] = [box.x0 - MARGIN_MM, box.y0 - MARGIN_MM];
  return {
    ...{ id: "artwork", label: title || "Adapted drawing", stock: "as drawn" },
    ...{ widthMm: box.x1 - x0 + MARGIN_MM, heightMm: box.y1 - y0 + MARGIN_MM },
    // How it is cut is said on the card of the stock, not in the drawing.
    settings: layers.map((layer) => lineSettings(layer, layer, 10, 50)),
    paths: all.map(({ points, layer, closed }) => ({
      ...{ closed, settings: layer },
      points: points.map(({ x, y }) => ({ x: x - x0, y: y - y0 })),
    })),
  };
}
