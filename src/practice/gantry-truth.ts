/** What a practice gantry really is: hidden from everything that computes corrections. */
import { z } from "zod";
import { axesTruthSchema, heldNumberSchema } from "./axes-truth";
import { bedTruthSchema } from "./bed";
import { type FocusTruth, focusFromSeed, focusTruthSchema, grained, still } from "./head-height";
import { seeded, seedOf } from "./random";
import { rotariesSchema } from "./rotary-truth";

export const gantryTruthSchema = z.object({
  seed: z.number().int(),
  /** The beam comes on this long after the motor passes the place. */
  lagOnS: z.number(),
  lagOffS: z.number(),
  /** How much later than its lags say the beam is halfway between 100 and 600 mm/s, mm: a drive that bends. Left out: none. */
  bendMm: z.number().optional(),
  /** Lost motion of the X drive, mm. */
  playMm: z.number().nonnegative(),
  accelerationMmPerS2: z.number().positive(),
  /** True mm per commanded mm. */
  scaleX: z.number().positive(),
  scaleY: z.number().positive(),
  spotMm: z.number().positive(),
  /** How far scanned rows lie to the right of drawn lines, mm, what a speed adds, s, and which way a larger stored value moves them. Left out: they do not. */
  rowShift: z
    .object({ mm: z.number(), perSpeedS: z.number(), sense: z.union([z.literal(1), z.literal(-1)]) })
    .optional(),
  /** Scatter of single row ends, sd in mm. */
  endJitterMm: z.number().nonnegative(),
  /** Left out in machines of before there were heights: theirs comes from the seed. */
  focus: focusTruthSchema.optional(),
  /** Left out in machines of before there were beds: theirs comes from the seed. */
  bed: bedTruthSchema.optional(),
  /** Left out in machines of before there were errors of axes: theirs run straight. */
  axes: axesTruthSchema.optional(),
  /** Rotaries by their name; what is left out comes from the seed. */
  rotaries: rotariesSchema.optional(),
  controller: z.object({
    tableKind: z.enum(["interpolated", "exact speed only"]),
    /** +1: a larger entry fires earlier. */
    sense: z.union([z.literal(1), z.literal(-1)]),
  }),
});
export type GantryTruth = z.infer<typeof gantryTruthSchema>;

/** What the practice controller holds now. */
export const practiceControllerSchema = z.object({
  /** By speed in mm/s: offset in mm. */
  table: z.array(z.object({ at: z.number(), value: z.number() })),
  switchedOn: z.boolean(),
  /** Shift of scanned rows by speed in mm/s, mm; left out where none was entered. */
  rowShifts: z.array(z.object({ at: z.number(), value: z.number() })).optional(),
  /** Numbers by the key of their setting; left out before there were any. */
  numbers: z.record(z.string(), heldNumberSchema).optional(),
  /** The file of the correction table that is loaded; left out where none is. */
  fieldTable: z.string().optional(),
});
export type PracticeController = z.infer<typeof practiceControllerSchema>;

/** By how much marks come later at a speed than the lags say, mm: none at both ends of the range, most halfway. */
export function bendAt({ bendMm = 0 }: Pick<GantryTruth, "bendMm">, speedMmPerS: number): number {
  const share = Math.min(1, Math.max(0, (speedMmPerS - 100) / 500));
  return bendMm * Math.sin(Math.PI * share);
}

/** Key of the one value by which a controller moves all scanned rows. */
export const ROW_SHIFT = "row shift";

/** How far to the right of drawn lines a controller puts scanned rows with what it stores now, mm. */
export function rowShiftAt(
  { rowShift }: Pick<GantryTruth, "rowShift">,
  { numbers, rowShifts = [] }: PracticeController,
  speedMmPerS: number,
): number {
  if (!rowShift) return 0;
  const one = numbers?.[ROW_SHIFT];
  const stored =
    (one ? one.now - one.found : 0) + (rowShifts.find((r) => Math.abs(r.at - speedMmPerS) < 0.5)?.value ?? 0);
  return rowShift.mm + rowShift.perSpeedS * speedMmPerS + rowShift.sense * stored;
}

/** Scanned rows up to 0.25 mm off drawn lines, by up to 0.1 mm more at 500 mm/s. (invented) */
export function rowShiftFromSeed(seed: number, sense: 1 | -1): NonNullable<GantryTruth["rowShift"]> {
  const random = seeded(seedOf(seed, "row shift"));
  return { mm: random.between(-0.25, 0.25), perSpeedS: random.between(-0.0002, 0.0002), sense };
}

/** A gantry drawn by chance: lags of 0.15 to 0.65 ms, up to 0.06 mm of play, scale within 0.1 %. */
export function gantryFromSeed(seed: number): GantryTruth {
  const random = seeded(seed);
  return {
    seed,
    lagOnS: random.between(0.00015, 0.00065),
    lagOffS: random.between(0.00015, 0.00065),
    playMm: random.between(0, 0.06),
    accelerationMmPerS2: random.between(5000, 12000),
    scaleX: 1 + random.between(-0.001, 0.001),
    scaleY: 1 + random.between(-0.001, 0.001),
    spotMm: random.between(0.12, 0.25),
    endJitterMm: 0.003,
    controller: { tableKind: "interpolated", sense: 1 },
  };
}

/** How it comes to its heights, and its beam. */
export function focusOf({ focus, seed }: GantryTruth): FocusTruth {
  return focus ?? grained(focusFromSeed(seed), seed);
}

/** The same machine with everything random taken out, for checks of the model itself. */
export function withoutNoise(truth: GantryTruth): GantryTruth {
  return { ...truth, scaleX: 1, scaleY: 1, endJitterMm: 0, focus: still(focusOf(truth)) };
}
