/** A drawing made for a round part: multiplied along the way around, or unrolled from a taper, with what does not go onto it named. */
import type { Piece } from "../core/coupon/piece";
import { bentPath } from "../core/geometry/bent-path";
import { boundsOf, type Rect } from "../core/geometry/rect";
import { artworkFactor, circumferenceMm, type RoundPart, type Wraps, wrapsOf } from "../core/round-part/round-part";
import { diameterAt, foreshortened, sentFrom, slantMm, type TaperSetup } from "../core/round-part/taper";
import type { Point } from "./contour";
import { drawnPiece, layersOf } from "./drawn-piece";
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
  notes: readonly string[];
  /** What does not go onto the part, in words. */
  faults: readonly string[];
  /** Length of the drawing around, mm, as drawn. */
  lengthMm: number;
  /** Whether it meets itself where the part is thinnest. */
  wraps: Wraps;
  /** Where what is sent begins along the part, mm from its first end; of no taper from where it is laid. */
  beginsMm: number;
  /** One turn of the part, as it is sent, mm. */
  turnSentMm: number;
  piece: Piece;
};

export type DevelopResult = Developed | { ok: false; message: string; asksUnit: boolean };

export function develop(order: DevelopOrder): DevelopResult {
  const { shape, around, chordErrorMm } = order;
  const drawing = readDrawing(order.text, order.unit, chordErrorMm);
  if (!drawing.ok) return drawing;
  const box = boundsOf(drawing.paths.flatMap((p) => p.points));
  if (!box) return { ok: false, asksUnit: false, message: "The drawing holds no line." };
  const frame = frameOf(box, around);
  const bend = bendOf(shape, frame);
  const after = drawing.paths.map((path): DrawnPath => {
    const [first] = path.points;
    const whole = path.closed && first ? [...path.points, first] : path.points;
    const bent = bentPath(whole, bend, chordErrorMm);
    return { ...path, points: path.closed ? bent.slice(0, -1) : bent };
  });
  const sent = sentBox(after, around);
  const turnSentMm = circumferenceMm(shape.turnsByMm);
  const thinnest = thinnestUnder(shape, sent);
  // By the angle that is turned: what lies flat on a taper reaches farther round than it is long.
  const wraps = wrapsOf((sent.around / turnSentMm) * circumferenceMm(thinnest), thinnest);
  return {
    ok: true,
    before: drawing.paths,
    after,
    notes: drawing.notes,
    lengthMm: frame.around,
    wraps,
    turnSentMm,
    beginsMm: sent.from,
    faults: faultsOf(shape, sent, frame.around, wraps),
    piece: drawnPiece(after, layersOf(after), {
      label: drawing.title || "Drawing for a round part",
      stock: "round part",
    }),
  };
}

/** What is sent takes: along the part from where to where, and how much around it. */
type Sent = { from: number; to: number; around: number };

function sentBox(after: readonly DrawnPath[], around: "x" | "y"): Sent {
  const { x0, y0, x1, y1 } = boundsOf(after.flatMap((p) => p.points)) as Rect;
  return around === "y" ? { from: x0, to: x1, around: y1 - y0 } : { from: y0, to: y1, around: x1 - x0 };
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

/** Across at the thinnest place that is reached. */
function thinnestUnder(shape: PartShape, { from, to }: Sent): number {
  if (shape.kind === "straight") return shape.markedMm;
  return Math.min(...[from, to].map((along) => diameterAt(shape, along / foreshortened(shape))));
}

function faultsOf(shape: PartShape, sent: Sent, drawnMm: number, wraps: Wraps): string[] {
  const isTaper = shape.kind === "taper";
  const faults: string[] = [];
  if (wraps.kind === "overlap")
    faults.push(
      `The drawing is ${drawnMm.toFixed(1)} mm long around: on the part${isTaper ? ", at the thinnest place that it reaches," : ""} that is ${wraps.mm.toFixed(1)} mm too much, and it runs over its own beginning. Make it shorter, or take a thicker part.`,
    );
  if (!isTaper) return faults;
  const [from, to] = [sent.from / foreshortened(shape), sent.to / foreshortened(shape)];
  const beyond = to - slantMm(shape);
  if (beyond > END_MM)
    faults.push(
      `It reaches ${beyond.toFixed(1)} mm beyond the other end: the side is ${slantMm(shape).toFixed(1)} mm long, and what is bent reaches farther than it is drawn. Let it begin earlier, or make it shorter along the part.`,
    );
  if (from < -END_MM) faults.push(`It begins ${(-from).toFixed(1)} mm before the first end. Let it begin later.`);
  return faults;
}

const END_MM = 1e-6;
