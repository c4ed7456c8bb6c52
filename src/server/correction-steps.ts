/** From Correct to the end: read back, choose, record in the ledger, prove, accept. */
import { createHash } from "node:crypto";
import { parseReading } from "../core/metrology/reading-text";
import { UNITS } from "../core/metrology/units";
import { draftOf } from "../core/procedures/draft";
import type { Correction, Outcome } from "../core/procedures/outcome";
import type { SettingsInForce, SettingValue } from "../core/procedures/setting";
import type { Verdict } from "../core/procedures/verdict";
import type { Db } from "../data/database";
import { toColumn } from "../data/json-column";
import { addEntry, entriesOf, markUndone, ownerOfMachine } from "../data/ledger";
import { type Holder, holdersOf } from "../data/machines";
import { practiceOf, setPractice } from "../data/practice";
import { addLearned, addRound, addSolution, addVerdict, confirmInForce, endTrial, setDecision } from "../data/trials";
import { keepCheckVerdict } from "./check-steps";
import { controllerOf } from "./practice-machine";
import { Refusal } from "./refusal";
import { contextOf, type FullTrial, fullTrial, historyOf, readingStamp } from "./trial-record";
import { burnedRound } from "./trial-steps";

/** One number as typed, by its row. */
export type TypedRow = { at: number | null; text: string };

/** What the controller really held during the burn; a difference from the ledger goes into the ledger as found. */
export function confirmHeld(
  db: Db,
  trialId: number,
  n: number,
  setting: string,
  rows: readonly TypedRow[],
  now: number,
): void {
  const full = fullTrial(db, trialId);
  const round = burnedRound(db, trialId, n);
  const value = typedValue(full, setting, rows);
  const before = round.inForce?.[setting] ?? null;
  const acting = actingHolder(db, full, round.plan);
  db.transaction((tx) => {
    const inForce: SettingsInForce = { ...round.inForce, [setting]: value };
    confirmInForce(tx, round.id, inForce, now);
    if (toColumn(before) === toColumn(value)) return;
    addEntry(
      tx,
      {
        ...ledgerBase(full, setting),
        holderId: acting.id,
        value,
        u: null,
        origin: "found",
        solutionId: null,
        readBack: true,
        note: `read back during trial ${full.trial.code}`,
      },
      now,
    );
  });
}

/** Keeps a choice made while correcting. */
export function decide(db: Db, trialId: number, key: string, value: string): void {
  fullTrial(db, trialId);
  setDecision(db, trialId, key, value);
}

/** Records what was entered at one holder, as it was entered. @returns id of the ledger entry */
export function recordEntry(
  db: Db,
  input: {
    trialId: number;
    n: number;
    setting: string;
    holderId: number;
    rows: readonly TypedRow[];
    readBack: boolean;
    /** The readings that the page had worked from, as `readingStamp` names them. */
    seen: string;
  },
  now: number,
): number {
  const full = fullTrial(db, input.trialId);
  const round = burnedRound(db, input.trialId, input.n);
  const holder = holdersOf(db, full.trial.machineId).find((h) => h.id === input.holderId);
  if (!holder) throw new Refusal("holder", "This machine has no such holder.");
  if (input.seen !== readingStamp(full, input.n))
    throw new Refusal(
      "readings",
      "Readings were taken or taken back since these numbers were worked out. Look at them again.",
    );
  const outcome = full.procedure.solve(historyOf(full, input.n));
  const correction = correctionFor(outcome, input.setting);
  const typed = typedValue(full, input.setting, input.rows);
  const value = merged(round.inForce?.[input.setting] ?? null, typed);
  return db.transaction((tx) => {
    const solutionId = addSolution(
      tx,
      {
        roundId: round.id,
        engineVersion: `${full.procedure.id} ${full.procedure.version}`,
        inputHash: createHash("sha256")
          .update(toColumn(historyOf(full, input.n)))
          .digest("hex"),
        result: outcome,
      },
      now,
    );
    if (holder.role === "controller") enterInPractice(tx, full, value);
    return addEntry(
      tx,
      {
        ...ledgerBase(full, input.setting),
        holderId: holder.id,
        value,
        u: Math.max(...correction.rows.map((row) => row.change.standardUncertainty)),
        origin: "trial",
        solutionId,
        readBack: input.readBack,
        note: "",
      },
      now,
    );
  });
}

/** Takes back the newest record of a holder. The practice controller goes back to what it held before. */
export function undoEntry(db: Db, trialId: number, entryId: number, now: number): void {
  const full = fullTrial(db, trialId);
  const entries = entriesOf(db, ownerOfMachine(full.trial.machineId));
  const entry = entries.find((e) => e.id === entryId);
  if (!entry || entry.trialId !== trialId) throw new Refusal("entry", "This trial has no such record.");
  const newest = entries.find(
    (e) => e.holderId === entry.holderId && e.setting === entry.setting && e.undoneAt === null,
  );
  if (newest?.id !== entryId) throw new Refusal("entry", "Something newer is recorded there: take that back first.");
  const holder = holdersOf(db, full.trial.machineId).find((h) => h.id === entry.holderId);
  db.transaction((tx) => {
    if (!markUndone(tx, entryId, now)) throw new Refusal("entry", "This record was taken back already.");
    const before = entries.find(
      (e) => e.id !== entryId && e.holderId === entry.holderId && e.setting === entry.setting && e.undoneAt === null,
    );
    if (holder?.role === "controller") enterInPractice(tx, full, before?.value ?? null);
  });
}

