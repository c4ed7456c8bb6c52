/** Practice machines as the page receives them: the truth only where it was asked for. */

import type { MachineKind } from "../../core/machine/machine-kind";
import { valueText } from "../../core/settings/entry-text";
import type { DamagedOne } from "../../data/damaged-rows";
import type { Db } from "../../data/database";
import { eachSound } from "../../data/json-column";
import { allMachines, type Machine } from "../../data/machines";
import { fittedNow } from "../../data/parts";
import { practiceOf } from "../../data/practice";
import type { PracticeController } from "../../practice/gantry-truth";
import { shownFocus } from "../../practice/head-height";
import { heightsOf, type PracticeTruth, rotaryTruthOf } from "../../practice/practice-truth";
import { type RotaryTruth, settingOfKey } from "../../practice/rotary-truth";
import { settingLabel, settingUnit } from "../procedures/settings";
import { controllerOf, truthOf } from "./practice-machine";

export type PracticeMachineView = {
  slug: string;
  name: string;
  kind: MachineKind;
  controller: PracticeController;
  /** Numbers that it holds besides, as they are entered: `Axis scale X: 6.249 µm`. */
  numbers: string[];
  truth: PracticeTruth | null;
  /** Of its beam, with the truth: the height shown where it is narrowest, its radius there, its focal depth, mm; grain of the stock, a share. */
  beam: { shownFocusMm: number; radiusMm: number; depthMm: number; playMm: number; grain: number } | null;
  /** With the truth; `null` also where none is fitted. */
  rotary: { name: string; truth: RotaryTruth } | null;
};

/** The rotary that is fitted, as it really is. */
function rotaryOn(db: Db, machineId: number, truth: PracticeTruth): PracticeMachineView["rotary"] {
  const { rotary } = fittedNow(db, machineId);
  return rotary ? { name: rotary.label, truth: rotaryTruthOf(truth, rotary.label, rotary.drive) } : null;
}

export function practiceView(db: Db): PracticeMachineView[] {
  return eachSound(allMachines(db), (m): PracticeMachineView[] => {
    const row = practiceOf(db, m.id);
    if (!row) return [];
    return [
      {
        slug: m.slug,
        name: m.spec.name,
        kind: m.spec.kind,
        controller: controllerOf(row),
        numbers: numbersOf(m, controllerOf(row)),
        truth: row.revealedAt === null ? null : truthOf(row),
        beam: row.revealedAt === null ? null : beamOf(truthOf(row)),
        rotary: row.revealedAt === null ? null : rotaryOn(db, m.id, truthOf(row)),
      },
    ];
  }).sound.flat();
}

/** Practice machines with damaged data. */
export function damagedPractice(db: Db): DamagedOne[] {
  const found = allMachines(db).flatMap((m) => {
    const row = practiceOf(db, m.id);
    return row ? [{ name: m.spec.name, row }] : [];
  });
  return eachSound(found, ({ row }) => ({ controller: controllerOf(row), truth: truthOf(row) })).damaged.map(
    ({ item, column }) => ({ of: `the practice machine of ${item.name}`, column }),
  );
}

function numbersOf({ spec }: Machine, { numbers = {} }: PracticeController): string[] {
  return Object.entries(numbers).map(([key, { now }]) => {
    const { setting, rotary } = settingOfKey(key);
    const label = settingLabel(spec.kind, setting);
    return `${label}${rotary ? `, ${rotary}` : ""}: ${valueText({ shape: "scalar", value: now }, settingUnit(spec, setting))}`;
  });
}

function beamOf(truth: PracticeTruth): PracticeMachineView["beam"] {
  const focus = heightsOf(truth);
  const { waistMm, m2, wavelengthMm } = focus.beam;
  return {
    shownFocusMm: shownFocus(focus),
    radiusMm: waistMm,
    playMm: focus.screwPlayMm,
    grain: focus.stock.grain?.sd ?? 0,
    depthMm: (Math.PI * waistMm ** 2) / (m2 * wavelengthMm),
  };
}
