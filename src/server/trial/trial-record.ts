/** A trial with everything that belongs to it, as the procedure and the screens need it. */
import type { RoundSpec } from "../../core/coupon/round-spec";
import type { Gauge } from "../../core/metrology/gauge";
import type { AnyProcedure, History, PlanContext, RoundRecord } from "../../core/procedures/contract";
import { readDraft } from "../../core/procedures/draft";
import type { GcodeDialect } from "../../core/procedures/gcode-dialect";
import type { MachineSpec } from "../../core/procedures/machine-spec";
import type { SettingsInForce } from "../../core/procedures/setting";
import type { Db } from "../../data/database";
import { allGauges } from "../../data/gauges";
import { currentEntry, ownerOfMachine } from "../../data/ledger";
import { holdersOf, machineById, machineRevisionById } from "../../data/machines";
import { readingsOf, type Session, sessionsOf, type TakenReading } from "../../data/readings";
import { type Round, roundsOf } from "../../data/rounds";
import { type Trial, trialById } from "../../data/trials";
import { knownProcedure } from "../procedures/procedures";
import { Refusal } from "../refusal";

export type FullRound = Round & { readings: TakenReading[]; sessions: Session[] };
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
  if (!trial || !owner) throw new Refusal("trial", "There is no such trial.");
  return {
    trial,
    machine: machineRevisionById(db, trial.machineRevisionId),
    dialect: owner.spec.gcode,
    machineSlug: owner.slug,
    procedure: knownProcedure(trial.procedure),
    available: allGauges(db).map((g) => g.spec),
    rounds: roundsOf(db, trialId).map((round) => ({
      ...round,
      readings: readingsOf(db, round.id),
      sessions: sessionsOf(db, round.id),
    })),
  };
}

/** @throws Refusal when the trial has no such round */
export function roundOf(full: FullTrial, n: number): FullRound {
  const round = full.rounds.find((r) => r.n === n);
  if (!round) throw new Refusal("round", `Trial ${full.trial.code} has no round ${n}.`);
  return round;
}

/** What the ledger says is in force for a burn that the controller, or Ustrina, compensates. */
export function settingsInForce(db: Db, full: FullTrial, actsFrom: "controller" | "ustrina"): SettingsInForce {
  const acting = holdersOf(db, full.trial.machineId).find((h) => h.role === actsFrom);
  const owner = ownerOfMachine(full.trial.machineId);
  return Object.fromEntries(
    full.procedure.settings.map((setting) => [
      setting.key,
      acting ? (currentEntry(db, owner, setting.key, acting.id)?.value ?? null) : null,
    ]),
  );
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
  };
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
      }),
    ),
    gauges: [...gauges.values()],
    available: full.available,
    machine: full.machine,
    tolerance: full.trial.tolerance,
    decisions: full.trial.decisions,
  };
}
