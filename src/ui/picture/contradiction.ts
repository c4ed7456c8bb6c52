/** A picture that says something else than what was read at the same place by hand. */
import { mean } from "../../core/fitting/repeats";
import { commonUncertaintyMm, type Gauge, readingUncertaintyMm } from "../../core/metrology/gauge";
import { type Answer, quantitiesAt } from "../../core/trial/answer";
import type { ShownReading } from "./shifts";

/** Two standard uncertainties of both together. */
const TWICE = 2;

/** @returns what was read by hand, mm, where it is further from the picture than both allow; else `null` */
export function contradictedBy(
  read: ShownReading,
  site: string,
  answers: readonly Answer[],
  gauges: readonly Gauge[],
): number | null {
  const byHand = answers.filter((a) => a.from !== "picture" && a.site === site);
  const values = quantitiesAt(byHand, site);
  if (values.length === 0) return null;
  const byHandMm = mean(values);
  const gauge = gauges.find((g) => byHand.some((a) => a.gauge === g.id));
  const hand = gauge ? [readingUncertaintyMm(gauge) / Math.sqrt(values.length), commonUncertaintyMm(gauge)] : [];
  return Math.abs(byHandMm - read.mm) > TWICE * Math.hypot(read.uMm, ...hand) ? byHandMm : null;
}
