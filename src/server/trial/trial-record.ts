/** A trial with everything that belongs to it, as the procedure and the screens need it. */

import type { RoundSpec } from "../../core/coupon/round-spec";
import { heldThrough } from "../../core/machine/fitted-part";
import type { GcodeDialect } from "../../core/machine/gcode-dialect";
import type { MachineSpec } from "../../core/machine/machine-spec";
import type { Gauge } from "../../core/metrology/gauge";
import type { AnyProcedure } from "../../core/procedures/contract";
import { isHeldBy, type SettingSpec, type SettingsInForce } from "../../core/settings/setting";
import { adjusted } from "../../core/trial/decisions";
import { readDraft } from "../../core/trial/draft";
import type { History, RoundRecord } from "../../core/trial/history";
import type { PlanContext } from "../../core/trial/plan-form";
import { dayOf } from "../../core/trial/plan-form";
import type { Db } from "../../data/database";
import { gaugesAtHand } from "../../data/gauges";
import { entriesOf, entriesOfTrial, type LedgerEntry, ownerOfMachine } from "../../data/ledger";
import { holdersOf, machineById, machineRevisionById } from "../../data/machines";
import { type Fitting, fittedNow, fittingsOf } from "../../data/parts";
import { readingsOf, type Session, sessionsOf, type TakenReading } from "../../data/readings";
import { type Round, roundNumbered, roundsOf } from "../../data/rounds";
import { roundsOfEntries } from "../../data/solutions";
import { stocksAtHand } from "../../data/stocks";
import { type Trial, trialById } from "../../data/trials";
import { knownProcedure } from "../procedures/procedures";
import { Refusal } from "../refusal";

export type FullRound = Round & {
  readings: TakenReading[];
  sessions: Session[];
  /** New values were entered or hardware was adjusted because of this burn. */
  corrected: boolean;
};
export type FullTrial = {
  trial: Trial;
  machine: MachineSpec;
  /** How files are written for it: as the machine is now, not as it was when the trial began. */
  dialect: GcodeDialect;
  machineSlug: string;
  rounds: FullRound[];
  procedure: AnyProcedure;
  /** Gauges there are in the workshop. */
  available: Gauge[];
};

/** @throws Refusal when there is no such trial */
export function fullTrial(db: Db, trialId: number): FullTrial {
  const trial = trialById(db, trialId);
  const owner = trial ? machineById(db, trial.machineId) : undefined;
  if (!trial || !owner) throw noSuchTrial();
  const machine = machineRevisionById(db, trial.machineRevisionId);
  const procedure = knownProcedure(trial.procedure);
  const corrected = correctedRounds(db, trialId);
  return {
    trial,
    machine,
    dialect: owner.spec.gcode,
    machineSlug: owner.slug,
    procedure,
    available: gaugesAtHand(db),
    rounds: roundsOf(db, trialId).map((round) => ({
      ...round,
      plan: wholePlan(procedure, machine, round.plan),
      readings: readingsOf(db, round.id),
      sessions: sessionsOf(db, round.id),
      corrected: corrected.has(round.n) || adjusted(round.n).of(trial.decisions),
    })),
  };
}

/** A ledger entry of a trial, and the burn from which it was worked out; `null` if it was only read back. */
export type TrialRecord = LedgerEntry & { n: number | null };

/** The burn from which an entry was worked out. An entry of a trial from another bench has no solution here. It belongs to the first correction. */
function roundOfEntry(
  rounds: ReadonlyMap<number, number>,
  { id, origin }: Pick<LedgerEntry, "id" | "origin">,
): number | null {
  return origin === "trial" ? (rounds.get(id) ?? 1) : null;
}

function correctedRounds(db: Db, trialId: number): Set<number | null> {
  const rounds = roundsOfEntries(db, trialId);
  return new Set(entriesOfTrial(db, trialId).map((entry) => roundOfEntry(rounds, entry)));
}

/** What a trial recorded and did not undo, newest first. */
export function recordsOf(db: Db, trial: Pick<Trial, "id" | "machineId">): TrialRecord[] {
  const rounds = roundsOfEntries(db, trial.id);
  return entriesOf(db, ownerOfMachine(trial.machineId))
    .filter((e) => e.trialId === trial.id && e.undoneAt === null)
    .map((e) => ({ ...e, n: roundOfEntry(rounds, e) }));
}

/** A plan as it was frozen, with the values that newer fields had in its day; `null` before the burn. */
function wholePlan(procedure: AnyProcedure, machine: MachineSpec, frozen: unknown): unknown {
  if (typeof frozen !== "object" || frozen === null) return null;
  return procedure.plan({ machine, couponCode: "", inForce: {} }).whole(frozen);
}

/** @throws Refusal when the trial has no such round */
export function roundOf(full: FullTrial, n: number): FullRound {
  const round = full.rounds.find((r) => r.n === n);
  if (!round) throw noSuchRound(full.trial, n);
  return round;
}

/** A round that is read, with its sittings; what was read is not asked for: taking a reading takes as long as the first did. */
export type BurnedRound = Round & { spec: RoundSpec; sessions: Session[] };

