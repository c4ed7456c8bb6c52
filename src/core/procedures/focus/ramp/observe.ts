/** The widths along a ramp as a model. */

import { dosePower } from "../../../beam/mark-width-law";
import type { Model } from "../../../estimate/model";
import { lengthReadings } from "../../../measuring/length-readings";
import type { History, RoundRecord } from "../../../trial/history";
import { FOCUS_ESTIMATE } from "../correction";
import { type WidthReading, widthsModel } from "../observe-widths";
import { type RampPlan, settingUncertainty } from "../plan";
import { stationSite } from "./coupon";
import { readRamp } from "./read-ramp";
import { ticksOf } from "./slope";

/** @param goneBy id of the way by which the focus is gone by, `null` where there is none */
export function observeRamp(
  history: History<RampPlan>,
  round: RoundRecord<RampPlan>,
  goneBy: () => string | null,
): Model | null {
  const { plan, answers } = round;
  const read = plan.judged === "by widths" ? readRamp(history, round) : null;
  if (!read) return null;
  const heights = ticksOf(plan).ticks.map((t) => t.heightMm);
  const zOf = new Map(heights.map((zMm) => [stationSite(zMm), zMm]));
  const readings = lengthReadings(answers, [...zOf.keys()], history.gauges, history.decisions).flatMap(
    (r): WidthReading[] => {
      const zMm = zOf.get(r.site);
      return zMm !== undefined && (r.value > 0 || r.imagined) ? [{ ...r, run: "x", zMm }] : [];
    },
  );
  if (readings.length === 0) return null;
  const chosen = readings.every((r) => r.imagined) ? null : goneBy();
  return widthsModel({
    readings,
    cells: read.widths,
    heights,
    p: dosePower(plan),
    bothWays: false,
    settingMm: settingUncertainty(plan),
    focusId: chosen === null || chosen === "widths" ? FOCUS_ESTIMATE : "widths",
  });
}
