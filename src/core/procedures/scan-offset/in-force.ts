/** What the controller added to the rows during a burn: readings stand on top of it. */
import type { History, RoundRecord } from "../contract";
import type { HeldSetting } from "../machine-spec";
import { type SettingTable, tableValueAt } from "../setting";
import { SCAN_OFFSET, type ScanOffsetPlan } from "./plan-type";

/** Taken where a machine says nothing of how it takes the table. */
const UNKNOWN_HOLD: HeldSetting = { unit: "mm", step: 0.001, range: null, tableKind: "not known", sense: 1 };
export const EMPTY_TABLE: SettingTable = { shape: "table", rows: [] };

export function holdOf(history: History<ScanOffsetPlan>): HeldSetting {
  return history.machine.held[SCAN_OFFSET] ?? UNKNOWN_HOLD;
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
