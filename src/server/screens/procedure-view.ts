/** One procedure on one machine: how it stands and why, its limits, its trials, and the chart of its checks. */
import type { Figure } from "../../core/drawing/figure";
import { CHART_FROM_POINTS } from "../../core/metrology/control-chart";
import type { Measured } from "../../core/metrology/measured";
import { inUnit } from "../../core/metrology/quantity-text";
import type { LengthUnit, UnitId } from "../../core/metrology/units";
import { fromInternal, UNITS } from "../../core/metrology/units";
import { type ChangeKind, changesOn } from "../../core/procedures/change";
import type { AnyProcedure } from "../../core/procedures/contract";
import { type Effect, needsText, WHY } from "../../core/procedures/need";
import { shownUnit } from "../../core/procedures/shown-unit";
import type { Db } from "../../data/database";
import { machineBySlug } from "../../data/machines";
import type { Trial } from "../../data/trials";
import { type MachineRecord, machineRecord } from "../procedures/machine-record";
import {
  checksOf,
  driftChart,
  driftSignal,
  type KeptCheck,
  leftOver,
  type ProcedureState,
  procedureState,
  recheckDaysOf,
  trialsOf,
} from "../procedures/procedure-state";
import { offeredProcedures } from "../procedures/procedures";
import { progressOf } from "../trial/trial-progress";

export type CheckRow = {
  trialId: number;
  code: string;
  at: number;
  result: "proved" | "not proved" | "cannot tell";
  asFound: Measured;
  unit: UnitId;
};

export type TrialRow = { id: number; code: string; begunAt: number; words: string; left: string };

export type ProcedureView = {
  machine: string;
  machineSlug: string;
  procedure: string;
  title: string;
  summary: string;
  state: ProcedureState;
  tolerance: { label: string; text: string; usual: string };
  recheck: { days: number; usualDays: number; why: string };
  /** What makes it stale, and what makes it due for a check, in words. */
  needs: Record<Effect, string[]>;
  checks: CheckRow[];
  asFoundLabel: string;
  checksUntilChart: number;
  figures: Figure[];
  signal: string | null;
  trials: TrialRow[];
};

const END_WORDS = { proved: "proved", held: "check: still holding", "given up": "ended without a proof" } as const;

/** `null` where there is no such machine, or no such procedure on it. */
export function procedureView(
  db: Db,
  slug: string,
  procedureId: string,
  now: number,
  length: LengthUnit = "mm",
): ProcedureView | null {
  const machine = machineBySlug(db, slug);
  const procedure = machine && offeredProcedures(machine.spec.kind).find((p) => p.id === procedureId);
  if (!machine || !procedure) return null;
  const record = machineRecord(db, machine);
  const trials = trialsOf(record, procedure.id);
  const checks = checksOf(record, procedure.id);
  const chart = driftChart(checks);
  const { unit } = procedure.tolerance;
  // A galvo has no belt and no home switch.
  const happening: readonly ChangeKind[] = changesOn(machine.spec.kind);
  return {
    machine: machine.spec.name,
    machineSlug: slug,
    procedure: procedure.id,
    title: procedure.title,
    summary: procedure.summary,
    state: procedureState(record, procedure, (id) => progressOf(db, id), { now, length }),
    tolerance: {
      label: procedure.tolerance.label,
      text: inUnit(machine.spec.tolerances[procedure.id] ?? procedure.tolerance.default, unit, 4),
      usual: inUnit(procedure.tolerance.default, unit, 4),
    },
    recheck: {
      days: recheckDaysOf(machine, procedure),
      usualDays: procedure.recheck.defaultDays,
      why: procedure.recheck.why,
    },
    needs: needsOf(procedure, happening),
    checks: checks.map((c) => rowOf(c, length)).reverse(),
    asFoundLabel: checks.at(-1)?.verdict.asFound.label ?? "",
    checksUntilChart: Math.max(0, CHART_FROM_POINTS - checks.length),
    figures: chart ? figuresOf(checks, chart) : [],
    signal: driftSignal(chart, checks.length),
    trials: trials.map((t) => trialRow(record, t, length)),
  };
}

function needsOf({ needs, stock, settings }: AnyProcedure, happening: readonly ChangeKind[]): Record<Effect, string[]> {
  const text = needsText(needs.filter((n) => n.on !== "change" || happening.includes(n.what)));
  // What holds no number in a controller has no entry that could change.
  const stale = settings.length > 0 ? text.stale : text.stale.filter((why) => why !== WHY.ownEntry);
  return { stale, check: stock ? [...text.check, WHY.newBatch] : text.check };
}

function rowOf(check: KeptCheck, length: LengthUnit): CheckRow {
  const { verdict } = check;
  return {
    trialId: check.trialId,
    code: check.code,
    at: check.at,
    result: verdict.result,
    asFound: verdict.asFound.quantity,
    unit: shownUnit(verdict.unit, length),
  };
}

/** As-found errors and their moving ranges, each with its limits. */
function figuresOf(checks: readonly KeptCheck[], chart: NonNullable<ReturnType<typeof driftChart>>): Figure[] {
  const unit = checks[0]?.verdict.unit ?? "mm";
  const shown = (value: number) => fromInternal(value, unit);
  const common = { kind: "control chart", unit: UNITS[unit].symbol } as const;
  return [
    {
      ...common,
      id: "as found",
      title: `As-found error, ${checks.at(-1)?.verdict.asFound.label ?? ""}`,
      points: checks.map((c) => ({ label: c.code, value: shown(c.verdict.asFound.quantity.value) })),
      centre: shown(chart.centre),
      low: shown(chart.low),
      high: shown(chart.high),
    },
    {
      ...common,
      id: "moving range",
      title: "Moving range: change from check to check",
      points: chart.ranges.map((r, i) => ({ label: checks[i + 1]?.code ?? "", value: shown(r) })),
      centre: shown(chart.meanRange),
      low: 0,
      high: shown(chart.rangeLimit),
    },
  ];
}

function trialRow(record: MachineRecord, trial: Trial, length: LengthUnit): TrialRow {
  const verdict = trial.end === null ? undefined : record.verdictsOf(trial.id).at(-1);
  return {
    id: trial.id,
    code: trial.code,
    begunAt: trial.begunAt,
    words: trial.end === null ? "open" : END_WORDS[trial.end],
    left: verdict ? leftOver(verdict.result, length) : "",
  };
}
