/** What follows where the top speed or the wavelength of a machine is not known. */
import { plain } from "../metrology/quantity-text";
import type { MachineKind, MachineSpec } from "./machine-spec";

/** What stands in their place: a speed that every machine of the kind reaches, the wavelength that most have. [common practice, no source] */
export const USUAL_OF_KIND: Record<MachineKind, Pick<MachineSpec, "topSpeedMmPerS" | "wavelengthNm">> = {
  "CO2 gantry": { topSpeedMmPerS: 300, wavelengthNm: 10_600 },
  "diode gantry": { topSpeedMmPerS: 100, wavelengthNm: 455 },
  galvo: { topSpeedMmPerS: 1000, wavelengthNm: 1064 },
};

/** nm; `null` = not known. Nothing may be concluded from a wavelength that is only usual, least of all what protects an eye. */
export function knownWavelengthNm({
  wavelengthNm,
  assumed,
}: Pick<MachineSpec, "wavelengthNm" | "assumed">): number | null {
  return assumed?.includes("wavelengthNm") ? null : wavelengthNm;
}

/** What to put on, as the object of a sentence. */
export function eyewearFor(machine: Pick<MachineSpec, "wavelengthNm" | "assumed">): string {
  const known = knownWavelengthNm(machine);
  return known === null ? "the eyewear that the label on the laser asks for" : `eyewear for ${plain(known)} nm`;
}

/** Why no faster. */
export function topSpeedText({
  name,
  topSpeedMmPerS,
  assumed,
}: Pick<MachineSpec, "name" | "topSpeedMmPerS" | "assumed">): string {
  return assumed?.includes("topSpeedMmPerS")
    ? `The top speed of ${name} is not known, so up to ${plain(topSpeedMmPerS)} mm/s is burned. Write it down on its page to go faster.`
    : `${name} goes up to ${plain(topSpeedMmPerS)} mm/s.`;
}
