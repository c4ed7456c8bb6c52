/** What more reading would do to the uncertainty of staggers, row ends and reference step together. */

import { examinationOf } from "../../measuring/examined";
import { foreseen, type MoreReading as MoreAt } from "../../measuring/foreseen";
import type { Gauge } from "../../metrology/gauge";
import type { History, RoundRecord } from "../../trial/history";
import { type Analysis, onceOnly, resultsOf } from "./analysis";
import { REFERENCE_SITES, siteId } from "./coupon";
import { observeOneByOne } from "./observe";
import { observeStagger } from "./observe-line";
import type { ScanOffsetPlan } from "./plan";

export type MoreReading = {
  /** More readings at every row end of these speeds. */
  ends: number;
  speeds: readonly number[];
  /** More readings at each end of the reference step. */
  references: number;
  /** Another gauge; `null` = the one used last. */
  gauge: Gauge | null;
};

/** The results as they would be; `null` where nothing is read. */
export function foresee(
  history: History<ScanOffsetPlan>,
  round: RoundRecord<ScanOffsetPlan>,
  more: MoreReading,
): Omit<Analysis, "lineFits" | "use"> | null {
  const at = placesOf(more);
  const usualAt = () => round.plan.referenceStepMm;
  const now = examinationOf(history, round, observeStagger)?.adjustment;
  if (!now) return null;
  const of = (observe: typeof observeStagger) => foreseen(history, round, observe, now, at, usualAt);
  const line = of(observeStagger);
  return line && resultsOf(history, round, { line, oneByOne: onceOnly(() => of(observeOneByOne)) });
}

function placesOf({ ends, speeds, references, gauge }: MoreReading): MoreAt[] {
  return [
    ...speeds.flatMap((v) => (["left", "right"] as const).map((end) => ({ site: siteId(v, end), count: ends, gauge }))),
    ...Object.values(REFERENCE_SITES).map((site) => ({ site, count: references, gauge })),
  ].filter((m) => m.count > 0);
}
