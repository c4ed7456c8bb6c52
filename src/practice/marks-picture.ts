/**
 * A burned piece as a flatbed scan would show it: grey, seen from above, its upper left corner at the first pixel.
 *
 * Each mark is a box as wide as its line, with straight ends where the beam came on and went off. A pixel takes as much of it as it
 * lies on it.
 */
import { onCoupon, type Placement } from "../core/geometry/frames";
import { MM_PER_INCH } from "../core/metrology/units";
import { MOST_PIXELS } from "../formats/largest-file";
import type { Mark } from "./gantry";

/** `grey` is row by row from the top, 0 black to 255 white. */
export type GreyPicture = { width: number; height: number; grey: Uint8Array; pixelsPerMm: number };

const STOCK_GREY = 222;
const MARK_GREY = 52;

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
  const onPicture = ({ x, y }: { x: number; y: number }) => ({
    x: x * pixelsPerMm,
    y: (area.heightMm - y) * pixelsPerMm,
  });
  for (const mark of marks) {
    const [a, b] = [onCoupon({ x: mark.x0, y: mark.y0 }, placement), onCoupon({ x: mark.x1, y: mark.y1 }, placement)];
    drawMark(picture, boxBetween(onPicture(a), onPicture(b), mark.widthMm * pixelsPerMm));
  }
  return picture;
}

/** In pixels: middle, unit vector along, half length and half width. */
export type Box = { x: number; y: number; ux: number; uy: number; half: number; halfWidth: number };

/** All in pixels. */
export function boxBetween(a: { x: number; y: number }, b: { x: number; y: number }, width: number): Box {
  const length = Math.hypot(b.x - a.x, b.y - a.y);
  return {
    x: (a.x + b.x) / 2,
    y: (a.y + b.y) / 2,
    ...(length > 0 ? { ux: (b.x - a.x) / length, uy: (b.y - a.y) / length } : { ux: 1, uy: 0 }),
    half: length / 2,
    halfWidth: width / 2,
  };
}

/** @param shades of stock and mark */
export function drawMark(
  { width, height, grey }: Pick<GreyPicture, "width" | "height" | "grey">,
  box: Box,
  shades = { stock: STOCK_GREY, mark: MARK_GREY },
): void {
  const reachX = Math.abs(box.ux) * box.half + Math.abs(box.uy) * box.halfWidth + 1;
  const reachY = Math.abs(box.uy) * box.half + Math.abs(box.ux) * box.halfWidth + 1;
  const [left, right] = [Math.max(0, Math.floor(box.x - reachX)), Math.min(width - 1, Math.ceil(box.x + reachX))];
  const [top, bottom] = [Math.max(0, Math.floor(box.y - reachY)), Math.min(height - 1, Math.ceil(box.y + reachY))];
  for (let row = top; row <= bottom; row++)
    for (let column = left; column <= right; column++) {
      const share = covered(box, column + 0.5, row + 0.5);
      if (share <= 0) continue;
      const shade = Math.round(shades.stock + (shades.mark - shades.stock) * share);
      const at = row * width + column;
      // Where marks meet, the darker one shows.
      if (shade < (grey[at] ?? 0) === shades.mark < shades.stock) grey[at] = shade;
    }
}

/** Of a pixel, as much as lies on the box: as if the pixel were turned with it. */
function covered({ x, y, ux, uy, half, halfWidth }: Box, px: number, py: number): number {
  const along = overlap((px - x) * ux + (py - y) * uy, half);
  return along > 0 ? along * overlap((py - y) * ux - (px - x) * uy, halfWidth) : 0;
}

/** Of a length of 1 around a place, as much as lies within `half` either side of 0. */
function overlap(place: number, half: number): number {
  return Math.max(0, Math.min(half, place + 0.5) - Math.max(-half, place - 0.5));
}
