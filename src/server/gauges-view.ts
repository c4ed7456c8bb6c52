/** The gauges of the workshop as their screen shows them. */
import type { Gauge } from "../core/metrology/gauge";
import type { Db } from "../data/database";
import { allGauges, sittingsByGauge } from "../data/gauges";

export type GaugeRow = { gauge: Gauge; sittings: number };

export function gaugesView(db: Db): GaugeRow[] {
  const sittings = sittingsByGauge(db);
  return allGauges(db).map(({ spec }) => ({ gauge: spec, sittings: sittings.get(spec.id) ?? 0 }));
}
