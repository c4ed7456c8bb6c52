/** Machines with their revisions, holders and fittings. */
import { and, asc, desc, eq, isNull, lte } from "drizzle-orm";
import { z } from "zod";
import { type MachineSpec, machineSpecSchema } from "../core/procedures/machine-spec";
import type { Db } from "./database";
import { fromColumn, toColumn } from "./json-column";
import { fitting, holder, machine, machineRevision, optic, opticRevision } from "./schema";

export const opticSpecSchema = z.object({
  label: z.string(),
  focalLengthMm: z.number().positive(),
});
export type OpticSpec = z.infer<typeof opticSpecSchema>;

export type Machine = {
  id: number;
  slug: string;
  revisionId: number;
  spec: MachineSpec;
};

export type Holder = typeof holder.$inferSelect;
export type HolderRole = Holder["role"];

/** All machines in use, oldest first, each with its newest revision. */
export function allMachines(db: Db): Machine[] {
  return db
    .select()
    .from(machine)
    .where(isNull(machine.archivedAt))
    .orderBy(asc(machine.id))
    .all()
    .flatMap((row) => machineBySlug(db, row.slug) ?? []);
}

export function machineBySlug(db: Db, slug: string): Machine | undefined {
  const row = db.select().from(machine).where(eq(machine.slug, slug)).get();
  return row ? machineById(db, row.id) : undefined;
}

export function machineById(db: Db, id: number): Machine | undefined {
  const row = db.select().from(machine).where(eq(machine.id, id)).get();
  const revision = db
    .select()
    .from(machineRevision)
    .where(eq(machineRevision.machineId, id))
    .orderBy(desc(machineRevision.from), desc(machineRevision.id))
    .get();
  if (!row || !revision) return undefined;
  return { id, slug: row.slug, revisionId: revision.id, spec: specOf(revision.spec) };
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
    return { id: row.id, slug, revisionId: revision.id, spec };
  });
}

/** The machine as it is from now on; trials begun before keep the spec they began with. */
export function reviseMachine(db: Db, machineId: number, spec: MachineSpec, now: number): void {
  db.insert(machineRevision)
    .values({ machineId, spec: toColumn(spec), from: now })
    .run();
}

export function holdersOf(db: Db, machineId: number): Holder[] {
  return db.select().from(holder).where(eq(holder.machineId, machineId)).orderBy(asc(holder.id)).all();
}

/** Adds an optic and fits it. */
export function fitOptic(db: Db, machineId: number, spec: OpticSpec, now: number): void {
  db.transaction((tx) => {
    const row =
      tx.select().from(optic).where(eq(optic.label, spec.label)).get() ??
      tx.insert(optic).values({ label: spec.label }).returning().get();
    tx.insert(opticRevision)
      .values({ opticId: row.id, spec: toColumn(spec), from: now })
      .run();
    tx.update(fitting)
      .set({ to: now })
      .where(and(eq(fitting.machineId, machineId), isNull(fitting.to)))
      .run();
    tx.insert(fitting).values({ machineId, opticId: row.id, from: now }).run();
  });
}

/** The optic fitted at a moment. */
export function fittedOptic(db: Db, machineId: number, at: number): OpticSpec | undefined {
  const row = db
    .select({ opticId: fitting.opticId })
    .from(fitting)
    .where(and(eq(fitting.machineId, machineId), lte(fitting.from, at), isNull(fitting.to)))
    .get();
  if (!row) return undefined;
  const revision = db
    .select()
    .from(opticRevision)
    .where(eq(opticRevision.opticId, row.opticId))
    .orderBy(desc(opticRevision.from), desc(opticRevision.id))
    .get();
  return revision ? fromColumn(opticSpecSchema, revision.spec, "optic_revision.spec") : undefined;
}

/** When an optic was fitted, oldest first: the first fitting is how the machine came. */
export function fittingsOf(db: Db, machineId: number): { at: number; label: string }[] {
  return db
    .select({ at: fitting.from, label: optic.label })
    .from(fitting)
    .innerJoin(optic, eq(optic.id, fitting.opticId))
    .where(eq(fitting.machineId, machineId))
    .orderBy(asc(fitting.from), asc(fitting.id))
    .all();
}

function specOf(text: string): MachineSpec {
  return fromColumn(machineSpecSchema, text, "machine_revision.spec");
}
