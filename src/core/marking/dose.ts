/**
 * What a cell gets from its settings.
 *
 *   line energy = P / v passes   areal energy = P / (v pitch) passes,  with dots burned standing P dwell / pitch^2 passes
 *   pulse pitch = v / f          overlap = 1 - v / (f d)               peak fluence = 2 E / (pi w^2),  E = P / f,  w = d / 2
 *
 * P in watts, d the width of a line. Peak fluence of a Gaussian beam: twice its mean over the 1/e^2 radius. [ISO 11146-1:2021, definitions;
 * Siegman, Lasers, 1986, 17.1; from memory]
 */
import { plain } from "../metrology/quantity-text";
import type { CellSettings } from "./cell-settings";

export type Source = {
  /** Power on the stock at 100 %, W. */
  wattsAtFull: number;
  /** Width of one line, mm. */
  lineMm: number;
  /** The beam comes in pulses whose frequency is set. */
  isPulsed: boolean;
  /** Areas are filled with rows; else single lines are drawn. */
  isFilled: boolean;
};

export type Dose = {
  watts: number;
  /** All passes together: J/mm^2 where areas are filled, J/mm of single lines. */
  energy: number;
  per: "area" | "length";
  /** `null` where the beam has no pulses of its own. */
  pulses: { pitchMm: number; overlap: number; peakJPerMm2: number } | null;
};

export function doseOf(settings: CellSettings, { wattsAtFull, lineMm, isPulsed, isFilled }: Source): Dose {
  const { speedMmPerS, powerPct, rowPitchMm, passes, pulseKHz, dwellMs } = settings;
  const watts = (wattsAtFull * powerPct) / 100;
  // A dwell above 0 burns each dot standing, with dots as far apart as rows.
  const line = dwellMs > 0 ? (watts * dwellMs) / 1000 / rowPitchMm : watts / speedMmPerS;
  const energy = passes * (isFilled ? line / rowPitchMm : line);
  const per = isFilled ? "area" : "length";
  // The pulses of a dot that is burned standing all fall on one place.
  if (!isPulsed || dwellMs > 0) return { watts, energy, per, pulses: null };
  const hz = pulseKHz * 1000;
  const pitchMm = speedMmPerS / hz;
  const radius = lineMm / 2;
  return {
    watts,
    energy,
    per,
    pulses: { pitchMm, overlap: 1 - pitchMm / lineMm, peakJPerMm2: (2 * watts) / hz / (Math.PI * radius ** 2) },
  };
}

/** `2.02 J/mm²`. */
export function energyText({ energy, per }: Pick<Dose, "energy" | "per">): string {
  return `${plain(energy, energy < 1 ? 3 : 2)} ${per === "area" ? "J/mm²" : "J/mm"}`;
}

/** The sum of a dose with its figures. */
export function doseText(settings: CellSettings, dose: Dose): string {
  const { speedMmPerS, rowPitchMm, passes, dwellMs } = settings;
  const rows = dose.per === "area" ? ` ÷ ${plain(rowPitchMm)} mm` : "";
  const line =
    dwellMs > 0 ? `${plain(dwellMs)} ms ÷ ${plain(rowPitchMm)} mm between dots` : `÷ ${plain(speedMmPerS)} mm/s`;
  const times = passes === 1 ? "" : ` × ${plain(passes)} passes`;
  return `${plain(dose.watts, 2)} W ${dwellMs > 0 ? "× " : ""}${line}${rows}${times} = ${energyText(dose)}`;
}
