/** A machine as the bench shows it: how its procedures stand, what to do next, which trials are open. */

import { firstToDo } from "../../core/course/state";
import type { MachineSpec } from "../../core/machine/machine-spec";
import type { Db } from "../../data/database";
import type { MachineRecord } from "../procedures/machine-record";
import { type OpenProgress, type ProcedureState, procedureState, type Seen } from "../procedures/procedure-state";
import { knownProcedure, offeredProcedures } from "../procedures/procedures";
import { progressOf } from "../trial/trial-progress";

export type BenchProcedure = ProcedureState & {
  id: string;
  title: string;
  /** Where its open trial is continued. */
  href: string | null;
  /** That it was never done is no reason to do it. */
  occasional: boolean;
};

export type NextStep = {
  title: string;
  reason: string;
  action: "continue" | "begin" | "check" | "none";
  /** Address for continuing. */
  href: string | null;
  procedure: string | null;
  /** Key of the batch that it is done on; `null` where it is done on none, or on whichever is chosen. */
  stock: string | null;
};

export type BenchMachine = {
  slug: string;
  spec: MachineSpec;
  optic: string | null;
  procedures: BenchProcedure[];
  next: NextStep;
};

export type OpenTrial = {
  id: number;
  code: string;
  title: string;
  machine: string;
  detail: string;
  begunAt: number;
  href: string;
};

/** One machine as it stands on the bench, with its open trials. */
export function benchMachine(db: Db, record: MachineRecord, seen: Seen): { machine: BenchMachine; open: OpenTrial[] } {
  const { machine } = record;
  const open = record.trials
    .filter((t) => t.endedAt === null)
    .map((t) => ({ trial: t, progress: progressOf(db, t.id), title: knownProcedure(t.procedure).title }));
  const progress = (id: number) => open.find((o) => o.trial.id === id)?.progress ?? progressOf(db, id);
  const stands = offeredProcedures(machine.spec.kind).map((procedure) => {
    const state = procedureState(record, procedure, progress, seen);
    return { procedure, state: state.state, view: { id: procedure.id, title: procedure.title, ...state } };
  });
  const first = firstToDo(stands);
  return {
    machine: {
      slug: machine.slug,
      spec: machine.spec,
      optic: record.fittings.find((f) => f.kind === "optic" && f.to === null)?.label ?? null,
      procedures: stands.map((s) => ({
        ...s.view,
        occasional: s.procedure.occasional === true,
        href: open.find((o) => o.trial.id === s.view.trialId)?.progress.href ?? null,
      })),
      next: nextStep(first?.view ?? null, progress),
    },
    open: open.map(({ trial, progress, title }) => ({
      id: trial.id,
      code: trial.code,
      title,
      machine: machine.spec.name,
      detail: progress.detail,
      begunAt: trial.begunAt,
      href: progress.href,
    })),
  };
}

const WORK = {
  stale: { action: "begin", title: (name: string) => `Measure the ${name} again` },
  drifting: { action: "begin", title: (name: string) => `Correct the ${name} again` },
  "not done": { action: "begin", title: (name: string) => `Measure the ${name}` },
  "check due": { action: "check", title: (name: string) => `Check the ${name}` },
  open: { action: "continue", title: (name: string) => `Finish the ${name}` },
  "to prove": { action: "continue", title: (name: string) => `Prove the ${name}` },
} as const;

function nextStep(
  first: (ProcedureState & { id: string; title: string }) | null,
  progress: (trialId: number) => OpenProgress & { href: string },
): NextStep {
  if (!first || first.state === "holding")
    return {
      title: "Nothing to do",
      reason: "every procedure is valid",
      action: "none" as const,
      href: null,
      procedure: null,
      stock: null,
    };
  const { action, title } = WORK[first.state];
  const opened = action === "continue" && first.trialId !== null ? progress(first.trialId) : null;
  return {
    title: title(first.title.toLowerCase()),
    reason: opened?.detail ?? first.reasons[0] ?? "never done on this machine",
    action,
    href: opened?.href ?? null,
    procedure: first.id,
    stock: first.stocks?.[0]?.newest || null,
  };
}
