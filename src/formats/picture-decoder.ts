/** A picture file, whatever its kind, as grey bytes: done once, so that every reader sees the same. */
import sharp from "sharp";
import type { ColourPicture } from "../core/picture/array/read-colours";
import type { GreyPicture } from "../core/picture/grey-picture";
import { MOST_PIXELS } from "./largest-file";
import { type Dpi, dpiOf } from "./picture-dpi";

const KINDS = ["png", "jpeg", "tiff", "webp"];
/** Less than this shows no coupon. */
const LEAST_SIDE = 100;

const LIMITS = { limitInputPixels: MOST_PIXELS, failOn: "truncated", pages: 1 } as const;

/** In words what is wrong with a file. */
export class PictureFault extends Error {}

/** @throws PictureFault for what is no picture of these kinds, too large, or damaged */
export async function decodePicture(file: Buffer): Promise<GreyPicture & { dpi: Dpi | null }> {
  if (file.length === 0) refuse("This file is empty.");
  const { format, width, height } = await sharp(file, { ...LIMITS, limitInputPixels: false })
    .metadata()
    .catch(() => refuse("This is no picture that can be read: take PNG, JPEG, TIFF or WebP."));
  if (!KINDS.includes(format))
    refuse(`This is ${format.toUpperCase()}, whatever its name says: take PNG, JPEG, TIFF or WebP.`);
  if (width * height > MOST_PIXELS)
    refuse(
      `This picture has ${Math.round((width * height) / 1e6)} megapixels; ${MOST_PIXELS / 1e6} are taken. Scan the coupon alone, or with fewer dots per inch.`,
    );
  if (width < LEAST_SIDE || height < LEAST_SIDE) refuse(`${width} × ${height} pixels are too few to measure in.`);
  const { data } = await sharp(file, LIMITS)
    .autoOrient()
    .flatten({ background: "white" })
    .toColourspace("b-w")
    .extractChannel(0)
    .raw({ depth: "uchar" })
    .toBuffer({ resolveWithObject: true })
    .catch(() => refuse("This picture is damaged or not whole: export or scan it again."));
  const size = await orientedSize(file, width, height);
  return { ...size, grey: data, dpi: size.turned ? swapped(dpiOf(file)) : dpiOf(file) };
}

/** Longest side of a picture in colour. Means of cells need no more. */
const COLOUR_SIDE = 2400;

/** The picture in colour, reduced. @throws PictureFault */
export async function decodeColours(file: Buffer): Promise<ColourPicture> {
  const { data, info } = await sharp(file, LIMITS)
    .autoOrient()
    .resize({ width: COLOUR_SIDE, height: COLOUR_SIDE, fit: "inside", withoutEnlargement: true })
    .flatten({ background: "white" })
    .toColourspace("srgb")
    .removeAlpha()
    .raw({ depth: "uchar" })
    .toBuffer({ resolveWithObject: true })
    .catch(() => refuse("This picture is damaged or not whole: export or scan it again."));
  if (info.channels !== 3) refuse("This picture has no colours. Scan the array in colour.");
  return { width: info.width, height: info.height, rgb: new Uint8Array(data) };
}

/** Cameras write down which way is up; four of the eight ways lie on their side. */
async function orientedSize(file: Buffer, width: number, height: number) {
  const { orientation = 1 } = await sharp(file, LIMITS).metadata();
  return orientation >= 5 ? { width: height, height: width, turned: true } : { width, height, turned: false };
}

function swapped(dpi: Dpi | null): Dpi | null {
  return dpi && { x: dpi.y, y: dpi.x };
}

function refuse(message: string): never {
  throw new PictureFault(message);
}
