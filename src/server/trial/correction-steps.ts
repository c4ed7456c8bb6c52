/** From Correct to the end: read back, choose, record in the ledger, prove, accept. */

import { withFewestReadings } from "../../core/course/forecast";
import { holdOf } from "../../core/measuring/number-correction";
import { rangeFault } from "../../core/settings/entry-text";
import { MAP_WORDS } from "../../core/settings/field-table";
import { withLearned } from "../../core/settings/learned-of-machine";
import type { SettingSpec, SettingsInForce, SettingValue } from "../../core/settings/setting";
import type { Decided } from "../../core/trial/decision";
import { isAboutReadings, isReadBack, readBack } from "../../core/trial/decisions";
import { draftOf } from "../../core/trial/draft";
import type { Correction, Outcome } from "../../core/trial/outcome";
import type { Verdict } from "../../core/trial/verdict";
import type { Db } from "../../data/database";
import { toColumn } from "../../data/json-column";
import { addEntry, entriesOf, ownerOfMachine } from "../../data/ledger";
import { type Holder, holdersOf, machineById, reviseMachine } from "../../data/machines";
import { addRound, confirmInForce } from "../../data/rounds";
import { addLearned, addVerdict } from "../../data/solutions";
import { endTrial, setDecision } from "../../data/trials";
import { FormFaults } from "../form-faults";
import { takeBackNewest } from "../ledger/ledger-steps";
import { type TypedRow, typedValue } from "../ledger/typed-value";
import { enterInPractice } from "../practice/practice-machine";
import { settingUnit } from "../procedures/settings";
import { Refusal } from "../refusal";
import { keepCheckVerdict } from "./check-steps";
import { frozenSolution } from "./frozen-solution";
import { burnedRound, contextOf, type FullTrial, fullTrial, historyOf, readingStamp } from "./trial-record";

/** Rows as typed, by setting; `null` = nobody knows. */
export type TypedSettings = Readonly<Record<string, readonly TypedRow[] | null>>;

/**
 * Saves what the controller held during the burn at these settings, all or none. A difference from the ledger goes into the ledger as found.
 * The round is read back once every setting that it corrects is.
 *
 * @throws Refusal with the faults of all rows, each field after its setting: `scan offset row 300`
 */
export function confirmHeld(db: Db, trialId: number, n: number, held: TypedSettings, now: number): void {
  const full = fullTrial(db, trialId);
  const round = burnedRound(db, trialId, n);
  const values = typedIn(full, held, (key) => round.inForce?.[key] ?? null);
  const acting = actingHolder(db, full, round.plan);
  const others = full.procedure.sets(round.plan, full.machine).filter((key) => !values.has(key));
  const isLast = others.every((key) => isReadBack(round, full.trial.decisions, key));
  db.transaction((tx) => {
    const inForce: SettingsInForce = { ...round.inForce, ...Object.fromEntries(values) };
    confirmInForce(tx, round.id, inForce, isLast ? now : round.readBackAt);
    for (const [setting, value] of values) {
      setDecision(tx, trialId, readBack(n, setting).as(true));
      if (toColumn(round.inForce?.[setting] ?? null) === toColumn(value)) continue;
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
    }
  });
}

/**
 * Keeps choices, all or none.
 *
 * @throws Refusal if a reading is to be left out or accepted after the end of the trial
 */
export function decide(db: Db, trialId: number, decisions: readonly Decided[]): void {
  const { trial } = fullTrial(db, trialId);
  if (trial.endedAt !== null && decisions.some(({ key }) => isAboutReadings(key)))
    throw new Refusal("trial", "This trial has ended. Begin a new trial to change its readings.");
  db.transaction((tx) => {
    for (const decided of decisions) setDecision(tx, trialId, decided);
  });
}

/**
 * Records what was entered at one holder, as it was entered: all settings or none.
 *
 * @returns ids of the ledger entries, in the order of the settings
 * @throws Refusal with the faults of all rows, each field after its setting: `scan offset row 300`
 */
