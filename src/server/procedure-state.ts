/** How a procedure stands on a machine, with what the screens say of it. */
import { expandedUncertainty } from "../core/fitting/student-t";
import { CHART_FROM_POINTS, type ControlChart, controlChart } from "../core/metrology/control-chart";
import { withUncertainty } from "../core/metrology/quantity-text";
import type { AnyProcedure } from "../core/procedures/contract";
import { type Derived, type Standing, stateOf } from "../core/procedures/state";
import type { Verdict } from "../core/procedures/verdict";
import type { Db } from "../data/database";
import { eventsOf } from "../data/events";
import { entriesOf, ownerOfMachine } from "../data/ledger";
import { cameFromElsewhere } from "../data/load-trial";
import { fittingsOf, type Machine } from "../data/machines";
import { type KeptVerdict, type Trial, verdictsOf } from "../data/trials";

export type ProcedureState = Derived & {
  /** What is left, or how far an open trial is. */
  detail: string;
  /** The trial to open; null where there is none. */
  trialId: number | null;
};

export type OpenProgress = { stage: string; detail: string; toProve: boolean };

/** A check as it is charted. */
export type KeptCheck = { trialId: number; code: string; at: number; verdict: Verdict };

/** Checks of a procedure on a machine, oldest first. */
export function checksOf(db: Db, trials: readonly Trial[]): KeptCheck[] {
  return [...trials]
    .reverse()
    .flatMap((t) =>
      verdictsOf(db, t.id)
        .filter((v) => v.purpose === "check")
        .map((v) => ({ trialId: t.id, code: t.code, at: v.acceptedAt, verdict: v.result })),
    )
    .sort((a, b) => a.at - b.at);
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

/**
 * @param trials of this procedure on this machine, newest first
 * @param progress how far an open trial is
 */
export function procedureState(
  db: Db,
  machine: Machine,
  procedure: AnyProcedure,
  trials: readonly Trial[],
  progress: (trialId: number) => OpenProgress,
  now: number,
): ProcedureState {
  const open = trials.find((t) => t.endedAt === null);
  const proof = newest(db, trials, (v) => v.purpose === "proof" && v.result.result === "proved");
  const checks = checksOf(db, trials);
  const check = checks.at(-1);
  const opened = open ? progress(open.id) : null;
  const standing: Standing = {
    open: open && opened ? { since: open.begunAt, toProve: opened.toProve } : null,
    proved: proof ? { at: proof.verdict.acceptedAt } : null,
    check: check ? { at: check.at, result: check.verdict.result } : null,
    changes: [...changesOf(db, machine, procedure, proof?.trial.id ?? null), ...fromElsewhere(db, proof)],
    drift: driftSignal(driftChart(checks), checks.length),
    recheckDays: recheckDaysOf(machine, procedure),
  };
  const derived = stateOf(standing, now);
  if (open && opened) return { ...derived, detail: opened.detail, trialId: open.id };
  const last = check && proof && check.at > proof.verdict.acceptedAt ? check : null;
  return {
    ...derived,
    detail: last ? leftOver(last.verdict) : proof ? leftOver(proof.verdict.result) : "",
    trialId: last?.trialId ?? proof?.trial.id ?? null,
  };
}

export function recheckDaysOf(machine: Machine, procedure: AnyProcedure): number {
  return machine.spec.recheckDays[procedure.id] ?? procedure.recheck.defaultDays;
}

/** The largest residual with its expanded uncertainty. */
export function leftOver(verdict: Verdict): string {
  const worst = verdict.lines.reduce((a, b) => (Math.abs(b.after.value) > Math.abs(a.after.value) ? b : a));
  const size = { ...worst.after, value: Math.abs(worst.after.value) };
  return expandedUncertainty(size) > 0 ? `${withUncertainty(size, verdict.unit)} left` : "";
}

function newest(db: Db, trials: readonly Trial[], wanted: (verdict: KeptVerdict) => boolean) {
  for (const trial of trials) {
    const verdict = verdictsOf(db, trial.id).findLast(wanted);
    if (verdict) return { trial, verdict };
  }
  return null;
}

/** What was proved on another bench says nothing of what this machine's controller holds now. */
function fromElsewhere(db: Db, proof: ReturnType<typeof newest>): Standing["changes"] {
  if (!proof || !cameFromElsewhere(db, proof.trial)) return [];
  const why = "it was proved on another bench: read back here what the controller holds";
  return [{ at: proof.verdict.acceptedAt + 1, effect: "check", why }];
}

/** Changes to what the procedure needs, and to its own settings by anything but its own proof. */
function changesOf(db: Db, machine: Machine, procedure: AnyProcedure, provedBy: number | null): Standing["changes"] {
  const entries = entriesOf(db, ownerOfMachine(machine.id)).filter((e) => e.undoneAt === null);
  const events = eventsOf(db, machine.id);
  const fittings = fittingsOf(db, machine.id).slice(1);
  const needed = procedure.needs.flatMap((need) => {
    const times =
      need.on === "setting"
        ? entries.filter((e) => e.setting === need.what)
        : need.on === "event"
          ? events.filter((e) => e.kind === need.what)
          : fittings;
    return times.map(({ at }) => ({ at, effect: need.effect, why: need.why }));
  });
  const own = entries
    .filter(
      (e) => procedure.settings.some((s) => s.key === e.setting) && e.trialId !== provedBy && e.origin !== "found",
    )
    .map(({ at }) => ({ at, effect: "stale" as const, why: "its own entry was changed" }));
  return [...needed, ...own];
}
