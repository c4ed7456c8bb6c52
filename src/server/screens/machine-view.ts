/** A machine as its page receives it. */

import { CHANGES, type ChangeKind, changesOn } from "../../core/machine/change";
import type { MachineKind } from "../../core/machine/machine-kind";
import { machineKindSchema } from "../../core/machine/machine-spec";
import type { Effect } from "../../core/machine/need";
import type { PartKind, PartSpec } from "../../core/machine/part-spec";
import type { LengthUnit, UnitId } from "../../core/metrology/units";
import { isHeldBy, type SettingSpec } from "../../core/settings/setting";
import type { Db } from "../../data/database";
import type { MachineEvent } from "../../data/events";
import type { LedgerEntry } from "../../data/ledger";
import { everyHolderOf, everyMachine, type HolderRole, type Machine, machineBySlug } from "../../data/machines";
import { allParts, type Fitting, fittedAt, fittedPart } from "../../data/parts";
import { practiceOf } from "../../data/practice";
import { toPutBackOf } from "../../data/put-back";
import { historyWords } from "../machine/archive-steps";
import { type PutBackView, putBackViews } from "../machine/to-put-back-view";
import { controllerOf, tablesOf } from "../practice/practice-machine";
import { type MachineRecord, machineRecord } from "../procedures/machine-record";
import { offeredProcedures } from "../procedures/procedures";
import { settingsOf, settingUnit } from "../procedures/settings";
import { holdsNow } from "../trial/trial-record";
import { type BenchMachine, benchMachine } from "./bench-machine";
import { type PlanView, planView } from "./plan-view";

/** A setting of a machine that a procedure corrects. */
export type KeptSetting = Pick<
  SettingSpec,
  | "key"
  | "label"
  | "shape"
  | "unit"
  | "larger"
  | "usualStep"
  | "usualSense"
  | "senseLabel"
  | "dimensions"
  | "about"
  | "effect"
> & {
  /** `null` where every machine has it. */
  onlyWhere: string | null;
};

export type MachineFormView = { settings: Record<MachineKind, KeptSetting[]> };

/** What the form asks for, by kind of machine. */
export function machineFormView(): MachineFormView {
  const kinds = machineKindSchema.options;
  const kept = (kind: MachineKind): KeptSetting[] =>
    settingsOf(kind)
      .filter((s) => s.shape !== "map")
      .map(({ onlyWhere = null, ...setting }) => ({ ...setting, onlyWhere }));
  return {
    settings: Object.fromEntries(kinds.map((kind) => [kind, kept(kind)])) as Record<MachineKind, KeptSetting[]>,
  };
}

/** One setting at one holder. */
export type HeldView = {
  setting: SettingSpec;
  unit: UnitId;
  holder: { id: number; name: string; role: HolderRole };
  /** In force; `null` where nothing was written down yet. */
  entry: LedgerEntry | null;
};

export type PartView = {
  id: number;
  spec: PartSpec;
  archived: boolean;
  /** Name of the machine it is fitted to now. */
  on: string | null;
};

export type ChangeView = { kind: ChangeKind; label: string; effects: { title: string; effect: Effect }[] };

export type MachineView = BenchMachine & {
  archived: boolean;
  /** The work on it in order; `null` if nothing is open. */
  plan: PlanView | null;
  held: HeldView[];
  /** Holders of all times. */
  holders: { id: number; name: string; role: HolderRole; away: boolean }[];
  parts: PartView[];
  fitted: Record<PartKind, Fitting | null>;
  /** Newest first. */
  fittings: Fitting[];
  changes: ChangeView[];
  events: MachineEvent[];
  putBack: PutBackView[];
  /** What hangs on it; `null` where it may be deleted. */
  history: string | null;
  practiceTables: Record<string, { at: number; value: number }[]> | null;
};

/** `undefined` where there is none of this address. */
export function machineName(db: Db, slug: string): string | undefined {
  return machineBySlug(db, slug)?.spec.name;
}

/** `undefined` where there is none of this address. */
export function machineView(db: Db, slug: string, now: number, length: LengthUnit = "mm"): MachineView | undefined {
  const machine = machineBySlug(db, slug);
  if (!machine) return undefined;
  const record = machineRecord(db, machine);
  const practice = practiceOf(db, machine.id);
  const bench = benchMachine(db, record, { now, length }).machine;
  return {
    ...bench,
    archived: machine.archivedAt !== null,
    plan: machine.archivedAt === null ? planView(db, record, bench.procedures) : null,
    held: heldBy(record),
    holders: everyHolderOf(db, machine.id).map(({ id, name, role, archivedAt }) => ({
      id,
      name,
      role,
      away: archivedAt !== null,
    })),
    parts: allParts(db).map(({ id, spec, archivedAt }) => ({
      id,
      spec,
      archived: archivedAt !== null,
      on: nameOf(db, fittedAt(db, id)?.machineId),
    })),
    fitted: {
      optic: fittedPart(db, machine.id, "optic", now) ?? null,
      rotary: fittedPart(db, machine.id, "rotary", now) ?? null,
    },
    fittings: [...record.fittings].reverse(),
    changes: changesOn(machine.spec.kind).map((kind) => ({
      kind,
      label: CHANGES[kind].label,
      effects: effectsOf(machine, kind),
    })),
    events: record.events,
    putBack: putBackViews(machine, toPutBackOf(db, machine.id), record.entries),
    history: historyWords(db, machine),
    practiceTables: practice ? tablesOf(controllerOf(practice)) : null,
  };
}

/** In practice order of the settings, each where it is kept; the one that acts on burns first. */
function heldBy({ machine, holders, entries, fittings }: MachineRecord): HeldView[] {
  const inUse = holders.filter((h) => h.archivedAt === null);
  const written = new Set(entries.map((e) => e.setting));
  const settings = settingsOf(machine.spec.kind).filter((s) => isHeldBy(s, machine.spec.held, written));
  return settings.flatMap((setting) =>
    inUse
      .filter((h) => setting.copied || h.role === "controller")
      .map(({ id, name, role }) => ({
        setting,
        unit: settingUnit(machine.spec, setting.key),
        holder: { id, name, role },
        entry:
          entries.find((e) => e.setting === setting.key && e.holderId === id && holdsNow(e, setting, fittings)) ?? null,
      })),
  );
}

function effectsOf(machine: Machine, kind: ChangeKind): ChangeView["effects"] {
  return offeredProcedures(machine.spec.kind).flatMap(({ title, needs }) =>
    needs.flatMap((n) => (n.on === "change" && n.what === kind ? [{ title, effect: n.effect }] : [])),
  );
}

function nameOf(db: Db, machineId: number | undefined): string | null {
  return machineId === undefined ? null : (everyMachine(db).find((m) => m.id === machineId)?.spec.name ?? null);
}
