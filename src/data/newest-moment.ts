/** The latest moment that was ever written by the clock of this bench: time goes on from there. */
import { sql } from "drizzle-orm";
import type { Db } from "./database";
import {
  batch,
  fitting,
  ledgerEntry,
  machineRevision,
  reading,
  round,
  session,
  stockResult,
  thicknessReading,
  trial,
  verdict,
} from "./schema";

/** @returns milliseconds; 0 for an empty bench */
export function newestMoment(db: Db): number {
  const row = db
    .select({
      at: sql<number | null>`max(
        coalesce((select max(${trial.begunAt}) from ${trial}), 0),
        coalesce((select max(${round.burnedAt}) from ${round}), 0),
        coalesce((select max(${session.begunAt}) from ${session}), 0),
        coalesce((select max(${reading.takenAt}) from ${reading}), 0),
        coalesce((select max(${verdict.acceptedAt}) from ${verdict}), 0),
        coalesce((select max(${ledgerEntry.at}) from ${ledgerEntry}), 0),
        coalesce((select max(${batch.begunAt}) from ${batch}), 0),
        coalesce((select max(${thicknessReading.takenAt}) from ${thicknessReading}), 0),
        coalesce((select max(${stockResult.keptAt}) from ${stockResult}), 0),
        coalesce((select max(${machineRevision.from}) from ${machineRevision}), 0),
        coalesce((select max(max(${fitting.from}, coalesce(${fitting.to}, 0))) from ${fitting}), 0)
      )`,
    })
    .from(sql`(select 1)`)
    .get();
  return row?.at ?? 0;
}
