/** What was worked out and decided, as it was then: solutions, verdicts, what was learnt. */
import { and, asc, eq } from "drizzle-orm";
import type { Purpose } from "../core/trial/history";
import { type Outcome, outcomeSchema } from "../core/trial/outcome";
import { type RecordedEstimate, recordedEstimatesSchema } from "../core/trial/recorded-result";
import { type Verdict, verdictSchema } from "../core/trial/verdict";
import type { Db } from "./database";
import { fromColumn, readColumn, toColumn } from "./json-column";
import { learned, ledgerEntry, round, solution, trial, verdict } from "./schema";

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

export type RecordedResult = { n: number; at: number; estimates: RecordedEstimate[] };

/** The newest solution that was recorded of each round. One of a shape that nothing can be compared with is left out. */
export function recordedResults(db: Db, trialId: number): RecordedResult[] {
  const rows = db
    .select({ n: round.n, at: solution.at, result: solution.result })
    .from(solution)
    .innerJoin(round, eq(round.id, solution.roundId))
    .where(eq(round.trialId, trialId))
    .orderBy(asc(solution.id))
    .all();
  const newest = new Map(rows.map((row) => [row.n, row]));
  return [...newest.values()].flatMap(({ n, at, result }) => {
    const read = readColumn(recordedEstimatesSchema, result);
    return read ? [{ n, at, estimates: read.estimates }] : [];
  });
}

/** From which round each ledger entry of a trial was worked out, by the id of the entry; those that were only read back are left out. */
export function roundsOfEntries(db: Db, trialId: number): Map<number, number> {
  const rows = db
    .select({ id: ledgerEntry.id, n: round.n })
    .from(ledgerEntry)
    .innerJoin(solution, eq(solution.id, ledgerEntry.solutionId))
    .innerJoin(round, eq(round.id, solution.roundId))
    .where(eq(ledgerEntry.trialId, trialId))
    .all();
  return new Map(rows.map(({ id, n }) => [id, n]));
}

export type KeptVerdict = { result: Verdict; acceptedAt: number; purpose: Purpose; round: number };

export function addVerdict(db: Db, values: { trialId: number; roundId: number; result: Verdict }, now: number): void {
  db.insert(verdict)
    .values({ ...values, result: toColumn(verdictSchema.parse(values.result)), acceptedAt: now })
    .run();
}

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

/** Verdicts never change, and a bench asks for all of them each time it is looked at: the same text is taken apart once. */
const takenApart = new Map<string, Verdict>();
const MOST_KEPT = 5000;

function verdictFrom(text: string): Verdict {
  const before = takenApart.get(text);
  if (before) return before;
  const parsed = fromColumn(verdictSchema, text, "verdict.result");
  if (takenApart.size >= MOST_KEPT) takenApart.clear();
  takenApart.set(text, parsed);
  return parsed;
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
    const kept = { ...rest, result: verdictFrom(result) };
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
