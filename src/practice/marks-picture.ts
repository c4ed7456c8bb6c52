/**
 * A burned piece as a flatbed scan would show it: grey, seen from above, its upper left corner at the first pixel.
 *
 * Each mark is a box as wide as its line, with straight ends where the beam came on and went off. What a pixel takes of it
 * follows from the signed distance of its centre to the box, d in pixels: 1/2 - d between 0 and 1.
 */
import { onCoupon, type Placement } from "../core/geometry/frames";
import { MM_PER_INCH } from "../core/metrology/units";
import type { Mark } from "./gantry";

/** `grey` is row by row from the top, 0 black to 255 white. */
export type GreyPicture = { width: number; height: number; grey: Uint8Array; pixelsPerMm: number };

const STOCK_GREY = 222;
const MARK_GREY = 52;
/** A picture of so many pixels still fits the memory of a small machine. */
export const MOST_PIXELS = 100_000_000;

/**
 * @param area of the piece, mm
 * @param dpi pixels per inch, the same both ways
 * @throws RangeError when the picture would have no pixel, or more than `MOST_PIXELS`
 */
export function marksPicture(
  marks: readonly Mark[],
  placement: Placement,
  area: { widthMm: number; heightMm: number },
  dpi: number,
): GreyPicture {
  const pixelsPerMm = dpi / MM_PER_INCH;
  const [width, height] = [Math.round(area.widthMm * pixelsPerMm), Math.round(area.heightMm * pixelsPerMm)];
  if (!(width >= 1 && height >= 1 && width * height <= MOST_PIXELS))
    throw new RangeError(`dpi: a picture of ${width} × ${height} pixels cannot be drawn`);
  const picture = { width, height, grey: new Uint8Array(width * height).fill(STOCK_GREY), pixelsPerMm };
  for (const mark of marks) draw(picture, boxOf(mark, placement, area.heightMm, pixelsPerMm));
  return picture;
}

/** In pixels: middle, unit vector along, half length and half width. */
type Box = { x: number; y: number; ux: number; uy: number; half: number; halfWidth: number };

function boxOf(mark: Mark, placement: Placement, heightMm: number, pixelsPerMm: number): Box {
  const [a, b] = [onCoupon({ x: mark.x0, y: mark.y0 }, placement), onCoupon({ x: mark.x1, y: mark.y1 }, placement)];
  const [x0, y0] = [a.x * pixelsPerMm, (heightMm - a.y) * pixelsPerMm];
  const [x1, y1] = [b.x * pixelsPerMm, (heightMm - b.y) * pixelsPerMm];
  const length = Math.hypot(x1 - x0, y1 - y0);
  return {
    ...{ x: (x0 + x1) / 2, y: (y0 + y1) / 2 },
    ...(length > 0 ? { ux: (x1 - x0) / length, uy: (y1 - y0) / length } : { ux: 1, uy: 0 }),
    ...{ half: length / 2, halfWidth: (mark.widthMm * pixelsPerMm) / 2 },
  };
}

function draw({ width, height, grey }: GreyPicture, box: Box): void {
  const reachX = Math.abs(box.ux) * box.half + Math.abs(box.uy) * box.halfWidth + 1;
  const reachY = Math.abs(box.uy) * box.half + Math.abs(box.ux) * box.halfWidth + 1;
  const [left, right] = [Math.max(0, Math.floor(box.x - reachX)), Math.min(width - 1, Math.ceil(box.x + reachX))];
  const [top, bottom] = [Math.max(0, Math.floor(box.y - reachY)), Math.min(height - 1, Math.ceil(box.y + reachY))];
  for (let row = top; row <= bottom; row++)
    for (let column = left; column <= right; column++) {
      const share = 0.5 - distance(box, column + 0.5, row + 0.5);
      if (share <= 0) continue;
      const shade = Math.round(STOCK_GREY + (MARK_GREY - STOCK_GREY) * Math.min(1, share));
      const at = row * width + column;
      // Where marks meet, the darker one shows.
      if (shade < (grey[at] as number)) grey[at] = shade;
    }
}

/** Signed, negative inside. */
function distance({ x, y, ux, uy, half, halfWidth }: Box, px: number, py: number): number {
  const along = Math.abs((px - x) * ux + (py - y) * uy) - half;
  const across = Math.abs((py - y) * ux - (px - x) * uy) - halfWidth;
  if (along > 0 && across > 0) return Math.hypot(along, across);
  return Math.max(along, across);
}
