/** Gauges that stand in nearly every workshop: there from the start, so that the first trial does not stop at an empty list. */
import { type Gauge, PICTURE_READER, usualGauge } from "../../core/metrology/gauge";
import type { Db } from "../../data/database";
import { addGauge, allGauges } from "../../data/gauges";

export const USUAL_GAUGES: readonly Gauge[] = [
  { id: "calipers", name: "Calipers", kind: "calipers", unit: "mm", ...usualGauge("calipers", "mm") },
  { id: "steel-rule", name: "Steel rule", kind: "rule", unit: "mm", ...usualGauge("rule", "mm") },
];

/** Declares them on a bench that has no gauge to measure with. */
export function declareUsualGauges(db: Db, now: number): void {
  const isThere = allGauges(db).some((g) => g.spec.kind !== "eye" && g.spec.id !== PICTURE_READER);
  if (isThere) return;
  for (const gauge of USUAL_GAUGES) addGauge(db, gauge, now);
}
