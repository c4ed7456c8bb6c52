/** What a person moved of what the reader had found, and what that makes of a reading. */
import type { SiteMark, SiteRead } from "../../core/picture/read-picture";

export type MarkSet = SiteMark["set"];
/** By how much each set was moved, mm on the coupon, along what is measured. */
export type Shift = Readonly<Record<MarkSet, number>>;
export const UNMOVED: Shift = { first: 0, second: 0 };

/** How well a mark is set by hand, pixels. */
const POINTED_PX = 0.5;

export function isMoved(shift: Shift): boolean {
  return shift.first !== 0 || shift.second !== 0;
}

export type ShownReading = { mm: number; uMm: number; degreesOfFreedom: number; edited: boolean };

/** @param pixelMm side of a pixel on the coupon */
export function readingAfter(read: Extract<SiteRead, { ok: true }>, shift: Shift, pixelMm: number): ShownReading {
  const { degreesOfFreedom } = read;
  if (!isMoved(shift)) return { mm: read.value, uMm: read.u, degreesOfFreedom, edited: false };
  const moved = Number(shift.first !== 0) + Number(shift.second !== 0);
  return {
    mm: read.value + shift.second - shift.first,
    uMm: Math.hypot(read.u, Math.sqrt(moved) * POINTED_PX * pixelMm),
    degreesOfFreedom,
    edited: true,
  };
}
