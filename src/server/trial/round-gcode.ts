/** The G-code of a round in the words of its machine. */
import { burnFileOf } from "../../core/machine/machine-kind";
import type { Db } from "../../data/database";
import { type GcodeOptions, gcodeChunks } from "../../formats/gcode-writer";
import { Refusal } from "../refusal";
import { couponCode, type FullTrial, laidOut, roundOf } from "./trial-record";

/**
 * The file as it would be downloaded now, in pieces.
 *
 * @throws Refusal when there is no such round, or its layout is not complete
 */
export function roundGcode(db: Db, full: FullTrial, n: number): Iterable<string> {
  if (burnFileOf(full.machine.kind) !== "g-code")
    throw new Refusal("file", `${full.machine.name} takes no G-code: use the SVG, its groups carry their settings.`);
  const { plan, spec, inForce } = laidOut(db, full, roundOf(full, n));
  const options: GcodeOptions = {
    couponCode: couponCode(full, n),
    machineName: full.machine.name,
    dialect: full.dialect,
    bed: full.machine,
  };
  return gcodeChunks(full.procedure.asSent(spec, plan, inForce, full.machine), options);
}
