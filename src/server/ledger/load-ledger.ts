/** A ledger document taken into the ledger of a machine: entries that are there already are left, the others come with their dates. */

import { isSame } from "../../core/settings/setting-history";
import type { Db } from "../../data/database";
import { addEntry, entriesOf, type LedgerEntry, markUndone, ownerOfMachine } from "../../data/ledger";
import { trialByCode } from "../../data/load-trial";
import { addHolder, everyHolderOf, type Holder, type Machine, machineBySlug } from "../../data/machines";
import { type LedgerDocument, parseLedgerDocument } from "../../formats/ledger-document";
import { happenedAt } from "../happened-at";
import { settingsOf } from "../procedures/settings";
import { Refusal } from "../refusal";

const LOADED = "loaded from a file";

export type Loaded = { added: number; known: number };

/**
 * All of it, or nothing. What a controller holds is not changed: the ledger says what was entered, nobody enters it now.
 *
 * @throws Refusal at `ledger`, naming the field at fault
 */
export function loadLedger(db: Db, slug: string, text: string, now: number): Loaded {
  const machine = machineBySlug(db, slug);
  if (!machine) throw new Refusal("machine", "There is no such machine.");
  const read = parseLedgerDocument(text);
  if (!read.ok) throw new Refusal("ledger", [read.fault.path, read.fault.message].filter(Boolean).join(": "));
  const { document } = read;
  if (document.kind !== machine.spec.kind)
    throw new Refusal(
      "ledger",
      `kind: this is the ledger of a ${document.kind}; ${machine.spec.name} is a ${machine.spec.kind}.`,
    );
  const settings = settingsOf(machine.spec.kind);
  return db.transaction((tx) => {
    const before = entriesOf(tx, ownerOfMachine(machine.id));
    const loaded: Loaded = { added: 0, known: 0 };
    document.entries.forEach((entry, i) => {
      const setting = settings.find((s) => s.key === entry.setting);
      if (!setting) throw fault(i, "setting", `A ${machine.spec.kind} has no setting “${entry.setting}” here.`);
      if (entry.value && entry.value.shape !== setting.shape)
        throw fault(i, "value", `${setting.label} is a ${setting.shape}, and this is a ${entry.value.shape}.`);
      const holder = holderFor(tx, machine, entry);
      const at = moment(i, "at", entry.at, now);
      const undoneAt = entry.takenBack === null ? null : moment(i, "takenBack", entry.takenBack, now);
      if (before.some((e) => isThere(e, entry, holder, at))) loaded.known++;
      else {
        loaded.added++;
        insert(tx, machine, entry, holder, { at, undoneAt, from: document.machine });
      }
    });
    return loaded;
  });
}

type EntryDocument = LedgerDocument["entries"][number];

function isThere(e: LedgerEntry, entry: EntryDocument, holder: Holder, at: number): boolean {
  return e.setting === entry.setting && e.holderId === holder.id && e.at === at && isSame(e.value, entry.value);
}

function insert(
  db: Db,
  machine: Machine,
  entry: EntryDocument,
  holder: Holder,
  { at, undoneAt, from }: { at: number; undoneAt: number | null; from: string },
): void {
  const trial = entry.trial === null ? undefined : trialByCode(db, entry.trial);
  const isOwn = trial?.machineId === machine.id && from === machine.spec.name;
  const origin = entry.trial !== null && !isOwn ? `trial ${entry.trial}` : "";
  const id = addEntry(
    db,
    {
      owner: ownerOfMachine(machine.id),
      setting: entry.setting,
      holderId: holder.id,
      value: entry.value,
      unit: entry.unit,
      u: entry.u,
      origin: entry.origin,
      solutionId: null,
      trialId: isOwn ? trial.id : null,
      readBack: entry.readBack,
      note: noteOf(entry, origin),
    },
    at,
  );
  if (undoneAt !== null) markUndone(db, id, undoneAt);
}

/** Where it came from, said once however often it is handed on. */
function noteOf({ note }: EntryDocument, origin: string): string {
  if (note.endsWith(LOADED)) return note;
  return [note, origin, LOADED].filter(Boolean).join("; ");
}

/** The one of its name, which there is only once; the one that acts, whatever its name; else a copy of a new name. */
function holderFor(db: Db, machine: Machine, { holder: name, role }: EntryDocument): Holder {
  const find = () => {
    const all = everyHolderOf(db, machine.id);
    return (
      all.find((h) => h.name.toLowerCase() === name.toLowerCase()) ??
      all.find((h) => role !== "copy" && h.role === role)
    );
  };
  const known = find();
  if (known) return known;
  addHolder(db, machine.id, name, role);
  return find() as Holder;
}

function moment(i: number, field: string, text: string, now: number): number {
  try {
    return happenedAt(Date.parse(text), now);
  } catch (error) {
    if (error instanceof Refusal) throw fault(i, field, error.message);
    throw error;
  }
}

function fault(i: number, field: string, message: string): Refusal {
  return new Refusal("ledger", `entries[${i}].${field}: ${message}`);
}