/** Lays out the round that the procedure asks for next. @returns its number */
export function layOutNext(db: Db, trialId: number, now: number): number {
  const full = fullTrial(db, trialId);
  const last = full.rounds.at(-1);
  if (!last) throw new Refusal("round", "Nothing is laid out yet.");
  if (!last.spec) return last.n;
  const history = historyOf(full, last.n);
  const next = full.procedure.next(history, full.procedure.solve(history));
  if (next.do !== "round") throw new Refusal("round", next.why);
  const n = last.n + 1;
  const draft = draftOf(full.procedure.plan(contextOf(db, full, n)), next.plan);
  db.transaction((tx) => {
    keepCheckVerdict(tx, full, now);
    addRound(tx, { trialId, n, purpose: next.purpose, draft });
  });
  return n;
}

/** Accepts the verdict: a proof that is proved ends the trial as proved, a check that holds as held, anything else as given up. */
export function acceptVerdict(db: Db, trialId: number, now: number): Verdict {
  const full = fullTrial(db, trialId);
  if (full.trial.endedAt !== null) throw new Refusal("verdict", "This trial has ended already.");
  const last = full.rounds.findLast((r) => r.spec !== null);
  const history = last ? historyOf(full, last.n) : null;
  const verdict = history ? full.procedure.judge(history) : null;
  if (!last || !history || !verdict) throw new Refusal("verdict", "There is no proof to accept yet.");
  const outcome = full.procedure.solve(history);
  const owner = ownerOfMachine(full.trial.machineId);
  db.transaction((tx) => {
    addVerdict(tx, { trialId, roundId: last.id, result: verdict }, now);
    if (outcome.status === "solved") addLearned(tx, owner, outcome.learned, trialId, now);
    const good = last.purpose === "check" ? "held" : "proved";
    endTrial(tx, trialId, verdict.result === "proved" ? good : "given up", now);
  });
  return verdict;
}

/** Ends a trial without a proof. What was recorded stays recorded, and what a check found stays on its chart. */
export function giveUp(db: Db, trialId: number, now: number): void {
  const full = fullTrial(db, trialId);
  if (full.trial.endedAt !== null) throw new Refusal("trial", "This trial has ended already.");
  db.transaction((tx) => {
    keepCheckVerdict(tx, full, now);
    endTrial(tx, trialId, "given up", now);
  });
}

/** Holders to be updated by hand for a plan: its acting one first, then the copies of a controller. */
export function holdersToEnter(db: Db, full: FullTrial, plan: unknown): Holder[] {
  const acting = actingHolder(db, full, plan);
  const copies = holdersOf(db, full.trial.machineId).filter((h) => h.role === "copy");
  return acting.role === "controller" ? [acting, ...copies] : [acting];
}

function actingHolder(db: Db, full: FullTrial, plan: unknown): Holder {
  const role = full.procedure.actsFrom(plan);
  const found = holdersOf(db, full.trial.machineId).find((h) => h.role === role);
  if (!found) throw new Refusal("holder", `${full.machine.name} has no place that holds this setting yet.`);
  return found;
}

function enterInPractice(db: Db, full: FullTrial, value: SettingValue | null): void {
  const row = practiceOf(db, full.trial.machineId);
  if (!row || (value !== null && value.shape !== "table")) return;
  const controller = { ...controllerOf(row), table: value?.rows ?? [] };
  setPractice(db, full.trial.machineId, { controller: toColumn(controller) });
}

function ledgerBase(full: FullTrial, setting: string) {
  const spec = full.procedure.settings.find((s) => s.key === setting);
  if (!spec) throw new Refusal("setting", "This procedure has no such setting.");
  return { owner: ownerOfMachine(full.trial.machineId), setting, unit: spec.unit, trialId: full.trial.id };
}

function correctionFor(outcome: Outcome, setting: string): Correction {
  const found = outcome.status === "solved" ? outcome.corrections.find((c) => c.setting === setting) : undefined;
  if (!found) throw new Refusal("setting", "There is no correction to record yet.");
  return found;
}

/** Old rows that were not typed stay. */
function merged(old: SettingValue | null, typed: SettingValue): SettingValue {
  if (typed.shape !== "table" || old?.shape !== "table") return typed;
  const kept = old.rows.filter((row) => typed.rows.every((t) => t.at !== row.at));
  return { shape: "table", rows: [...kept, ...typed.rows].sort((a, b) => a.at - b.at) };
}

/** Typed numbers as a value of the setting; a leading minus is allowed: tables may hold negative entries. */
function typedValue(full: FullTrial, setting: string, rows: readonly TypedRow[]): SettingValue {
  const spec = full.procedure.settings.find((s) => s.key === setting);
  if (!spec) throw new Refusal("setting", "This procedure has no such setting.");
  const values = rows.map((row) => {
    const field = row.at === null ? "value" : `row ${row.at}`;
    const negative = /^\s*[-−]/.test(row.text);
    const read = parseReading(row.text.replace(/^\s*[-−]/, ""), UNITS[spec.unit].dimension, spec.unit);
    if (!read.ok) throw new Refusal(field, read.message);
    return { at: row.at, value: negative ? -read.value : read.value };
  });
  if (spec.shape === "scalar") {
    const only = values[0];
    if (!only) throw new Refusal("value", "Type the value.");
    return { shape: "scalar", value: only.value };
  }
  return {
    shape: "table",
    rows: values.flatMap((v) => (v.at === null ? [] : [{ at: v.at, value: v.value }])),
  };
}
