/** Paths of a drawing as a piece that can be written: moved into its corner, layer by layer. */
import { lineSettings, type Piece } from "../core/coupon/piece";
import { boundsOf } from "../core/geometry/rect";
import type { DrawnPath } from "./read-drawing";

/** Left free around what is drawn, mm. */
const MARGIN_MM = 2;

/** @param layers in their order */
export function drawnPiece(
  paths: readonly DrawnPath[],
  layers: readonly string[],
  { label, stock }: Pick<Piece, "label" | "stock">,
): Piece {
  const box = boundsOf(paths.flatMap((p) => p.points)) ?? { x0: 0, y0: 0, x1: 0, y1: 0 };
  const [x0, y0] = [box.x0 - MARGIN_MM, box.y0 - MARGIN_MM];
  return {
    id: "artwork",
    label,
    stock,
    widthMm: box.x1 - x0 + MARGIN_MM,
    heightMm: box.y1 - y0 + MARGIN_MM,
    // How it is burned is no part of the drawing.
    settings: layers.map((layer) => lineSettings(layer, layer, 10, 50)),
    paths: paths.map(({ points, layer, closed }) => ({
      closed,
      settings: layer,
      points: points.map(({ x, y }) => ({ x: x - x0, y: y - y0 })),
    })),
  };
}

/** In the order in which they are met. */
export function layersOf(paths: readonly DrawnPath[]): string[] {
  return [...new Set(paths.map((p) => p.layer))];
}
