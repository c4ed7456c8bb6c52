/** Practice machines and what was burned on them. The only table code that needs their types is the server's. */
import { desc, eq } from "drizzle-orm";
import type { Db } from "./database";
import { practiceBurn, practiceMachine } from "./schema";

export type PracticeRow = typeof practiceMachine.$inferSelect;

export function practiceOf(db: Db, machineId: number): PracticeRow | undefined {
  return db.select().from(practiceMachine).where(eq(practiceMachine.machineId, machineId)).get();
}

export function addPractice(db: Db, values: { machineId: number; truth: string; controller: string }): void {
  db.insert(practiceMachine).values(values).run();
}

export function setPractice(
  db: Db,
  machineId: number,
  values: Partial<Pick<PracticeRow, "truth" | "controller" | "revealedAt">>,
): void {
  db.update(practiceMachine).set(values).where(eq(practiceMachine.machineId, machineId)).run();
}

export function addBurn(db: Db, values: { roundId: number; file: string; marks: string }, now: number): void {
  db.insert(practiceBurn)
    .values({ ...values, at: now })
    .run();
}

/** The newest burn of a round. */
export function burnOf(db: Db, roundId: number): typeof practiceBurn.$inferSelect | undefined {
  return db.select().from(practiceBurn).where(eq(practiceBurn.roundId, roundId)).orderBy(desc(practiceBurn.id)).get();
}
