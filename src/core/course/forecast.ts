/**
 * What a layout will be able to tell, before anything is burned: the covariance needs no readings, only where they will be taken, with
 * which gauge and how often.
 */
import { type Adjustment, adjust, combine } from "../estimate/adjustment";
import { seenIn } from "../estimate/examination";
import { ofReadings } from "../estimate/model";
import { lengthGauges } from "../measuring/length-gauges";
import type { Gauge } from "../metrology/gauge";
import { expandedUncertainty } from "../metrology/measured";
import type { AnyProcedure } from "../procedures/contract";
import { type Answer, imaginedReading } from "../trial/answer";
import type { History, RoundRecord } from "../trial/history";
import type { PlanContext } from "../trial/plan-form";

export type Forecast = {
  gauge: Gauge;
  /** Expected half width of the 95 % interval of the least well known result, as it is held against the tolerance. */
  expanded: number;
  /** Name of that result. */
  label: string;
  /** The largest error that a proof can still accept; `null` where it can accept none. */
  decidesUpTo: number | null;
  /** Points that no other point checks. */
  alone: string[];
  /** The cheapest change after which a proof can decide; `null` where there is none, or none is needed. */
  help: Help | null;
};

export type Help = {
  /** Fields of the plan that change, and to what. */
  plan: Record<string, unknown>;
  by: { longer: true } | { repeats: number } | { gauge: Gauge };
  /** Half width that is then expected. */
  expanded: number;
};

/** A proof that accepts less than this share of the tolerance needs luck. */
const LUCK_BELOW = 0.5;
/** Nobody reads a point more often than this. */
const MOST_REPEATS = 12;
/** A step that is read with a sign, before anything is known of it, mm. (common practice, no source) */
const USUAL_STEP_MM = 0.3;

type Told = Pick<Forecast, "expanded" | "label">;
type Laid = { procedure: AnyProcedure; plan: Record<string, unknown>; context: PlanContext; tolerance: number };

/** `null` where nothing is measured, or too little to tell a result. */
export function forecastOf(laid: Laid): Forecast | null {
  const gauge = gaugeOf(laid.plan, laid.context);
  const adjustment = gauge && adjustmentOf(laid, gauge);
  const told = adjustment && leastKnown(adjustment);
  if (!gauge || !told) return null;
  const { tolerance } = laid;
  const left = tolerance - told.expanded;
  return {
    gauge,
    ...told,
    alone: aloneIn(adjustment),
    decidesUpTo: left > 0 ? left : null,
    help: left < LUCK_BELOW * tolerance ? helpFor(laid, gauge, told.expanded) : null,
  };
}

function gaugeOf(plan: Laid["plan"], context: PlanContext): Gauge | undefined {
  const all = lengthGauges(context);
  return all.find((g) => g.id === plan.gauge) ?? all[0];
}

/** Longer lengths, more readings of each point, or another gauge where the layout names one: the first that leaves a proof room. */
function helpFor(laid: Laid, gauge: Gauge, now: number): Help | null {
  const { procedure, plan, context, tolerance } = laid;
  const enough = (LUCK_BELOW * tolerance + tolerance) / 2;
  const longest = procedure.longest?.(plan, context);
  const longer = longest && toldBy({ ...laid, plan: { ...plan, ...longest } }, gauge)?.expanded;
  if (longest && longer !== undefined && longer <= LUCK_BELOW * tolerance)
    return { plan: longest, by: { longer: true }, expanded: longer };
  const repeats = typeof plan.repeats === "number" ? plan.repeats : null;
  if (repeats !== null)
    for (let more = repeats + 1; more <= MOST_REPEATS; more++) {
      const then = toldBy({ ...laid, plan: { ...plan, repeats: more } }, gauge)?.expanded ?? now;
      if (then <= LUCK_BELOW * tolerance) return { plan: { repeats: more }, by: { repeats: more }, expanded: then };
    }
  if (typeof plan.gauge !== "string") return null;
  for (const other of lengthGauges(context)) {
    const read = { ...plan, gauge: other.id };
    const change = { gauge: other.id, ...procedure.longest?.(read, context) };
    const then = toldBy({ ...laid, plan: { ...plan, ...change } }, other)?.expanded ?? now;
    if (other.id !== gauge.id && then < now && then <= enough)
      return { plan: change, by: { gauge: other }, expanded: then };
  }
  return null;
}

function toldBy(laid: Laid, gauge: Gauge): Told | null {
  const adjustment = adjustmentOf(laid, gauge);
  return adjustment && leastKnown(adjustment);
}

/** The readings that the layout asks for, each as it is expected. */
function adjustmentOf({ procedure, plan, context, tolerance }: Laid, gauge: Gauge): Adjustment | null {
  if (!procedure.observe) return null;
  const spec = procedure.round(plan, context, "measure");
  const unread: RoundRecord = { n: 1, purpose: "measure", plan, spec, inForce: context.inForce, answers: [] };
  const history: History = {
    rounds: [unread],
    gauges: [gauge],
    available: [gauge],
    machine: context.machine,
    tolerance,
    decisions: {},
  };
  const answers = spec.sites.flatMap((site): Answer[] => {
    if (site.ask.kind !== "quantity") return [];
    const expected = procedure.expected(history, site.id)?.value ?? 0;
    const value = Math.abs(expected) > 1e-6 ? expected : USUAL_STEP_MM;
    const reading = imaginedReading({ site: site.id, value, gauge: gauge.id, session: "forecast" });
    return Array.from({ length: site.repeats }, () => reading);
  });
  const round = { ...unread, answers };
  const model = procedure.observe({ ...history, rounds: [round] }, round);
  return model && adjust(ofReadings(model), new Map());
}

function leastKnown(adjustment: Adjustment): Told | null {
  const told = adjustment.model.wanted.flatMap(({ row, label, proves }) =>
    proves === undefined ? [] : [{ label, expanded: proves * expandedUncertainty(combine(adjustment, row).quantity) }],
  );
  return told.toSorted((a, b) => b.expanded - a.expanded)[0] ?? null;
}

function aloneIn(adjustment: Adjustment): string[] {
  const proving = seenIn(adjustment).filter(({ wanted }) => wanted.proves !== undefined);
  return [...new Set(proving.flatMap(({ alone }) => alone.map((facts) => facts.pointLabel)))];
}
