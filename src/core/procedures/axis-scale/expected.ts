/** What a place should read, by what was read along the same axis, or by its nominal length. */
import { median } from "../../fitting/robust-line";
import { type Measured, measured } from "../../metrology/measured";
import type { History } from "../contract";
import { placesOf } from "./places";
import type { AxisScalePlan } from "./plan-type";
import { readPlaces } from "./read-places";

/** How far a first reading may lie off its nominal, as a share; and any reading off what the others say, mm. */
const [FIRST_SHARE, OTHERS_MM] = [0.02, 0.15];

export function expectedLength(history: History<AxisScalePlan>, site: string): Measured | null {
  const round = history.rounds.at(-1);
  const place = round && placesOf(round.plan).find((p) => p.site === site);
  if (!round || !place || place.kind === "readout" || place.kind === "distance") return null;
  const others = readPlaces(round, place.axis, history.gauges).filter((r) => r.place.site !== site && r.nominalMm > 0);
  if (others.length === 0) return measured(place.nominalMm, Math.max(1, FIRST_SHARE * place.nominalMm), Infinity);
  const ratio = median(others.map((r) => r.mean / r.nominalMm));
  const worst = Math.max(...others.map((r) => r.u));
  return measured(ratio * place.nominalMm, Math.hypot(OTHERS_MM, worst), Infinity);
}
