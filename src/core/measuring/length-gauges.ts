/** The gauges that reach from one mark to another. */
import { z } from "zod";
import { type Gauge, type GaugeKind, usualGauge } from "../metrology/gauge";
import type { FieldSpec, PlanContext } from "../trial/plan-form";

/** How far they usually reach, mm. (common practice, no source) */
const REACH_MM: Partial<Record<GaugeKind, number>> = { calipers: 150, rule: 1000 };

const USUAL: readonly Gauge[] = [
  { id: "calipers", name: "Calipers", kind: "calipers", unit: "mm", ...usualGauge("calipers", "mm") },
  { id: "rule", name: "Rule", kind: "rule", unit: "mm", ...usualGauge("rule", "mm") },
];

/** Of the workshop, calipers first; the usual ones where it has none. */
export function lengthGauges({ gauges = [] }: Pick<PlanContext, "gauges">): readonly Gauge[] {
  const own = gauges.filter((g) => reachOf(g) !== undefined);
  const calipersFirst = (g: Gauge) => (g.kind === "calipers" ? 0 : 1);
  return own.length > 0 ? [...own].sort((a, b) => calipersFirst(a) - calipersFirst(b)) : USUAL;
}

function reachOf({ kind }: Pick<Gauge, "kind">): number | undefined {
  return REACH_MM[kind];
}

/** How far each kind of gauge reaches here, mm: a rule is longer than calipers. */
export type Reaches = { caliperReachMm: number; ruleReachMm: number };

export const USUAL_REACHES: Reaches = { caliperReachMm: REACH_MM.calipers ?? 0, ruleReachMm: REACH_MM.rule ?? 0 };

/** The gauge that is read with, and how far it reaches, mm. */
export function gaugeIn(
  plan: Reaches & { gauge: string },
  context: Pick<PlanContext, "gauges">,
): { gauge: Gauge; reachMm: number } {
  const all = lengthGauges(context);
  const gauge = all.find((g) => g.id === plan.gauge) ?? (all[0] as Gauge);
  return { gauge, reachMm: gauge.kind === "rule" ? plan.ruleReachMm : plan.caliperReachMm };
}

/** `calipers reach`, `a rule reaches`: the verb as the kind of gauge wants it. */
export function endingOf({ kind }: Pick<Gauge, "kind">, verb: string, ending: string): string {
  return kind === "calipers" ? verb : `${verb}${ending}`;
}

/** The gauge, and the longest that it can measure. */
export function gaugeFields(context: PlanContext, why: string): FieldSpec[] {
  const all = lengthGauges(context);
  const ofKind = (isRule: boolean) => all.filter((g) => (g.kind === "rule") === isRule).map((g) => g.id);
  const reach = { group: "Reading", kind: "quantity", dimension: "length", unit: "mm", why } as const;
  return [
    {
      key: "gauge",
      label: "Read with",
      group: "Reading",
      kind: "choice",
      why: "",
      options: all.map((g) => ({ value: g.id, label: g.name, why: "" })),
    },
    { ...reach, key: "caliperReachMm", label: "The calipers reach", when: { field: "gauge", is: ofKind(false) } },
    { ...reach, key: "ruleReachMm", label: "The rule reaches", when: { field: "gauge", is: ofKind(true) } },
  ];
}

/** The shape of {@link gaugeFields}. */
export const GAUGE_SHAPE = {
  gauge: z.string({ error: "Choose the gauge." }),
  caliperReachMm: reachShape(USUAL_REACHES.caliperReachMm),
  ruleReachMm: reachShape(USUAL_REACHES.ruleReachMm),
};

function reachShape(usual: number) {
  return z
    .number({ error: `Give how far the gauge reaches, for example ${usual} mm.` })
    .positive("It must be larger than 0.")
    .default(usual);
}
