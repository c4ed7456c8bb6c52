/** What Ustrina needs to know of what can be fitted to a machine. */
import { z } from "zod";

export const opticSpecSchema = z.object({
  label: z.string().min(1),
  /** `null` = not known. */
  focalLengthMm: z.number().positive().nullable(),
});
export type OpticSpec = z.infer<typeof opticSpecSchema>;

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
