/** A drawing adapted to a kerf: closed, nested, its slots made to fit if wished, grown and shrunk, and every outline that suffers named. */
import type { Piece } from "../core/coupon/piece";
import { closedContours } from "./close-contours";
import type { Contour, Point, Problem } from "./contour";
import { crossingsOf } from "./crossings";
import { drawnPiece, layersOf } from "./drawn-piece";
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

export function adapt(order: AdaptOrder): AdaptResult {
  const drawing = readDrawing(order.text, order.unit, order.chordErrorMm);
  if (!drawing.ok) return drawing;
  const layers = layersOf(drawing.paths);
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
    ok: true,
    before,
    after: grown.contours,
    left,
    layers,
    problems,
    notes: [...drawing.notes, ...noSlots],
    slots: fitted.slots.map((s) => s.at),
    piece:
      problems.length === 0
        ? drawnPiece([...left, ...inOrder(grown.contours)], layers, {
            label: drawing.title || "Adapted drawing",
            stock: "as drawn",
          })
        : null,
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

/** Holes before what they are in. */
function inOrder(contours: readonly Nested[]): DrawnPath[] {
  return [...contours].sort((a, b) => b.depth - a.depth).map((c) => ({ ...c, closed: true }));
}
