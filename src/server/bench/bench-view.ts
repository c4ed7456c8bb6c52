/** The workshop at a glance: machines, how their procedures stand, what to do next, what waits, what was entered last. */

import type { LengthUnit, UnitId } from "../../core/metrology/units";
import { siteIsDone } from "../../core/procedures/answer";
import type { MachineSpec } from "../../core/procedures/machine-spec";
import { firstToDo } from "../../core/procedures/next-step";
import type { SettingValue } from "../../core/procedures/setting";
import { entryBefore } from "../../core/procedures/setting-history";
import type { Db } from "../../data/database";
import { entriesOf, ownerOfMachine } from "../../data/ledger";
import { allMachines, everyMachine } from "../../data/machines";
import { fittedPart } from "../../data/parts";
import { toPutBackOf } from "../../data/put-back";
import { type MachineRecord, machineRecord } from "../machine/machine-record";
import { behindOf } from "../machine/open-holders";
import { type OpenProgress, type ProcedureState, procedureState, type Seen } from "../procedures/procedure-state";
import { offeredProcedures } from "../procedures/procedures";
import { settingLabel, settingUnit } from "../procedures/settings";
import { fullTrial } from "../trial/trial-record";

export type BenchProcedure = ProcedureState & {
  id: string;
  title: string;
  /** Where its open trial is continued. */
  href: string | null;
};

export type NextStep = {
  title: string;
  reason: string;
  action: "continue" | "begin" | "check" | "none";
  /** Address for continuing. */
  href: string | null;
  procedure: string | null;
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
/** A place that still has an older value than the controller. */
export type OpenHolder = {
  key: string;
  label: string;
  machine: string;
  holder: string;
  code: string | null;
  href: string;
};
export type OpenPutBack = { id: number; what: string; machine: string; slug: string; openedAt: number };
export type LastEntry = {
  id: number;
  label: string;
  holder: string | null;
  machine: string;
  slug: string;
  value: SettingValue | null;
  was: SettingValue | null;
  unit: UnitId;
  at: number;
};

export type BenchView = {
  machines: BenchMachine[];
  archived: { slug: string; name: string }[];
  open: OpenTrial[];
  openHolders: OpenHolder[];
  putBack: OpenPutBack[];
  lastEntered: LastEntry[];
};

const LAST_ENTRIES = 4;

export function benchView(db: Db, now: number, length: LengthUnit = "mm"): BenchView {
  const records = allMachines(db).map((m) => machineRecord(db, m));
  const views = records.map((r) => benchMachine(db, r, { now, length }));
  return {
    machines: views.map((v) => v.machine),
    archived: everyMachine(db)
      .filter((m) => m.archivedAt !== null)
      .map((m) => ({ slug: m.slug, name: m.spec.name })),
    open: views.flatMap((v) => v.open).sort((a, b) => b.begunAt - a.begunAt),
    openHolders: records.flatMap(openHoldersOf),
    putBack: records.flatMap(({ machine }) =>
      toPutBackOf(db, machine.id).map(({ id, what, openedAt }) => ({
        ...{ id, what, openedAt },
        ...{ machine: machine.spec.name, slug: machine.slug },
      })),
    ),
    lastEntered: records
      .flatMap(lastEntries)
      .sort((a, b) => b.at - a.at)
      .slice(0, LAST_ENTRIES),
  };
}

/** Where an open trial is continued, and what is left to do there. */
export function progressOf(db: Db, trialId: number): OpenProgress & { href: string } {
  const full = fullTrial(db, trialId);
  const last = full.rounds.at(-1);
  const proof = last?.purpose === "proof";
  const check = last?.purpose === "check";
  const at = (stage: string) => `/trial/${trialId}/${stage}${last && last.n > 1 ? `?round=${last.n}` : ""}`;
  const name = proof ? "the proof" : check ? "the check" : "the coupon";
  if (!last?.spec)
    return proof
      ? { stage: "burn", detail: "waiting for the proof burn", toProve: true, href: at("burn") }
      : { stage: "lay-out", detail: "being laid out", toProve: false, href: at("lay-out") };
  const answers = last.readings.map((r) => r.answer);
  const done = last.spec.sites.filter((s) => siteIsDone(s, answers)).length;
  const total = last.spec.sites.length;
  if (done < total)
    return { stage: "read", detail: `${done} of ${total} sites of ${name} read`, toProve: proof, href: at("read") };
  if (proof || check)
    return { stage: "prove", detail: "verdict to accept", toProve: proof, href: `/trial/${trialId}/prove` };
  const recorded = entriesOf(db, ownerOfMachine(full.trial.machineId)).some(
    (e) => e.trialId === trialId && e.origin === "trial" && e.undoneAt === null,
  );
  return recorded
    ? { stage: "prove", detail: "recorded, proof not burned", toProve: true, href: `/trial/${trialId}/prove` }
    : { stage: "correct", detail: "read, correction to enter", toProve: false, href: at("correct") };
}

/** One machine as it stands on the bench, with its open trials. */
export function benchMachine(db: Db, record: MachineRecord, seen: Seen): { machine: BenchMachine; open: OpenTrial[] } {
  const { machine } = record;
  const open = record.trials
    .filter((t) => t.endedAt === null)
    .map((t) => ({ trial: t, progress: progressOf(db, t.id), title: fullTrial(db, t.id).procedure.title }));
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
      optic: fittedPart(db, machine.id, "optic", seen.now)?.label ?? null,
      procedures: stands.map((s) => ({
        ...s.view,
        href: open.find((o) => o.trial.id === s.view.trialId)?.progress.href ?? null,
      })),
      next: nextStep(first?.view ?? null, progress),
    },
    open: open.map(({ trial, progress, title }) => ({
      ...{ id: trial.id, code: trial.code, title, machine: machine.spec.name },
      ...{ detail: progress.detail, begunAt: trial.begunAt, href: progress.href },
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
    return { title: "Nothing to do", reason: "every procedure holds", action: "none", href: null, procedure: null };
  const { action, title } = WORK[first.state];
  const opened = action === "continue" && first.trialId !== null ? progress(first.trialId) : null;
  return {
    title: title(first.title.toLowerCase()),
    reason: opened?.detail ?? first.reasons[0] ?? "never done on this machine",
    action,
    href: opened?.href ?? null,
    procedure: first.id,
  };
}

function openHoldersOf(record: MachineRecord): OpenHolder[] {
  const { machine } = record;
  return behindOf(record).map(({ setting, holder, newest }) => ({
    key: `${machine.id} ${setting} ${holder.id}`,
    label: settingLabel(machine.spec.kind, setting),
    machine: machine.spec.name,
    holder: holder.name,
    code: newest.trialCode,
    href: newest.trialId === null ? `/machine/${machine.slug}` : `/trial/${newest.trialId}/correct`,
  }));
}

function lastEntries({ machine, entries }: MachineRecord): LastEntry[] {
  return entries
    .filter((e) => e.origin !== "found")
    .slice(0, LAST_ENTRIES)
    .map((e) => ({
      id: e.id,
      label: settingLabel(machine.spec.kind, e.setting),
      holder: e.holderName,
      machine: machine.spec.name,
      slug: machine.slug,
      value: e.value,
      was: entryBefore(entries, e)?.value ?? null,
      unit: settingUnit(machine.spec, e.setting),
      at: e.at,
    }));
}
