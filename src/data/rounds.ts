/** Rounds of a trial: laid out as text, frozen when they are burned. */
import { and, asc, eq, isNull } from "drizzle-orm";
import { z } from "zod";
import { type RoundSpec, roundSpecSchema } from "../core/coupon/round-spec";
import type { Site } from "../core/coupon/site";
import { type SettingsInForce, settingValueSchema } from "../core/settings/setting";
import { type Draft, draftSchema } from "../core/trial/draft";
import type { Purpose } from "../core/trial/history";
import type { Db } from "./database";
import { fromColumn, toColumn } from "./json-column";
import { round, trial } from "./schema";

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

const moreSchema = z.record(z.string(), z.number().int().nonnegative());

export function addRound(db: Db, values: { trialId: number; n: number; purpose: Purpose; draft: Draft }): number {
  return db
    .insert(round)
    .values({ ...values, draft: toColumn(values.draft) })
    .returning()
    .get().id;
}

export function roundsOf(db: Db, trialId: number): Round[] {
  return db.select().from(round).where(eq(round.trialId, trialId)).orderBy(asc(round.n)).all().map(roundOf);
}

/** What was typed in the newest round of every trial of a procedure on a machine, by trial. */
export function draftsOfMachine(db: Db, machineId: number, procedure: string): Map<number, Draft> {
  const rows = db
    .select({ trialId: round.trialId, draft: round.draft })
    .from(round)
    .innerJoin(trial, eq(trial.id, round.trialId))
    .where(and(eq(trial.machineId, machineId), eq(trial.procedure, procedure)))
    .orderBy(asc(round.n))
    .all();
  return new Map(rows.map((r) => [r.trialId, fromColumn(draftSchema, r.draft, "round.draft")]));
}

/** One round of a trial, without the others. */
export function roundNumbered(db: Db, trialId: number, n: number): Round | undefined {
  const row = db
    .select()
    .from(round)
    .where(and(eq(round.trialId, trialId), eq(round.n, n)))
    .get();
  return row ? roundOf(row) : undefined;
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

/** Replaces what was in force by what was read back. @param readBackAt when the last of its settings was, `null` before */
export function confirmInForce(db: Db, roundId: number, inForce: SettingsInForce, readBackAt: number | null): void {
  db.update(round)
    .set({ inForce: toColumn(inForce), readBackAt })
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
  const asked = (site: Site): Site => {
    const count = more[site.id] ?? 0;
    return count > 0 ? { ...site, repeats: site.repeats + count, more: count } : site;
  };
  return { ...spec, sites: spec.sites.map(asked) };
}

function roundOf(row: typeof round.$inferSelect): Round {
  return {
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
  };
}
