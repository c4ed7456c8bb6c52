/** How large a pixel is, both ways, how well that is known, and where it comes from. */
import { z } from "zod";
import { MM_PER_INCH } from "../metrology/units";

export const scaleSourceSchema = z.enum(["file", "two points", "coupon", "typed"]);

export const pictureScaleSchema = z.object({
  xPixelsPerMm: z.number().positive(),
  yPixelsPerMm: z.number().positive(),
  /** Standard uncertainty of a length, as a share of it. */
  relative: z.number().nonnegative(),
  source: scaleSourceSchema,
});
export type PictureScale = z.infer<typeof pictureScaleSchema>;

/** Flatbed scanners hold their number of dots to about this share, each axis by itself. (common practice, no source) */
const SCANNER_SHARE = 0.002;
/** An axis that nobody checked is good to about this share. (common practice, no source) */
const AXIS_SHARE = 0.003;
/** How well a point is set by hand, pixels. */
const POINTED_PX = 1;

/** By the dots per inch that the file names. */
export function scaleFromDpi(xDpi: number, yDpi: number, source: "file" | "typed" = "file"): PictureScale {
  return {
    xPixelsPerMm: xDpi / MM_PER_INCH,
    yPixelsPerMm: yDpi / MM_PER_INCH,
    relative: SCANNER_SHARE,
    source,
  };
}

/** Row distances that differ by more than this share contradict the scale. */
export const FILE_SCALE_ERROR = 0.015;

/** Adds a contradiction by the rows of the coupon to the uncertainty. @param error as a share; `null` without rows */
export function contradicted(scale: PictureScale, error: number | null): PictureScale {
  if (error === null || Math.abs(error) <= FILE_SCALE_ERROR) return scale;
  return { ...scale, relative: Math.hypot(scale.relative, error) };
}

/** With so many times as many pixels to a mm. */
export function scaleTimes(scale: PictureScale, times: number): PictureScale {
  return { ...scale, xPixelsPerMm: times * scale.xPixelsPerMm, yPixelsPerMm: times * scale.yPixelsPerMm };
}

/**
 * By the rows of the coupon, which lie as far apart as the machine burned them: its axis is taken at its word.
 *
 * @param times distances across rows in the picture over those drawn, by the scale there was; X follows Y
 */
export function scaleFromCoupon(scale: PictureScale, times: number): PictureScale {
  return { ...scaleTimes(scale, times), relative: AXIS_SHARE, source: "coupon" };
}

/**
 * By two points of the picture a known distance apart; pixels are taken to be square.
 *
 * @param from,to pixels
 * @param uMm standard uncertainty of the distance
 * @returns `null` where the points are one, or the distance is not positive
 */
export function scaleFromPoints(
  from: { x: number; y: number },
  to: { x: number; y: number },
  distanceMm: number,
  uMm: number,
): PictureScale | null {
  const pixels = Math.hypot(to.x - from.x, to.y - from.y);
  if (!(pixels > 0) || !(distanceMm > 0)) return null;
  const perMm = pixels / distanceMm;
  return {
    xPixelsPerMm: perMm,
    yPixelsPerMm: perMm,
    relative: Math.hypot((Math.SQRT2 * POINTED_PX) / pixels, uMm / distanceMm),
    source: "two points",
  };
}
