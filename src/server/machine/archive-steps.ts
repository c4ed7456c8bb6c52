/** Taking a machine off the bench: deleted where nothing hangs on it, else archived with all its history. */
import { countText } from "../../core/metrology/count-text";
import type { Db } from "../../data/database";
import { entriesOf, ownerOfMachine } from "../../data/ledger";
import { archiveMachine, deleteMachine, type Machine, machineBySlug } from "../../data/machines";
import { fitPart, fittedPart } from "../../data/parts";
import { trialsOfMachine } from "../../data/trials";
import { Refusal } from "../refusal";

/** What would be lost with a machine; `null` where nothing would. */
export function historyWords(db: Db, machine: Machine): string | null {
  const trials = trialsOfMachine(db, machine.id).length;
  const entries = entriesOf(db, ownerOfMachine(machine.id)).length;
  const words = [count(trials, "trial"), count(entries, "ledger entry", "ledger entries")].filter(Boolean);
  return words.length > 0 ? words.join(" and ") : null;
}

function count(n: number, one: string, many = `${one}s`): string {
  return n === 0 ? "" : countText(n, one, many);
}

/** @throws Refusal where history needs it */
export function removeMachine(db: Db, slug: string): void {
  const machine = known(db, slug);
  const history = historyWords(db, machine);
  if (history)
    throw new Refusal(
      "history",
      `${machine.spec.name} has ${history}: deleting it would take them along. Archive it instead; its history stays and it can come back.`,
    );
  deleteMachine(db, machine.id);
}

/** Off the bench; its optic and rotary are free for other machines. */
export function archive(db: Db, slug: string, now: number): void {
  const machine = known(db, slug);
  if (machine.archivedAt !== null) throw new Refusal("machine", `${machine.spec.name} is archived already.`);
  if (trialsOfMachine(db, machine.id).some((t) => t.endedAt === null))
    throw new Refusal("machine", "A trial is open on it: finish it, or end it without a proof, before archiving.");
  db.transaction((tx) => {
    for (const kind of ["optic", "rotary"] as const)
      if (fittedPart(tx, machine.id, kind, now)) fitPart(tx, machine.id, kind, null, now);
    archiveMachine(tx, machine.id, now);
  });
}

export function bringBack(db: Db, slug: string): void {
  archiveMachine(db, known(db, slug).id, null);
}

function known(db: Db, slug: string): Machine {
  const machine = machineBySlug(db, slug);
  if (!machine) throw new Refusal("machine", "There is no such machine.");
  return machine;
}
