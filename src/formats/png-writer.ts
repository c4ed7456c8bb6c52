/** Grey pictures as PNG, with their resolution in it. [W3C PNG (Third Edition, 2025), 11.3.4.3 pHYs] */
import sharp from "sharp";
import type { Rect } from "../core/geometry/rect";
import { MM_PER_INCH } from "../core/metrology/units";
import type { GreyPicture } from "../core/picture/grey-picture";

/**
 * @param grey row by row from the top, 0 black to 255 white
 * @returns the bytes of the file
 */
export function greyPng({
  width,
  height,
  grey,
  pixelsPerMm,
}: {
  width: number;
  height: number;
  grey: Uint8Array;
  pixelsPerMm: number;
}): Promise<Buffer> {
  return sharp(grey, { raw: { width, height, channels: 1 } })
    .toColourspace("b-w")
    .withDensity(pixelsPerMm * MM_PER_INCH)
    .png()
    .toBuffer();
}

/**
 * A part of a grey picture as PNG, reduced to a longest side.
 *
 * @param box pixels; what is outside the picture is left out
 * @returns the bytes of the file; `null` if nothing of the box is inside
 */
export async function partPng(
  { width, height, grey }: GreyPicture,
  box: Rect,
  longestPx: number,
): Promise<Buffer | null> {
  const [left, top] = [Math.max(0, Math.floor(box.x0)), Math.max(0, Math.floor(box.y0))];
  const [right, bottom] = [Math.min(width, Math.ceil(box.x1)), Math.min(height, Math.ceil(box.y1))];
  if (right <= left || bottom <= top) return null;
  return sharp(grey, { raw: { width, height, channels: 1 } })
    .extract({ left, top, width: right - left, height: bottom - top })
    .resize({ width: longestPx, height: longestPx, fit: "inside", withoutEnlargement: true })
    .toColourspace("b-w")
    .png()
    .toBuffer();
}
