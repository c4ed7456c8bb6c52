/** The workshop at a glance: machines, how their procedures stand, what to do next, what waits, what was entered last. */

import type { LengthUnit, UnitId } from "../../core/metrology/units";
import type { SettingValue } from "../../core/settings/setting";
import { entryBefore } from "../../core/settings/setting-history";
import { type DamagedOne, damagedRows } from "../../data/damaged-rows";
import type { Db } from "../../data/database";
import { eachSound } from "../../data/json-column";
import { allMachines, damagedMachines, everyMachine } from "../../data/machines";
import { toPutBackOf } from "../../data/put-back";
import { hasDemoBench } from "../demo/demo-bench";
import { behindOf } from "../machine/open-holders";
import { type PutBackView, putBackViews } from "../machine/to-put-back-view";
import { damagedPractice } from "../practice/practice-view";
import { type MachineRecord, machineRecord } from "../procedures/machine-record";
import { settingLabel, settingUnit } from "../procedures/settings";
import { type BenchMachine, benchMachine, type OpenTrial } from "./bench-machine";

export type OpenHolder = {
  key: string;
  label: string;
  machine: string;
  holder: string;
  code: string | null;
  href: string;
};
export type OpenPutBack = PutBackView & { machine: string; slug: string };
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

/** A machine with a damaged row. */
export type DamagedMachine = { slug: string; name: string; column: string };

export type BenchView = {
  machines: BenchMachine[];
  /** The rest of the bench is shown as it is. */
  damaged: DamagedMachine[];
  /** Other damaged rows. Every list leaves them out. */
  damagedToo: DamagedOne[];
  archived: { slug: string; name: string }[];
  open: OpenTrial[];
  openHolders: OpenHolder[];
  putBack: OpenPutBack[];
  lastEntered: LastEntry[];
  /** Whether the demo bench can be opened beside these machines. */
  canOpenDemo: boolean;
};

const LAST_ENTRIES = 4;

export function benchView(db: Db, now: number, length: LengthUnit = "mm"): BenchView {
  const { sound, damaged } = eachSound(allMachines(db), (m) => {
    const record = machineRecord(db, m);
    return { record, view: benchMachine(db, record, { now, length }) };
  });
  const [records, views] = [sound.map((s) => s.record), sound.map((s) => s.view)];
  return {
    machines: views.map((v) => v.machine),
    damaged: [
      ...damagedMachines(db).map(({ slug, column }) => ({ slug, name: slug, column })),
      ...damaged.map(({ item, column }) => ({ slug: item.slug, name: item.spec.name, column })),
    ],
    damagedToo: [...damagedRows(db), ...damagedPractice(db)],
    archived: everyMachine(db)
      .filter((m) => m.archivedAt !== null)
      .map((m) => ({ slug: m.slug, name: m.spec.name })),
    open: views.flatMap((v) => v.open).sort((a, b) => b.begunAt - a.begunAt),
    openHolders: records.flatMap(openHoldersOf),
    putBack: records.flatMap(({ machine, entries }) =>
      putBackViews(machine, toPutBackOf(db, machine.id), entries).map((item) => ({
        ...item,
        machine: machine.spec.name,
        slug: machine.slug,
      })),
    ),
    lastEntered: records
      .flatMap(lastEntries)
      .sort((a, b) => b.at - a.at)
      .slice(0, LAST_ENTRIES),
    canOpenDemo: !hasDemoBench(db),
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
