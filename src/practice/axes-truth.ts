/** How the axes of a practice gantry really run: hidden, and part of where its marks come to lie. */
import { z } from "zod";
import { type Random, seeded, seedOf } from "./random";

const axisTruthSchema = z.object({
  /** A pulley or screw that runs out: how far either way, over which way, where it begins. */
  runout: z.object({ amplitudeMm: z.number(), periodMm: z.number().positive(), phaseRad: z.number() }),
  /** From a place on everything lies so much further: a tooth that sits badly; `null` = none. */
  step: z.object({ fromMm: z.number(), byMm: z.number() }).nullable(),
  /** How far marks lie from where its numbers say, mm. */
  homeMm: z.number(),
  /** +1: a larger home offset moves marks to higher numbers. */
  homeSense: z.union([z.literal(1), z.literal(-1)]),
});
export type AxisTruth = z.infer<typeof axisTruthSchema>;

export const axesTruthSchema = z.object({
  /** Y leans toward X by this. */
  leanRad: z.number(),
  /** Lost motion of the Y drive, mm. */
  playYMm: z.number().nonnegative(),
  x: axisTruthSchema,
  y: axisTruthSchema,
  /** Where the stops of a fixture on the bed stand, mm: the corner that they make. */
  stops: z.object({ xMm: z.number(), yMm: z.number() }),
});
export type AxesTruth = z.infer<typeof axesTruthSchema>;

/** A home offset that counts does so in thousandths of an inch, mm. */
const COUNT_MM = 0.0254;
/** Round one tooth belt pulleys, mm: twenty teeth of 2 mm and their like. (common practice, no source) */
const PERIODS_MM = [32, 36, 40, 60];

/** One axis in so many has a tooth that sits badly. (invented) */
const STEPPED = 1 / 8;

/** Leans of up to 1.5 mm a metre, play of up to 0.05 mm, homes up to 1.5 mm off, pulleys that run out by up to 0.02 mm. */
export function axesFromSeed(seed: number): AxesTruth {
  const random = seeded(seedOf(seed, "axes"));
  const teeth = seeded(seedOf(seed, "teeth"));
  const axis = (): AxisTruth => ({
    runout: {
      amplitudeMm: random.between(0, 0.02),
      periodMm: random.oneOf(PERIODS_MM),
      phaseRad: random.between(0, 2 * Math.PI),
    },
    step: teeth.even() < STEPPED ? { fromMm: teeth.between(80, 320), byMm: teeth.between(0.05, 0.15) } : null,
    homeMm: random.between(-1.5, 1.5),
    homeSense: random.even() < 0.5 ? 1 : -1,
  });
  return {
    leanRad: random.between(-0.0015, 0.0015),
    playYMm: random.between(0, 0.05),
    x: axis(),
    y: axis(),
    stops: { xMm: random.between(18, 42), yMm: random.between(18, 42) },
  };
}

/** SD of a shift by hand, as a share of it. */
const SHIFT_SD = 0.04;

/** The beam was turned by hand, so that Y leans by so much more toward X. */
export function beamTurned(axes: AxesTruth, byRad: number, random: Random): AxesTruth {
  return { ...axes, leanRad: axes.leanRad + byRad * (1 + SHIFT_SD * random.normal()) };
}

/** How far an axis stands from where a straight one would, at a place that was sent, mm. */
export function strayAt({ runout, step }: AxisTruth, sentMm: number): number {
  const turned = runout.amplitudeMm * Math.sin((2 * Math.PI * sentMm) / runout.periodMm + runout.phaseRad);
  return turned + (step && sentMm >= step.fromMm ? step.byMm : 0);
}

/** What a controller holds at a number besides its table: what was found there, and what is there now. */
export const heldNumberSchema = z.object({ found: z.number(), now: z.number() });
export type HeldNumber = z.infer<typeof heldNumberSchema>;

/** Factor on lengths since the value of an axis was changed. @param lengthens whether a larger value makes lengths longer, like pulses per mm */
export function stretchOf(held: HeldNumber | undefined, lengthens: boolean): number {
  if (!held || held.found === 0 || held.now === 0) return 1;
  return lengthens ? held.now / held.found : held.found / held.now;
}

/** By how much marks moved since a home offset was changed, mm. @param counts whether it counts, or is a length */
export function movedBy(held: HeldNumber | undefined, { homeSense }: AxisTruth, counts: boolean): number {
  return held ? homeSense * (held.now - held.found) * (counts ? COUNT_MM : 1) : 0;
}
