/** How a machine takes G-code: what RS-274 leaves to its builder. */
import { z } from "zod";

/** Codes with a meaning of their own: pauses, ends, and the two of an area to scan. */
const KEPT = new Set([0, 1, 2, 30, 120, 121]);
const LONGEST_LINE = 120;

const beamCode = z
  .string()
  .regex(/^M\d{1,3}$/, "Write the code as M and a number, for example M3.")
  .refine((code) => !KEPT.has(Number(code.slice(1))), "This code stops the program or marks an area. Choose another.");

const ownLines = z.array(z.string().max(LONGEST_LINE, "A line may be 120 characters long.")).max(40);

export const gcodeDialectSchema = z
  .object({
    unit: z.enum(["mm", "in"]),
    /** Letter of the word that carries the power, and its number at full power. */
    powerLetter: z.enum(["S", "P", "Q"]),
    powerAtFull: z.number().positive("The number at full power must be larger than 0."),
    beamOn: beamCode,
    beamOff: beamCode,
    /** `moves`: the beam is armed once and each move carries its power; `beam code`: the beam is switched at each stroke. */
    powerWith: z.enum(["moves", "beam code"]),
    /** Lines of the machine's own, after units and beam off, and before the end of the program. */
    start: ownLines,
    end: ownLines,
  })
  .refine((d) => d.beamOn !== d.beamOff, { message: "On and off need codes of their own.", path: ["beamOff"] });
export type GcodeDialect = z.infer<typeof gcodeDialectSchema>;

/** [NIST RS274/NGC Interpreter, version 3 (2000), 3.6: M3 spindle on, M5 off, S its speed]; full power at 1000 is common practice, no source. */
export const USUAL_DIALECT: GcodeDialect = {
  unit: "mm",
  powerLetter: "S",
  powerAtFull: 1000,
  beamOn: "M3",
  beamOff: "M5",
  powerWith: "moves",
  start: [],
  end: [],
};
