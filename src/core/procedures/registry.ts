/** The procedures there are, in the order in which they are done in practice; what is done rarely comes last. */

import type { MachineKind } from "../machine/machine-spec";
import { axisScale } from "./axis-scale/procedure";
import { bedTilt } from "./bed-tilt/procedure";
import type { AnyProcedure } from "./contract";
import { fixtureStops } from "./fixture-stops/procedure";
import { focus } from "./focus/procedure";
import { kerf } from "./kerf/procedure";
import { origin } from "./origin/procedure";
import { rotary } from "./rotary/procedure";
import { scanOffset } from "./scan-offset/procedure";
import { squareness } from "./squareness/procedure";

export const PROCEDURES: readonly AnyProcedure[] = [
  focus,
  axisScale,
  scanOffset,
  kerf,
  rotary,
  bedTilt,
  squareness,
  origin,
  fixtureStops,
];

/** Procedures made up for tests: found by id, listed nowhere. */
const hidden = new Map<string, AnyProcedure>();

/** Makes a procedure known by its id without listing it. For tests of everything that must work for any procedure. */
export function admitHidden(procedure: AnyProcedure): void {
  hidden.set(procedure.id, procedure);
}

/**
 * @throws RangeError when no procedure has this id
 */
export function procedureById(id: string): AnyProcedure {
  const found = PROCEDURES.find((p) => p.id === id) ?? hidden.get(id);
  if (!found) throw new RangeError(`There is no procedure “${id}”.`);
  return found;
}

/** What can be done on a kind of machine. */
export function proceduresFor(kind: MachineKind): AnyProcedure[] {
  return PROCEDURES.filter((p) => p.machineKinds.includes(kind));
}
