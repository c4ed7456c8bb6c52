/** Gauges that nearly every workshop has. A new bench has them, so that the first trial does not stop at an empty list. */
import { type Gauge, gaugeAsUsual, PICTURE_READER } from "../../core/metrology/gauge";
import type { Db } from "../../data/database";
import { addGauge, allGauges, gaugeKeys } from "../../data/gauges";

export const USUAL_GAUGES: readonly Gauge[] = [
  gaugeAsUsual("calipers"),
  gaugeAsUsual("rule", { id: "steel-rule", name: "Steel rule" }),
];

/** Declares them on a bench that has no gauge for measuring. */
export function declareUsualGauges(db: Db, now: number): void {
  if (allGauges(db).some((g) => g.spec.kind !== "eye" && g.spec.id !== PICTURE_READER)) return;
  const taken = new Set(gaugeKeys(db));
  for (const gauge of USUAL_GAUGES) if (!taken.has(gauge.id)) addGauge(db, gauge, now);
}
