/** Grey pictures as PNG, with their resolution in it. [W3C PNG (Third Edition, 2025), 11.3.4.3 pHYs] */
import sharp from "sharp";
import { MM_PER_INCH } from "../core/metrology/units";

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
