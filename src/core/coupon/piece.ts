/**
 * A test piece as it is burned: paths on a stock, in groups by their marking settings.
 *
 * `rows`  strokes burned at steady speed, with a run-up before and after, in the direction in which they are drawn; with `scan`, outlines that
 *         Ustrina fills with such rows
 * `scan`  a closed outline that the controller fills with rows of its own
 * `line`  drawn as it stands
 */
import { z } from "zod";
import { couponPointSchema } from "../geometry/frames";

export const markingSettingsSchema = z.object({
  id: z.string().min(1),
  label: z.string(),
  use: z.enum(["rows", "scan", "line"]),
  speedMmPerS: z.number().positive(),
  powerPct: z.number().positive().max(100),
  /** Pulses a second, in thousands, where the machine takes them; left out where it does not. */
  pulseKHz: z.number().positive().optional(),
  /** Length of one pulse, where it can be set. */
  pulseNs: z.number().positive().optional(),
  /** Each dot of a row is burned standing, for so long; left out for lines. */
  dwellMs: z.number().positive().optional(),
  /** The focus lies so far above the surface; left out where it lies on it. */
  aboveFocusMm: z.number().optional(),
  /** How often it is marked; left out: once. */
  passes: z.number().int().min(2).optional(),
  /** Straight way before and after each row in which the head reaches its speed, mm; `rows` only. */
  runUpMm: z.number().nonnegative(),
  /** `scan`, and `rows` of an outline: distance between rows and whether they are burned both ways. */
  scan: z
    .object({
      rowPitchMm: z.number().positive(),
      direction: z.enum(["both", "right-going"]),
    })
    .nullable(),
});
export type MarkingSettings = z.infer<typeof markingSettingsSchema>;

/** Settings of lines that are drawn as they stand. */
export function lineSettings(id: string, label: string, speedMmPerS: number, powerPct: number): MarkingSettings {
  return { id, label, use: "line", speedMmPerS, powerPct, runUpMm: 0, scan: null };
}

export const couponPathSchema = z.object({
  points: z.array(couponPointSchema).min(2),
  closed: z.boolean(),
  /** Id of the marking settings of its piece. */
  settings: z.string(),
});
export type CouponPath = z.infer<typeof couponPathSchema>;

export const pieceSchema = z.object({
  id: z.string().min(1),
  label: z.string(),
  stock: z.string(),
  widthMm: z.number().positive(),
  heightMm: z.number().positive(),
  settings: z.array(markingSettingsSchema),
  paths: z.array(couponPathSchema),
  /** Lengths along X come out so much longer on the stock than drawn, from a place on: it was propped. */
  seen: z.object({ fromXMm: z.number(), stretchX: z.number().positive() }).optional(),
  /** Key of the batch that it is of, where what is found is kept with it. */
  stockKey: z.string().optional(),
  /** What is cut through, by the key of its stock, and how far the focus lies below its top face; left out where nothing is cut. */
  cutFrom: z.object({ stock: z.string(), thicknessMm: z.number().positive(), focusBelowMm: z.number() }).optional(),
});
export type Piece = z.infer<typeof pieceSchema>;

/**
 * The settings of a path.
 * @throws RangeError when the piece has no such settings
 */
export function settingsOf(piece: Piece, id: string): MarkingSettings {
  const found = piece.settings.find((s) => s.id === id);
  if (!found) throw new RangeError(`piece ${piece.id}: no marking settings “${id}”`);
  return found;
}
