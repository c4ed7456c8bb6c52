/** The places of a machine that keep a copy of its settings. */
import type { Db } from "../../data/database";
import { entriesOf, ownerOfMachine } from "../../data/ledger";
import {
  addHolder,
  archiveHolder,
  deleteHolder,
  everyHolderOf,
  type Holder,
  machineBySlug,
  renameHolder,
} from "../../data/machines";
import { Refusal } from "../refusal";

const LONGEST_NAME = 80;

/** Another place that keeps a copy and must be kept in step by hand. @returns its id */
export function addCopy(db: Db, machineSlug: string, name: string): number {
  const { machine, holders } = known(db, machineSlug);
  return addHolder(db, machine.id, freeName(holders, name, null), "copy");
}

export function nameHolder(db: Db, machineSlug: string, holderId: number, name: string): void {
  const { holders } = known(db, machineSlug);
  const holder = holderOf(holders, holderId);
  renameHolder(db, holder.id, freeName(holders, name, holder.id));
}

/** Gone where nothing was ever recorded for it; else put away with its history. @returns which of the two */
export function removeHolder(db: Db, machineSlug: string, holderId: number, now: number): "deleted" | "put away" {
  const { machine, holders } = known(db, machineSlug);
  const holder = holderOf(holders, holderId);
  if (holder.role !== "copy")
    throw new Refusal("holder", `${holder.name} acts on burns: a machine cannot be without it.`);
  if (entriesOf(db, ownerOfMachine(machine.id)).some((e) => e.holderId === holder.id)) {
    archiveHolder(db, holder.id, now);
    return "put away";
  }
  deleteHolder(db, holder.id);
  return "deleted";
}

export function bringBackHolder(db: Db, machineSlug: string, holderId: number): void {
  const { holders } = known(db, machineSlug);
  archiveHolder(db, holderOf(holders, holderId).id, null);
}

function known(db: Db, slug: string) {
  const machine = machineBySlug(db, slug);
  if (!machine) throw new Refusal("machine", "There is no such machine.");
  return { machine, holders: everyHolderOf(db, machine.id) };
}

function holderOf(holders: readonly Holder[], id: number): Holder {
  const holder = holders.find((h) => h.id === id);
  if (!holder) throw new Refusal("holder", "This machine has no such holder.");
  return holder;
}

function freeName(holders: readonly Holder[], text: string, own: number | null): string {
  const name = text.trim();
  if (name === "") throw new Refusal("name", "Give it a name, for example: office computer, second program.");
  if (name.length > LONGEST_NAME) throw new Refusal("name", `A name may be ${LONGEST_NAME} characters long.`);
  const taken = holders.find((h) => h.id !== own && h.name.toLowerCase() === name.toLowerCase());
  if (taken)
    throw new Refusal(
      "name",
      taken.archivedAt === null
        ? "Another holder has this name: tell them apart."
        : "A holder that was put away has this name: bring it back, or choose another.",
    );
  return name;
}