/** @throws Refusal unless the round exists and is burned */
export function burnedRound(db: Db, trialId: number, n: number): BurnedRound {
  const trial = trialById(db, trialId);
  if (!trial) throw noSuchTrial();
  const round = roundNumbered(db, trialId, n);
  if (!round) throw noSuchRound(trial, n);
  if (!round.spec) throw new Refusal("round", "This round is not burned yet.");
  return { ...round, spec: round.spec, sessions: sessionsOf(db, round.id) };
}

/** What the ledger says is in force for a burn that the controller, or Ustrina, compensates. */
export function settingsInForce(db: Db, full: FullTrial, actsFrom: "controller" | "ustrina"): SettingsInForce {
  const { machineId } = full.trial;
  const acting = holdersOf(db, machineId).find((h) => h.role === actsFrom);
  const entries = entriesOf(db, ownerOfMachine(machineId)).filter(
    (e) => e.undoneAt === null && e.holderId === acting?.id,
  );
  const written = new Set(entries.map((e) => e.setting));
  const fittings = fittingsOf(db, machineId);
  return Object.fromEntries(
    full.procedure.settings
      .filter((setting) => isHeldBy(setting, full.machine.held, written))
      .map((setting) => [
        setting.key,
        entries.find((e) => e.setting === setting.key && holdsNow(e, setting, fittings))?.value ?? null,
      ]),
  );
}

/** A setting of the machine with its optic or rotary holds while that one is fitted. */
export function holdsNow(
  entry: Pick<LedgerEntry, "at">,
  setting: Pick<SettingSpec, "owner">,
  fittings: readonly Fitting[],
): boolean {
  return heldThrough(setting, fittings, entry.at, Number.POSITIVE_INFINITY);
}

/** Which coupon a round burns: the first keeps the code of its trial, later ones add their number. */
export function couponCode(full: FullTrial, n: number): string {
  return n === 1 ? full.trial.code : `${full.trial.code}.${n}`;
}

/** The context for laying out. The layout itself does not depend on what is in force, only its warnings do. */
export function contextOf(db: Db, full: FullTrial, n: number): PlanContext {
  return {
    machine: full.machine,
    couponCode: couponCode(full, n),
    inForce: settingsInForce(db, full, "controller"),
    gauges: full.available,
    tolerance: full.trial.tolerance,
    day: dayOf(full.trial.begunAt),
    ...(full.procedure.stock ? { stocks: stocksAtHand(db, stockOfTrial(full)) } : {}),
    ...fittedNow(db, full.trial.machineId),
  };
}

/** Key of the batch that a trial is on, as its newest round says; `null` where none is. */
export function stockOfTrial({ rounds, procedure }: Pick<FullTrial, "rounds" | "procedure">): string | null {
  return rounds.at(-1)?.draft[procedure.stock?.field ?? ""] || null;
}

export type LaidOut = { plan: unknown; spec: RoundSpec; inForce: SettingsInForce };

/**
 * The plan and spec of a round: frozen ones once it is burned, else from what is typed.
 *
 * @throws Refusal at the field of the first fault of the draft
 */
export function laidOut(db: Db, full: FullTrial, round: Round): LaidOut {
  if (round.spec && round.plan !== null && round.inForce)
    return { plan: round.plan, spec: round.spec, inForce: round.inForce };
  const context = contextOf(db, full, round.n);
  const read = readDraft(full.procedure.plan(context), round.draft);
  if (!read.ok) {
    const first = read.issues[0];
    throw new Refusal(first?.field ?? "plan", first?.message ?? "The layout is not complete.");
  }
  return {
    plan: read.plan,
    spec: full.procedure.round(read.plan, context, round.purpose),
    inForce: settingsInForce(db, full, full.procedure.actsFrom(read.plan)),
  };
}

/** Names the readings up to round `n` as they stand: it changes with every one taken or taken back. */
export function readingStamp(full: FullTrial, n: number): string {
  const readings = full.rounds.filter((r) => r.n <= n).flatMap((r) => r.readings);
  return `${readings.length} ${Math.max(0, ...readings.map((r) => r.id))}`;
}

/** All burned rounds up to round `n`, as the procedure reads them. */
export function historyOf(full: FullTrial, n: number): History {
  const burned = full.rounds.filter((r) => r.n <= n && r.spec !== null);
  const gauges = new Map(burned.flatMap((r) => r.sessions.map((s) => [s.gauge.id, s.gauge] as const)));
  return {
    rounds: burned.map(
      (r): RoundRecord => ({
        n: r.n,
        purpose: r.purpose,
        plan: r.plan,
        spec: r.spec as RoundSpec,
        inForce: r.inForce ?? {},
        answers: r.readings.map((reading) => reading.answer),
        corrected: r.corrected,
      }),
    ),
    gauges: [...gauges.values()],
    available: full.available,
    machine: full.machine,
    tolerance: full.trial.tolerance,
    decisions: full.trial.decisions,
  };
}

function noSuchTrial(): Refusal {
  return new Refusal("trial", "There is no such trial.");
}

function noSuchRound({ code }: Trial, n: number): Refusal {
  return new Refusal("round", `Trial ${code} has no round ${n}.`);
}
