/** The steps of a trial up to the readings: begin, lay out, burn, open a session, take a reading, take it back. */

import { createHash } from "node:crypto";
import { isMeasured } from "../../core/coupon/ask";
import { questionAbout } from "../../core/course/plausibility";
import { PICTURE_READER } from "../../core/metrology/gauge";
import { MOST_ZERO_MM, type Zero } from "../../core/metrology/sitting";
import type { Answer } from "../../core/trial/answer";
import { type AnswerInput, readAnswerInput, takenAnswer } from "../../core/trial/answer-input";
import { textFromInput } from "../../core/trial/answer-text";
import { lengthUnit } from "../../core/trial/decisions";
import { type Draft, draftOf, isSameDraft } from "../../core/trial/draft";
import type { Db } from "../../data/database";
import { allGauges } from "../../data/gauges";
import { machineBySlug } from "../../data/machines";
import { addReading, addSession, countReadings, type TakenReading, takeBackReading } from "../../data/readings";
import { addRound, askForMore, saveDraft } from "../../data/rounds";
import { stocksAtHand } from "../../data/stocks";
import { setDecision } from "../../data/trials";
import { faultText } from "../../formats/parsed";
import { parseReadingsCsv } from "../../formats/readings-csv";
import { knownEye } from "../gauges/gauge-steps";
import { knownProcedure } from "../procedures/procedures";
import { Refusal } from "../refusal";
import { openTrial } from "./check-steps";
import { freezeBurn } from "./freeze-burn";
import { type BurnedRound, burnedRound, contextOf, fullTrial, historyOf, laidOut, roundOf } from "./trial-record";

/** So many questions about a sheet are said at once. */
const QUESTIONS_SHOWN = 3;

/**
 * Begins a trial with the defaults of its procedure laid out.
 *
 * @param stock key of the batch that it is begun on; `null` = the one at hand, where it is done on a stock at all
 * @returns its id
 */
export function beginTrial(
  db: Db,
  machineSlug: string,
  procedureId: string,
  now: number,
  stock: string | null = null,
): number {
  const machine = machineBySlug(db, machineSlug);
  if (!machine) throw new Refusal("machine", `There is no machine “${machineSlug}”.`);
  const procedure = knownProcedure(procedureId);
  if (!procedure.machineKinds.includes(machine.spec.kind))
    throw new Refusal("procedure", `${procedure.title} is not done on a ${machine.spec.kind}.`);
  return db.transaction((tx) => {
    const trialId = openTrial(tx, machine, procedure, now);
    const context = contextOf(tx, fullTrial(tx, trialId), 1);
    const form = procedure.plan(procedure.stock ? { ...context, stocks: stocksAtHand(tx, stock) } : context);
    addRound(tx, { trialId, n: 1, purpose: "measure", draft: draftOf(form, form.defaults) });
    return trialId;
  });
}

/** What is kept of a layout: `theirs` where another window changed it since, and nothing of it is lost. */
export type KeptDraft = { kept: true } | { kept: false; theirs: Draft };

/**
 * Keeps what is typed in Lay out, whether it can be parsed or not.
 *
 * @param base what the page last knew to be on disk; `null` = whatever is there
 */
export function keepDraft(db: Db, trialId: number, n: number, draft: Draft, base: Draft | null = null): KeptDraft {
  return db.transaction((tx) => {
    const round = roundOf(fullTrial(tx, trialId), n);
    if (base && !isSameDraft(round.draft, base) && !isSameDraft(round.draft, draft))
      return { kept: false, theirs: round.draft };
    if (!saveDraft(tx, round.id, draft))
      throw new Refusal("plan", "This round is burned: its layout stays as it was. Begin a new trial to lay out anew.");
    return { kept: true };
  });
}

/** Freezes plan, spec and settings in force of a round: it is burned. */
export function markBurned(db: Db, trialId: number, n: number, now: number): void {
  const full = fullTrial(db, trialId);
  const round = roundOf(full, n);
  db.transaction((tx) => freezeBurn(tx, full, round, laidOut(tx, full, round), now));
}

/**
 * Opens a session with a gauge, and what its closed jaws read: on the first day, or on another with another gauge.
 *
 * @param gaugeId `null` = by eye, where nothing is measured
 */
export function openSession(
  db: Db,
  trialId: number,
  n: number,
  gaugeId: string | null,
  zero: Zero,
  now: number,
): number {
  const round = burnedRound(db, trialId, n);
  if (gaugeId === null) return openByEye(db, round, now);
  const gauge = allGauges(db).find((g) => g.spec.id === gaugeId && g.spec.id !== PICTURE_READER);
  if (!gauge) throw new Refusal("gauge", "Choose a gauge.");
  for (const jaws of ["outside", "inside"] as const)
    if (Math.abs(zero[jaws] ?? 0) > MOST_ZERO_MM)
      throw new Refusal(
        jaws,
        `Closed jaws more than ${MOST_ZERO_MM} mm off: clean the jaws or set the zero before reading.`,
      );
  return db.transaction((tx) => {
    setDecision(tx, trialId, lengthUnit.as(gauge.spec.unit));
    return addSession(tx, { roundId: round.id, gaugeRevisionId: gauge.revisionId, zero }, now);
  });
}

