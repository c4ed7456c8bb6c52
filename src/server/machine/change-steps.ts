/** What happened to a machine, and what was set on it for a while. */
import { type ChangeKind, changesOn } from "../../core/machine/change";
import { isSame } from "../../core/settings/setting-history";
import type { Db } from "../../data/database";
import { addEvent, takeBackEvent } from "../../data/events";
import { entriesOf, ownerOfMachine } from "../../data/ledger";
import { type Machine, machineBySlug } from "../../data/machines";
import { addToPutBack, putBackById, setPutBack, type ToPutBack } from "../../data/put-back";
import { happenedAt } from "../happened-at";
import { putBackValue, takeBackNewest } from "../ledger/ledger-steps";
import { Refusal } from "../refusal";

/** Something happened to the machine that may make results invalid. */
export function noteChange(
  db: Db,
  input: { machine: string; kind: ChangeKind; note: string; at: number | null },
  now: number,
): void {
  const machine = known(db, input.machine);
  if (!changesOn(machine.spec.kind).includes(input.kind)) throw new Refusal("kind", "Choose what happened.");
  addEvent(db, machine.id, { kind: input.kind, note: input.note.trim(), at: happenedAt(input.at, now) });
}

/** It did not happen after all. */
export function takeBackChange(db: Db, machineSlug: string, id: number, now: number): void {
  if (!takeBackEvent(db, known(db, machineSlug).id, id, now))
    throw new Refusal("event", "This was taken back already.");
}

/** Something was set on purpose and must be put back. */
export function noteToPutBack(db: Db, machineSlug: string, what: string, now: number): void {
  const machine = known(db, machineSlug);
  const text = what.trim();
  if (text === "") throw new Refusal("what", "Say what must be put back, for example: travel limits off.");
  addToPutBack(db, machine.id, text, now);
}

/** It is put back, a setting to what the ledger says it was; or with `false` not after all. */
export function settlePutBack(db: Db, machineSlug: string, id: number, isBack: boolean, now: number): void {
  const machine = known(db, machineSlug);
  const item = putBackById(db, machine.id, id);
  if (!item) throw new Refusal("what", "This machine has no such thing to put back.");
  db.transaction((tx) => {
    setPutBack(tx, machine.id, id, isBack ? now : null);
    if (item.ledgerEntryId !== null) settleSetting(tx, machine, item, isBack, now);
  });
}

/** Entered again where something else is in force since; taken out again where it was put back by mistake. */
function settleSetting(db: Db, machine: Machine, item: ToPutBack, isBack: boolean, now: number): void {
  const entries = entriesOf(db, ownerOfMachine(machine.id));
  const kept = entries.find((e) => e.id === item.ledgerEntryId);
  if (!kept || kept.holderId === null) return;
  const newest = entries.find((e) => e.undoneAt === null && e.setting === kept.setting && e.holderId === kept.holderId);
  if (!isBack) {
    if (newest?.origin === "restored" && newest.at === item.closedAt) takeBackNewest(db, machine.id, newest.id, now);
    return;
  }
  if (kept.value === null || isSame(newest?.value ?? null, kept.value)) return;
  const again = { machine: machine.slug, entryId: kept.id, holderId: kept.holderId };
  putBackValue(db, { ...again, readBack: false, note: item.what }, now);
}

function known(db: Db, slug: string): Machine {
  const machine = machineBySlug(db, slug);
  if (!machine) throw new Refusal("machine", "There is no such machine.");
  return machine;
}
