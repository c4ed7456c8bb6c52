/** Optics and rotaries with their revisions, and what is fitted where, from when to when. */
import { and, asc, desc, eq, gt, isNull, lte, or } from "drizzle-orm";
import { opticSpecSchema, type PartKind, type PartSpec, rotarySpecSchema } from "../core/machine/part-spec";
import type { PlanContext } from "../core/trial/plan-form";
import type { Db } from "./database";
import { eachSound, fromColumn, toColumn } from "./json-column";
import { fitting, machine, part, partRevision } from "./schema";

export type Part = { id: number; spec: PartSpec; archivedAt: number | null };
export type Fitting = {
  id: number;
  machineId: number;
  partId: number;
  kind: PartKind;
  label: string;
  from: number;
  to: number | null;
};

/** Columns of a fitting with its part. */
const FITTING = {
  id: fitting.id,
  machineId: fitting.machineId,
  partId: fitting.partId,
  kind: part.kind,
  label: part.label,
  from: fitting.from,
  to: fitting.to,
};

/** All parts, oldest first, each with its newest revision; archived ones too, damaged ones left out. */
export function allParts(db: Db): Part[] {
  const rows = db.select().from(part).orderBy(asc(part.id)).all();
  return eachSound(rows, (row) => partOf(db, row)).sound.flatMap((known) => known ?? []);
}

export function partById(db: Db, id: number): Part | undefined {
  const row = db.select().from(part).where(eq(part.id, id)).get();
  return row && partOf(db, row);
}

function partOf(db: Db, row: typeof part.$inferSelect): Part | undefined {
  const revision = db
    .select()
    .from(partRevision)
    .where(eq(partRevision.partId, row.id))
    .orderBy(desc(partRevision.from), desc(partRevision.id))
    .get();
  if (!revision) return undefined;
  const spec: PartSpec =
    row.kind === "optic"
      ? { kind: "optic", ...fromColumn(opticSpecSchema, revision.spec, "part_revision.spec") }
      : { kind: "rotary", ...fromColumn(rotarySpecSchema, revision.spec, "part_revision.spec") };
  return { id: row.id, spec: { ...spec, label: row.label }, archivedAt: row.archivedAt };
}

/** @returns its id */
export function addPart(db: Db, { kind, ...spec }: PartSpec, now: number): number {
  return db.transaction((tx) => {
    const row = tx.insert(part).values({ kind, label: spec.label }).returning().get();
    tx.insert(partRevision)
      .values({ partId: row.id, spec: toColumn(spec), from: now })
      .run();
    return row.id;
  });
}

/** The part as it is from now on. */
export function revisePart(db: Db, id: number, { kind: _, ...spec }: PartSpec, now: number): void {
  db.transaction((tx) => {
    tx.update(part).set({ label: spec.label }).where(eq(part.id, id)).run();
    tx.insert(partRevision)
      .values({ partId: id, spec: toColumn(spec), from: now })
      .run();
  });
}

export function archivePart(db: Db, id: number, archivedAt: number | null): void {
  db.update(part).set({ archivedAt }).where(eq(part.id, id)).run();
}

/** Every fitting of a machine, or of all, oldest first. */
export function fittingsOf(db: Db, machineId?: number): Fitting[] {
  return db
    .select(FITTING)
    .from(fitting)
    .innerJoin(part, eq(part.id, fitting.partId))
    .where(machineId === undefined ? undefined : eq(fitting.machineId, machineId))
    .orderBy(asc(fitting.from), asc(fitting.id))
    .all();
}

/** Where a part is fitted now. */
export function fittedAt(db: Db, partId: number): { machineId: number; slug: string } | undefined {
  return db
    .select({ machineId: fitting.machineId, slug: machine.slug })
    .from(fitting)
    .innerJoin(machine, eq(machine.id, fitting.machineId))
    .where(and(eq(fitting.partId, partId), isNull(fitting.to)))
    .get();
}

/** The part of a kind that was fitted at a moment. */
export function fittedPart(db: Db, machineId: number, kind: PartKind, at: number): Fitting | undefined {
  return db
    .select(FITTING)
    .from(fitting)
    .innerJoin(part, eq(part.id, fitting.partId))
    .where(
      and(
        eq(fitting.machineId, machineId),
        eq(part.kind, kind),
        lte(fitting.from, at),
        or(isNull(fitting.to), gt(fitting.to, at)),
      ),
    )
    .orderBy(desc(fitting.from), desc(fitting.id))
    .get();
}

/** Takes off what is fitted of a kind, and fits a part where one is given, at one moment. */
export function fitPart(db: Db, machineId: number, kind: PartKind, partId: number | null, at: number): void {
  db.transaction((tx) => {
    const open = fittingsOf(tx, machineId).filter((f) => f.kind === kind && f.to === null);
    for (const f of open) tx.update(fitting).set({ to: at }).where(eq(fitting.id, f.id)).run();
    if (partId !== null) tx.insert(fitting).values({ machineId, partId, from: at }).run();
  });
}

/** What is fitted now, as a context has it. */
export function fittedNow(db: Db, machineId: number): Pick<PlanContext, "optic" | "rotary"> {
  const specs = fittingsOf(db, machineId).flatMap((f) => (f.to === null ? (partById(db, f.partId)?.spec ?? []) : []));
  const optic = specs.find((s) => s.kind === "optic");
  const rotary = specs.find((s) => s.kind === "rotary");
  return { ...(optic ? { optic } : {}), ...(rotary ? { rotary } : {}) };
}
