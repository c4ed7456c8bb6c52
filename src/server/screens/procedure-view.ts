/** One procedure on one machine: how it stands and why, its limits, its trials, and the chart of its checks. */

import type { Figure } from "../../core/drawing/figure";
import { type ChangeKind, changesOn } from "../../core/machine/change";
import { type Effect, needsText, WHY } from "../../core/machine/need";
import { CHART_FROM_POINTS } from "../../core/metrology/control-chart";
import type { Measured } from "../../core/metrology/measured";
import { inUnit } from "../../core/metrology/quantity-text";
import type { LengthUnit, UnitId } from "../../core/metrology/units";
import { fromInternal, UNITS } from "../../core/metrology/units";
import type { AnyProcedure } from "../../core/procedures/contract";
import { cardOf } from "../../core/stock/stock-at-hand";
import { shownUnit } from "../../core/trial/decisions";
import { END_WORDS } from "../../core/trial/trial-end";
import type { Db } from "../../data/database";
import { machineBySlug } from "../../data/machines";
import type { Trial } from "../../data/trials";
import { type MachineRecord, machineRecord } from "../procedures/machine-record";
import {
  checksOf,
  driftChart,
  driftSignal,
  type KeptCheck,
  type ProcedureState,
  procedureState,
  recheckDaysOf,
  residualText,
  trialsOf,
} from "../procedures/procedure-state";
import { offeredProcedures } from "../procedures/procedures";
import { progressOf } from "../trial/trial-progress";

export type CheckRow = {
  trialId: number;
  code: string;
  /** Name of the stock that it was on; empty where the procedure asks for none. */
  stock: string;
  at: number;
  result: "proved" | "not proved" | "cannot tell";
  asFound: Measured;
  unit: UnitId;
};

export type TrialRow = { id: number; code: string; stock: string; begunAt: number; words: string; residual: string };

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
  signals: string[];
  trials: TrialRow[];
};

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
  const stockOf = stockNames(record, procedure);
  const charts = chartsOf(checks, stockOf);
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
    checks: checks.map((c) => rowOf(c, stockOf(c.trialId), length)).reverse(),
    asFoundLabel: checks.at(-1)?.verdict.asFound.label ?? "",
    checksUntilChart: Math.max(0, CHART_FROM_POINTS - Math.max(0, ...charts.map((c) => c.checks.length))),
    figures: charts.flatMap(figuresOf),
    signals: charts.flatMap(({ stock, checks: own, chart }) => {
      const signal = driftSignal(chart, own.length);
      return signal ? [stock ? `${stock}: ${signal}` : signal] : [];
    }),
    trials: trials.map((t) => trialRow(record, t, stockOf(t.id), length)),
  };
}

function needsOf({ needs, stock, settings }: AnyProcedure, happening: readonly ChangeKind[]): Record<Effect, string[]> {
  const text = needsText(needs.filter((n) => n.on !== "change" || happening.includes(n.what)));
  // What holds no number in a controller has no entry that could change.
  const stale = settings.length > 0 ? text.stale : text.stale.filter((why) => why !== WHY.ownEntry);
  return { stale, check: stock ? [...text.check, WHY.newBatch] : text.check };
}

/** Name of the stock that a trial is on; empty where the procedure asks for none. */
function stockNames(record: MachineRecord, procedure: AnyProcedure): (trialId: number) => string {
  if (!procedure.stock) return () => "";
  const keyOf = record.stocksOf(procedure);
  return (trialId) => record.card(cardOf(keyOf(trialId)))?.name ?? "";
}

type StockChart = { stock: string; checks: KeptCheck[]; chart: ReturnType<typeof driftChart> };

/** One for each stock: what holds for one stock says nothing of the limits of another. */
function chartsOf(checks: readonly KeptCheck[], stockOf: (trialId: number) => string): StockChart[] {
  const stocks = [...new Set(checks.map((c) => stockOf(c.trialId)))];
  return stocks.map((stock) => {
    const own = checks.filter((c) => stockOf(c.trialId) === stock);
    return { stock, checks: own, chart: driftChart(own) };
  });
}

function rowOf(check: KeptCheck, stock: string, length: LengthUnit): CheckRow {
  const { verdict } = check;
  return {
    trialId: check.trialId,
    code: check.code,
    stock,
    at: check.at,
    result: verdict.result,
    asFound: verdict.asFound.quantity,
    unit: shownUnit(verdict.unit, length),
  };
}

/** As-found errors and their moving ranges, each with its limits. */
function figuresOf({ stock, checks, chart }: StockChart): Figure[] {
  if (!chart) return [];
  const on = stock && ` on ${stock}`;
  const unit = checks[0]?.verdict.unit ?? "mm";
  const shown = (value: number) => fromInternal(value, unit);
  const common = { kind: "control chart", unit: UNITS[unit].symbol } as const;
  return [
    {
      ...common,
      id: `as found${on}`,
      title: `As-found error${on}, ${checks.at(-1)?.verdict.asFound.label ?? ""}`,
      points: checks.map((c) => ({ label: c.code, value: shown(c.verdict.asFound.quantity.value) })),
      centre: shown(chart.centre),
      low: shown(chart.low),
      high: shown(chart.high),
    },
    {
      ...common,
      id: `moving range${on}`,
      title: `Moving range${on}: change from check to check`,
      points: chart.ranges.map((r, i) => ({ label: checks[i + 1]?.code ?? "", value: shown(r) })),
      centre: shown(chart.meanRange),
      low: 0,
      high: shown(chart.rangeLimit),
    },
  ];
}

function trialRow(record: MachineRecord, trial: Trial, stock: string, length: LengthUnit): TrialRow {
  const verdict = trial.end === null ? undefined : record.verdictsOf(trial.id).at(-1);
  return {
    id: trial.id,
    code: trial.code,
    stock,
    begunAt: trial.begunAt,
    words: trial.end === null ? "open" : END_WORDS[trial.end],
    residual: verdict ? residualText(verdict.result, length) : "",
  };
}
