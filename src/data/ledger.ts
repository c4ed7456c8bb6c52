/** Every setting over time: entries are added, never changed; undoing marks the newest one. */
import { and, desc, eq, isNull } from "drizzle-orm";
import { unitIdSchema } from "../core/metrology/unit-schema";
import type { UnitId } from "../core/metrology/units";
import { type SettingValue, settingValueSchema } from "../core/settings/setting";
import type { Db } from "./database";
import { fromColumn, soundOrNull, toColumn } from "./json-column";
import { holder, ledgerEntry, trial } from "./schema";

export type Origin = (typeof ledgerEntry.$inferSelect)["origin"];

export type LedgerEntry = {
  id: number;
  owner: string;
  setting: string;
  holderId: number | null;
  holderName: string | null;
  value: SettingValue | null;
  unit: UnitId;
  u: number | null;
  origin: Origin;
  trialId: number | null;
  trialCode: string | null;
  readBack: boolean;
  note: string;
  at: number;
  undoneAt: number | null;
};

export type NewEntry = {
  owner: string;
  setting: string;
  holderId: number | null;
  value: SettingValue | null;
  unit: UnitId;
  u: number | null;
  origin: Origin;
  solutionId: number | null;
  trialId: number | null;
  readBack: boolean;
  note: string;
};

export function ownerOfMachine(machineId: number): string {
  return `machine:${machineId}`;
}

export function addEntry(db: Db, entry: NewEntry, now: number): number {
  return db
    .insert(ledgerEntry)
    .values({ ...entry, value: entry.value ? toColumn(entry.value) : null, at: now })
    .returning()
    .get().id;
}

/** Which entries a trial made and did not undo. */
export function entriesOfTrial(db: Db, trialId: number): Pick<LedgerEntry, "id" | "origin">[] {
  return db
    .select({ id: ledgerEntry.id, origin: ledgerEntry.origin })
    .from(ledgerEntry)
    .where(and(eq(ledgerEntry.trialId, trialId), isNull(ledgerEntry.undoneAt)))
    .all();
}

/** Newest first, undone ones included. */
export function entriesOf(db: Db, owner: string): LedgerEntry[] {
  return db
    .select()
    .from(ledgerEntry)
    .leftJoin(holder, eq(holder.id, ledgerEntry.holderId))
    .leftJoin(trial, eq(trial.id, ledgerEntry.trialId))
    .where(eq(ledgerEntry.owner, owner))
    .orderBy(desc(ledgerEntry.at), desc(ledgerEntry.id))
    .all()
    .map((row) => ({
      id: row.ledger_entry.id,
      owner: row.ledger_entry.owner,
      setting: row.ledger_entry.setting,
      holderId: row.ledger_entry.holderId,
      holderName: row.holder?.name ?? null,
      ...readable(row.ledger_entry),
      unit: unitIdSchema.parse(row.ledger_entry.unit),
      u: row.ledger_entry.u,
      origin: row.ledger_entry.origin,
      trialId: row.ledger_entry.trialId,
      trialCode: row.trial?.code ?? null,
      readBack: row.ledger_entry.readBack,
      at: row.ledger_entry.at,
      undoneAt: row.ledger_entry.undoneAt,
    }));
}

/** A damaged value becomes "not known". The trial then asks for the value and does not build on a wrong one. */
function readable({ value, note }: typeof ledgerEntry.$inferSelect): Pick<LedgerEntry, "value" | "note"> {
  if (value === null) return { value, note };
  const known = soundOrNull(() => fromColumn(settingValueSchema, value, "ledger_entry.value"));
  return known ? { value: known, note } : { value: null, note: `The value is damaged in the database. ${note}`.trim() };
}

/** The entry in force: newest, not undone. */
export function currentEntry(db: Db, owner: string, setting: string, holderId: number): LedgerEntry | undefined {
  return entriesOf(db, owner).find((e) => e.setting === setting && e.holderId === holderId && e.undoneAt === null);
}

/** @returns whether there was such an entry to undo */
export function markUndone(db: Db, id: number, now: number): boolean {
  return (
    db
      .update(ledgerEntry)
      .set({ undoneAt: now })
      .where(and(eq(ledgerEntry.id, id), isNull(ledgerEntry.undoneAt)))
      .run().changes === 1
  );
}