/** No gauge stands behind such readings, so none that is found wrong takes them with it. */
function openByEye(db: Db, round: BurnedRound, now: number): number {
  if (round.spec.sites.some((s) => isMeasured(s.ask))) throw new Refusal("gauge", "Choose a gauge.");
  return db.transaction((tx) => {
    const { revisionId } = knownEye(tx, now);
    return addSession(tx, { roundId: round.id, gaugeRevisionId: revisionId, zero: { outside: 0, inside: null } }, now);
  });
}

/** Asks for more readings at some sites of a burned round, as a verdict that cannot be told yet needs them. */
export function readMore(db: Db, trialId: number, n: number, sites: readonly string[], more: number): void {
  const full = fullTrial(db, trialId);
  const round = burnedRound(db, trialId, n);
  if (full.trial.endedAt !== null) throw new Refusal("trial", "This trial has ended already.");
  const unknown = sites.find((id) => !round.spec.sites.some((s) => s.id === id));
  if (unknown) throw new Refusal("site", `This coupon has no place “${unknown}”.`);
  askForMore(db, round.id, sites, more);
}

export type Taking = {
  trialId: number;
  n: number;
  site: string;
  input: AnswerInput;
  from: Answer["from"];
  clientKey: string;
  /** The sitting it was read in; the last one where it is left out. */
  session?: number;
  /** What was read in a picture says so, with its own standard uncertainty. */
  picture?: NonNullable<Answer["picture"]> & { u?: number };
};

/** Takes a reading. It is on disk when this returns. */
export function takeReading(db: Db, taking: Taking, now: number): TakenReading {
  const round = burnedRound(db, taking.trialId, taking.n);
  const session =
    taking.session === undefined ? round.sessions.at(-1) : round.sessions.find((s) => s.id === taking.session);
  const site = round.spec.sites.find((s) => s.id === taking.site);
  if (!session) throw new Refusal("gauge", "Say first which gauge you read with.");
  if (!site) throw new Refusal("site", "This coupon has no such place.");
  const taken = takenAnswer(site, taking.input, session, taking.from);
  if (!taken.ok) throw new Refusal(taken.issue.field, taken.issue.message);
  const values = {
    roundId: round.id,
    sessionId: session.id,
    site: site.id,
    clientKey: taking.clientKey,
    answer: withPicture(taken.answer, taking.picture),
    raw: textFromInput(site, taking.input).reading,
  };
  // In a transaction, so that a fault of the commit is heard.
  return db.transaction((tx) => addReading(tx, values, now));
}

function withPicture(answer: Answer, picture: Taking["picture"]): Answer {
  if (!picture) return answer;
  const { u, ...from } = picture;
  return { ...answer, u: u ?? null, picture: from };
}

/**
 * Takes the readings of a filled sheet: all of them, or none where one cannot be read. Sent twice it takes them once.
 *
 * @param sure the questions about them were seen; without it the first questions are asked about and nothing is taken
 * @returns how many were taken now
 * @throws Refusal with line and column of the first fault
 */
export function takeSheet(db: Db, trialId: number, n: number, text: string, sure: boolean, now: number): number {
  const round = burnedRound(db, trialId, n);
  const rows = parseReadingsCsv(text, round.spec.sites);
  if (!rows.ok) throw new Refusal("sheet", faultText(rows));
  if (rows.value.length === 0) throw new Refusal("sheet", "No reading is filled in on this sheet.");
  const digest = createHash("sha256").update(text).digest("hex").slice(0, 20);
  const questions: string[] = [];
  return db.transaction((tx) => {
    const before = countReadings(tx, round.id).count;
    for (const row of rows.value) {
      const clientKey = `sheet ${trialId} ${n} ${digest} ${row.line}`;
      const place = `Line ${row.line}, ${row.site}`;
      const question = sure ? null : questionBefore(tx, trialId, n, row);
      if (question) questions.push(`${place}: ${question}`);
      at(place, () => takeReading(tx, { trialId, n, site: row.site, input: row.input, from: "typed", clientKey }, now));
    }
    const taken = countReadings(tx, round.id).count - before;
    // Thrown, so that the transaction takes nothing.
    if (taken > 0 && questions.length > 0) throw new Refusal("question", questionsText(questions));
    return taken;
  });
}

/** What a person would be asked before a reading is taken; `null` where nothing, or where it cannot be read anyway. */
function questionBefore(db: Db, trialId: number, n: number, row: { site: string; input: AnswerInput }): string | null {
  const full = fullTrial(db, trialId);
  const round = roundOf(full, n);
  const session = round.sessions.at(-1);
  const site = round.spec?.sites.find((s) => s.id === row.site);
  if (!session || !site || row.input.kind === "cannot read") return null;
  const read = readAnswerInput(site, row.input, session);
  return read.ok ? questionAbout(full.procedure, historyOf(full, n), site, read.value) : null;
}

function questionsText(questions: readonly string[]): string {
  const more = questions.length > QUESTIONS_SHOWN ? ` And ${questions.length - QUESTIONS_SHOWN} more like this.` : "";
  return `Nothing is taken yet. ${questions.slice(0, QUESTIONS_SHOWN).join(" ")}${more}`;
}

function at<T>(place: string, act: () => T): T {
  try {
    return act();
  } catch (error) {
    if (error instanceof Refusal) throw new Refusal("sheet", `${place}: ${error.message}`);
    throw error;
  }
}

/** Takes back one reading: its row stays, it counts no more. */
export function undoReading(db: Db, trialId: number, n: number, readingId: number, now: number): void {
  const round = burnedRound(db, trialId, n);
  if (!takeBackReading(db, round.id, readingId, now))
    throw new Refusal("reading", "This reading was taken back already.");
}
