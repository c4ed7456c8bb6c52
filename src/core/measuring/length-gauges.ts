/** The gauges that reach from one mark to another. */
import { elementAt } from "../fitting/element-at";
import { type Gauge, type GaugeKind, gaugeAsUsual } from "../metrology/gauge";
import { field, type When } from "../trial/plan-field";
import type { PlanContext } from "../trial/plan-form";

/** How far they usually reach, mm. (common practice, no source) */
const REACH_MM = { calipers: 150, rule: 1000 } as const satisfies Partial<Record<GaugeKind, number>>;

const USUAL: readonly Gauge[] = [gaugeAsUsual("calipers"), gaugeAsUsual("rule")];

/** Of the workshop, calipers first; the usual ones where it has none. */
export function lengthGauges({ gauges = [] }: Pick<PlanContext, "gauges">): readonly Gauge[] {
  const own = gauges.filter(({ kind }) => kind in REACH_MM);
  const calipersFirst = (g: Gauge) => (g.kind === "calipers" ? 0 : 1);
  return own.length > 0 ? [...own].sort((a, b) => calipersFirst(a) - calipersFirst(b)) : USUAL;
}

/** The gauge that is read with, and how far each kind of gauge reaches here, mm: a rule is longer than calipers. */
export type GaugeChosen = { gauge: string; caliperReachMm: number; ruleReachMm: number };

/** The gauge that is read with, and how far it reaches, mm. */
export function gaugeIn(plan: GaugeChosen, context: Pick<PlanContext, "gauges">): { gauge: Gauge; reachMm: number } {
  const all = lengthGauges(context);
  const gauge = all.find((g) => g.id === plan.gauge) ?? elementAt(all, 0);
  return { gauge, reachMm: gauge.kind === "rule" ? plan.ruleReachMm : plan.caliperReachMm };
}

/** Before anybody chooses. */
export function usualGaugeChosen(context: Pick<PlanContext, "gauges">): GaugeChosen {
  return {
    gauge: lengthGauges(context)[0]?.id ?? "",
    caliperReachMm: REACH_MM.calipers,
    ruleReachMm: REACH_MM.rule,
  };
}

/** The gauge, and the longest that it can measure. */
export function gaugeFields(context: Pick<PlanContext, "gauges">, why: string, when?: When) {
  const all = lengthGauges(context);
  const ofKind = (isRule: boolean) => all.filter((g) => (g.kind === "rule") === isRule).map((g) => g.id);
  const usual = usualGaugeChosen(context);
  const reach = (label: string, isRule: boolean, usualMm: number) =>
    field.length({ label, group: "Reading", why, usual: usualMm, when: { field: "gauge", is: ofKind(isRule) } });
  return {
    gauge: field.oneOfThese(
      all.map((g) => ({ value: g.id, label: g.name })),
      { label: "Read with", group: "Reading", usual: usual.gauge, when },
    ),
    caliperReachMm: reach("Reach of the calipers", false, usual.caliperReachMm),
    ruleReachMm: reach("Reach of the rule", true, usual.ruleReachMm),
  };
}
