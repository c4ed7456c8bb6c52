/** What happened to a machine: a belt changed, new firmware, a tube replaced. Only ever added. */
import { desc, eq } from "drizzle-orm";
import type { Db } from "./database";
import { event } from "./schema";

export type MachineEvent = { id: number; kind: string; note: string; at: number };

export function addEvent(db: Db, machineId: number, values: { kind: string; note: string; at: number }): void {
  db.insert(event)
    .values({ machineId, ...values })
    .run();
}

/** Newest first. */
export function eventsOf(db: Db, machineId: number): MachineEvent[] {
  return db
    .select({ id: event.id, kind: event.kind, note: event.note, at: event.at })
    .from(event)
    .where(eq(event.machineId, machineId))
    .orderBy(desc(event.at), desc(event.id))
    .all();
}
