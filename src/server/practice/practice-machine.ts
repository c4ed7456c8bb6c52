import type { Adjustment } from "../../core/procedures/outcome";
import { SCAN_OFFSET } from "../../core/procedures/scan-offset/plan-type";
import type { SettingValue } from "../../core/procedures/setting";
import type { Db } from "../../data/database";
import { fromColumn, toColumn } from "../../data/json-column";
import type { Machine } from "../../data/machines";
import { type PracticeRow, practiceOf, setPractice } from "../../data/practice";
import { beamTurned } from "../../practice/axes-truth";
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

/**
 * What was entered at the controller of a machine, at its stand-in too; a machine without one has none to tell.
 *
 * @param value `null` = what was there before anything was written down
 * @param found what is only read back: the first time it tells what the stand-in holds
 */
export function enterInPractice(
  db: Db,
  machineId: number,
  setting: string,
  value: SettingValue | null,
  found: "found" | "entered",
): void {
  const row = practiceOf(db, machineId);
  if (!row) return;
  const controller = controllerOf(row);
  const entered = value?.shape === "scalar" ? withNumber(controller, setting, value.value, found) : null;
  if (entered) setPractice(db, machineId, { controller: toColumn(entered) });
  else if (found === "entered" && setting === SCAN_OFFSET && value?.shape !== "scalar" && value?.shape !== "map")
    setPractice(db, machineId, { controller: toColumn({ ...controller, table: value?.rows ?? [] }) });
  else if (value === null && found === "entered")
    setPractice(db, machineId, { controller: toColumn(withoutNumber(controller, setting)) });
}

function withNumber(
  controller: PracticeController,
  setting: string,
  value: number,
  found: "found" | "entered",
): PracticeController {
  const before = controller.numbers?.[setting];
  if (before && found === "found") return controller;
  return {
    ...controller,
    numbers: { ...controller.numbers, [setting]: { found: before?.found ?? value, now: value } },
  };
}

/** As it was found: nothing that was entered counts any more. */
function withoutNumber({ numbers, ...controller }: PracticeController, setting: string): PracticeController {
  const { [setting]: _, ...others } = numbers ?? {};
  return { ...controller, numbers: others };
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
