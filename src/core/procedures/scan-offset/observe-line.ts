/** The readings of the stagger as a model with a line over the speeds, where enough speeds are read for one. */
import type { Model } from "../../estimate/model";
import type { History, RoundRecord } from "../../trial/history";
import { compensatedMm, entryInForce } from "./in-force";
import { modelFor, speedsRead } from "./observe";
import type { ScanOffsetPlan } from "./plan";

/** A line needs so many speeds; below them each speed stands by itself. */
const LINE_FROM_SPEEDS = 3;

export function observeStagger(history: History<ScanOffsetPlan>, round: RoundRecord<ScanOffsetPlan>): Model | null {
  const compensated = new Map<number, number>();
  // Where the entry in force is not known, what is left of the stagger says nothing of the line.
  for (const v of speedsRead(history, round))
    if (entryInForce(history, round, v) !== null) compensated.set(v, compensatedMm(history, round, v));
  const isForecast = round.answers.every((a) => a.imagined);
  return modelFor(history, round, {
    // A forecast is of the proof, which goes by the readings at each speed.
    speeds: compensated.size >= LINE_FROM_SPEEDS && !isForecast ? [...compensated.keys()] : [],
    compensatedMm: (v) => compensated.get(v) ?? 0,
  });
}
