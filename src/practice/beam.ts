/**
 * A beam that comes to a focus, and the line that it leaves: nothing here knows a law of widths.
 *
 * The beam is carried to the work by its complex parameter, one of its own for each axis [Siegman, Lasers, 1986, ch. 17 and 20, M^2 as
 * a beam of M^2 times the wavelength]. A moving spot, steady or in pulses, is summed up over time across the line; what gets more
 * than the stock bears is marked. Its edge is found by halving.
 */
import { z } from "zod";
import { grainSchema } from "./stock-map";

export const beamTruthSchema = z.object({
  wavelengthMm: z.number().positive(),
  /** How many times more it spreads than an ideal beam, >= 1. */
  m2: z.number().min(1),
  /** Radius (1/e^2) at focus, mm. */
  waistMm: z.number().positive(),
  /** Height of focus, mm: gap between lens and work. */
  focusMm: z.number(),
  /** Focus of X lies so much higher than that of Y, mm. */
  astigmatismMm: z.number(),
  /** Pulses a second; `null` = steady. */
  pulseHz: z.number().positive().nullable(),
});
export type BeamTruth = z.infer<typeof beamTruthSchema>;

export const stockTruthSchema = z.object({
  /** Marks where it got more than this, J/mm^2. */
  thresholdJPerMm2: z.number().positive(),
  /** Whether it adds up what comes one after the other, or answers the strongest pulse alone. */
  addsUp: z.boolean(),
  /** How the threshold differs from place to place; left out where it does not. */
  grain: grainSchema.optional(),
});
export type StockTruth = z.infer<typeof stockTruthSchema>;

export type LineBurn = { heightMm: number; speedMmPerS: number; powerW: number; along: "x" | "y" };

/** So many steps in which the spot moves by a radius, and so many radii in which anything of it is left. */
const [STEPS_A_RADIUS, RADII] = [8, 3];
const HALVINGS = 40;

/** Radii (1/e^2) of the beam at a height, mm. */
export function radiiAt({ wavelengthMm, m2, waistMm, focusMm, astigmatismMm }: BeamTruth, heightMm: number) {
  const radius = (distance: number) => {
    // q = distance + i rayleigh; w^2 = -lambda M2 / (pi Im(1/q)).
    const rayleigh = (Math.PI * waistMm ** 2) / (m2 * wavelengthMm);
    const imaginary = -rayleigh / (distance ** 2 + rayleigh ** 2);
    return Math.sqrt((-m2 * wavelengthMm) / (Math.PI * imaginary));
  };
  return {
    x: radius(heightMm - focusMm - astigmatismMm / 2),
    y: radius(heightMm - focusMm + astigmatismMm / 2),
  };
}

/** What the middle of a line gets, J/mm^2: the largest threshold that it still passes. */
export function doseOfMiddle(beam: BeamTruth, addsUp: boolean, burn: LineBurn): number {
  const radii = radiiAt(beam, burn.heightMm);
  const [along, across] = burn.along === "x" ? [radii.x, radii.y] : [radii.y, radii.x];
  return doseAt(0, along, across, beam, addsUp, burn);
}

/** Width of one line, mm; 0 where nothing is marked. */
export function lineWidth(beam: BeamTruth, stock: StockTruth, burn: LineBurn): number {
  const radii = radiiAt(beam, burn.heightMm);
  const [along, across] = burn.along === "x" ? [radii.x, radii.y] : [radii.y, radii.x];
  const dose = (offset: number) => doseAt(offset, along, across, beam, stock.addsUp, burn);
  if (dose(0) <= stock.thresholdJPerMm2) return 0;
  let [inside, outside] = [0, across];
  while (dose(outside) > stock.thresholdJPerMm2) outside *= 2;
  for (let i = 0; i < HALVINGS; i++) {
    const middle = (inside + outside) / 2;
    if (dose(middle) > stock.thresholdJPerMm2) inside = middle;
    else outside = middle;
  }
  return inside + outside;
}

/** What a place beside the line gets while the spot goes by, J/mm^2. */
function doseAt(
  offset: number,
  along: number,
  across: number,
  beam: BeamTruth,
  addsUp: boolean,
  burn: LineBurn,
): number {
  const beside = Math.exp(-2 * (offset / across) ** 2);
  const intensity = (place: number, power: number) =>
    ((2 * power) / (Math.PI * along * across)) * Math.exp(-2 * (place / along) ** 2) * beside;
  const stepMm = beam.pulseHz === null ? along / STEPS_A_RADIUS : burn.speedMmPerS / beam.pulseHz;
  const energy = (burn.powerW * stepMm) / burn.speedMmPerS;
  let [sum, most] = [0, 0];
  const count = Math.ceil((RADII * along) / stepMm);
  for (let k = -count; k <= count; k++) {
    const got = intensity(k * stepMm, energy);
    sum += got;
    most = Math.max(most, got);
  }
  return addsUp ? sum : most;
}
