/** The ledger as the page receives it. */
import type { Db } from "../data/database";
import { entriesOf, type LedgerEntry, ownerOfMachine } from "../data/ledger";
import { allMachines } from "../data/machines";

export type LedgerRow = LedgerEntry & {
  machine: string;
  /** In force now at its holder. */
  current: boolean;
};

export type LedgerView = {
  machines: { slug: string; name: string }[];
  chosen: string | null;
  rows: LedgerRow[];
};

/** @param slug one machine only, or all of them */
export function ledgerView(db: Db, slug: string | null): LedgerView {
  const machines = allMachines(db);
  const chosen = machines.find((m) => m.slug === slug)?.slug ?? null;
  const rows = machines
    .filter((m) => chosen === null || m.slug === chosen)
    .flatMap((m) => {
      const entries = entriesOf(db, ownerOfMachine(m.id));
      const seen = new Set<string>();
      return entries.map((entry): LedgerRow => {
        const key = `${entry.setting} ${entry.holderId}`;
        const current = entry.undoneAt === null && !seen.has(key);
        if (current) seen.add(key);
        return { ...entry, machine: m.spec.name, current };
      });
    })
    .sort((a, b) => b.at - a.at || b.id - a.id);
  return { machines: machines.map((m) => ({ slug: m.slug, name: m.spec.name })), chosen, rows };
}
