/** What Ustrina needs to know of a machine. */
import { z } from "zod";
import { unitIdSchema } from "../metrology/units";
import { gcodeDialectSchema } from "./gcode-dialect";
import { tableKindSchema } from "./setting";

export const machineKindSchema = z.enum(["CO2 gantry", "diode gantry", "galvo"]);
export type MachineKind = z.infer<typeof machineKindSchema>;

/** How a controller takes one setting. */
export const heldSettingSchema = z.object({
  /** Unit in which it takes and shows the value. */
  unit: unitIdSchema,
  /** Smallest step it takes, internal unit. */
  step: z.number().positive(),
  /** Smallest and largest value it takes, internal unit; `null` = not known. */
  range: z.object({ low: z.number(), high: z.number() }).nullable(),
  /** Tables only. */
  tableKind: tableKindSchema,
  /** Which of the two a larger entry does, in the words of its setting. */
  sense: z.union([z.literal(1), z.literal(-1)]),
  /** `sense` is assumed, because it is not known. Two burns replace it. Absent: known. */
  senseAssumed: z.literal(true).optional(),
});
export type HeldSetting = z.infer<typeof heldSettingSchema>;

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
