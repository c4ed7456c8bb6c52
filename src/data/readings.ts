/** Sittings and what was read in them: added and taken back, never changed. */
import { and, asc, count, eq, isNull, max } from "drizzle-orm";
import { type Gauge, gaugeSchema } from "../core/metrology/gauge";
import type { Zero } from "../core/metrology/sitting";
import { type Answer, answerSchema } from "../core/trial/answer";
import type { Db } from "./database";
import { fromColumn, toColumn } from "./json-column";
import { gaugeRevision, reading, session } from "./schema";

export type TakenReading = {
  id: number;
  site: string;
  raw: string;
  answer: Answer;
  clientKey: string;
  takenAt: number;
};

export type Session = { id: number; gaugeRevisionId: number; gauge: Gauge; zero: Zero; begunAt: number };

export function addSession(
  db: Db,
  values: { roundId: number; gaugeRevisionId: number; zero: Zero },
  now: number,
): number {
  return db
    .insert(session)
    .values({
      roundId: values.roundId,
      gaugeRevisionId: values.gaugeRevisionId,
      zeroOutsideMm: values.zero.outside,
      zeroInsideMm: values.zero.inside,
      begunAt: now,
    })
    .returning()
    .get().id;
}

/** Oldest first. */
export function sessionsOf(db: Db, roundId: number): Session[] {
  return db
    .select({
      id: session.id,
      gaugeRevisionId: session.gaugeRevisionId,
      gaugeSpec: gaugeRevision.spec,
      outside: session.zeroOutsideMm,
      inside: session.zeroInsideMm,
      begunAt: session.begunAt,
    })
    .from(session)
    .innerJoin(gaugeRevision, eq(gaugeRevision.id, session.gaugeRevisionId))
    .where(eq(session.roundId, roundId))
    .orderBy(asc(session.id))
    .all()
    .map((row) => ({
      id: row.id,
      gaugeRevisionId: row.gaugeRevisionId,
      gauge: fromColumn(gaugeSchema, row.gaugeSpec, "gauge_revision.spec"),
      zero: { outside: row.outside, inside: row.inside },
      begunAt: row.begunAt,
    }));
}

/** Readings that count, in the order in which they were taken. */
export function readingsOf(db: Db, roundId: number): TakenReading[] {
  return db
    .select()
    .from(reading)
    .where(and(eq(reading.roundId, roundId), isNull(reading.takenBackAt)))
    .orderBy(asc(reading.id))
    .all()
    .map(readingOf);
}

/** How many readings of a round count, and the newest of them; 0 where there is none. */
export function countReadings(db: Db, roundId: number): { count: number; newest: number } {
  const row = db
    .select({ count: count(), newest: max(reading.id) })
    .from(reading)
    .where(and(eq(reading.roundId, roundId), isNull(reading.takenBackAt)))
    .get();
  return { count: row?.count ?? 0, newest: row?.newest ?? 0 };
}

/** Takes a reading; sending it twice takes it once. */
export function addReading(
  db: Db,
  values: { roundId: number; sessionId: number; site: string; raw: string; answer: Answer; clientKey: string },
  now: number,
): TakenReading {
  const known = db.select().from(reading).where(eq(reading.clientKey, values.clientKey)).get();
  if (known) return readingOf(known);
  return readingOf(
    db
      .insert(reading)
      .values({ ...values, answer: toColumn(values.answer), takenAt: now })
      .returning()
      .get(),
  );
}

/** Whether a reading was sent under this key before, even if it was taken back since. */
export function isReadingKnown(db: Db, clientKey: string): boolean {
  return db.select({ id: reading.id }).from(reading).where(eq(reading.clientKey, clientKey)).get() !== undefined;
}

/** @returns whether there was such a reading in this round */
export function takeBackReading(db: Db, roundId: number, readingId: number, now: number): boolean {
  return (
    db
      .update(reading)
      .set({ takenBackAt: now })
      .where(and(eq(reading.id, readingId), eq(reading.roundId, roundId), isNull(reading.takenBackAt)))
      .run().changes === 1
  );
}

function readingOf(row: typeof reading.$inferSelect): TakenReading {
  return {
    id: row.id,
    site: row.site,
    raw: row.raw,
    answer: fromColumn(answerSchema, row.answer, "reading.answer"),
    clientKey: row.clientKey,
    takenAt: row.takenAt,
  };
}
