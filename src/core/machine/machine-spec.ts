/** What Ustrina needs to know of a machine. */
import { z } from "zod";
import { heldSettingSchema } from "../settings/setting";
import { gcodeDialectSchema } from "./gcode-dialect";
import { MACHINE_KINDS } from "./machine-kind";

export const machineKindSchema = z.enum(MACHINE_KINDS);

/** Where the head stands after homing, and which way its axes count up, seen from the operator. */
export const axesSchema = z.object({
  home: z.enum(["front left", "front right", "back left", "back right", "not known"]),
  x: z.enum(["to the right", "to the left", "not known"]),
  y: z.enum(["away", "toward you", "not known"]),
});
export type Axes = z.infer<typeof axesSchema>;
export const UNKNOWN_AXES: Axes = { home: "not known", x: "not known", y: "not known" };

/** Numbers of a machine that may be not known. */
const assumedSchema = z.enum(["topSpeedMmPerS", "wavelengthNm"]);

export const machineSpecSchema = z.object({
  name: z.string().min(1),
  kind: machineKindSchema,
  widthMm: z.number().positive(),
  depthMm: z.number().positive(),
  topSpeedMmPerS: z.number().positive(),
  /** `null` = not known. */
  accelerationMmPerS2: z.number().positive().nullable(),
  wavelengthNm: z.number().positive(),
  axes: axesSchema,
  /** Numbers that are not known. Each has an assumed value. Absent: none. */
  assumed: z.array(assumedSchema).optional(),
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
