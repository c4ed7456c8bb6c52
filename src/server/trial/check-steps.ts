/** Long after a proof: a short check with the settings that are in force, and what it keeps for the chart. */

import type { GcodeDialect } from "../../core/machine/gcode-dialect";
import { parseReading } from "../../core/metrology/reading-text";
import { DEFAULT_UNIT, UNITS } from "../../core/metrology/units";
import type { AnyProcedure } from "../../core/procedures/contract";
import { cardOf } from "../../core/stock/stock-at-hand";
import { draftOf } from "../../core/trial/draft";
import type { Db } from "../../data/database";
import { type Machine, machineById, machineBySlug, reviseMachine } from "../../data/machines";
import { addRound } from "../../data/rounds";
import { addVerdict, verdictsOf } from "../../data/solutions";
import { addTrial, countCodes, setTrialTolerance, type Trial, trialsOfMachine } from "../../data/trials";
import { ownLinesFault } from "../../formats/gcode-own-lines";
import { FormFaults } from "../form-faults";
import { declareUsualGauges } from "../gauges/usual-gauges";
import { knownProcedure } from "../procedures/procedures";
import { stocksOfTrials } from "../procedures/stocks-of-trials";
import { Refusal } from "../refusal";
import { contextOf, type FullTrial, fullTrial, historyOf } from "./trial-record";

const LONGEST_RECHECK_DAYS = 3650;

/** A new trial on a machine, without rounds yet. @returns its id */
export function openTrial(db: Db, machine: Machine, procedure: AnyProcedure, now: number): number {
  if (machine.archivedAt !== null)
    throw new Refusal("machine", `${machine.spec.name} is archived: bring it back onto the bench first.`);
  declareUsualGauges(db, now);
  const letter = machine.spec.name.charAt(0).toUpperCase();
  return addTrial(
    db,
    {
      machineId: machine.id,
      machineRevisionId: machine.revisionId,
      procedure: procedure.id,
      procedureVersion: procedure.version,
      code: `${letter}-${countCodes(db, letter) + 1}`,
      tolerance: machine.spec.tolerances[procedure.id] ?? procedure.tolerance.default,
    },
    now,
  );
}

/**
 * Begins a check of what was proved last: few sites, laid out already.
 *
 * @param card of the stock that is checked; `null` = whichever was proved last
 * @returns the id of its trial
 */
export function beginCheck(
  db: Db,
  machineSlug: string,
  procedureId: string,
  now: number,
  card: string | null = null,
): number {
  const { machine, procedure } = known(db, machineSlug, procedureId);
  const stockOf = stocksOfTrials(db, machine.id, procedure);
  const trials = trialsOfMachine(db, machine.id).filter(
    (t) => t.procedure === procedure.id && (card === null || cardOf(stockOf(t.id)) === card),
  );
  if (trials.some((t) => t.endedAt === null))
    throw new Refusal("trial", "A trial of this is open: finish it, or end it without a proof, before checking.");
  const last = lastProvedPlan(db, trials);
  if (last === undefined) throw new Refusal("trial", "There is nothing to check yet: it was never proved.");
  return db.transaction((tx) => {
    const trialId = openTrial(tx, machine, procedure, now);
    const context = contextOf(tx, fullTrial(tx, trialId), 1);
    const draft = draftOf(procedure.plan(context), procedure.checkPlan(last, context));
    addRound(tx, { trialId, n: 1, purpose: "check", draft });
    return trialId;
  });
}

/** Keeps what a check found, once: before anything is corrected from it. */
export function keepCheckVerdict(db: Db, full: FullTrial, now: number): void {
  const round = full.rounds.findLast((r) => r.spec !== null);
  if (round?.purpose !== "check" || verdictsOf(db, full.trial.id).some((v) => v.purpose === "check")) return;
  const verdict = full.procedure.judge(historyOf(full, round.n));
  if (verdict) addVerdict(db, { trialId: full.trial.id, roundId: round.id, result: verdict }, now);
}

/** Another tolerance for this trial, and where wanted for the machine from now on. */
export function setTolerance(db: Db, trialId: number, text: string, always: boolean, now: number): void {
  const full = fullTrial(db, trialId);
  if (full.trial.endedAt !== null) throw new Refusal("tolerance", "This trial has ended: its verdict stands.");
  const tolerance = typedTolerance(full.procedure, text);
  db.transaction((tx) => {
    setTrialTolerance(tx, trialId, tolerance);
    const machine = always ? machineById(tx, full.trial.machineId) : undefined;
    if (machine) reviseLimits(tx, machine, full.procedure, { tolerance }, now);
  });
}

/** Tolerance and recheck interval of a procedure on a machine. Texts as typed. */
export function setLimits(
  db: Db,
  machineSlug: string,
  procedureId: string,
  typed: { tolerance: string; recheckDays: string },
  now: number,
): void {
  const { machine, procedure } = known(db, machineSlug, procedureId);
  const form = new FormFaults();
  const tolerance = form.read(() => typedTolerance(procedure, typed.tolerance), 1);
  const days = form.read(() => typedDays(typed.recheckDays), 1);
  form.refuse();
  reviseLimits(db, machine, procedure, { tolerance, recheckDays: days }, now);
}

function typedDays(text: string): number {
  const days = /^\d+$/.test(text.trim()) ? Number(text) : 0;
  if (days < 1 || days > LONGEST_RECHECK_DAYS)
    throw new Refusal("recheckDays", `Type whole days, 1 to ${LONGEST_RECHECK_DAYS}, for example 180.`);
  return days;
}

/** How a machine takes G-code, from now on. */
export function setDialect(db: Db, machineSlug: string, dialect: GcodeDialect, now: number): void {
  const machine = machineBySlug(db, machineSlug);
  if (!machine) throw new Refusal("machine", "There is no such machine.");
  const fault = ownLinesFault(dialect);
  if (fault) throw new Refusal(fault.field, fault.message);
  reviseMachine(db, machine.id, { ...machine.spec, gcode: dialect }, now);
}

function reviseLimits(
  db: Db,
  machine: Machine,
  procedure: AnyProcedure,
  limits: { tolerance: number; recheckDays?: number },
  now: number,
): void {
  const { spec } = machine;
  const recheckDays =
    limits.recheckDays === undefined ? spec.recheckDays : { ...spec.recheckDays, [procedure.id]: limits.recheckDays };
  const tolerances = { ...spec.tolerances, [procedure.id]: limits.tolerance };
  reviseMachine(db, machine.id, { ...spec, tolerances, recheckDays }, now);
}

function typedTolerance(procedure: AnyProcedure, text: string): number {
  const { unit } = procedure.tolerance;
  const { dimension } = UNITS[unit];
  const read = parseReading(text, dimension, unit ?? DEFAULT_UNIT[dimension]);
  if (!read.ok) throw new Refusal("tolerance", read.message);
  if (!(read.value > 0)) throw new Refusal("tolerance", "The tolerance must be larger than 0: nothing is ever exact.");
  return read.value;
}

function lastProvedPlan(db: Db, trials: readonly Trial[]): unknown {
  const last = trials.find((t) => t.end === "proved") ?? trials.find((t) => t.end === "held");
  return last ? (fullTrial(db, last.id).rounds.findLast((r) => r.plan !== null)?.plan ?? undefined) : undefined;
}

function known(db: Db, machineSlug: string, procedureId: string) {
  const machine = machineBySlug(db, machineSlug);
  if (!machine) throw new Refusal("machine", `There is no machine “${machineSlug}”.`);
  return { machine, procedure: knownProcedure(procedureId) };
}
