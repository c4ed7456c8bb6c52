/** The registry as this server sees it: USTRINA_MADE_UP=1 admits what the tests of the screens built in. */
import { EXTRA_PROCEDURES } from "#extra-procedures";
import { admitHidden, procedureById, proceduresFor } from "../../core/course/registry";
import type { MachineKind } from "../../core/machine/machine-kind";
import type { AnyProcedure } from "../../core/procedures/contract";
import { Refusal } from "../refusal";

const extra = process.env.USTRINA_MADE_UP === "1" ? await Promise.all(EXTRA_PROCEDURES.map(({ load }) => load())) : [];
for (const procedure of extra) admitHidden(procedure);

/** What can be begun on a kind of machine, in practice order. */
export function offeredProcedures(kind: MachineKind): AnyProcedure[] {
  return [...proceduresFor(kind), ...extra.filter((p) => p.machineKinds.includes(kind))];
}

/** @throws Refusal when there is no such procedure */
export function knownProcedure(id: string): AnyProcedure {
  try {
    return procedureById(id);
  } catch {
    throw new Refusal("procedure", `There is no procedure “${id}”.`);
  }
}
