/** How a procedure stands on a machine, with what the screens say of it. */

import { type Derived, isOpen, type Standing, stateOf } from "../../core/course/state";
import { heldThrough, isSamePart } from "../../core/machine/fitted-part";
import { effectOfFitting, type Need, reasonOf, WHY } from "../../core/machine/need";
import { CHART_FROM_POINTS, type ControlChart, controlChart } from "../../core/metrology/control-chart";
import { countText } from "../../core/metrology/count-text";
import { expandedUncertainty } from "../../core/metrology/measured";
import { withUncertainty } from "../../core/metrology/quantity-text";
import type { LengthUnit } from "../../core/metrology/units";
import type { AnyProcedure } from "../../core/procedures/contract";
import { entryBefore, isSame } from "../../core/settings/setting-history";
import { cardOf } from "../../core/stock/stock-at-hand";
import { shownUnit } from "../../core/trial/decisions";
import type { Verdict } from "../../core/trial/verdict";
import type { LedgerEntry } from "../../data/ledger";
import type { Machine } from "../../data/machines";
import type { KeptVerdict } from "../../data/solutions";
import { batchKey } from "../../data/stocks";
import type { Trial } from "../../data/trials";
import type { MachineRecord } from "./machine-record";

export type ProcedureState = Derived & {
  /** What is left, or how far an open trial is. */
  detail: string;
  /** The trial to open; null where there is none. */
  trialId: number | null;
  /** Of what is done stock by stock: how it stands on each, what is most to be done first; left out elsewhere. */
  stocks?: StockState[];
};

/** How a procedure stands on one stock. */
export type StockState = ProcedureState & {
  /** Address part of the card; empty while no stock is chosen. */
  card: string;
  name: string;
  /** Key of the newest batch. */
  newest: string;
};

export type OpenProgress = { stage: string; detail: string; toProve: boolean };

/** A check as it is charted. */
export type KeptCheck = { trialId: number; code: string; at: number; verdict: Verdict };

/** Checks of a procedure on a machine, oldest first. */
export function checksOf(record: MachineRecord, procedureId: string): KeptCheck[] {
  return trialsOf(record, procedureId)
    .flatMap((t) =>
      record
        .verdictsOf(t.id)
        .filter((v) => v.purpose === "check")
        .map((v) => ({ trialId: t.id, code: t.code, at: v.acceptedAt, verdict: v.result })),
    )
    .sort((a, b) => a.at - b.at);
}

/** Newest first. */
export function trialsOf(record: MachineRecord, procedureId: string): Trial[] {
  return record.trials.filter((t) => t.procedure === procedureId);
}

/** The chart of as-found errors; `null` below ten checks. */
export function driftChart(checks: readonly KeptCheck[]): ControlChart | null {
  if (checks.length < CHART_FROM_POINTS) return null;
  const found = checks.map((c) => c.verdict.asFound.quantity);
  const u = Math.max(...found.map((q) => q.standardUncertainty));
  return controlChart(
    found.map((q) => q.value),
    u,
  );
}

/** What the newest point of the chart says; `null` while it is in order. */
export function driftSignal(chart: ControlChart | null, points: number): string | null {
  if (!chart) return null;
  if (chart.beyond.includes(points - 1)) return "the newest as-found error lies beyond the limits of its chart";
  return chart.run ? "the as-found errors have lain on one side of their mean for eight checks" : null;
}

/** When it is looked at, and in which unit lengths are shown. */
export type Seen = { now: number; length: LengthUnit };

/** @param progress how far an open trial is */
export function procedureState(
  record: MachineRecord,
  procedure: AnyProcedure,
  progress: (trialId: number) => OpenProgress,
  seen: Seen,
): ProcedureState {
  const trials = trialsOf(record, procedure.id);
  const checks = checksOf(record, procedure.id);
  if (!procedure.stock) return stateAmong(record, procedure, progress, seen, { trials, checks, batch: null });
  const stocks = stockStates(record, procedure, progress, seen, { trials, checks });
  const [first] = stocks;
  if (!first) return { state: "not done", since: null, reasons: [], detail: "", trialId: null, stocks };
  const due = stocks.filter((s) => s.state !== "holding").length;
  const count = `${countText(stocks.length, "stock")}${due > 0 ? `, ${due} due` : ""}`;
  const isUnderWay = isOpen(first.state);
  return {
    state: first.state,
    since: first.since,
    trialId: first.trialId,
    stocks,
    reasons: first.reasons.map((reason) => `${first.name}: ${reason}`),
    detail: isUnderWay ? first.detail : count,
  };
}

