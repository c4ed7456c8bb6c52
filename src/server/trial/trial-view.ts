/** A trial as the page receives it: plain data, nothing that only a server can hold. */
import type { RoundSpec } from "../../core/coupon/round-spec";
import type { State } from "../../core/course/state";
import type { GcodeDialect } from "../../core/machine/gcode-dialect";
import type { MachineSpec } from "../../core/machine/machine-spec";
import type { Gauge } from "../../core/metrology/gauge";
import type { SettingsInForce } from "../../core/settings/setting";
import type { StockAtHand } from "../../core/stock/stock-at-hand";
import type { Draft } from "../../core/trial/draft";
import type { Purpose } from "../../core/trial/history";
import type { PlanContext } from "../../core/trial/plan-form";
import type { Verdict } from "../../core/trial/verdict";
import type { Db } from "../../data/database";
import type { LedgerEntry } from "../../data/ledger";
import { type Holder, machineById } from "../../data/machines";
import { fittedNow, fittedPart } from "../../data/parts";
import { burnOf, practiceOf } from "../../data/practice";
import type { Session, TakenReading } from "../../data/readings";
import { type RecordedResult, recordedResults, verdictOf } from "../../data/solutions";
import { stocksAtHand } from "../../data/stocks";
import type { TrialEnd } from "../../data/trials";
import { controllerOf, tablesOf } from "../practice/practice-machine";
import { machineRecord } from "../procedures/machine-record";
import { procedureState } from "../procedures/procedure-state";
import { holdersToEnter } from "./correction-steps";
import {
  contextOf,
  couponCode,
  type FullTrial,
  fullTrial,
  readingStamp,
  recordsOf,
  settingsInForce,
  stockOfTrial,
  type TrialRecord,
} from "./trial-record";
import { type TrialStamp, trialStamp } from "./trial-stamp";
import { type KeptRound, keptRounds } from "./trial-stock";

export type { Holder, LedgerEntry, Session, TakenReading, TrialStamp };

export type RoundView = {
  n: number;
  purpose: Purpose;
  couponCode: string;
  draft: Draft;
  plan: unknown;
  spec: RoundSpec | null;
  inForce: SettingsInForce | null;
  readBackAt: number | null;
  burnedAt: number | null;
  onPractice: boolean;
  readings: TakenReading[];
  /** Names the readings up to this round as they stand. */
  readingStamp: string;
  sessions: Session[];
  /** New values were entered or hardware was adjusted because of this burn. */
  corrected: boolean;
};

export type TrialView = {
  id: number;
  code: string;
  procedure: string;
  machine: MachineSpec;
  /** How files are written for it now. */
  dialect: GcodeDialect;
  machineSlug: string;
  optic: string | null;
  /** What is fitted now, as layouts need it. */
  fittedNow: Pick<PlanContext, "optic" | "rotary">;
  tolerance: number;
  decisions: Record<string, string>;
  begunAt: number;
  endedAt: number | null;
  end: TrialEnd | null;
  rounds: RoundView[];
  gauges: Gauge[];
  holders: Holder[];
  /** What this trial recorded, newest first. */
  records: TrialRecord[];
  /** What was recorded of each round when its values were entered. */
  recorded: RecordedResult[];
  /** In force now at the holder that acts, for the layout's warnings. */
  heldNow: SettingsInForce;
  practice: { switchedOn: boolean; tables: Record<string, { at: number; value: number }[]> } | null;
  verdict: { result: Verdict; acceptedAt: number } | null;
  /** By which a page sees whether it is behind. */
  stamp: TrialStamp;
  /** Stocks that it may be on, that of the trial first; empty where it is done on none. */
  stocks: StockAtHand[];
  /** What is kept of it on the card of its stock. */
  keptForStock: KeptRound[];
  /** What changed since it was proved or checked, where that makes it stale or due; empty while it holds or is open. */
  changed: { state: State; reasons: string[] } | null;
};

/** @throws Refusal when there is no such trial */
export function trialView(db: Db, trialId: number, now: number): TrialView {
  const full = fullTrial(db, trialId);
  const { trial } = full;
  const practice = practiceOf(db, trial.machineId);
  const held = practice ? controllerOf(practice) : null;
  const lastPlan = full.rounds.findLast((r) => r.plan !== null)?.plan;
  const plan = lastPlan ?? full.procedure.plan(contextOf(db, full, 1)).defaults;
  return {
    id: trial.id,
    code: trial.code,
    procedure: trial.procedure,
    machine: full.machine,
    dialect: full.dialect,
    machineSlug: full.machineSlug,
    optic: fittedPart(db, trial.machineId, "optic", trial.begunAt)?.label ?? null,
    fittedNow: fittedNow(db, trial.machineId),
    tolerance: trial.tolerance,
    decisions: trial.decisions,
    begunAt: trial.begunAt,
    endedAt: trial.endedAt,
    end: trial.end,
    rounds: full.rounds.map((r) => ({
      n: r.n,
      purpose: r.purpose,
      couponCode: couponCode(full, r.n),
      draft: r.draft,
      plan: r.plan,
      spec: r.spec,
      inForce: r.inForce,
      readBackAt: r.readBackAt,
      burnedAt: r.burnedAt,
      onPractice: burnOf(db, r.id) !== undefined,
      readings: r.readings,
      readingStamp: readingStamp(full, r.n),
      sessions: r.sessions,
      corrected: r.corrected,
    })),
    gauges: full.available,
    holders: holdersToEnter(db, full, plan),
    records: recordsOf(db, trial),
    recorded: recordedResults(db, trialId),
    heldNow: settingsInForce(db, full, full.procedure.actsFrom(plan)),
    practice: held ? { switchedOn: held.switchedOn, tables: tablesOf(held) } : null,
    verdict: trial.endedAt === null ? null : (verdictOf(db, trial.id) ?? null),
    stamp: trialStamp(db, trialId),
    stocks: full.procedure.stock ? stocksAtHand(db, stockOfTrial(full)) : [],
    keptForStock: full.procedure.stock ? keptRounds(db, full) : [],
    changed: trial.endedAt === null ? null : changedSince(db, full, now),
  };
}

/** Only of the trial on which the procedure stands now: an older one says nothing of today. */
function changedSince(db: Db, { trial, procedure }: FullTrial, now: number): TrialView["changed"] {
  const machine = machineById(db, trial.machineId);
  if (!machine) return null;
  const nothing = { stage: "", detail: "", toProve: false };
  const seen = { now, length: "mm" } as const;
  const whole = procedureState(machineRecord(db, machine), procedure, () => nothing, seen);
  const { state, reasons, trialId } = whole.stocks?.find((s) => s.trialId === trial.id) ?? whole;
  return trialId === trial.id && reasons.length > 0 ? { state, reasons } : null;
}
