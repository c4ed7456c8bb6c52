/** The registry as this server sees it: USTRINA_MADE_UP=1 admits the made-up procedure, for tests of the screens. */

import type { MachineKind } from "../../core/machine/machine-spec";
import type { AnyProcedure } from "../../core/procedures/contract";
import { madeUp } from "../../core/procedures/made-up/procedure";
import { admitHidden, procedureById, proceduresFor } from "../../core/procedures/registry";
import { Refusal } from "../refusal";

const withMadeUp = () => process.env.USTRINA_MADE_UP === "1";

/** What can be begun on a kind of machine, in practice order. */
export function offeredProcedures(kind: MachineKind): AnyProcedure[] {
  const extra = withMadeUp() && madeUp.machineKinds.includes(kind) ? [madeUp] : [];
  return [...proceduresFor(kind), ...extra];
}

/** @throws Refusal when there is no such procedure */
export function knownProcedure(id: string): AnyProcedure {
  if (withMadeUp()) admitHidden(madeUp);
  try {
    return procedureById(id);
  } catch {
    throw new Refusal("procedure", `There is no procedure “${id}”.`);
  }
}
