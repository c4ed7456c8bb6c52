/** What was set on purpose for a while and must be put back. */
import { and, asc, eq, isNull } from "drizzle-orm";
import type { Db } from "./database";
import { putBack } from "./schema";

export type ToPutBack = typeof putBack.$inferSelect;

/** What is known of it where it was set for a burn. */
export type SetForBurn = { roundId: number; setting: string | null; ledgerEntryId: number | null };

export function addToPutBack(db: Db, machineId: number, what: string, now: number, of?: SetForBurn): void {
  db.insert(putBack)
    .values({ machineId, what, openedAt: now, ...of })
    .run();
}

/** Also where it is put back already. */
export function putBackById(db: Db, machineId: number, id: number): ToPutBack | undefined {
  return db
    .select()
    .from(putBack)
    .where(and(eq(putBack.id, id), eq(putBack.machineId, machineId)))
    .get();
}

/** What is still as it was set, oldest first. */
export function toPutBackOf(db: Db, machineId: number): ToPutBack[] {
  return db
    .select()
    .from(putBack)
    .where(and(eq(putBack.machineId, machineId), isNull(putBack.closedAt)))
    .orderBy(asc(putBack.openedAt), asc(putBack.id))
    .all();
}

/** Put back, or with `null` not after all. @returns whether there is such a thing of this machine */
export function setPutBack(db: Db, machineId: number, id: number, closedAt: number | null): boolean {
  return (
    db
      .update(putBack)
      .set({ closedAt })
      .where(and(eq(putBack.id, id), eq(putBack.machineId, machineId)))
      .run().changes === 1
  );
}
