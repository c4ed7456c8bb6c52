import type { SettingValue } from "../../core/procedures/setting";
import type { Db } from "../../data/database";
import { fromColumn, toColumn } from "../../data/json-column";
import { type PracticeRow, practiceOf, setPractice } from "../../data/practice";
import {
  type GantryTruth,
  gantryFromSeed,
  gantryTruthSchema,
  type PracticeController,
  practiceControllerSchema,
} from "../../practice/gantry-truth";
import { Refusal } from "../refusal";

/** What a month of use adds. (invented) */
const LAG_A_MONTH_S = 1.5e-6;
const PLAY_A_MONTH_MM = 0.0005;

export function truthOf(row: PracticeRow): GantryTruth {
  return fromColumn(gantryTruthSchema, row.truth, "practice_machine.truth");
}

export function controllerOf(row: PracticeRow): PracticeController {
  return fromColumn(practiceControllerSchema, row.controller, "practice_machine.controller");
}

/** What was entered at the controller of a machine, at its stand-in too; a machine without one has none to tell. */
export function enterInPractice(db: Db, machineId: number, value: SettingValue | null): void {
  const row = practiceOf(db, machineId);
  if (!row || (value !== null && value.shape !== "table")) return;
  const controller = { ...controllerOf(row), table: value?.rows ?? [] };
  setPractice(db, machineId, { controller: toColumn(controller) });
}

/** Shows the hidden truth from now on. */
export function reveal(db: Db, machineId: number, now: number): void {
  setPractice(db, machineId, { revealedAt: now });
}

/** Another machine behind the same name: new hidden truth, empty table. */
export function renew(db: Db, machineId: number, seed: number): void {
  const controller: PracticeController = { table: [], switchedOn: true };
  setPractice(db, machineId, {
    truth: toColumn(gantryFromSeed(seed)),
    controller: toColumn(controller),
    revealedAt: null,
  });
}

/** Months of use: belts give, and the beam comes a little later. */
export function wear(db: Db, machineId: number, months: number): void {
  const row = practiceOf(db, machineId);
  if (!row) throw new Refusal("machine", "There is no practice machine here.");
  const truth = truthOf(row);
  setPractice(db, machineId, {
    truth: toColumn({
      ...truth,
      lagOnS: truth.lagOnS + months * LAG_A_MONTH_S,
      lagOffS: truth.lagOffS + months * LAG_A_MONTH_S,
      playMm: truth.playMm + months * PLAY_A_MONTH_MM,
    }),
  });
}

/** Switches the correction of the practice controller on or off. */
export function switchCorrection(db: Db, machineId: number, on: boolean): void {
  const row = practiceOf(db, machineId);
  if (!row) throw new Refusal("machine", "There is no practice machine here.");
  setPractice(db, machineId, { controller: toColumn({ ...controllerOf(row), switchedOn: on }) });
}
