import type { SettingValue } from "../../core/procedures/setting";
import type { Db } from "../../data/database";
import { fromColumn, toColumn } from "../../data/json-column";
import type { Machine } from "../../data/machines";
import { type PracticeRow, practiceOf, setPractice } from "../../data/practice";
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

/** What was entered at the controller of a machine, at its stand-in too; a machine without one has none to tell. */
export function enterInPractice(db: Db, machineId: number, value: SettingValue | null): void {
  const row = practiceOf(db, machineId);
  if (!row || (value !== null && value.shape !== "table")) return;
  const controller = { ...controllerOf(row), table: value?.rows ?? [] };
  setPractice(db, machineId, { controller: toColumn(controller) });
}

/** Supports of the bed were raised by hand, at its stand-in too. @param lifted places on the bed, mm */
export function raiseInPractice(
  db: Db,
  machineId: number,
  size: { widthMm: number; depthMm: number },
  lifted: readonly { x: number; y: number; mm: number }[],
  now: number,
): void {
  const row = practiceOf(db, machineId);
  const lifts = lifted.map(({ x, y, mm }) => ({ x: x - size.widthMm / 2, y: y - size.depthMm / 2, mm }));
  if (!row || lifts.length < 3) return;
  const truth = truthOf(row);
  const bed = raised(bedOf(truth, size), lifts, seeded(seedOf(truth.seed, "raised", now)));
  setPractice(db, machineId, { truth: toColumn({ ...truth, bed }) });
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
