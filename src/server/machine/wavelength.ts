/** Numbers with units that readings do not know, as they are typed. */
import { parseReading } from "../../core/metrology/reading-text";
import { Refusal } from "../refusal";

const [SHORTEST_NM, LONGEST_NM] = [150, 20_000];

/** @throws Refusal at `field` when it is no wavelength of a laser that marks */
export function wavelengthNm(text: string, field: string): number {
  const value = numberIn(text, /\s*nm$/);
  if (!(value >= SHORTEST_NM && value <= LONGEST_NM))
    throw new Refusal(
      field,
      `Type the wavelength in nm, ${SHORTEST_NM} to ${LONGEST_NM}: CO₂ 10600, many diodes 455, fibre 1064.`,
    );
  return value;
}

/** A number as readings are typed, its unit left away; NaN where it is none. */
export function numberIn(text: string, unit: RegExp): number {
  const read = parseReading(text.trim().replace(unit, ""), "ratio", "one");
  return read.ok ? read.value : Number.NaN;
}
