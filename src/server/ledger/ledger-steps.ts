/** The ledger beside trials: what was found, what was entered by hand, what was put back, and taking the last record back. */
import { rangeFault } from "../../core/settings/entry-text";
import type { SettingSpec, SettingValue } from "../../core/settings/setting";
import type { Db } from "../../data/database";
import { addEntry, entriesOf, type LedgerEntry, markUndone, type NewEntry, ownerOfMachine } from "../../data/ledger";
import { everyHolderOf, type Holder, holdersOf, type Machine, machineBySlug } from "../../data/machines";
import { FormFaults } from "../form-faults";
import { enterInPractice, foundInPractice } from "../practice/practice-machine";
import { settingsOf, settingUnit } from "../procedures/settings";
import { Refusal } from "../refusal";
import { type TypedRow, typedValue } from "./typed-value";

export type HandInput = {
  machine: string;
  setting: string;
  holderId: number;
  /** `null` = not known. */
  rows: readonly TypedRow[] | null;
  /** `found`: read back and written down; `hand`: changed by a person, for a reason. */
  origin: "found" | "hand";
  note: string;
  readBack: boolean;
};

/**
 * Writes down what a holder has. @returns id of the entry
 * @throws Refusal with all faults of the form
 */
export function writeDown(db: Db, input: HandInput, now: number): number {
  const { machine, setting, holder } = known(db, input);
  const { rows } = input;
  if (input.origin === "hand" && rows === null) throw new Refusal("value", "Enter the value.");
  const form = new FormFaults();
  const value = form.read(
    () => (rows === null ? null : typedValue(setting, settingUnit(machine.spec, setting.key), rows)),
    null,
  );
  const note = form.read(() => noteOf(input), "");
  form.refuse();
  refuseOutside(value, machine, setting.key);
  return write(db, machine, setting.key, holder, now, {
    value,
    origin: input.origin,
    note,
    readBack: value !== null && (input.origin === "found" || input.readBack),
  });
}

function noteOf({ origin, note }: HandInput): string {
  if (origin === "hand" && note.trim() === "") throw new Refusal("note", "Enter the reason for the change.");
  return note.trim();
}

/**
 * A value that was there before is entered again at its holder. @returns id of the new entry
 * @throws Refusal when the controller no longer takes it
 */
export function putBackValue(
  db: Db,
  input: { machine: string; entryId: number; holderId: number; readBack: boolean; note: string },
  now: number,
): number {
  const machine = machineOf(db, input.machine);
  const entry = entriesOf(db, ownerOfMachine(machine.id)).find((e) => e.id === input.entryId);
  if (!entry) throw new Refusal("entry", "The ledger of this machine has no such entry.");
  if (entry.value === null) throw new Refusal("entry", "What is not known cannot be put back.");
  const { holder } = known(db, { machine: input.machine, setting: entry.setting, holderId: input.holderId });
  refuseOutside(entry.value, machine, entry.setting);
  const note = [`as on ${new Date(entry.at).toISOString().slice(0, 10)}`, input.note.trim()].filter(Boolean).join(": ");
  return write(db, machine, entry.setting, holder, now, {
    value: entry.value,
    origin: "restored",
    note,
    readBack: input.readBack,
    u: entry.u,
  });
}

/** Takes back the newest record of a holder: what was there before is in force again, also on the practice machine. */
export function takeBackEntry(db: Db, machineSlug: string, entryId: number, now: number): void {
  const machine = machineOf(db, machineSlug);
  takeBackNewest(db, machine.id, entryId, now);
}

export function takeBackNewest(db: Db, machineId: number, entryId: number, now: number): void {
  const entries = entriesOf(db, ownerOfMachine(machineId));
  const entry = entries.find((e) => e.id === entryId);
  if (!entry) throw new Refusal("entry", "The ledger of this machine has no such entry.");
  if (entry.undoneAt !== null) throw new Refusal("entry", "This record was taken back already.");
  const there = entries.filter((e) => sameHolder(e, entry) && e.undoneAt === null);
  if (there[0]?.id !== entryId) throw new Refusal("entry", "Something newer is recorded there: take that back first.");
  const holder = everyHolderOf(db, machineId).find((h) => h.id === entry.holderId);
  db.transaction((tx) => {
    if (!markUndone(tx, entryId, now)) throw new Refusal("entry", "This record was taken back already.");
    if (holder?.role === "controller" && entry.origin !== "found")
      enterInPractice(tx, machineId, entry.setting, { before: entry.value, value: there[1]?.value ?? null });
  });
}

function sameHolder(a: LedgerEntry, b: LedgerEntry): boolean {
  return a.holderId === b.holderId && a.setting === b.setting;
}

function write(
  db: Db,
  machine: Machine,
  setting: string,
  holder: Holder,
  now: number,
  values: Pick<NewEntry, "value" | "origin" | "note" | "readBack"> & { u?: number | null },
): number {
  return db.transaction((tx) => {
    if (holder.role === "controller") {
      if (values.origin === "found") foundInPractice(tx, machine.id, setting, values.value);
      else
        enterInPractice(tx, machine.id, setting, {
          before: heldAt(tx, machine.id, setting, holder),
          value: values.value,
        });
    }
    return addEntry(
      tx,
      {
        owner: ownerOfMachine(machine.id),
        setting,
        holderId: holder.id,
        unit: settingUnit(machine.spec, setting),
        u: null,
        solutionId: null,
        trialId: null,
        ...values,
      },
      now,
    );
  });
}

/** What the ledger says is held there now; `null` = not known. */
function heldAt(db: Db, machineId: number, setting: string, { id }: Holder): SettingValue | null {
  const entries = entriesOf(db, ownerOfMachine(machineId));
  return entries.find((e) => e.holderId === id && e.setting === setting && e.undoneAt === null)?.value ?? null;
}

function refuseOutside(value: SettingValue | null, machine: Machine, setting: string): void {
  const fault = value && rangeFault(value, machine.spec.held[setting]);
  if (fault) throw new Refusal("value", `${fault} Look at the value, or set the range of the machine right.`);
}

function machineOf(db: Db, slug: string): Machine {
  const machine = machineBySlug(db, slug);
  if (!machine) throw new Refusal("machine", "There is no such machine.");
  return machine;
}

function known(
  db: Db,
  input: { machine: string; setting: string; holderId: number },
): { machine: Machine; setting: SettingSpec; holder: Holder } {
  const machine = machineOf(db, input.machine);
  const setting = settingsOf(machine.spec.kind).find((s) => s.key === input.setting);
  if (!setting) throw new Refusal("setting", "This machine has no such setting.");
  const holder = holdersOf(db, machine.id).find((h) => h.id === input.holderId);
  if (!holder) throw new Refusal("holder", "This machine has no such holder.");
  return { machine, setting, holder };
}