type Among = { trials: readonly Trial[]; checks: readonly KeptCheck[] };

/** What is to be done first comes first. */
const URGENCY: readonly ProcedureState["state"][] = [
  "to prove",
  "open",
  "stale",
  "drifting",
  "check due",
  "not done",
  "holding",
];

function stockStates(
  record: MachineRecord,
  procedure: AnyProcedure,
  progress: (trialId: number) => OpenProgress,
  seen: Seen,
  { trials, checks }: Among,
): StockState[] {
  const stockOf = record.stocksOf(procedure);
  const cards = [...new Set(trials.map((t) => cardOf(stockOf(t.id))))];
  const states = cards.map((card): StockState => {
    const found = record.card(card);
    const is = (trialId: number) => cardOf(stockOf(trialId)) === card;
    const batch = found?.newest ?? null;
    const own = { trials: trials.filter((t) => is(t.id)), checks: checks.filter((c) => is(c.trialId)), batch };
    return {
      ...stateAmong(record, procedure, progress, seen, own),
      card,
      name: found?.name ?? "no stock chosen yet",
      newest: batch ? batchKey(card, batch.label) : "",
    };
  });
  // What was begun and given up says nothing.
  const known = states.filter((s) => s.state !== "not done");
  return known.sort((a, b) => URGENCY.indexOf(a.state) - URGENCY.indexOf(b.state));
}

/** @param batch the newest of the stock that these trials are on */
function stateAmong(
  record: MachineRecord,
  procedure: AnyProcedure,
  progress: (trialId: number) => OpenProgress,
  { now, length }: Seen,
  { trials, checks, batch }: Among & { batch: { begunAt: number } | null },
): ProcedureState {
  const open = trials.find((t) => t.endedAt === null);
  const proof = newestProof(record, procedure, trials);
  const check = checks.at(-1);
  const opened = open ? progress(open.id) : null;
  const standing: Standing = {
    open: open && opened ? { since: open.begunAt, toProve: opened.toProve } : null,
    proved: proof ? { at: proof.verdict.acceptedAt } : null,
    check: check ? { at: check.at, result: check.verdict.result } : null,
    changes: proof ? [...changesSince(record, procedure, proof), ...newBatch(batch, proof)] : [],
    drift: driftSignal(driftChart(checks), checks.length),
    recheckDays: recheckDaysOf(record.machine, procedure),
  };
  const derived = stateOf(standing, now);
  if (open && opened) return { ...derived, detail: opened.detail, trialId: open.id };
  const last = check && proof && check.at > proof.verdict.acceptedAt ? check : null;
  return {
    ...derived,
    detail: last ? residualText(last.verdict, length) : proof ? residualText(proof.verdict.result, length) : "",
    trialId: last?.trialId ?? proof?.trial.id ?? null,
  };
}

/** Another delivery of the same stock may cut differently. */
function newBatch(batch: { begunAt: number } | null, { trial, verdict }: Proof): Change[] {
  if (!batch || batch.begunAt <= trial.begunAt) return [];
  return [{ at: Math.max(batch.begunAt, verdict.acceptedAt + 1), effect: "check", why: WHY.newBatch }];
}

export function recheckDaysOf(machine: Machine, procedure: AnyProcedure): number {
  return machine.spec.recheckDays[procedure.id] ?? procedure.recheck.defaultDays;
}

