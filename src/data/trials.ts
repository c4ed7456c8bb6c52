/** Trials: one go at a procedure on a machine. */

import { desc, eq } from "drizzle-orm";
import { z } from "zod";
import type { Decided } from "../core/trial/decision";
import type { Db } from "./database";
import { fromColumn, toColumn } from "./json-column";
import { trial } from "./schema";

export type TrialEnd = NonNullable<(typeof trial.$inferSelect)["end"]>;

export type Trial = {
  id: number;
  machineId: number;
  machineRevisionId: number;
  procedure: string;
  code: string;
  tolerance: number;
  decisions: Record<string, string>;
  begunAt: number;
  endedAt: number | null;
  end: TrialEnd | null;
};

const decisionsSchema = z.record(z.string(), z.string());

export function addTrial(
  db: Db,
  values: Omit<Trial, "id" | "decisions" | "begunAt" | "endedAt" | "end"> & { procedureVersion: number },
  now: number,
): number {
  return db
    .insert(trial)
    .values({ ...values, decisions: "{}", begunAt: now })
    .returning()
    .get().id;
}

export function trialById(db: Db, id: number): Trial | undefined {
  const row = db.select().from(trial).where(eq(trial.id, id)).get();
  return row ? trialOf(row) : undefined;
}

/** Newest first. */
export function trialsOfMachine(db: Db, machineId: number): Trial[] {
  return db
    .select()
    .from(trial)
    .where(eq(trial.machineId, machineId))
    .orderBy(desc(trial.begunAt), desc(trial.id))
    .all()
    .map(trialOf);
}

/** Of all machines, newest first. */
export function allTrials(db: Db): Trial[] {
  return db.select().from(trial).orderBy(desc(trial.begunAt), desc(trial.id)).all().map(trialOf);
}

/** How many trials have a code that begins so. */
export function countCodes(db: Db, letter: string): number {
  return db
    .select({ code: trial.code })
    .from(trial)
    .all()
    .filter((t) => t.code.startsWith(`${letter}-`)).length;
}

export function setDecision(db: Db, trialId: number, { key, value }: Decided): void {
  db.transaction((tx) => {
    const decisions = { ...trialById(tx, trialId)?.decisions, [key]: value };
    tx.update(trial)
      .set({ decisions: toColumn(decisions) })
      .where(eq(trial.id, trialId))
      .run();
  });
}

/** The tolerance by which this trial is judged from now on. */
export function setTrialTolerance(db: Db, trialId: number, tolerance: number): void {
  db.update(trial).set({ tolerance }).where(eq(trial.id, trialId)).run();
}

export function endTrial(db: Db, trialId: number, end: TrialEnd, now: number): void {
  db.update(trial).set({ end, endedAt: now }).where(eq(trial.id, trialId)).run();
}

function trialOf(row: typeof trial.$inferSelect): Trial {
  return { ...row, decisions: fromColumn(decisionsSchema, row.decisions, "trial.decisions") };
}
