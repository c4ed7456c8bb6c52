/** The gauges that reach from one mark to another. */
import { type Gauge, type GaugeKind, usualGauge } from "../../metrology/gauge";
import type { PlanContext } from "../contract";

/** How far they usually reach, mm. (common practice, no source) */
const REACH_MM: Partial<Record<GaugeKind, number>> = { calipers: 150, rule: 1000 };

const USUAL: readonly Gauge[] = [
  { ...{ id: "calipers", name: "Calipers", kind: "calipers", unit: "mm" }, ...usualGauge("calipers", "mm") },
  { ...{ id: "rule", name: "Rule", kind: "rule", unit: "mm" }, ...usualGauge("rule", "mm") },
];

/** Of the workshop, calipers first; the usual ones where it has none. */
export function lengthGauges({ gauges = [] }: Pick<PlanContext, "gauges">): readonly Gauge[] {
  const own = gauges.filter((g) => reachOf(g) !== undefined);
  const calipersFirst = (g: Gauge) => (g.kind === "calipers" ? 0 : 1);
  return own.length > 0 ? [...own].sort((a, b) => calipersFirst(a) - calipersFirst(b)) : USUAL;
}

export function reachOf({ kind }: Pick<Gauge, "kind">): number | undefined {
  return REACH_MM[kind];
}
