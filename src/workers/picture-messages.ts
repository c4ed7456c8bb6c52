/** What the page and the worker that reads pictures say to each other. */
import type { Piece } from "../core/coupon/piece";
import type { Site } from "../core/coupon/site";
import type { ArrayLook, ArrayRead } from "../core/picture/array/read-array";
import type { GridRead, PixelPoint } from "../core/picture/dots/read-grid";
import type { PictureScale } from "../core/picture/picture-scale";
import type { CouponPlacement } from "../core/picture/place-coupon";
import type { PartRead, PicturePart } from "../core/picture/read-part";

/** A part of the picture as it is shown: place of its upper left corner, in pixels, and how large one pixel of it is drawn. */
export type ShownPart = { x: number; y: number; zoom: number; width: number; height: number };

export type ReadOrder = {
  piece: Piece;
  sites: readonly Site[];
  scale: PictureScale;
  brighter: boolean;
  /** Which part of it shows which place; none where it shows the whole coupon. */
  parts: readonly PicturePart[];
};

export type GridOrder = {
  /** Dots along each side. */
  across: number;
  brighter: boolean;
  /** Round spots that the user marked as dirt, pixels. */
  dirt: readonly PixelPoint[];
  /** One of several overlapping scans. */
  isPart: boolean;
};

export type ArrayOrder = { look: ArrayLook; brighter: boolean };

export type ToReader =
  | { kind: "load"; url: string; width: number; height: number }
  | ({ kind: "read" } & ReadOrder)
  | ({ kind: "read grid" } & GridOrder)
  | ({ kind: "read array" } & ArrayOrder)
  | { kind: "show"; part: ShownPart };

export type FromReader =
  | { kind: "loaded" }
  /** With how many times as many pixels as said a mm has, where the coupon tells. */
  | { kind: "failed"; why: string; scaleTimes: number | null }
  /** Where the coupon lies: shown before its sites are read. */
  | { kind: "placed"; placement: CouponPlacement }
  | { kind: "read"; found: PartRead[]; ms: number }
  | { kind: "grid"; read: Extract<GridRead, { ok: true }>; ms: number }
  | { kind: "array"; read: Extract<ArrayRead, { ok: true }>; ms: number }
  | { kind: "shown"; part: ShownPart; pixels: ImageData };
