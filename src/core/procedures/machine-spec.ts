/** What Ustrina needs to know of a machine. */
import { z } from "zod";
import { gcodeDialectSchema } from "./gcode-dialect";
import { tableKindSchema } from "./setting";

export const machineKindSchema = z.enum(["CO2 gantry", "diode gantry", "galvo"]);
export type MachineKind = z.infer<typeof machineKindSchema>;

/** How a controller takes one setting. */
export const heldSettingSchema = z.object({
  /** Smallest step it takes, internal unit. */
  step: z.number().positive(),
  /** Tables only. */
  tableKind: tableKindSchema,
  /** Which of the two a larger entry does, in the words of its setting. */
  sense: z.union([z.literal(1), z.literal(-1)]),
});
export type HeldSetting = z.infer<typeof heldSettingSchema>;

export const machineSpecSchema = z.object({
  name: z.string().min(1),
  kind: machineKindSchema,
  widthMm: z.number().positive(),
  depthMm: z.number().positive(),
  topSpeedMmPerS: z.number().positive(),
  /** `null` = not known. */
  accelerationMmPerS2: z.number().positive().nullable(),
  wavelengthNm: z.number().positive(),
  /** Speeds used in daily work. */
  workingSpeedsMmPerS: z.array(z.number().positive()),
  /** How it takes G-code. */
  gcode: gcodeDialectSchema,
  /** How work is engraved here: which ways reach it. */
  scansBlocks: z.boolean(),
  held: z.record(z.string(), heldSettingSchema),
  /** Tolerance by procedure id, where it differs from the procedure's own. */
  tolerances: z.record(z.string(), z.number().positive()),
  /** Days until a check is due, by procedure id, where it differs from the procedure's own. */
  recheckDays: z.record(z.string(), z.number().int().positive()),
});
export type MachineSpec = z.infer<typeof machineSpecSchema>;
