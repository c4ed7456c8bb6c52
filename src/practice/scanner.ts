/**
 * A practice flatbed scanner: where on its picture a point of the glass shows.
 *
 * Its carriage goes a little too far or too short against its row of sensors, and not quite square to it. The belt of the carriage shows as
 * bands, the rail and the lens bend straight lines in waves. All of it is fixed to the glass: a stock that is turned meets it from another
 * side. Nothing here knows how dots are found or what is worked out of them.
 */
import { type Random, seeded, seedOf } from "./random";

/** A displacement in waves along some direction of the glass, mm and rad. */
type Wave = { towardX: number; towardY: number; sizeMm: number; longMm: number; directionRad: number; phase: number };

export type ScannerTruth = {
  /** Pixels too many per inch, as a share: the same both ways. */
  dpi: number;
  /** X against Y, as a share. */
  ratio: number;
  /** Of its axes from square, rad. */
  skew: number;
  bands: { sizeMm: number; longMm: number; phase: number };
  waves: readonly Wave[];
};

export type Glass = { x: number; y: number };

/** The largest errors: those that flatbed scanners have. (common practice, no source) */
export const SCANNER_LIMITS = {
  dpi: 0.002,
  ratio: 0.002,
  skew: 0.001,
  bandsMm: 0.01,
  wavesMm: 0.008,
  wavesLongMm: { from: 30, to: 150 },
} as const;

export function scannerFromSeed(seed: number): ScannerTruth {
  const random = seeded(seedOf(seed, "scanner"));
  const either = (most: number) => random.between(-most, most);
  return {
    dpi: either(SCANNER_LIMITS.dpi),
    ratio: either(SCANNER_LIMITS.ratio),
    skew: either(SCANNER_LIMITS.skew),
    bands: { sizeMm: random.between(0, SCANNER_LIMITS.bandsMm), longMm: random.between(2, 6), phase: aPhase(random) },
    waves: [wave(random, 1, 0), wave(random, 0, 1)],
  };
}

function aPhase(random: Random): number {
  return random.between(0, 2 * Math.PI);
}

function wave(random: Random, towardX: number, towardY: number): Wave {
  const { from, to } = SCANNER_LIMITS.wavesLongMm;
  return {
    towardX,
    towardY,
    sizeMm: random.between(0, SCANNER_LIMITS.wavesMm),
    longMm: random.between(from, to),
    directionRad: aPhase(random),
    phase: aPhase(random),
  };
}

/** On the picture, mm by the dots per inch that it says. @param at on the glass, mm; X along the sensors, Y along the carriage's way */
export function scannedAt({ dpi, ratio, skew, bands, waves }: ScannerTruth, { x, y }: Glass): Glass {
  let [px, py] = [(1 + dpi + ratio / 2) * x + skew * y, (1 + dpi - ratio / 2) * y];
  py += bands.sizeMm * Math.sin((2 * Math.PI * y) / bands.longMm + bands.phase);
  for (const w of waves) {
    const along = Math.cos(w.directionRad) * x + Math.sin(w.directionRad) * y;
    const by = w.sizeMm * Math.sin((2 * Math.PI * along) / w.longMm + w.phase);
    px += w.towardX * by;
    py += w.towardY * by;
  }
  return { x: px, y: py };
}

/** How a stock lies on the glass. */
export type OnGlass = { turnRad: number; atX: number; atY: number };

/** From the stock, from its middle, to the glass. */
export function laidOnGlass({ turnRad, atX, atY }: OnGlass, { x, y }: Glass): Glass {
  const [c, s] = [Math.cos(turnRad), Math.sin(turnRad)];
  return { x: atX + c * x - s * y, y: atY + s * x + c * y };
}
