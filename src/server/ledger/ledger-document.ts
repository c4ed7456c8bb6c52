/** The ledger of a machine as a document, and a document taken into a ledger. */
import type { Db } from "../../data/database";
import { entriesOf, ownerOfMachine } from "../../data/ledger";
import { everyHolderOf, machineBySlug } from "../../data/machines";
import { type LedgerDocument, ledgerDocument } from "../../formats/ledger-document";
import { Refusal } from "../refusal";

const iso = (at: number) => new Date(at).toISOString();

/** @throws Refusal where there is no such machine */
export function ledgerOf(db: Db, slug: string, now: number): LedgerDocument {
  const machine = machineBySlug(db, slug);
  if (!machine) throw new Refusal("machine", "There is no such machine.");
  const holders = everyHolderOf(db, machine.id);
  const entries = entriesOf(db, ownerOfMachine(machine.id)).flatMap((e) => {
    const holder = holders.find((h) => h.id === e.holderId);
    if (!holder) return [];
    return [
      {
        setting: e.setting,
        holder: holder.name,
        role: holder.role,
        value: e.value,
        unit: e.unit,
        u: e.u,
        origin: e.origin,
        trial: e.trialCode,
        readBack: e.readBack,
        note: e.note,
        at: iso(e.at),
        takenBack: e.undoneAt === null ? null : iso(e.undoneAt),
      },
    ];
  });
  return ledgerDocument({
    machine: machine.spec.name,
    kind: machine.spec.kind,
    written: iso(now),
    entries: entries.reverse(),
  });
}
