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

export const rotaryDriveSchema = z.enum(["roller", "chuck"]);
export type RotaryDrive = z.infer<typeof rotaryDriveSchema>;

/** What is set otherwise on the machine while the rotary is on. */
export const setAsideSchema = z.enum(["limits", "homing", "motor", "scale"]);
export type SetAside = z.infer<typeof setAsideSchema>;

export const rotarySpecSchema = z.object({
  label: z.string().min(1),
  /** A roller carries the part on its surface, a chuck turns it about its axis. */
  drive: rotaryDriveSchema,
  /** Rollers only; `null` = not known. */
  rollerDiameterMm: z.number().positive().nullable(),
  /** Of the roller or chuck, as its motor, microsteps and ratio make them; `null` = not known. */
  stepsPerRevolution: z.number().positive().nullable(),
  /** Full steps of its motor in a turn, microsteps of its driver, turns of the motor for one of roller or chuck; `null` = not known. */
  motorSteps: z.number().positive().nullable().default(null),
  microsteps: z.number().positive().nullable().default(null),
  ratio: z.number().positive().nullable().default(null),
  /** The axis of the machine in whose place it turns. */
  replaces: z.enum(["x", "y"]).default("y"),
  /** Thinnest and thickest part that it takes, mm; `null` = not known. */
  thinnestMm: z.number().positive().nullable().default(null),
  thickestMm: z.number().positive().nullable().default(null),
  /** Steps a second that its driver follows at most; `null` = not known. */
  mostStepsPerS: z.number().positive().nullable().default(null),
  setAside: z.array(setAsideSchema).default([]),
  /** More of that, in words. */
  setAsideToo: z.string().default(""),
});
export type RotarySpec = z.infer<typeof rotarySpecSchema>;

/** A rotary of which no more is known than is given. */
export function rotaryOf(known: Pick<RotarySpec, "label" | "drive"> & Partial<RotarySpec>): RotarySpec {
  return rotarySpecSchema.parse({ rollerDiameterMm: null, stepsPerRevolution: null, ...known });
}

/** Steps in one revolution of roller or chuck, by its motor, driver and gear where all are known, else as it is said; `null` = not known. */
export function stepsOfDrive({ motorSteps, microsteps, ratio, stepsPerRevolution }: RotarySpec): number | null {
  if (motorSteps !== null && microsteps !== null && ratio !== null) return motorSteps * microsteps * ratio;
  return stepsPerRevolution;
}

export type PartKind = "optic" | "rotary";
export type PartSpec = ({ kind: "optic" } & OpticSpec) | ({ kind: "rotary" } & RotarySpec);
