/** What happened to a machine: a belt changed, new firmware, a tube replaced. Only ever added, or taken back. */
import { and, desc, eq, isNull } from "drizzle-orm";
import { type ChangeKind, changeKindSchema } from "../core/machine/change";
import type { Db } from "./database";
import { event } from "./schema";

export type MachineEvent = { id: number; kind: ChangeKind; note: string; at: number };

export function addEvent(db: Db, machineId: number, values: Omit<MachineEvent, "id">): void {
  db.insert(event)
    .values({ machineId, ...values })
    .run();
}

/** Newest first, without those taken back. */
export function eventsOf(db: Db, machineId: number): MachineEvent[] {
  return db
    .select({ id: event.id, kind: event.kind, note: event.note, at: event.at })
    .from(event)
    .where(and(eq(event.machineId, machineId), isNull(event.takenBackAt)))
    .orderBy(desc(event.at), desc(event.id))
    .all()
    .map((row) => ({ ...row, kind: changeKindSchema.parse(row.kind) }));
}

/** @returns whether there was such an event of this machine */
export function takeBackEvent(db: Db, machineId: number, id: number, now: number): boolean {
  return (
    db
      .update(event)
      .set({ takenBackAt: now })
      .where(and(eq(event.id, id), eq(event.machineId, machineId), isNull(event.takenBackAt)))
      .run().changes === 1
  );
}
