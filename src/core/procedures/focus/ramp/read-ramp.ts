/** What was read of a ramp, as heights. */

import { lineWidth } from "../../../beam/line-width";
import type { LadderCell } from "../../../beam/width-fit";
import { withoutLeftOut } from "../../../measuring/length-readings";
import { commonUncertaintyMm, type Gauge, readingUncertaintyMm } from "../../../metrology/gauge";
import { quantitiesAt } from "../../../trial/answer";
import type { History, RoundRecord } from "../../../trial/history";
import type { RampPlan } from "../plan";
import { FIRST_SITE, LAST_SITE, stationSite, THINNEST_SITE } from "./coupon";
import { heightAlongPlate, numbersAlong, OF_STEP, type Slope, slopeOf, ticksOf } from "./slope";

export type RampReadings = {
  slope: Slope;
  /** Heights at which the line is first and last seen, from its low end; `null` = not read. */
  first: number | null;
  last: number | null;
  looks: number[];
  widths: LadderCell[];
  /** Heights at the ends of the line that was burned, rising. */
  low: number;
  high: number;
  /** Standard uncertainty of reading a place, as a height, mm. */
  placeU: number;
  /** The same of what the rule always reads wrong: common to all places, so nothing takes it out. */
  commonU: number;
};

/** Taken for a gauge of which nothing is known, mm. */
const PLACING_MM = 0.3;
const PLACES: readonly string[] = [FIRST_SITE, LAST_SITE, THINNEST_SITE];

export function readRamp(
  { gauges, decisions }: History<RampPlan>,
  { plan, answers: all }: RoundRecord<RampPlan>,
): RampReadings | null {
  const answers = withoutLeftOut(all, decisions);
  const slope = slopeOf(plan);
  if (!slope) return null;
  const { ticks, stepMm } = ticksOf(plan);
  const asHeight = (read: number) => (plan.rampRead === "rule" ? heightAlongPlate(plan, slope, read) : read);
  const at = (site: string) => quantitiesAt(answers, site).map(asHeight);
  const rule = gauges.find((g) => answers.some((a) => PLACES.includes(a.site) && a.gauge === g.id));
  return {
    slope,
    first: at(FIRST_SITE).at(-1) ?? null,
    last: at(LAST_SITE).at(-1) ?? null,
    looks: at(THINNEST_SITE),
    widths: ticks.flatMap(({ heightMm }) => widthAt(heightMm, answers, gauges)),
    ...numbersAlong(plan, slope),
    ...(plan.rampRead === "rule"
      ? {
          placeU: slope.sine * (rule ? readingUncertaintyMm(rule) : PLACING_MM),
          commonU: slope.sine * (rule ? commonUncertaintyMm(rule) : 0),
        }
      : { placeU: (OF_STEP * stepMm) / Math.sqrt(3), commonU: 0 }),
  };
}

function widthAt(heightMm: number, answers: RoundRecord["answers"], gauges: readonly Gauge[]): LadderCell[] {
  const site = stationSite(heightMm);
  const read = lineWidth(heightMm, site, answers, gauges);
  if (read) return [read];
  const isGivenUp = answers.some((a) => a.site === site && a.content.status === "cannot read");
  return isGivenUp ? [{ zMm: heightMm, status: "unmarked" }] : [];
}
