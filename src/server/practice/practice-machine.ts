import { withTable } from "../../burning/loaded-table";
import { actingSettings, settingByKey } from "../../core/course/acting-setting";
import { NO_NAME } from "../../core/procedures/rotary/plan";
import { type FieldTable, NO_FIELD_TABLE } from "../../core/settings/field-table";
import type { SettingValue } from "../../core/settings/setting";
import type { Adjustment } from "../../core/trial/outcome";
import type { Db } from "../../data/database";
import { fromColumn, toColumn } from "../../data/json-column";
import { type Machine, machineById } from "../../data/machines";
import { fittedNow } from "../../data/parts";
import { type PracticeRow, practiceOf, setPractice } from "../../data/practice";
import { beamTurned, type HeldNumber } from "../../practice/axes-truth";
import { raised } from "../../practice/bed";
import { type PracticeController, practiceControllerSchema } from "../../practice/gantry-truth";
import {
  bedOf,
  isGalvo,
  type PracticeTruth,
  practiceFromSeed,
  practiceTruthSchema,
} from "../../practice/practice-truth";
import { seeded, seedOf } from "../../practice/random";
import { rotaryKey } from "../../practice/rotary-truth";
import { Refusal } from "../refusal";

/** What a month of use adds. (invented) */
const LAG_A_MONTH_S = 1.5e-6;
const PLAY_A_MONTH_MM = 0.0005;
const FOCUS_A_MONTH_MM = 0.03;

export function truthOf(row: PracticeRow): PracticeTruth {
  return fromColumn(practiceTruthSchema, row.truth, "practice_machine.truth");
}

export function controllerOf(row: PracticeRow): PracticeController {
  return fromColumn(practiceControllerSchema, row.controller, "practice_machine.controller");
}

/** The tables that a practice controller stores now, by the key of their setting. */
export function tablesOf({ table, rowShifts = [] }: PracticeController): Record<string, PracticeController["table"]> {
  return { [tableKey("row ends")]: table, [tableKey("scanned rows")]: rowShifts };
}

function tableKey(on: "row ends" | "scanned rows"): string {
  return actingSettings({ on }, "table")[0]?.key ?? "";
}

/** What was read back at the controller of a machine: the first number tells what its stand-in holds, later ones change nothing there. */
export function foundInPractice(db: Db, machineId: number, setting: string, value: SettingValue | null): void {
  const key = keyOf(db, machineId, setting);
  if (value?.shape === "scalar")
    changeController(db, machineId, (held) =>
      held.numbers?.[key] ? held : withNumber(held, key, { found: value.value, now: value.value }),
    );
}

/** What belongs to a rotary is kept for the one that is fitted. */
function keyOf(db: Db, machineId: number, setting: string): string {
  if (settingByKey(setting)?.owner !== "rotary") return setting;
  return rotaryKey(setting, fittedNow(db, machineId).rotary?.label ?? NO_NAME);
}

/**
 * What was entered at the controller of a machine, at its stand-in too; a machine without one has none to tell.
 *
 * @param change from what the ledger says was there to what is there now; `null` = not known
 */
export function enterInPractice(
  db: Db,
  machineId: number,
  setting: string,
  { before, value }: { before: SettingValue | null; value: SettingValue | null },
): void {
  foundInPractice(db, machineId, setting, before ?? value);
  if (setting === actingSettings({ on: "field table" }, "map")[0]?.key) {
    loadTable(db, machineId, value?.shape === "map" ? value : NO_FIELD_TABLE);
    return;
  }
  const key = keyOf(db, machineId, setting);
  changeController(db, machineId, (held) => {
    const rows = value?.shape === "table" ? value.rows : [];
    if (setting === tableKey("scanned rows")) return { ...held, rowShifts: rows };
    if (setting === tableKey("row ends")) return { ...held, table: rows };
    const known = held.numbers?.[key];
    if (!known) return held;
    return withNumber(held, key, { ...known, now: value?.shape === "scalar" ? value.value : known.found });
  });
}

/** The controller takes the file, as a real one does. */
function loadTable(db: Db, machineId: number, table: FieldTable): void {
  const machine = machineById(db, machineId);
  if (machine) changeController(db, machineId, (held) => withTable(held, table, machine.spec));
}

function changeController(db: Db, machineId: number, change: (held: PracticeController) => PracticeController): void {
  const row = practiceOf(db, machineId);
  if (row) setPractice(db, machineId, { controller: toColumn(change(controllerOf(row))) });
}

function withNumber(held: PracticeController, setting: string, number: HeldNumber): PracticeController {
  return { ...held, numbers: { ...held.numbers, [setting]: number } };
}

/**
 * What was adjusted at a machine by hand, at its stand-in too: supports of the bed raised, the beam of the gantry shifted.
 *
 * @param way 1 = done, -1 = undone
 */
export function adjustInPractice(
  db: Db,
  machineId: number,
  size: { widthMm: number; depthMm: number },
  adjustments: readonly Adjustment[],
  way: 1 | -1,
  now: number,
): void {
  const row = practiceOf(db, machineId);
  if (!row) return;
  const truth = truthOf(row);
  const random = seeded(seedOf(truth.seed, "raised", now));
  const lifts = adjustments.flatMap(({ at, quantity }) =>
    at ? [{ x: at.x - size.widthMm / 2, y: at.y - size.depthMm / 2, mm: way * quantity.value }] : [],
  );
  const bed = lifts.length < 3 ? {} : { bed: raised(bedOf(truth, size), lifts, random) };
  const turned = adjustments.reduce((sum, { turns }) => sum + way * (turns?.byRad ?? 0), 0);
  const axes = turned === 0 || isGalvo(truth) || !truth.axes ? {} : { axes: beamTurned(truth.axes, turned, random) };
  setPractice(db, machineId, { truth: toColumn({ ...truth, ...bed, ...axes }) });
}

/** Shows the hidden truth from now on. */
export function reveal(db: Db, machineId: number, now: number): void {
  setPractice(db, machineId, { revealedAt: now });
}

/** Another machine behind the same name: new hidden truth, empty table. */
export function renew(db: Db, machine: Machine, seed: number): void {
  const controller: PracticeController = { table: [], switchedOn: true };
  setPractice(db, machine.id, {
    truth: toColumn(practiceFromSeed(seed, machine.spec)),
    controller: toColumn(controller),
    revealedAt: null,
  });
}

/** Months of use: belts give, and the beam comes a little later; the column of a galvo settles. */
export function wear(db: Db, machineId: number, months: number): void {
  const row = practiceOf(db, machineId);
  if (!row) throw new Refusal("machine", "There is no practice machine here.");
  const truth = truthOf(row);
  setPractice(db, machineId, { truth: toColumn(worn(truth, months)) });
}

function worn(truth: PracticeTruth, months: number): PracticeTruth {
  if (isGalvo(truth))
    return {
      ...truth,
      focus: { ...truth.focus, gapAtZeroMm: truth.focus.gapAtZeroMm - months * FOCUS_A_MONTH_MM },
    };
  return {
    ...truth,
    lagOnS: truth.lagOnS + months * LAG_A_MONTH_S,
    lagOffS: truth.lagOffS + months * LAG_A_MONTH_S,
    playMm: truth.playMm + months * PLAY_A_MONTH_MM,
  };
}

/** Switches the correction of the practice controller on or off. */
export function switchCorrection(db: Db, machineId: number, on: boolean): void {
  const row = practiceOf(db, machineId);
  if (!row) throw new Refusal("machine", "There is no practice machine here.");
  setPractice(db, machineId, { controller: toColumn({ ...controllerOf(row), switchedOn: on }) });
}
