/** What happened to a machine, and what was set on it for a while. */
import { type ChangeKind, changesOn } from "../../core/procedures/change";
import type { Db } from "../../data/database";
import { addEvent, takeBackEvent } from "../../data/events";
import { type Machine, machineBySlug } from "../../data/machines";
import { addToPutBack, setPutBack } from "../../data/put-back";
import { happenedAt } from "../happened-at";
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

/** It is put back; or with `false` not after all. */
export function settlePutBack(db: Db, machineSlug: string, id: number, isBack: boolean, now: number): void {
  if (!setPutBack(db, known(db, machineSlug).id, id, isBack ? now : null))
    throw new Refusal("what", "This machine has no such thing to put back.");
}

function known(db: Db, slug: string): Machine {
  const machine = machineBySlug(db, slug);
  if (!machine) throw new Refusal("machine", "There is no such machine.");
  return machine;
}
