/** Gauges and their revisions. */
import { and, asc, count, desc, eq, isNull } from "drizzle-orm";
import { type Gauge, gaugeSchema, PICTURE_READER } from "../core/metrology/gauge";
import type { Db } from "./database";
import { eachSound, fromColumn, toColumn } from "./json-column";
import { gauge, gaugeFault, gaugeRevision, round, session } from "./schema";

export type KnownGauge = { revisionId: number; spec: Gauge };

/** All gauges except damaged ones, oldest first, each with its newest revision. */
export function allGauges(db: Db): KnownGauge[] {
  const rows = db
    .select({ gaugeId: gauge.id, revisionId: gaugeRevision.id, spec: gaugeRevision.spec })
    .from(gauge)
    .innerJoin(gaugeRevision, eq(gaugeRevision.gaugeId, gauge.id))
    .orderBy(asc(gauge.id), desc(gaugeRevision.from), desc(gaugeRevision.id))
    .all();
  const newest = rows.filter((row, i) => row.gaugeId !== rows[i - 1]?.gaugeId);
  return eachSound(newest, ({ revisionId, spec }) => ({ revisionId, spec: specOf(spec) })).sound;
}

/** Keys in use, damaged gauges included. */
export function gaugeKeys(db: Db): string[] {
  return db
    .select({ key: gauge.key })
    .from(gauge)
    .all()
    .map((row) => row.key);
}

/** The newest revisions of those that a hand can take up. */
export function gaugesAtHand(db: Db): Gauge[] {
  return allGauges(db)
    .map((known) => known.spec)
    .filter(({ id }) => id !== PICTURE_READER);
}

export function addGauge(db: Db, spec: Gauge, now: number): void {
  db.transaction((tx) => {
    const row = tx.insert(gauge).values({ key: spec.id }).returning().get();
    tx.insert(gaugeRevision)
      .values({ gaugeId: row.id, spec: toColumn(spec), from: now })
      .run();
  });
}

/** The gauge as it is from now on; sessions before keep what was declared then. @returns whether there is such a gauge */
export function reviseGauge(db: Db, spec: Gauge, now: number): boolean {
  const row = db.select().from(gauge).where(eq(gauge.key, spec.id)).get();
  if (!row) return false;
  db.insert(gaugeRevision)
    .values({ gaugeId: row.id, spec: toColumn(spec), from: now })
    .run();
  return true;
}

/** How many sittings were read with each gauge, by its key. */
export function sittingsByGauge(db: Db): Map<string, number> {
  const rows = db
    .select({ key: gauge.key, count: count() })
    .from(session)
    .innerJoin(gaugeRevision, eq(gaugeRevision.id, session.gaugeRevisionId))
    .innerJoin(gauge, eq(gauge.id, gaugeRevision.gaugeId))
    .groupBy(gauge.key)
    .all();
  return new Map(rows.map((r) => [r.key, r.count]));
}

/** With which gauges a trial was read, and when. */
export function gaugesOfTrial(db: Db, trialId: number): { gauge: string; at: number }[] {
  return db
    .select({ gauge: gauge.key, at: session.begunAt })
    .from(session)
    .innerJoin(round, eq(round.id, session.roundId))
    .innerJoin(gaugeRevision, eq(gaugeRevision.id, session.gaugeRevisionId))
    .innerJoin(gauge, eq(gauge.id, gaugeRevision.gaugeId))
    .where(eq(round.trialId, trialId))
    .all();
}

export type GaugeFault = { id: number; gauge: string; note: string; since: number | null; at: number };

/** Gauges found wrong, newest first, without what was taken back. */
export function gaugeFaults(db: Db): GaugeFault[] {
  return db
    .select({ id: gaugeFault.id, gauge: gauge.key, note: gaugeFault.note, since: gaugeFault.since, at: gaugeFault.at })
    .from(gaugeFault)
    .innerJoin(gauge, eq(gauge.id, gaugeFault.gaugeId))
    .where(isNull(gaugeFault.takenBackAt))
    .orderBy(desc(gaugeFault.at), desc(gaugeFault.id))
    .all();
}

/** @returns whether there is such a gauge */
export function addGaugeFault(db: Db, key: string, values: Pick<GaugeFault, "note" | "since" | "at">): boolean {
  const row = db.select().from(gauge).where(eq(gauge.key, key)).get();
  if (row)
    db.insert(gaugeFault)
      .values({ gaugeId: row.id, ...values })
      .run();
  return row !== undefined;
}

/** @returns whether there was one to take back */
export function takeBackGaugeFault(db: Db, id: number, now: number): boolean {
  return (
    db
      .update(gaugeFault)
      .set({ takenBackAt: now })
      .where(and(eq(gaugeFault.id, id), isNull(gaugeFault.takenBackAt)))
      .run().changes === 1
  );
}

function specOf(text: string): Gauge {
  return fromColumn(gaugeSchema, text, "gauge_revision.spec");
}
