/** The gauges of the workshop as their screen shows them. */
import type { Gauge } from "../../core/metrology/gauge";
import type { Db } from "../../data/database";
import { type GaugeFault, gaugeFaults, gaugesAtHand, sittingsByGauge } from "../../data/gauges";

export type GaugeRow = { gauge: Gauge; sittings: number; faults: GaugeFault[] };

export function gaugesView(db: Db): GaugeRow[] {
  const sittings = sittingsByGauge(db);
  const faults = gaugeFaults(db);
  return gaugesAtHand(db).map((spec) => ({
    gauge: spec,
    sittings: sittings.get(spec.id) ?? 0,
    faults: faults.filter((f) => f.gauge === spec.id),
  }));
}