export function recordEntries(
  db: Db,
  input: {
    trialId: number;
    n: number;
    holderId: number;
    /** By setting. */
    rows: Readonly<Record<string, readonly TypedRow[]>>;
    readBack: boolean;
    /** The readings that the page had worked from, as `readingStamp` names them. */
    seen: string;
  },
  now: number,
): number[] {
  const full = fullTrial(db, input.trialId);
  const { inForce } = burnedRound(db, input.trialId, input.n);
  const holder = holdersOf(db, full.trial.machineId).find((h) => h.id === input.holderId);
  if (!holder) throw new Refusal("holder", "This machine has no such holder.");
  if (input.seen !== readingStamp(full, input.n))
    throw new Refusal(
      "readings",
      "Readings were taken or taken back since these numbers were worked out. Look at them again.",
    );
  const outcome = full.procedure.solve(historyOf(full, input.n));
  const form = new FormFaults();
  const made = (setting: string) => correctionFor(outcome, setting).newValue;
  const entries = [...typedIn(full, input.rows, made)].flatMap(([setting, typed]) => {
    const before = inForce?.[setting] ?? null;
    const value = typed && merged(before, typed);
    const outside = value && rangeFault(value, full.machine.held[setting]);
    if (outside) form.add({ field: `${setting} value`, message: outside });
    return value ? [{ setting, before, value, correction: correctionFor(outcome, setting) }] : [];
  });
  form.refuse();
  return db.transaction((tx) => {
    const solutionId = frozenSolution(tx, full, input.n, outcome, now);
    return entries.map(({ setting, before, value, correction }) => {
      if (holder.role === "controller") enterInPractice(tx, full.trial.machineId, setting, { before, value });
      return addEntry(
        tx,
        {
          ...ledgerBase(full, setting),
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
  });
}

/** Takes back the newest record of a holder, made in this trial. */
export function undoEntry(db: Db, trialId: number, entryId: number, now: number): void {
  const { trial } = fullTrial(db, trialId);
  const entry = entriesOf(db, ownerOfMachine(trial.machineId)).find((e) => e.id === entryId);
  if (entry?.trialId !== trialId) throw new Refusal("entry", "This trial has no such record.");
  takeBackNewest(db, trial.machineId, entryId, now);
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
  const context = contextOf(db, full, n);
  const gauge = last.sessions.at(-1)?.gauge;
  const { procedure, trial } = full;
  const plan =
    next.purpose === "proof" && gauge
      ? withFewestReadings({ procedure, plan: next.plan, context, tolerance: trial.tolerance }, gauge, history)
      : next.plan;
  const draft = draftOf(full.procedure.plan(context), plan);
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
    if (outcome.status === "solved") {
      addLearned(tx, owner, outcome.learned, trialId, now);
      keepWithMachine(tx, full, outcome.learned, now);
    }
    const good = last.purpose === "check" ? "held" : "proved";
    endTrial(tx, trialId, verdict.result === "proved" ? good : "given up", now);
  });
  return verdict;
}

/** What burns showed of how its controller takes a setting stands on the machine page from now on. */
function keepWithMachine(db: Db, { trial, procedure }: FullTrial, learned: Record<string, number>, now: number): void {
  const machine = machineById(db, trial.machineId);
  if (!machine) return;
  const { spec } = machine;
  const held = withLearned(spec.held, learned, (key) => {
    const setting = procedure.settings.find((s) => s.key === key);
    return setting && holdOf(spec, setting);
  });
  if (JSON.stringify(held) !== JSON.stringify(spec.held)) reviseMachine(db, machine.id, { ...spec, held }, now);
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
  const isCopied = acting.role === "controller" && full.procedure.settings.some((s) => s.copied);
  return isCopied ? [acting, ...copies] : [acting];
}

function actingHolder(db: Db, full: FullTrial, plan: unknown): Holder {
  const role = full.procedure.actsFrom(plan);
  const found = holdersOf(db, full.trial.machineId).find((h) => h.role === role);
  if (!found) throw new Refusal("holder", `${full.machine.name} has no place that holds this setting yet.`);
  return found;
}

function ledgerBase(full: FullTrial, setting: string) {
  const { machineId, id } = full.trial;
  settingOf(full, setting);
  return { owner: ownerOfMachine(machineId), setting, unit: settingUnit(full.machine, setting), trialId: id };
}

function settingOf(full: FullTrial, key: string): SettingSpec {
  const spec = full.procedure.settings.find((s) => s.key === key);
  if (!spec) throw new Refusal("setting", "This procedure has no such setting.");
  return spec;
}

/**
 * @param known value of a correction of the whole field, which no user can type
 * @throws Refusal with the faults of all settings
 */
function typedIn(
  full: FullTrial,
  typed: TypedSettings,
  known: (setting: string) => SettingValue | null,
): Map<string, SettingValue | null> {
  const form = new FormFaults();
  const values = new Map<string, SettingValue | null>();
  for (const [key, rows] of Object.entries(typed)) {
    const setting = settingOf(full, key);
    const word = rows?.[0]?.text;
    const isKnown = setting.shape === "map" && (word === MAP_WORDS.held || word === MAP_WORDS.made);
    const read = () => (isKnown ? known(key) : typedValue(setting, settingUnit(full.machine, key), rows ?? []));
    values.set(key, rows && form.read(read, null, `${key} `));
  }
  form.refuse();
  return values;
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
