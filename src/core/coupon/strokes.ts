/**
 * A coupon told once, stroke by stroke: files, drawings, bounds and burn time are all made of this stream.
 *
 * `strokesOf` tells a piece group by group, in the order of its marking settings; `burnSteps` tells a whole round in the order
 * in which it is burned.
 */
import type { CouponPoint } from "../geometry/frames";
import { boundsOf, type Rect } from "../geometry/rect";
import { type MarkingSettings, type Piece, settingsOf } from "./piece";
import type { Op } from "./program";
import type { RoundSpec } from "./round-spec";
import { scanRows } from "./scan-rows";

export type Stroke = { settings: MarkingSettings; points: readonly CouponPoint[]; closed: boolean };

/** The strokes of a piece, group by group. */
export function* strokesOf(piece: Piece): Generator<Stroke> {
  for (const settings of piece.settings) yield* strokesWith(piece, settings);
}

/** The strokes of one group. */
export function* strokesWith(piece: Piece, settings: MarkingSettings): Generator<Stroke> {
  for (const path of piece.paths)
    if (path.settings === settings.id) yield { settings, points: path.points, closed: path.closed };
}

/** All points of a stroke in the order in which they are burned: a closed one ends where it began. */
export function* pointsOf({ points, closed }: Stroke): Generator<CouponPoint> {
  yield* points;
  if (closed && points[0]) yield points[0];
}

/** The smallest rectangle around everything that is burned; `undefined` where nothing is. */
export function strokeBounds(piece: Piece): Rect | undefined {
  return boundsOf(allPoints(piece));
}

function* allPoints(piece: Piece): Generator<CouponPoint> {
  for (const stroke of strokesOf(piece)) yield* stroke.points;
}

export type BurnStep =
  | { kind: "mark"; piece: Piece; settings: MarkingSettings; strokes: Iterable<Stroke> }
  | Exclude<Op, { kind: "mark" }>;

/**
 * What is done to burn a round, in order, with the strokes of every group.
 *
 * @throws RangeError when the program names a piece or settings that are not there
 */
export function* burnSteps(spec: RoundSpec): Generator<BurnStep> {
  for (const op of spec.program) {
    if (op.kind !== "mark") {
      yield op;
      continue;
    }
    const piece = spec.pieces.find((p) => p.id === op.piece);
    if (!piece) throw new RangeError(`program: there is no piece “${op.piece}”`);
    const settings = settingsOf(piece, op.settings);
    yield { kind: "mark", piece, settings, strokes: asBurned(strokesWith(piece, settings)) };
  }
}

/** Outlines that are filled with rows, as these rows, there and back; all others as they are. */
export function* asBurned(strokes: Iterable<Stroke>): Generator<Stroke> {
  for (const stroke of strokes) {
    const { scan, use } = stroke.settings;
    if (use !== "rows" || !scan) {
      yield stroke;
      continue;
    }
    const settings = { ...stroke.settings, scan: null };
    let isBack = false;
    for (const { y, x0, x1 } of scanRows(stroke.points, scan.rowPitchMm)) {
      const [from, to] = isBack ? [x1, x0] : [x0, x1];
      yield {
        settings,
        points: [
          { x: from, y },
          { x: to, y },
        ],
        closed: false,
      };
      if (scan.direction === "both") isBack = !isBack;
    }
  }
}
