/** Machines with their revisions and holders. */
import { asc, desc, eq, type SQL } from "drizzle-orm";
import { type MachineSpec, machineSpecSchema } from "../core/machine/machine-spec";
import type { Db } from "./database";
import { eachSound, fromColumn, toColumn } from "./json-column";
import { event, fitting, holder, machine, machineRevision, practiceMachine, putBack, stockResult } from "./schema";

export type Machine = {
  id: number;
  slug: string;
  revisionId: number;
  spec: MachineSpec;
  archivedAt: number | null;
};

export type Holder = typeof holder.$inferSelect;
export type HolderRole = Holder["role"];

/** All machines in use, oldest first, each with its newest revision. */
export function allMachines(db: Db): Machine[] {
  return everyMachine(db).filter((m) => m.archivedAt === null);
}

/** All machines, archived ones included, except those whose own row is damaged. */
export function everyMachine(db: Db): Machine[] {
  return eachSound(machineRows(db, undefined), machineOf).sound;
}

/** Machines whose own row is damaged: their slug, and the damaged column. */
export function damagedMachines(db: Db): { slug: string; column: string }[] {
  const { damaged } = eachSound(machineRows(db, undefined), machineOf);
  return damaged.map(({ item, column }) => ({ slug: item.machine.slug, column }));
}

/** Slugs in use, damaged machines included. */
export function machineSlugs(db: Db): string[] {
  return db
    .select({ slug: machine.slug })
    .from(machine)
    .all()
    .map((row) => row.slug);
}

export function machineBySlug(db: Db, slug: string): Machine | undefined {
  return machineRows(db, eq(machine.slug, slug)).map(machineOf)[0];
}

export function machineById(db: Db, id: number): Machine | undefined {
  return machineRows(db, eq(machine.id, id)).map(machineOf)[0];
}

type MachineRow = {
  machine: typeof machine.$inferSelect;
  machine_revision: typeof machineRevision.$inferSelect;
};

/** Oldest first, asked for at once, each with its newest revision. */
function machineRows(db: Db, which: SQL | undefined): MachineRow[] {
  const rows = db
    .select()
    .from(machine)
    .innerJoin(machineRevision, eq(machineRevision.machineId, machine.id))
    .where(which)
    .orderBy(asc(machine.id), desc(machineRevision.from), desc(machineRevision.id))
    .all();
  return rows.filter((row, i) => row.machine.id !== rows[i - 1]?.machine.id);
}

function machineOf({ machine: { id, slug, archivedAt }, machine_revision: revision }: MachineRow): Machine {
  return { id, slug, archivedAt, revisionId: revision.id, spec: specOf(revision.spec) };
}

/** The spec of a machine as a trial froze it. */
export function machineRevisionById(db: Db, id: number): MachineSpec {
  const revision = db.select().from(machineRevision).where(eq(machineRevision.id, id)).get();
  if (!revision) throw new RangeError(`machine revision ${id} does not exist`);
  return specOf(revision.spec);
}

export function addMachine(
  db: Db,
  slug: string,
  spec: MachineSpec,
  holders: readonly { name: string; role: HolderRole }[],
  now: number,
): Machine {
  return db.transaction((tx) => {
    const row = tx.insert(machine).values({ slug, createdAt: now }).returning().get();
    const revision = tx
      .insert(machineRevision)
      .values({ machineId: row.id, spec: toColumn(spec), from: now })
      .returning()
      .get();
    for (const h of holders)
      tx.insert(holder)
        .values({ machineId: row.id, ...h })
        .run();
    return { id: row.id, slug, revisionId: revision.id, spec, archivedAt: null };
  });
}

/** The machine as it is from now on; trials begun before keep the spec they began with. */
export function reviseMachine(db: Db, machineId: number, spec: MachineSpec, now: number): void {
  db.insert(machineRevision)
    .values({ machineId, spec: toColumn(spec), from: now })
    .run();
}

/** Those in use, in the order in which they were named. */
export function holdersOf(db: Db, machineId: number): Holder[] {
  return everyHolderOf(db, machineId).filter((h) => h.archivedAt === null);
}

/** The archived ones too. */
export function everyHolderOf(db: Db, machineId: number): Holder[] {
  return db.select().from(holder).where(eq(holder.machineId, machineId)).orderBy(asc(holder.id)).all();
}

/** Another place that keeps a copy. @returns its id */
export function addHolder(db: Db, machineId: number, name: string, role: HolderRole): number {
  return db.insert(holder).values({ machineId, name, role }).returning().get().id;
}

export function renameHolder(db: Db, id: number, name: string): void {
  db.update(holder).set({ name }).where(eq(holder.id, id)).run();
}

export function archiveHolder(db: Db, id: number, archivedAt: number | null): void {
  db.update(holder).set({ archivedAt }).where(eq(holder.id, id)).run();
}

/** A holder that nothing was ever recorded for. */
export function deleteHolder(db: Db, id: number): void {
  db.delete(holder).where(eq(holder.id, id)).run();
}

/** Off the bench, or back onto it: what was measured on it stays. */
export function archiveMachine(db: Db, id: number, archivedAt: number | null): void {
  db.update(machine).set({ archivedAt }).where(eq(machine.id, id)).run();
}

/** A machine on which nothing was measured and nothing written down, with all that was said of it. */
export function deleteMachine(db: Db, id: number): void {
  db.transaction((tx) => {
    // What came onto a card from a file names its machine in words too.
    tx.update(stockResult).set({ machineId: null }).where(eq(stockResult.machineId, id)).run();
    for (const table of [fitting, putBack, event, practiceMachine, holder, machineRevision])
      tx.delete(table).where(eq(table.machineId, id)).run();
    tx.delete(machine).where(eq(machine.id, id)).run();
  });
}

function specOf(text: string): MachineSpec {
  return fromColumn(machineSpecSchema, text, "machine_revision.spec");
}