/** The largest residual with its expanded uncertainty. */
export function residualText(verdict: Verdict, length: LengthUnit): string {
  const worst = verdict.lines.reduce((a, b) => (Math.abs(b.after.value) > Math.abs(a.after.value) ? b : a));
  const size = { ...worst.after, value: Math.abs(worst.after.value) };
  return expandedUncertainty(size) > 0 ? withUncertainty(size, shownUnit(verdict.unit, length)) : "";
}

type Proof = { trial: Trial; verdict: KeptVerdict };

/** With the optic or the rotary that is fitted, where the procedure depends on it and there is one; else the newest of all. */
function newestProof({ fittings, verdictsOf }: MachineRecord, { needs }: AnyProcedure, trials: readonly Trial[]) {
  const proofs = trials.flatMap((trial): Proof[] => {
    const verdict = verdictsOf(trial.id).findLast((v) => v.purpose === "proof" && v.result.result === "proved");
    return verdict ? [{ trial, verdict }] : [];
  });
  const kinds = (["optic", "rotary"] as const).filter((kind) => needs.some((n) => n.on === kind));
  const isOwn = (p: Proof) =>
    kinds.every((kind) => isSamePart(fittings, kind, p.verdict.acceptedAt, Number.POSITIVE_INFINITY));
  return proofs.find(isOwn) ?? proofs[0] ?? null;
}

type Change = Standing["changes"][number];

/** What changed since a proof in what the procedure needs, in its own settings, and in what its readings stand on. */
function changesSince(record: MachineRecord, procedure: AnyProcedure, proof: Proof): Change[] {
  const { trial, verdict } = proof;
  const isOwn = ({ setting, at }: LedgerEntry) => {
    const spec = procedure.settings.find((s) => s.key === setting);
    return spec && heldThrough(spec, record.fittings, at, verdict.acceptedAt);
  };
  const own = record.entries
    .filter((e) => isOwn(e) && e.trialId !== trial.id && e.origin !== "found")
    .map(({ at }): Change => ({ at, effect: "stale", why: WHY.ownEntry }));
  const needed = procedure.needs.flatMap((need) => changesIn(record, need, verdict.acceptedAt));
  // What was proved on another bench says nothing of what this machine's controller holds now.
  const elsewhere: Change[] = record.isFromElsewhere(trial)
    ? [{ at: verdict.acceptedAt + 1, effect: "check", why: WHY.elsewhere }]
    : [];
  return [...needed, ...own, ...elsewhere, ...gaugeChanges(record, proof)].filter((c) => c.at > verdict.acceptedAt);
}

function changesIn(record: MachineRecord, need: Need, provedAt: number): Change[] {
  const why = reasonOf(need);
  if (need.on === "setting")
    return record.entries
      .filter((e) => e.setting === need.what && isChange(record.entries, e))
      .map(({ at }) => ({ at, effect: need.effect, why }));
  if (need.on === "change")
    return record.events.filter((e) => e.kind === need.what).map(({ at }) => ({ at, effect: need.effect, why }));
  // Only what is fitted last counts: a part that was taken off and fitted again is the same part.
  const fittings = record.fittings.filter((f) => f.kind === need.on);
  const last = fittings.at(-1);
  if (!last || last.from <= provedAt) return [];
  const known = fittings.some((f) => f !== last && f.partId === last.partId);
  return [{ at: last.from, ...effectOfFitting(need, known) }];
}

/** What was found is a change only where something else was written down before. */
function isChange(entries: readonly LedgerEntry[], entry: LedgerEntry): boolean {
  if (entry.origin !== "found") return true;
  const before = entryBefore(entries, entry);
  return before !== undefined && !isSame(before.value, entry.value);
}

/** A gauge that was found wrong takes with it what was read with it since it was last right. */
function gaugeChanges({ faults, readWith }: MachineRecord, { trial }: Proof): Change[] {
  if (faults.length === 0) return [];
  const sittings = readWith(trial.id);
  return faults
    .filter((f) => sittings.some((s) => s.gauge === f.gauge && s.at >= (f.since ?? 0) && s.at <= f.at))
    .map(({ at }) => ({ at, effect: "stale", why: WHY.gauge }));
}
