/** All procedures at once, for server, terminal and tests. */
import type { MachineKind } from "../machine/machine-kind";
import type { AnyProcedure } from "../procedures/contract";
import { PROCEDURE_LIST } from "./procedure-list";

/** In practice order. */
export const PROCEDURES: readonly AnyProcedure[] = await Promise.all(PROCEDURE_LIST.map(({ load }) => load()));

/** Procedures made up for tests: found by id, listed nowhere. */
const hidden = new Map<string, AnyProcedure>();

/** Makes a procedure known by its id without listing it. For tests of everything that must work for any procedure. */
export function admitHidden(procedure: AnyProcedure): void {
  hidden.set(procedure.id, procedure);
}

/** Those that are listed, and those made up for tests. */
export function allProcedures(): AnyProcedure[] {
  return [...PROCEDURES, ...[...hidden.values()].filter((made) => PROCEDURES.every((p) => p.id !== made.id))];
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
