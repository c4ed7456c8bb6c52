/** Values for a machine whose top speed or wavelength is not known, and the texts that depend on them. */
import { plain } from "../metrology/quantity-text";
import type { MachineKind } from "./machine-kind";
import type { MachineSpec } from "./machine-spec";

/** Assumed values: a speed that every machine of the kind reaches, and the most common wavelength. [common practice, no source] */
export const USUAL_OF_KIND: Record<MachineKind, Pick<MachineSpec, "topSpeedMmPerS" | "wavelengthNm">> = {
  "CO2 gantry": { topSpeedMmPerS: 300, wavelengthNm: 10_600 },
  "diode gantry": { topSpeedMmPerS: 100, wavelengthNm: 455 },
  galvo: { topSpeedMmPerS: 1000, wavelengthNm: 1064 },
};

/** nm; `null` = not known. An assumed wavelength must not decide anything, above all not the eyewear. */
export function knownWavelengthNm({
  wavelengthNm,
  assumed,
}: Pick<MachineSpec, "wavelengthNm" | "assumed">): number | null {
  return assumed?.includes("wavelengthNm") ? null : wavelengthNm;
}

type Light = Pick<MachineSpec, "wavelengthNm" | "assumed">;

/** First line of a checklist before a burn. */
export function eyewearLine(machine: Light): string {
  const known = knownWavelengthNm(machine);
  return known === null
    ? "Read the wavelength on the label of the laser. Put on eyewear for it, or close the housing."
    : `Put on eyewear for ${plain(known)} nm, or close the housing.`;
}

/** First line where the mark is watched while it is made: the housing is open. */
export function eyewearLineForWatching(machine: Light): string {
  const known = knownWavelengthNm(machine);
  return known === null
    ? "Read the wavelength on the label of the laser. Put on eyewear for it before you look at the mark."
    : `Put on eyewear for ${plain(known)} nm before you look at the mark.`;
}

/** Why a speed above the top speed is refused. */
export function topSpeedReason({
  name,
  topSpeedMmPerS,
  assumed,
}: Pick<MachineSpec, "name" | "topSpeedMmPerS" | "assumed">): string {
  return assumed?.includes("topSpeedMmPerS")
    ? `The top speed of ${name} is not known. Enter the top speed on the machine page, or a lower speed here.`
    : `The top speed of ${name} is ${plain(topSpeedMmPerS)} mm/s.`;
}
