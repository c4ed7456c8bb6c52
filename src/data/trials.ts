/** Trials, their rounds, and what was read in them. */
import { and, asc, count, desc, eq, isNull, max } from "drizzle-orm";
import { z } from "zod";
import { type RoundSpec, roundSpecSchema } from "../core/coupon/round-spec";
import { type Gauge, gaugeSchema } from "../core/metrology/gauge";
import type { Zero } from "../core/metrology/sitting";
import { type Answer, answerSchema } from "../core/procedures/answer";
import type { Purpose } from "../core/procedures/contract";
import { type Draft, draftSchema } from "../core/procedures/draft";
import { type Outcome, outcomeSchema } from "../core/procedures/outcome";
import { type SettingsInForce, settingValueSchema } from "../core/procedures/setting";
import { type Verdict, verdictSchema } from "../core/procedures/verdict";
import type { Db } from "./database";
import { fromColumn, toColumn } from "./json-column";
import { gaugeRevision, learned, reading, round, session, solution, trial, verdict } from "./schema";

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

export type TakenReading = {
  id: number;
  site: string;
  raw: string;
  answer: Answer;
  clientKey: string;
  takenAt: number;
};

export type Round = {
  id: number;
  n: number;
  purpose: Purpose;
  draft: Draft;
  /** Parsed by the procedure's own schema. */
  plan: unknown;
  spec: RoundSpec | null;
  inForce: SettingsInForce | null;
  readBackAt: number | null;
  burnedAt: number | null;
};

const inForceSchema = z.record(z.string(), settingValueSchema.nullable());
const decisionsSchema = z.record(z.string(), z.string());
const moreSchema = z.record(z.string(), z.number().int().nonnegative());

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

