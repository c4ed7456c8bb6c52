/** The workshop at a glance: machines, how their procedures stand, what to do next, what was entered last. */
import { siteIsDone } from "../core/procedures/answer";
import type { MachineSpec } from "../core/procedures/machine-spec";
import type { SettingValue } from "../core/procedures/setting";
import type { Db } from "../data/database";
import { entriesOf, ownerOfMachine } from "../data/ledger";
import { allMachines, fittedOptic, type Machine } from "../data/machines";
import { trialsOfMachine } from "../data/trials";
import { holdersToEnter } from "./correction-steps";
import { type OpenProgress, type ProcedureState, procedureState } from "./procedure-state";
import { offeredProcedures } from "./procedures";
import { type FullTrial, fullTrial, historyOf } from "./trial-record";

export type BenchProcedure = ProcedureState & { id: string; title: string };

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
export type OpenHolder = { trialId: number; code: string; machine: string; holder: string; href: string };
export type LastEntry = {
  id: number;
  label: string;
  holder: string | null;
  machine: string;
  slug: string;
  value: SettingValue | null;
  was: SettingValue | null;
  at: number;
};

export type BenchView = {
  machines: BenchMachine[];
  open: OpenTrial[];
  openHolders: OpenHolder[];
  lastEntered: LastEntry[];
};

const LAST_ENTRIES = 4;

export function benchView(db: Db, now: number): BenchView {
  const machines = allMachines(db);
  const views = machines.map((m) => benchMachine(db, m, now));
  return {
    machines: views.map((v) => v.machine),
    open: views.flatMap((v) => v.open).sort((a, b) => b.begunAt - a.begunAt),
    openHolders: views.flatMap((v) => v.openHolders),
    lastEntered: machines
      .flatMap((m) => lastEntries(db, m))
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

function benchMachine(db: Db, machine: Machine, now: number) {
  const trials = trialsOfMachine(db, machine.id);
  const procedures = offeredProcedures(machine.spec.kind).map(
    (p): BenchProcedure => ({
      id: p.id,
      title: p.title,
      ...procedureState(
        db,
        machine,
        p,
        trials.filter((t) => t.procedure === p.id),
        (id) => progressOf(db, id),
        now,
      ),
    }),
  );
  const openTrials = trials.filter((t) => t.endedAt === null);
  return {
    machine: {
      slug: machine.slug,
      spec: machine.spec,
      optic: fittedOptic(db, machine.id, now)?.label ?? null,
      procedures,
      next: nextStep(db, procedures),
    },
    open: openTrials.map((t): OpenTrial => {
      const progress = progressOf(db, t.id);
      return {
        id: t.id,
        code: t.code,
        title: fullTrial(db, t.id).procedure.title,
        machine: machine.spec.name,
        detail: progress.detail,
        begunAt: t.begunAt,
        href: progress.href,
      };
    }),
    openHolders: trials.flatMap((t) => openHoldersOf(db, fullTrial(db, t.id), machine)),
  };
}

/** Open trial first; practice order decides among equals. */
function nextStep(db: Db, procedures: readonly BenchProcedure[]): NextStep {
  const open = procedures.find((p) => p.state === "open" || p.state === "to prove");
  if (open?.trialId) {
    const progress = progressOf(db, open.trialId);
    return {
      title: `${open.state === "to prove" ? "Prove" : "Finish"} the ${open.title.toLowerCase()}`,
      reason: progress.detail,
      action: "continue",
      href: progress.href,
      procedure: open.id,
    };
  }
  for (const { state, action, title } of WORK) {
    const found = procedures.find((p) => p.state === state);
    if (found)
      return {
        title: title(found.title.toLowerCase()),
        reason: found.reasons[0] ?? "never done on this machine",
        action,
        href: null,
        procedure: found.id,
      };
  }
  return { title: "Nothing to do", reason: "every procedure holds", action: "none", href: null, procedure: null };
}

/** What comes first when nothing is open: what is known to be wrong, then what was never done, then what is due. */
const WORK = [
  { state: "stale", action: "begin", title: (name: string) => `Measure the ${name} again` },
  { state: "drifting", action: "begin", title: (name: string) => `Correct the ${name} again` },
  { state: "not done", action: "begin", title: (name: string) => `Measure the ${name}` },
  { state: "check due", action: "check", title: (name: string) => `Check the ${name}` },
] as const;

/** Holders that still have the old value while the acting one has the new. */
function openHoldersOf(db: Db, full: FullTrial, machine: Machine): OpenHolder[] {
  const round = full.rounds.findLast((r) => r.spec !== null);
  if (!round || full.trial.end === "given up") return [];
  const entries = entriesOf(db, ownerOfMachine(machine.id)).filter(
    (e) => e.trialId === full.trial.id && e.origin === "trial" && e.undoneAt === null,
  );
  if (entries.length === 0) return [];
  const holders = holdersToEnter(db, full, historyOf(full, round.n).rounds.at(-1)?.plan);
  return holders
    .filter((h) => !entries.some((e) => e.holderId === h.id))
    .map((h) => ({
      trialId: full.trial.id,
      code: full.trial.code,
      machine: machine.spec.name,
      holder: h.name,
      href: `/trial/${full.trial.id}/correct`,
    }));
}

function lastEntries(db: Db, machine: Machine): LastEntry[] {
  const entries = entriesOf(db, ownerOfMachine(machine.id)).filter((e) => e.undoneAt === null);
  return entries
    .filter((e) => e.origin !== "found")
    .slice(0, LAST_ENTRIES)
    .map((e) => ({
      id: e.id,
      label: e.setting,
      holder: e.holderName,
      machine: machine.spec.name,
      slug: machine.slug,
      value: e.value,
      was: entries.find((o) => o.id < e.id && o.setting === e.setting && o.holderId === e.holderId)?.value ?? null,
      at: e.at,
    }));
}
