/** What the controller added to the rows during a burn: readings stand on top of it. */
import type { History, RoundRecord } from "../contract";
import { slopeOfNewest } from "../learned-sense";
import type { HeldSetting } from "../machine-spec";
import { type SettingTable, tableValueAt } from "../setting";
import { SCAN_OFFSET, type ScanOffsetPlan } from "./plan-type";
import { readRound } from "./read-round";
import { fitReadings } from "./stagger";

/** Taken where a machine says nothing of how it takes the table. */
const UNKNOWN_HOLD: HeldSetting = { unit: "mm", step: 0.001, range: null, tableKind: "not known", sense: 1 };
export const EMPTY_TABLE: SettingTable = { shape: "table", rows: [] };

/** A change of the entry moves a stagger by twice as much, so three times its doubt is a cautious bound. */
const TELLS_SENSE = 3;

/** How the controller takes the table; a sense that is not known as two burns tell it, else the usual one. */
export function holdOf(history: History<ScanOffsetPlan>): HeldSetting {
  const held = history.machine.held[SCAN_OFFSET] ?? UNKNOWN_HOLD;
  return held.senseAssumed ? { ...held, sense: learnedSense(history) ?? held.sense } : held;
}

/** A larger entry that marks earlier takes off the stagger: its slope is -2, of one that marks later +2. `null` before burns tell it. */
export function learnedSense(history: History<ScanOffsetPlan>): 1 | -1 | null {
  const acting = history.rounds.filter(
    (r) => r.plan.way === "closed blocks" && r.inForce[SCAN_OFFSET]?.shape === "table",
  );
  const speeds = [...new Set(acting.flatMap((r) => r.plan.speedsMmPerS))];
  const known = speeds.map((speed) => acting.flatMap((round) => entryAndStagger(history, round, speed)));
  const change = (of: (typeof known)[number]) => Math.abs((of.at(-1)?.number ?? 0) - (of.at(-2)?.number ?? 0));
  const most = known.toSorted((a, b) => change(b) - change(a))[0] ?? [];
  const slope = slopeOfNewest(most, TELLS_SENSE);
  return slope === null ? null : slope < 0 ? 1 : -1;
}

function entryAndStagger(history: History<ScanOffsetPlan>, round: RoundRecord<ScanOffsetPlan>, speed: number) {
  const { tableKind } = history.machine.held[SCAN_OFFSET] ?? UNKNOWN_HOLD;
  const number = tableValueAt(actingTable(round), speed, tableKind);
  const read = readRound(round, history.gauges);
  if (number === null || !read.ends.some((e) => e.speedMmPerS === speed)) return [];
  const stagger = fitReadings(read, [], history.gauges)?.at(speed).quantity;
  return stagger ? [{ number, result: stagger.value, u: stagger.standardUncertainty }] : [];
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
