/** How the bed of a practice machine really lies, and how curved the field of its lens is. */
import { z } from "zod";
import { type FocusTruth, shownFocus } from "./head-height";
import { type Random, seeded, seedOf } from "./random";

export const bedTruthSchema = z.object({
  /** Rise to the right and away from the operator, mm a mm, about the middle. */
  slopeX: z.number(),
  slopeY: z.number(),
  /** By how much higher focus lies per squared distance from the middle of the field, 1/mm; 0 under a head that moves. */
  curvature: z.number(),
});
export type BedTruth = z.infer<typeof bedTruthSchema>;

/** A bed up to 2.5 mm off from side to side; a flat-field lens up to 1 mm off at its corners. */
export function bedFromSeed(seed: number, size: { widthMm: number; depthMm: number }, isGalvo: boolean): BedTruth {
  const random = seeded(seedOf(seed, "bed"));
  const corner = (size.widthMm ** 2 + size.depthMm ** 2) / 4;
  return {
    slopeX: random.between(-2.5, 2.5) / size.widthMm,
    slopeY: random.between(-2.5, 2.5) / size.depthMm,
    curvature: isGalvo ? random.between(0.3, 1) / corner : 0,
  };
}

/** SD of coming to the focus at a place, mm. */
const COMING_SD_MM = 0.06;

/** The number of the readout at which a place is in focus, as it is found once. @param at from the middle of the bed, mm */
export function readoutInFocus(focus: FocusTruth, bed: BedTruth, at: { x: number; y: number }, random: Random): number {
  const higher = bed.slopeX * at.x + bed.slopeY * at.y + bed.curvature * (at.x ** 2 + at.y ** 2);
  const isStill = focus.settingSdMm === 0;
  return shownFocus(focus) + higher / focus.gapByShown + (isStill ? 0 : COMING_SD_MM * random.normal());
}

/** SD of a lift by hand, as a share of it. */
const LIFT_SD = 0.04;

/** Supports raised by hand: the bed takes the plane that goes best through them. @param lifts places from the middle, mm */
export function raised(
  bed: BedTruth,
  lifts: readonly { x: number; y: number; mm: number }[],
  random: Random,
): BedTruth {
  const done = lifts.map((l) => ({ ...l, mm: l.mm * (1 + LIFT_SD * random.normal()) }));
  const sum = (of: (l: { x: number; y: number; mm: number }) => number) => done.reduce((s, l) => s + of(l), 0);
  const n = done.length;
  const [mx, my, mz] = [sum((l) => l.x) / n, sum((l) => l.y) / n, sum((l) => l.mm) / n];
  const [sxx, syy, sxy] = [
    sum((l) => (l.x - mx) ** 2),
    sum((l) => (l.y - my) ** 2),
    sum((l) => (l.x - mx) * (l.y - my)),
  ];
  const [sxz, syz] = [sum((l) => (l.x - mx) * (l.mm - mz)), sum((l) => (l.y - my) * (l.mm - mz))];
  const det = sxx * syy - sxy * sxy;
  if (!(det > 0)) return bed;
  return {
    ...bed,
    slopeX: bed.slopeX + (sxz * syy - syz * sxy) / det,
    slopeY: bed.slopeY + (syz * sxx - sxz * sxy) / det,
  };
}
