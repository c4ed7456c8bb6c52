/** What was read along an axis, at the places that were laid out. */

import type { Axis } from "../../machine/machine-kind";
import { readLengths, type SiteRead } from "../../measuring/read-lengths";
import type { Gauge } from "../../metrology/gauge";
import { quantitiesAt } from "../../trial/answer";
import type { RoundRecord } from "../../trial/history";
import { type MeasuredPlace, placesOf } from "./places";
import type { AxisScalePlan } from "./plan";

export type PlaceRead = SiteRead & {
  place: MeasuredPlace;
  /** What it should be; by hand the length that the readout showed, mm. */
  nominalMm: number;
};

/** In the order of its places. */
export function readPlaces(round: RoundRecord<AxisScalePlan>, axis: Axis, gauges: readonly Gauge[]): PlaceRead[] {
  const places = placesOf(round.plan).filter((p) => p.axis === axis && p.kind !== "readout");
  const sites = places.map((p) => p.site);
  return readLengths(round.answers, sites, gauges).flatMap((read): PlaceRead[] => {
    const place = places.find((p) => p.site === read.site);
    const nominalMm = place?.kind === "distance" ? readoutLength(round, axis) : (place?.nominalMm ?? null);
    return place && nominalMm !== null ? [{ ...read, place, nominalMm }] : [];
  });
}

/** By the newest readout at each mark; `null` before both are noted. */
export function readoutLength({ answers }: RoundRecord<AxisScalePlan>, axis: Axis): number | null {
  const [from, to] = ["from", "to"].map((end) => quantitiesAt(answers, `${axis} ${end}`).at(-1));
  return from === undefined || to === undefined ? null : Math.abs(to - from);
}
