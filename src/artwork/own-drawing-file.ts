/** An SVG file as a drawing that is burned in every cell of an array. */
import { drawingText, MOST_DRAWING_POINTS } from "../core/coupon/own-drawing";
import { boundsOf } from "../core/geometry/rect";
import type { Parsed } from "../formats/parsed";
import { parseSvgDrawing } from "../formats/svg-drawing";

/** Largest distance of a chord from its curve, as shares of the longer side: finer first, until the drawing has few enough points. */
const CHORDS = [0.001, 0.003, 0.01];

export function ownDrawing(svg: string): Parsed<string> {
  const first = parseSvgDrawing(svg);
  if (!first.ok) return fault(`The file cannot be read. ${first.message} Choose another SVG file.`);
  const bounds = boundsOf(first.value.paths.flatMap((p) => p.points));
  const side = bounds ? Math.max(bounds.x1 - bounds.x0, bounds.y1 - bounds.y0) : 0;
  if (side === 0) return fault("The file has no lines. Choose an SVG file with a drawing, with its text as paths.");
  let points = 0;
  for (const chord of CHORDS) {
    const read = parseSvgDrawing(svg, chord * side);
    if (!read.ok) return read;
    const contours = read.value.paths
      .filter((p) => p.points.length >= 2)
      .map(({ points: all, closed }) => ({ points: all, closed }));
    points = contours.reduce((sum, c) => sum + c.points.length, 0);
    const text = points <= MOST_DRAWING_POINTS ? drawingText(contours) : null;
    if (text !== null) return { ok: true, value: text };
  }
  return fault(
    `The drawing has ${points} points. Choose a simpler drawing with at most ${MOST_DRAWING_POINTS} points.`,
  );
}

function fault(message: string): Parsed<string> {
  return { ok: false, line: 1, column: 1, message };
}
