/**
 * What a cell gets from its settings.
 *
 *   line energy = P / v          areal energy = P / (v pitch) passes,  with dots burned one by one P dwell / pitch^2 passes
 *   pulse pitch = v / f          overlap = 1 - v / (f d)               peak fluence = 2 E / (pi w^2),  E = P / f,  w = d / 2
 *
 * P in watts, d the width of a line. Peak fluence of a Gaussian beam: twice its mean over the 1/e^2 radius. [ISO 11146-1:2021, definitions;
 * Siegman, Lasers, 1986, 17.1; from memory]
 */
import type { CellSettings } from "./cell-settings";

export type Source = {
  /** Power on the stock at 100 %, W. */
  wattsAtFull: number;
  /** Width of one line, mm. */
  lineMm: number;
  /** The beam comes in pulses whose frequency is set. */
  isPulsed: boolean;
  /** Each dot is burned standing, for its dwell. */
  isDotted: boolean;
};

export type Dose = {
  watts: number;
  /** J/mm; `null` where dots are burned standing. */
  lineJPerMm: number | null;
  /** J/mm^2, all passes together. */
  arealJPerMm2: number;
  /** `null` where the beam has no pulses of its own. */
  pulses: { pitchMm: number; overlap: number; peakJPerMm2: number } | null;
};

export function doseOf(settings: CellSettings, { wattsAtFull, lineMm, isPulsed, isDotted }: Source): Dose {
  const { speedMmPerS, powerPct, rowPitchMm, passes, pulseKHz, dwellMs } = settings;
  const watts = (wattsAtFull * powerPct) / 100;
  const lineJPerMm = isDotted ? null : watts / speedMmPerS;
  const arealJPerMm2 =
    lineJPerMm === null ? (passes * watts * (dwellMs / 1000)) / rowPitchMm ** 2 : (passes * lineJPerMm) / rowPitchMm;
  if (!isPulsed) return { watts, lineJPerMm, arealJPerMm2, pulses: null };
  const hz = pulseKHz * 1000;
  const pitchMm = speedMmPerS / hz;
  const radius = lineMm / 2;
  return {
    watts,
    lineJPerMm,
    arealJPerMm2,
    pulses: { pitchMm, overlap: 1 - pitchMm / lineMm, peakJPerMm2: (2 * watts) / hz / (Math.PI * radius ** 2) },
  };
}
