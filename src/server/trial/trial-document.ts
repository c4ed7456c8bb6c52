/** A trial as a document to take away, with everything it stands on. */
import { inUnit } from "../../core/metrology/quantity-text";
import type { StockAtHand } from "../../core/stock/stock-at-hand";
import type { Answer } from "../../core/trial/answer";
import { writtenAnswer } from "../../core/trial/answer-text";
import type { Db } from "../../data/database";
import type { Session, TakenReading } from "../../data/readings";
import { verdictsOf } from "../../data/solutions";
import { stocksAtHand } from "../../data/stocks";
import { FORMAT, type TrialDocument, trialDocumentSchema, VERSION } from "../../formats/trial-document";
import { type FullRound, type FullTrial, fullTrial } from "./trial-record";

const LENGTH_DECIMALS = 9;

/** @throws Refusal when there is no such trial */
export function trialDocument(db: Db, trialId: number): TrialDocument {
  const full = fullTrial(db, trialId);
  const { trial } = full;
  const used = full.rounds.flatMap((r) => r.sessions.map((s) => s.gauge));
  const gauges = new Map([...full.available, ...used].map((g) => [g.id, g]));
  return trialDocumentSchema.parse({
    format: FORMAT,
    version: VERSION,
    procedure: trial.procedure,
    procedureVersion: full.procedure.version,
    code: trial.code,
    machine: full.machine,
    tolerance: inUnit(trial.tolerance, full.procedure.tolerance.unit, LENGTH_DECIMALS),
    decisions: trial.decisions,
    gauges: [...gauges.values()],
    stocks: stocksIn(db, full),
    begun: iso(trial.begunAt),
    ended: trial.end !== null && trial.endedAt !== null ? { how: trial.end, at: iso(trial.endedAt) } : null,
    rounds: full.rounds.map(roundOf),
    verdicts: verdictsOf(db, trialId).map((v) => ({
      round: v.round,
      at: iso(v.acceptedAt),
      verdict: v.result,
    })),
  });
}

/** As their cards are now; what was burned has its stock as it was then. */
function stocksIn(db: Db, { procedure, rounds }: FullTrial): StockAtHand[] {
  const { stock } = procedure;
  if (!stock) return [];
  const named = new Set(rounds.map((r) => r.draft[stock.field] ?? ""));
  const known = stocksAtHand(db).filter(({ key }) => named.has(key));
  const burned = rounds.flatMap((r) => (r.plan === null ? [] : (stock.of(r.plan) ?? [])));
  return [...new Map([...known, ...burned].map((s) => [s.key, s])).values()];
}

function roundOf(round: FullRound) {
  return {
    purpose: round.purpose,
    plan: round.draft,
    burned: iso(round.burnedAt),
    spec: round.spec,
    inForce: round.inForce ?? {},
    readBack: iso(round.readBackAt),
    sittings: round.sessions.map(sittingOf),
    readings: round.readings.map((r) => readingOf(round, r)),
  };
}

function sittingOf(session: Session) {
  const mm = (value: number) => inUnit(value, "mm", LENGTH_DECIMALS).replace("−", "-");
  return {
    id: String(session.id),
    gauge: session.gauge.id,
    zero: mm(session.zero.outside),
    insideZero: session.zero.inside === null ? null : mm(session.zero.inside),
    begun: iso(session.begunAt),
  };
}

function readingOf(round: FullRound, reading: TakenReading) {
  const { content, from, session, picture, u } = reading.answer;
  return {
    site: reading.site,
    reading: content.status === "read" ? reading.raw : "",
    which: wordsOf(round, reading.answer),
    cannotRead: content.status === "read" ? null : content.why,
    sitting: session,
    from,
    ...(picture && u !== null ? { picture: { ...picture, uMm: u } } : {}),
    taken: iso(reading.takenAt),
  };
}

function wordsOf({ spec }: FullRound, answer: Answer): string {
  const site = spec?.sites.find((s) => s.id === answer.site);
  return site && answer.content.status === "read" ? writtenAnswer(site, answer.content.value, "mm").words : "";
}

function iso(time: number): string;
function iso(time: number | null): string | null;
function iso(time: number | null): string | null {
  return time === null ? null : new Date(time).toISOString();
}
