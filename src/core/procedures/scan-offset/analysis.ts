/**
 * What one round of readings says: stagger by speed, the line, which points stand off it, and whether the line may be used.
 *
 * Lack of fit: chi-squared of the line minus chi-squared of one value a speed, over the speeds less two, as an F ratio. F and
 * not chi-squared, because the scatter behind it is itself an estimate: chi-squared cries wolf twice as often as it says.
 */

import { fUpperTail } from "../../fitting/f-distribution";
import { mean } from "../../fitting/repeats";
import { FLAG_FROM_POINTS, robustLine } from "../../fitting/robust-line";
import { coverageFactor } from "../../fitting/student-t";
import type { Budgeted } from "../../metrology/budget";
import { freedomOf, type Measured, measured } from "../../metrology/measured";
import type { History, RoundRecord } from "../contract";
import { compensatedMm, entryInForce } from "./in-force";
import type { ScanOffsetPlan } from "./plan-type";
import { type ReadRound, readRound } from "./read-round";
import { fitLine, fitReadings, meanUncertaintyMm, type StaggerFit, speedsOf, widened } from "./stagger";

/** A line is believed unless readings like these came by chance less often than this. */
const LACK_OF_FIT_BELOW = 0.001;
/** Below this chance the line is still believed, but its doubt is widened by how far the readings depart from it. */
const WIDENED_BELOW = 0.15;
const LINE_FROM_SPEEDS = 3;

export type SpeedResult = {
  speedMmPerS: number;
  left: number | null;
  right: number | null;
  byReadings: Budgeted;
  byLine: Budgeted | null;
  /** Stands off the line of the others and was not accepted. */
  inDoubt: boolean;
};

export type Analysis = {
  read: ReadRound;
  others: ReadRound[];
  /** Speeds that the line stands on. */
  trusted: number[];
  /** How much the readings depart from the line beyond their own scatter; 1 where they do not. */
  birgeRatio: number;
  compensated: (speedMmPerS: number) => number;
  speeds: SpeedResult[];
  line: StaggerFit | null;
  /** Stagger at zero speed without any table, mm. */
  constant: Budgeted | null;
  /** tau_on + tau_off, s. */
  lag: Budgeted | null;
  lineFits: boolean;
  /** S_right - S_left over all speeds: right-going rows longer than left-going ones. */
  endDifference: Measured | null;
  use: "line" | "readings";
};

export const USE = "table";
export const acceptKey = (speedMmPerS: number) => `accept:${speedMmPerS}`;

/** `null` while nothing is read. */
export function analyse(history: History<ScanOffsetPlan>, round: RoundRecord<ScanOffsetPlan>): Analysis | null {
  const read = readRound(round, history.gauges);
  const others = history.rounds.filter((r) => r !== round).map((r) => readRound(r, history.gauges));
  const byReadings = fitReadings(read, others, history.gauges);
  if (!byReadings) return null;
  const speeds = speedsOf(read);
  const compensated = (v: number) => compensatedMm(history, round, v);
  const known = speeds.filter((v) => entryInForce(history, round, v) !== null);
  const doubted = flaggedSpeeds(byReadings, known, compensated).filter(
    (v) => history.decisions[acceptKey(v)] !== "yes",
  );
  const trusted = known.filter((v) => !doubted.includes(v));
  const bare = fitLine(read, others, history.gauges, trusted, compensated);
  const trustedOnly = { ...read, ends: read.ends.filter((e) => trusted.includes(e.speedMmPerS)) };
  const free = trusted.length === speeds.length ? byReadings : fitReadings(trustedOnly, others, history.gauges);
  const departure = bare && free ? departureOf(bare, free, trusted.length) : null;
  const chance = departure === null ? 1 : fUpperTail(departure, trusted.length - 2, leastFreedom(read));
  const birgeRatio = departure !== null && chance < WIDENED_BELOW ? Math.max(1, Math.sqrt(departure)) : 1;
  const line = bare && widened(bare, birgeRatio);
  const lineFits = departure !== null && chance >= LACK_OF_FIT_BELOW;
  const chosen = history.decisions[USE];
  const use = chosen === "line" && line ? "line" : chosen === "readings" || !lineFits ? "readings" : "line";
  return {
    read,
    others,
    trusted,
    birgeRatio,
    compensated,
    speeds: speeds.map((speedMmPerS) => ({
      speedMmPerS,
      left: endMean(read, speedMmPerS, "left"),
      right: endMean(read, speedMmPerS, "right"),
      byReadings: byReadings.at(speedMmPerS),
      byLine: line && known.includes(speedMmPerS) ? line.at(speedMmPerS) : null,
      inDoubt: doubted.includes(speedMmPerS),
    })),
    line,
    constant: line ? line.coefficient(0) : null,
    lag: line ? line.coefficient(1) : null,
    lineFits,
    endDifference: endDifference(read),
    use,
  };
}

/** The stagger that counts at a speed: by the line where it is used and the point is trusted. */
export function staggerUsed(analysis: Analysis, speed: SpeedResult): Budgeted {
  return analysis.use === "line" && speed.byLine && !speed.inDoubt ? speed.byLine : speed.byReadings;
}

/** |m| is more than its own doubt explains. */
export function isSignificant(m: Measured): boolean {
  return Math.abs(m.value) > coverageFactor(freedomOf(m)) * m.standardUncertainty;
}

/** Ratio of what the line leaves to what the readings scatter by themselves; `null` below three speeds. */
function departureOf(line: StaggerFit, free: StaggerFit, speeds: number): number | null {
  return speeds < LINE_FROM_SPEEDS ? null : Math.max(0, line.chiSquared - free.chiSquared) / (speeds - 2);
}

function flaggedSpeeds(
  fit: StaggerFit,
  speeds: readonly number[],
  compensated: (speedMmPerS: number) => number,
): number[] {
  if (speeds.length < FLAG_FROM_POINTS) return [];
  const points = speeds.map((x) => {
    const m = fit.at(x).quantity;
    return { x, y: m.value + compensated(x), u: m.standardUncertainty };
  });
  return robustLine(points).flagged.map((i) => speeds[i] as number);
}

function leastFreedom(read: ReadRound): number {
  return Math.min(...[...read.scatter.values()].map((s) => s.degreesOfFreedom));
}

function endMean(read: ReadRound, speed: number, end: "left" | "right"): number | null {
  const groups = read.ends.filter((e) => e.speedMmPerS === speed && e.end === end);
  return groups.length > 0 ? mean(groups.flatMap((g) => new Array<number>(g.count).fill(g.mean))) : null;
}

/** The common error of the gauge cancels in this difference, as both ends have the same sign. */
function endDifference(read: ReadRound): Measured | null {
  const pairs = read.ends.flatMap((left) => {
    if (left.end !== "left") return [];
    const right = read.ends.find(
      (e) => e.end === "right" && e.speedMmPerS === left.speedMmPerS && e.session === left.session,
    );
    if (!right) return [];
    const u = Math.hypot(meanUncertaintyMm(read, left), meanUncertaintyMm(read, right));
    return [{ difference: right.mean - left.mean, u, gauge: left.gauge }];
  });
  if (pairs.length === 0) return null;
  const freedom = Math.min(...pairs.map((p) => read.scatter.get(p.gauge)?.degreesOfFreedom ?? Infinity));
  return measured(mean(pairs.map((p) => p.difference)), Math.hypot(...pairs.map((p) => p.u)) / pairs.length, freedom);
}
