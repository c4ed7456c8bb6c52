/** The widths of a ladder as a model, of all burns that are one ladder. */

import { dosePower } from "../../../beam/mark-width-law";
import type { Model } from "../../../estimate/model";
import { lengthReadings } from "../../../measuring/length-readings";
import type { History, RoundRecord } from "../../../trial/history";
import { FOCUS_ESTIMATE } from "../correction";
import { beamModel } from "../observe-beam";
import { type WidthReading, widthsModel } from "../observe-widths";
import { cellsOf, type LadderPlan, runsBothWays, settingUncertainty } from "../plan";
import { widthSite } from "./coupon";
import { ladderRounds, readLadder, runsOf } from "./read-ladder";
import { ladderOf } from "./ways";

export function observeLadder(history: History<LadderPlan>, round: RoundRecord<LadderPlan>): Model | null {
  const { plan } = round;
  if (plan.judged !== "by widths") return null;
  const rounds = ladderRounds({ ...history, rounds: [...history.rounds.filter((r) => r.n < round.n), round] }, round);
  const readings = rounds.flatMap((r) => readingsOf(history, r));
  if (readings.length === 0) return null;
  const { widths } = readLadder(history, rounds);
  const heights = rounds.flatMap((r) => cellsOf(r.plan).map((c) => c.heightMm));
  const settingMm = settingUncertainty(plan);
  const focusId = focusIdOf(history, round, readings);
  if (plan.doses === "beam") {
    const read = widths.flatMap((w) => (w.status === "marked" ? [w] : []));
    return beamModel({ readings, widths: read, heights, settingMm, focusId });
  }
  return widthsModel({
    readings,
    heights,
    settingMm,
    focusId,
    cells: widths,
    p: dosePower(plan),
    bothWays: runsBothWays(plan),
  });
}

function readingsOf({ gauges, decisions }: History<LadderPlan>, { plan, answers }: RoundRecord<LadderPlan>) {
  const places = cellsOf(plan).flatMap(({ number, heightMm }) =>
    runsOf(plan).map((run) => ({ site: widthSite(number, run), run, zMm: heightMm })),
  );
  const bySite = new Map(places.map((p) => [p.site, p]));
  const sites = places.map((p) => p.site);
  return lengthReadings(answers, sites, gauges, decisions).flatMap((r): WidthReading[] => {
    const place = bySite.get(r.site);
    // Nothing between the jaws is no width.
    return place && (r.value > 0 || r.imagined) ? [{ ...r, run: place.run, zMm: place.zMm }] : [];
  });
}

/** The focus that is gone by, where that is by the widths. */
function focusIdOf(
  history: History<LadderPlan>,
  round: RoundRecord<LadderPlan>,
  readings: readonly WidthReading[],
): string {
  if (readings.every((r) => r.imagined)) return FOCUS_ESTIMATE;
  const { chosen } = ladderOf(history, round);
  return chosen?.id === "widths" || chosen === null ? FOCUS_ESTIMATE : "widths";
}
