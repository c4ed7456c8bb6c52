/** What the controller added to the rows during a burn: readings stand on top of it. */

import { slopeOfNewest, type ValueAndResult } from "../../settings/learned-sense";
import type { HeldSetting } from "../../settings/setting";
import { type SettingTable, tableValueAt } from "../../settings/setting";
import type { History, RoundRecord } from "../../trial/history";
import { staggersOneByOne } from "./observe";
import { SCAN_OFFSET, type ScanOffsetPlan } from "./plan";

/** Taken where a machine says nothing of how it takes the table. */
const UNKNOWN_HOLD: HeldSetting = { unit: "mm", step: 0.001, range: null, tableKind: "not known", sense: 1 };
export const EMPTY_TABLE: SettingTable = { shape: "table", rows: [] };

/** Two burns show the sense if the stagger changed by more than this many standard uncertainties. */
const TELLS_SENSE = 3;

/** How the controller uses the table. A sense that is not known comes from two burns, and before them it is the assumed one. */
export function holdOf(history: History<ScanOffsetPlan>): HeldSetting {
  const held = history.machine.held[SCAN_OFFSET] ?? UNKNOWN_HOLD;
  return held.senseAssumed ? { ...held, sense: learnedSense(history) ?? held.sense } : held;
}

/**
 * The sense from the speed whose entry changed most. The slope of the stagger is -2 if a larger entry marks earlier, and +2 if later.
 *
 * @returns `null` until two burns as closed blocks show it
 */
export function learnedSense(history: History<ScanOffsetPlan>): 1 | -1 | null {
  const { tableKind } = history.machine.held[SCAN_OFFSET] ?? UNKNOWN_HOLD;
  const bySpeed = new Map<number, ValueAndResult[]>();
  for (const round of history.rounds) {
    if (round.plan.way !== "closed blocks" || round.inForce[SCAN_OFFSET]?.shape !== "table") continue;
    for (const { speedMmPerS, stagger } of staggersOneByOne(history, round)) {
      const value = tableValueAt(actingTable(round), speedMmPerS, tableKind);
      if (value === null) continue;
      const burns = bySpeed.get(speedMmPerS) ?? [];
      burns.push({ value, result: stagger.value, u: stagger.standardUncertainty });
      bySpeed.set(speedMmPerS, burns);
    }
  }
  const change = (burns: readonly ValueAndResult[]) =>
    Math.abs((burns.at(-1)?.value ?? 0) - (burns.at(-2)?.value ?? 0));
  const [most = []] = [...bySpeed.values()].sort((a, b) => change(b) - change(a));
  const slope = slopeOfNewest(most, TELLS_SENSE);
  if (slope === null) return null;
  return slope < 0 ? 1 : -1;
}

/** The table that acted on the rows: nothing does on bare strokes. */
function actingTable(round: RoundRecord<ScanOffsetPlan>): SettingTable {
  const held = round.inForce[SCAN_OFFSET];
  return round.plan.way !== "bare strokes" && held?.shape === "table" ? held : EMPTY_TABLE;
}

/** The entry in force at a speed, mm; `null` where it cannot be known. */
export function entryInForce(
  history: History<ScanOffsetPlan>,
  round: RoundRecord<ScanOffsetPlan>,
  speedMmPerS: number,
): number | null {
  const kind = round.plan.way === "own strokes" ? "interpolated" : holdOf(history).tableKind;
  return tableValueAt(actingTable(round), speedMmPerS, kind);
}

/**
 * What the entry in force takes off the stagger at a speed, mm: the stagger without any table is on a line, not what is left
 * of it. 0 where the entry is not known.
 */
export function compensatedMm(
  history: History<ScanOffsetPlan>,
  round: RoundRecord<ScanOffsetPlan>,
  speedMmPerS: number,
): number {
  return 2 * holdOf(history).sense * (entryInForce(history, round, speedMmPerS) ?? 0);
}
