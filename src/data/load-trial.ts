/** Writing a trial that was run elsewhere, row by row as it was. */
import { and, eq } from "drizzle-orm";
import type { MachineSpec } from "../core/machine/machine-spec";
import type { Gauge } from "../core/metrology/gauge";
import type { Zero } from "../core/metrology/sitting";
import type { Answer } from "../core/trial/answer";
import type { Verdict } from "../core/trial/verdict";
import type { Db } from "./database";
import { toColumn } from "./json-column";
import type { Round } from "./rounds";
import { gauge, gaugeRevision, machineRevision, reading, round, session, trial, verdict } from "./schema";
import type { Trial } from "./trials";

/** Revisions from elsewhere are never the newest: they stand before everything that happened here. */
const BEFORE_EVERYTHING = 0;

export type LoadedRound = Omit<Round, "id" | "n"> & {
  sessions: { key: string; gauge: Gauge; zero: Zero; begunAt: number }[];
  readings: { session: string; raw: string; answer: Answer; takenAt: number }[];
};

export type LoadedTrial = Omit<Trial, "id" | "machineRevisionId"> & {
  machine: MachineSpec;
  procedureVersion: number;
  rounds: LoadedRound[];
  verdicts: { round: number; result: Verdict; acceptedAt: number }[];
};

export function trialByCode(db: Db, code: string): { id: number; machineId: number; begunAt: number } | undefined {
  return db
    .select({ id: trial.id, machineId: trial.machineId, begunAt: trial.begunAt })
    .from(trial)
    .where(eq(trial.code, code))
    .get();
}

/** Whether a trial was run on another bench and taken onto this one. */
export function cameFromElsewhere(db: Db, { machineRevisionId }: Pick<Trial, "machineRevisionId">): boolean {
  const revision = db.select().from(machineRevision).where(eq(machineRevision.id, machineRevisionId)).get();
  return revision?.from === BEFORE_EVERYTHING;
}

/** @returns the id of the trial */
export function insertTrial(db: Db, loaded: LoadedTrial): number {
  const { rounds, verdicts, machine, ...rest } = loaded;
  const revision = db
    .insert(machineRevision)
    .values({ machineId: loaded.machineId, spec: toColumn(machine), from: BEFORE_EVERYTHING })
    .returning()
    .get();
  const { id } = db
    .insert(trial)
    .values({ ...rest, machineRevisionId: revision.id, decisions: toColumn(loaded.decisions) })
    .returning()
    .get();
  const roundIds = rounds.map((r, i) => insertRound(db, id, i + 1, r));
  for (const v of verdicts) {
    const roundId = roundIds[v.round - 1];
    if (roundId !== undefined)
      db.insert(verdict)
        .values({ trialId: id, roundId, result: toColumn(v.result), acceptedAt: v.acceptedAt })
        .run();
  }
  return id;
}

function insertRound(db: Db, trialId: number, n: number, loaded: LoadedRound): number {
  const { id } = db
    .insert(round)
    .values({
      trialId,
      n,
      purpose: loaded.purpose,
      draft: toColumn(loaded.draft),
      plan: loaded.spec ? toColumn(loaded.plan) : null,
      spec: loaded.spec ? toColumn(loaded.spec) : null,
      inForce: loaded.inForce ? toColumn(loaded.inForce) : null,
      readBackAt: loaded.readBackAt,
      burnedAt: loaded.burnedAt,
    })
    .returning()
    .get();
  const sessionIds = new Map(
    loaded.sessions.map((s) => {
      const row = db
        .insert(session)
        .values({
          roundId: id,
          gaugeRevisionId: gaugeRevisionFor(db, s.gauge),
          zeroOutsideMm: s.zero.outside,
          zeroInsideMm: s.zero.inside,
          begunAt: s.begunAt,
        })
        .returning()
        .get();
      return [s.key, row.id] as const;
    }),
  );
  loaded.readings.forEach((r, i) => {
    const sessionId = sessionIds.get(r.session);
    if (sessionId === undefined) throw new RangeError(`readings: there is no session ${r.session}`);
    db.insert(reading)
      .values({
        roundId: id,
        sessionId,
        site: r.answer.site,
        raw: r.raw,
        answer: toColumn({ ...r.answer, session: String(sessionId) }),
        clientKey: `loaded ${id} ${i}`,
        takenAt: r.takenAt,
      })
      .run();
  });
  return id;
}

/** The very revision, where the workshop has it; else one more, behind what it has now. */
function gaugeRevisionFor(db: Db, spec: Gauge): number {
  const text = toColumn(spec);
  const known =
    db.select().from(gauge).where(eq(gauge.key, spec.id)).get() ??
    db.insert(gauge).values({ key: spec.id }).returning().get();
  const same = db
    .select()
    .from(gaugeRevision)
    .where(and(eq(gaugeRevision.gaugeId, known.id), eq(gaugeRevision.spec, text)))
    .get();
  return (
    same ??
    db.insert(gaugeRevision).values({ gaugeId: known.id, spec: text, from: BEFORE_EVERYTHING }).returning().get()
  ).id;
}
