/** What a site should read, by the readings taken elsewhere on the coupon. */
import { robustLine } from "../../fitting/robust-line";
import { type Measured, measured } from "../../metrology/measured";
import type { History } from "../contract";
import { REFERENCE_SITES, siteId } from "./coupon";
import { compensatedMm } from "./in-force";
import type { ScanOffsetPlan } from "./plan-type";
import { type ReadRound, readRound } from "./read-round";
import { meanUncertaintyMm, speedsOf } from "./stagger";

/** From so many other speeds on a line tells what the next one reads. */
const LINE_FROM = 3;

/**
 * The reference step as drawn; a row end as its other end reads, else by the line through the other speeds. Signed, mm, with
 * the doubt of one more reading there. `null` where the other readings say nothing.
 */
export function expectedStagger(history: History<ScanOffsetPlan>, site: string): Measured | null {
  const round = history.rounds.at(-1);
  if (!round) return null;
  const read = readRound(round, history.gauges);
  const single = Math.max(0, ...[...read.scatter.values()].map((s) => s.sdMm));
  if ((Object.values(REFERENCE_SITES) as string[]).includes(site))
    return measured(round.plan.referenceStepMm, Math.hypot(single, commonOf(history)), Infinity);
  const place = round.plan.speedsMmPerS
    .flatMap((v) => (["left", "right"] as const).map((end) => ({ v, end })))
    .find((p) => siteId(p.v, p.end) === site);
  if (!place) return null;
  const others = { ...read, ends: read.ends.filter((e) => e.speedMmPerS !== place.v) };
  return byOtherEnd(read, place, single) ?? byLine(others, place.v, single, (v) => compensatedMm(history, round, v));
}

function byOtherEnd(read: ReadRound, place: { v: number; end: string }, single: number): Measured | null {
  const other = read.ends.find((e) => e.speedMmPerS === place.v && e.end !== place.end);
  return other ? measured(other.mean, Math.hypot(single, meanUncertaintyMm(read, other)), Infinity) : null;
}

function byLine(
  read: ReadRound,
  v: number,
  single: number,
  compensated: (speedMmPerS: number) => number,
): Measured | null {
  if (speedsOf(read).length < LINE_FROM) return null;
  const line = robustLine(
    read.ends.map((e) => ({ x: e.speedMmPerS, y: e.mean + compensated(e.speedMmPerS), u: meanUncertaintyMm(read, e) })),
  );
  return measured(line.intercept + line.slope * v - compensated(v), single, Infinity);
}

/** The common error of a gauge may put a known step off by this much more. */
function commonOf(history: History<ScanOffsetPlan>): number {
  return Math.max(0, ...history.gauges.map((g) => g.limitMm));
}
