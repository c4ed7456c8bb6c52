/** What one round of readings says: stagger by speed, the line, and whether the line may be used. */

import { type Adjustment, adjust, combine } from "../../estimate/adjustment";
import { ofReadings } from "../../estimate/model";
import { mean } from "../../fitting/repeats";
import { coverageFactor } from "../../fitting/student-t";
import { examinationOf } from "../../measuring/examined";
import { type Budgeted, times } from "../../metrology/budget";
import { freedomOf, type Measured } from "../../metrology/measured";
import { quantitiesAt } from "../../trial/answer";
import { oneOf } from "../../trial/decision";
import type { History, RoundRecord } from "../../trial/history";
import { ENDS, type RowEnd, siteId } from "./coupon";
import { compensatedMm } from "./in-force";
import { LAG, LONGER, lineRow, observeOneByOne, ownOf, START, speedsRead, staggerRow } from "./observe";
import { LAG_DIFFERENCE, type ShiftPlace, shiftPlaces, shiftRow } from "./observe-gaps";
import { observeStagger } from "./observe-line";
import type { ScanOffsetPlan } from "./plan";
import { heldShift } from "./setting";

export type SpeedResult = {
  speedMmPerS: number;
  /** Mean of the readings at an end, mm. */
  left: number | null;
  right: number | null;
  /** Stagger by the readings at this speed alone; worked out when it is asked for. */
  readonly byReadings: Budgeted;
  /** Stagger by the line, with what this speed has for itself. */
  byLine: Budgeted | null;
};

export type Analysis = {
  compensated: (speedMmPerS: number) => number;
  speeds: SpeedResult[];
  /** The line at any speed; `null` below three speeds. */
  lineAt: ((speedMmPerS: number) => Budgeted) | null;
  /** Stagger at zero speed without any table, mm. */
  constant: Budgeted | null;
  /** tau_on + tau_off, s. */
  lag: Budgeted | null;
  /** The drive keeps to a line. */
  lineFits: boolean;
  /** S_right - S_left over all speeds: right-going rows longer than left-going ones; `null` where one end alone is read. */
  endDifference: Measured | null;
  /** Shift of scanned rows against drawn lines, +X, mm: of all speeds (`null`), or speed by speed; empty without gaps. */
  shifts: { place: ShiftPlace; shift: Budgeted }[];
  /** Shift at a speed, mm; `null` where its gaps are not read. */
  shiftAt: (speedMmPerS: number) => Budgeted | null;
  /** Largest difference of the shift between two speeds, mm; `null` below two. */
  shiftSpread: Measured | null;
  /** tau_off - tau_on, s; `null` without gaps. */
  lagDifference: Budgeted | null;
  use: "line" | "readings";
};

/** Whether the table is entered by the line through the readings or by the readings themselves. */
export const USE = oneOf("table", ["line", "readings"]);

/** `null` while nothing is read. */
export function analyse(history: History<ScanOffsetPlan>, round: RoundRecord<ScanOffsetPlan>): Analysis | null {
  const examined = examinationOf(history, round, observeStagger);
  if (!examined) return null;
  const oneByOne = onceOnly(() => {
    const free = observeOneByOne(history, round);
    return free && adjust(ofReadings(free), examined.adjustment.scatter);
  });
  const chosen = USE.of(history.decisions);
  const hasLine = examined.adjustment.parameters.includes(LAG);
  const lineFits = hasLine && !examined.isLoose;
  const mayUse = hasLine && !isProof(round);
  const use = mayUse && (chosen === "line" || (chosen !== "readings" && lineFits)) ? "line" : "readings";
  const results = resultsOf(history, round, { line: examined.adjustment, oneByOne });
  return { ...results, lineFits, use };
}

/** What a burn proves is measured at each speed: a drive that bends a little would be proved by its line. */
export function isProof({ purpose }: Pick<RoundRecord, "purpose">): boolean {
  return purpose === "proof" || purpose === "check";
}

/** Works something out the first time that it is asked for. */
export function onceOnly<T>(make: () => T): () => T {
  let made: { value: T } | null = null;
  return () => {
    made ??= { value: make() };
    return made.value;
  };
}

/**
 * The same from any two adjustments of the readings of a round.
 *
 * @param oneByOne asked for only where a speed goes by its own readings; `null` where they do not tell the staggers
 */
