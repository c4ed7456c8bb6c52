/** Grey pictures as PNG, with their resolution in it. [W3C PNG (Third Edition, 2025), 11.3.4.3 pHYs] */
import sharp from "sharp";
import type { Rect } from "../core/geometry/rect";
import { MM_PER_INCH } from "../core/metrology/units";
import type { ColourPicture } from "../core/picture/array/read-colours";
import type { GreyPicture } from "../core/picture/grey-picture";

type Size = { width: number; height: number; pixelsPerMm: number };

/** @param picture.grey row by row from the top, 0 black to 255 white @returns the bytes of the file */
export function greyPng({ grey, ...size }: Size & { grey: Uint8Array }): Promise<Buffer> {
  return whole(grey, 1, size);
}

/** @param picture.rgb three bytes a pixel, row by row from the top @returns the bytes of the file */
export function colourPng({ rgb, ...size }: Size & { rgb: Uint8Array }): Promise<Buffer> {
  return whole(rgb, 3, size);
}

function whole(bytes: Uint8Array, channels: 1 | 3, { width, height, pixelsPerMm }: Size): Promise<Buffer> {
  return sharp(bytes, { raw: { width, height, channels } })
    .toColourspace(SPACES[channels])
    .withDensity(pixelsPerMm * MM_PER_INCH)
    .png()
    .toBuffer();
}

const SPACES = { 1: "b-w", 3: "srgb" } as const;

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
  return cutOut(grey, { width, height, channels: 1 }, box, longestPx);
}

/** The same of a picture in colour. */
export async function colourPartPng(
  { width, height, rgb }: ColourPicture,
  box: Rect,
  longestPx: number,
): Promise<Buffer | null> {
  return cutOut(rgb, { width, height, channels: 3 }, box, longestPx);
}

async function cutOut(
  bytes: Uint8Array,
  raw: { width: number; height: number; channels: 1 | 3 },
  box: Rect,
  longestPx: number,
): Promise<Buffer | null> {
  const { width, height } = raw;
  const [left, top] = [Math.max(0, Math.floor(box.x0)), Math.max(0, Math.floor(box.y0))];
  const [right, bottom] = [Math.min(width, Math.ceil(box.x1)), Math.min(height, Math.ceil(box.y1))];
  if (right <= left || bottom <= top) return null;
  return sharp(bytes, { raw })
    .extract({ left, top, width: right - left, height: bottom - top })
    .resize({ width: longestPx, height: longestPx, fit: "inside", withoutEnlargement: true })
    .toColourspace(SPACES[raw.channels])
    .png()
    .toBuffer();
}
