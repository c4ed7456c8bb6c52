/** A drawing made for a round part: multiplied along the way around, or unrolled from a taper, with what does not go onto it named. */
import { lineSettings, type Piece } from "../core/coupon/piece";
import { boundsOf, type Rect } from "../core/geometry/rect";
import { bentPath } from "../core/rotary/develop-path";
import { artworkFactor, circumferenceMm, type RoundPart, type Wraps, wrapsOf } from "../core/rotary/round-part";
import { diameterAt, sentFrom, slantMm, type TaperSetup } from "../core/rotary/taper";
import type { Point } from "./contour";
import { type DrawnPath, readDrawing, type SvgUnit } from "./read-drawing";

export type PartShape =
  | ({ kind: "straight" } & Pick<RoundPart, "markedMm" | "turnsByMm">)
  /** `beginsMm`: along the side from the first end, where the artwork begins. */
  | ({ kind: "taper"; beginsMm: number } & TaperSetup);

export type DevelopOrder = {
  text: string;
  /** Of an SVG that does not say its unit. */
  unit: SvgUnit | null;
  /** How far a chord may lie from its curve, mm. */
  chordErrorMm: number;
  /** The axis of the drawing that runs around the part. */
  around: "x" | "y";
  shape: PartShape;
};

export type Developed = {
  ok: true;
  before: readonly DrawnPath[];
  after: readonly DrawnPath[];
  layers: readonly string[];
  notes: readonly string[];
  /** What does not go onto the part, in words. */
  faults: readonly string[];
  /** Length of the drawing around, mm, and whether it meets itself at the thinnest place that it reaches. */
  lengthMm: number;
  wraps: Wraps;
  /** One turn of the part, as it is sent, mm. */
  turnSentMm: number;
  piece: Piece;
};

export type DevelopResult = Developed | { ok: false; message: string; asksUnit: boolean };

export function develop(order: DevelopOrder): DevelopResult {
  const drawing = readDrawing(order.text, order.unit, order.chordErrorMm);
  if (!drawing.ok) return drawing;
  const box = boundsOf(drawing.paths.flatMap((p) => p.points));
  if (!box || drawing.paths.length === 0) return { ok: false, asksUnit: false, message: "The drawing holds no line." };
  const frame = frameOf(box, order.around);
  const bend = bendOf(order.shape, frame);
  const after = drawing.paths.map((path): DrawnPath => {
    const [first] = path.points;
    const whole = path.closed && first ? [...path.points, first] : path.points;
    const bent = bentPath(whole, bend, order.chordErrorMm);
    return { ...path, points: path.closed ? bent.slice(0, -1) : bent };
  });
  const thinnest = thinnestUnder(order.shape, frame);
  const wraps = wrapsOf(frame.around, thinnest);
  return {
    ...{ ok: true, before: drawing.paths, after, layers: [...new Set(drawing.paths.map((p) => p.layer))] },
    ...{ notes: drawing.notes, faults: faultsOf(order.shape, frame, wraps) },
    ...{
      lengthMm: frame.around,
      wraps,
      turnSentMm: circumferenceMm(order.shape.turnsByMm),
      piece: pieceOf(after, drawing.title),
    },
  };
}

type Frame = {
  /** To along the part from where the artwork begins, and around it from its middle. */
  flat: (p: Point) => { u: number; v: number };
  /** Back to a point of the drawing. */
  drawn: (along: number, around: number) => Point;
  along: number;
  around: number;
};

function frameOf({ x0, y0, x1, y1 }: Rect, around: "x" | "y"): Frame {
  const size = { along: around === "y" ? x1 - x0 : y1 - y0, around: around === "y" ? y1 - y0 : x1 - x0 };
  if (around === "y")
    return {
      ...size,
      flat: ({ x, y }) => ({ u: x - x0, v: y - (y0 + y1) / 2 }),
      drawn: (along, v) => ({ x: along, y: v }),
    };
  return {
    ...size,
    flat: ({ x, y }) => ({ u: y - y0, v: x - (x0 + x1) / 2 }),
    drawn: (along, v) => ({ x: v, y: along }),
  };
}

function bendOf(shape: PartShape, { flat, drawn }: Frame): (p: Point) => Point {
  if (shape.kind === "straight") {
    const factor = artworkFactor(shape);
    return (p) => {
      const { u, v } = flat(p);
      return drawn(u, factor * v);
    };
  }
  return (p) => {
    const { u, v } = flat(p);
    const sent = sentFrom(shape, { u: u + shape.beginsMm, v });
    return drawn(sent.along, sent.around);
  };
}

function thinnestUnder(shape: PartShape, { along }: Frame): number {
  if (shape.kind === "straight") return shape.markedMm;
  return Math.min(diameterAt(shape, shape.beginsMm), diameterAt(shape, shape.beginsMm + along));
}

function faultsOf(shape: PartShape, { along, around }: Frame, wraps: Wraps): string[] {
  const faults: string[] = [];
  if (wraps.kind === "overlap")
    faults.push(
      `The drawing is ${around.toFixed(1)} mm long around, ${wraps.mm.toFixed(1)} mm more than the part${shape.kind === "taper" ? " at the thinnest place that it reaches" : ""}: it runs over its own beginning. Make it shorter, or take a thicker part.`,
    );
  if (shape.kind === "taper" && shape.beginsMm + along > slantMm(shape) + END_MM)
    faults.push(
      `The drawing ends ${(shape.beginsMm + along - slantMm(shape)).toFixed(1)} mm beyond the last end: the side is ${slantMm(shape).toFixed(1)} mm long.`,
    );
  return faults;
}

const END_MM = 1e-6;
/** Left free around what is marked, mm. */
const MARGIN_MM = 2;

function pieceOf(paths: readonly DrawnPath[], title: string): Piece {
  const box = boundsOf(paths.flatMap((p) => p.points)) ?? { x0: 0, y0: 0, x1: 0, y1: 0 };
  const [x0, y0] = [box.x0 - MARGIN_MM, box.y0 - MARGIN_MM];
  return {
    ...{ id: "artwork", label: title || "Drawing for a round part", stock: "round part" },
    ...{ widthMm: box.x1 - x0 + MARGIN_MM, heightMm: box.y1 - y0 + MARGIN_MM },
    // How it is marked is no part of the drawing.
    settings: [...new Set(paths.map((p) => p.layer))].map((layer) => lineSettings(layer, layer, 10, 50)),
    paths: paths.map(({ points, layer, closed }) => ({
      ...{ closed, settings: layer },
      points: points.map(({ x, y }) => ({ x: x - x0, y: y - y0 })),
    })),
  };
}