export function resultsOf(
  history: History<ScanOffsetPlan>,
  round: RoundRecord<ScanOffsetPlan>,
  { line, oneByOne }: { line: Adjustment; oneByOne: () => Adjustment | null },
): Omit<Analysis, "lineFits" | "use"> {
  const compensated = (v: number) => compensatedMm(history, round, v);
  const speeds = speedsRead(history, round);
  const has = (id: string) => line.parameters.includes(id);
  const onLine = has(LAG) ? speeds.filter((v) => isOnLine(line, v)) : [];
  const gapSpeeds = speeds.filter((v) => Object.keys(shiftRow({ speeds: [v] })).every(has));
  const ends = ENDS.map((end) => speeds.some((v) => endMean(round, v, end) !== null));
  return {
    compensated,
    speeds: speeds.map((speedMmPerS) => ({
      speedMmPerS,
      left: endMean(round, speedMmPerS, "left"),
      right: endMean(round, speedMmPerS, "right"),
      get byReadings() {
        const alone = oneByOne();
        return alone ? combine(alone, staggerRow(speedMmPerS, [])) : combine(line, staggerRow(speedMmPerS, onLine));
      },
      byLine: onLine.includes(speedMmPerS)
        ? lowered(combine(line, staggerRow(speedMmPerS, onLine)), compensated(speedMmPerS))
        : null,
    })),
    lineAt: has(LAG) ? (v) => lowered(combine(line, lineRow(v, onLine)), compensated(v)) : null,
    constant: has(LAG) ? combine(line, { [START]: 1 }) : null,
    lag: has(LAG) ? combine(line, { [LAG]: 1 }) : null,
    shifts: shiftPlaces(gapSpeeds, heldShift(round.plan, history.machine)).map((place) => ({
      place,
      shift: combine(line, shiftRow(place)),
    })),
    shiftAt: (v) => (gapSpeeds.includes(v) ? combine(line, shiftRow({ speeds: [v] })) : null),
    shiftSpread: spreadOf(line, gapSpeeds),
    lagDifference: has(LAG_DIFFERENCE) ? combine(line, { [LAG_DIFFERENCE]: 1 }) : null,
    endDifference: ends.every(Boolean) ? combine(line, { [LONGER]: 1 }).quantity : null,
  };
}

function spreadOf(line: Adjustment, speeds: readonly number[]): Measured | null {
  const shiftOf = (v: number) => combine(line, shiftRow({ speeds: [v] })).quantity.value;
  const sorted = [...speeds].sort((a, b) => shiftOf(a) - shiftOf(b));
  const [least, most] = [sorted[0], sorted.at(-1)];
  if (least === undefined || most === undefined || least === most) return null;
  const low = Object.entries(shiftRow({ speeds: [least] })).map(([id, c]) => [id, -c]);
  return combine(line, { ...shiftRow({ speeds: [most] }), ...Object.fromEntries(low) }).quantity;
}

/** Whether the readings at a speed have part in the line. */
function isOnLine({ model }: Adjustment, speedMmPerS: number): boolean {
  return model.observations.some(
    (o) => o.reading !== null && o.row[LAG] === speedMmPerS && ownOf(speedMmPerS) in o.row,
  );
}

function lowered({ quantity, parts }: Budgeted, byMm: number): Budgeted {
  return { quantity: { ...quantity, value: quantity.value - byMm }, parts };
}

/** The stagger that counts at a speed: by the line where it is used. */
export function staggerUsed(analysis: Pick<Analysis, "use">, speed: SpeedResult): Budgeted {
  return analysis.use === "line" && speed.byLine ? speed.byLine : speed.byReadings;
}

/** What goes into the table: half of the stagger goes into each direction. */
export function offsetUsed(analysis: Pick<Analysis, "use">, speed: SpeedResult): Budgeted {
  return times(staggerUsed(analysis, speed), 1 / 2);
}

/** |m| is more than its uncertainty explains. */
export function isSignificant(m: Measured): boolean {
  return Math.abs(m.value) > coverageFactor(freedomOf(m)) * m.standardUncertainty;
}

function endMean(round: RoundRecord<ScanOffsetPlan>, speed: number, end: RowEnd): number | null {
  return meanAt(round, siteId(speed, end));
}

/** Mean of the readings at a point, mm; `null` without any. */
export function meanAt({ answers }: RoundRecord<ScanOffsetPlan>, site: string): number | null {
  const values = quantitiesAt(answers, site);
  return values.length > 0 ? mean(values) : null;
}
