/** What Ustrina needs to know of what can be fitted to a machine. */
import { z } from "zod";

export const opticSpecSchema = z.object({
  label: z.string().min(1),
  /** `null` = not known, here and below. */
  focalLengthMm: z.number().positive().nullable(),
  /** Gap between lens housing and work that its maker gives, mm. */
  workingDistanceMm: z.number().positive().nullable().default(null),
  /** Side of the square that it covers, mm; for galvos. The number on a lens is not the field that it reaches. */
  fieldMm: z.number().positive().nullable().default(null),
  wavelengthNm: z.number().positive().nullable().default(null),
  /** Of the lens housing: it tells lenses apart that look alike. */
  ringDiameterMm: z.number().positive().nullable().default(null),
  /** What is printed on it, letter for letter. */
  printed: z.string().default(""),
});
export type OpticSpec = z.infer<typeof opticSpecSchema>;

/** An optic of which no more is known than is given. */
export function opticOf(known: Pick<OpticSpec, "label"> & Partial<OpticSpec>): OpticSpec {
  return opticSpecSchema.parse({ focalLengthMm: null, ...known });
}

export const rotarySpecSchema = z.object({
  label: z.string().min(1),
  /** A roller carries the part on its surface, a chuck turns it about its axis. */
  drive: z.enum(["roller", "chuck"]),
  /** Rollers only; `null` = not known. */
  rollerDiameterMm: z.number().positive().nullable(),
  /** Of what the controller counts; `null` = not known. */
  stepsPerRevolution: z.number().positive().nullable(),
});
export type RotarySpec = z.infer<typeof rotarySpecSchema>;

export type PartKind = "optic" | "rotary";
export type PartSpec = ({ kind: "optic" } & OpticSpec) | ({ kind: "rotary" } & RotarySpec);