export function setDecision(db: Db, trialId: number, key: string, value: string): void {
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

export function addRound(db: Db, values: { trialId: number; n: number; purpose: Purpose; draft: Draft }): number {
  return db
    .insert(round)
    .values({ ...values, draft: toColumn(values.draft) })
    .returning()
    .get().id;
}

export function roundsOf(db: Db, trialId: number): Round[] {
  return db
    .select()
    .from(round)
    .where(eq(round.trialId, trialId))
    .orderBy(asc(round.n))
    .all()
    .map((row) => ({
      id: row.id,
      n: row.n,
      purpose: row.purpose,
      draft: fromColumn(draftSchema, row.draft, "round.draft"),
      plan: row.plan ? (JSON.parse(row.plan) as unknown) : null,
      spec: row.spec
        ? withMore(fromColumn(roundSpecSchema, row.spec, "round.spec"), fromColumn(moreSchema, row.more, "round.more"))
        : null,
      inForce: row.inForce ? fromColumn(inForceSchema, row.inForce, "round.in_force") : null,
      readBackAt: row.readBackAt,
      burnedAt: row.burnedAt,
    }));
}

/** Keeps what was typed while laying out. Changes nothing once the round is burned. */
export function saveDraft(db: Db, roundId: number, draft: Draft): boolean {
  return (
    db
      .update(round)
      .set({ draft: toColumn(draft) })
      .where(and(eq(round.id, roundId), isNull(round.burnedAt)))
      .run().changes === 1
  );
}

/** Freezes what is burned. @returns false when the round was burned already */
export function freezeRound(
  db: Db,
  roundId: number,
  frozen: { plan: unknown; spec: RoundSpec; inForce: SettingsInForce },
  now: number,
): boolean {
  return (
    db
      .update(round)
      .set({
        plan: toColumn(frozen.plan),
        spec: toColumn(frozen.spec),
        inForce: toColumn(frozen.inForce),
        burnedAt: now,
      })
      .where(and(eq(round.id, roundId), isNull(round.burnedAt)))
      .run().changes === 1
  );
}

/** Replaces what was in force by what was read back. */
export function confirmInForce(db: Db, roundId: number, inForce: SettingsInForce, now: number): void {
  db.update(round)
    .set({ inForce: toColumn(inForce), readBackAt: now })
    .where(eq(round.id, roundId))
    .run();
}

/** Asks for so many more readings at some sites than were asked for before. */
export function askForMore(db: Db, roundId: number, sites: readonly string[], more: number): void {
  db.transaction((tx) => {
    const row = tx.select({ more: round.more }).from(round).where(eq(round.id, roundId)).get();
    const asked = row ? fromColumn(moreSchema, row.more, "round.more") : {};
    for (const site of sites) asked[site] = (asked[site] ?? 0) + more;
    tx.update(round)
      .set({ more: toColumn(asked) })
      .where(eq(round.id, roundId))
      .run();
  });
}

function withMore(spec: RoundSpec, more: Readonly<Record<string, number>>): RoundSpec {
  return { ...spec, sites: spec.sites.map((s) => ({ ...s, repeats: s.repeats + (more[s.id] ?? 0) })) };
}

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

export type Session = { id: number; gaugeRevisionId: number; gauge: Gauge; zero: Zero; begunAt: number };

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

export function addSolution(
  db: Db,
  values: { roundId: number; engineVersion: string; inputHash: string; result: Outcome },
  now: number,
): number {
  const known = db
    .select()
    .from(solution)
    .where(and(eq(solution.roundId, values.roundId), eq(solution.inputHash, values.inputHash)))
    .get();
  if (known) return known.id;
  return db
    .insert(solution)
    .values({ ...values, result: toColumn(outcomeSchema.parse(values.result)), at: now })
    .returning()
    .get().id;
}

export function addVerdict(db: Db, values: { trialId: number; roundId: number; result: Verdict }, now: number): void {
  db.insert(verdict)
    .values({ ...values, result: toColumn(verdictSchema.parse(values.result)), acceptedAt: now })
    .run();
}

export type KeptVerdict = { result: Verdict; acceptedAt: number; purpose: Purpose; round: number };

/** The verdicts of a trial, oldest first: of a check when it ended or went on to a correction, of an accepted proof. */
export function verdictsOf(db: Db, trialId: number): KeptVerdict[] {
  return db
    .select({ result: verdict.result, acceptedAt: verdict.acceptedAt, purpose: round.purpose, round: round.n })
    .from(verdict)
    .innerJoin(round, eq(round.id, verdict.roundId))
    .where(eq(verdict.trialId, trialId))
    .orderBy(asc(verdict.id))
    .all()
    .map((row) => ({ ...row, result: fromColumn(verdictSchema, row.result, "verdict.result") }));
}

/** The verdicts of all trials of a machine by trial, each oldest first. */
export function verdictsOfMachine(db: Db, machineId: number): Map<number, KeptVerdict[]> {
  const rows = db
    .select({
      trialId: verdict.trialId,
      result: verdict.result,
      acceptedAt: verdict.acceptedAt,
      purpose: round.purpose,
      round: round.n,
    })
    .from(verdict)
    .innerJoin(round, eq(round.id, verdict.roundId))
    .innerJoin(trial, eq(trial.id, verdict.trialId))
    .where(eq(trial.machineId, machineId))
    .orderBy(asc(verdict.id))
    .all();
  const byTrial = new Map<number, KeptVerdict[]>();
  for (const { trialId, result, ...rest } of rows) {
    const kept = { ...rest, result: fromColumn(verdictSchema, result, "verdict.result") };
    byTrial.set(trialId, [...(byTrial.get(trialId) ?? []), kept]);
  }
  return byTrial;
}

/** The newest verdict of a trial. */
export function verdictOf(db: Db, trialId: number): KeptVerdict | undefined {
  return verdictsOf(db, trialId).at(-1);
}

export function addLearned(db: Db, owner: string, values: Record<string, number>, trialId: number, now: number): void {
  for (const [key, value] of Object.entries(values))
    db.insert(learned).values({ owner, key, value, trialId, at: now }).run();
}

function trialOf(row: typeof trial.$inferSelect): Trial {
  return { ...row, decisions: fromColumn(decisionsSchema, row.decisions, "trial.decisions") };
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
