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
import { usualAnswer } from "./usual-answer";

export type Forecast = {
  /** `null` where results are judged by eye or by hand. */
  gauge: Gauge | null;
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

/** `null` where nothing is measured or judged, or too little to tell a result. */
export function forecastOf(laid: Laid): Forecast | null {
  const gauge = gaugeOf(laid.plan, laid.context);
  const adjustment = gauge && adjustmentOf(laid, gauge);
  const told = gauge && toldBy(laid, gauge);
  if (!gauge || !told) return null;
  const { tolerance } = laid;
  const left = tolerance - told.expanded;
  return {
    gauge: adjustment ? gauge : null,
    ...told,
    alone: adjustment ? aloneIn(adjustment) : [],
    decidesUpTo: left > 0 ? left : null,
    help: left < LUCK_BELOW * tolerance ? helpFor(laid, gauge, told.expanded) : null,
  };
}

/**
 * The layout of a proof with the fewest readings of each point that still decide. The residual error to expect is what the last burn left
 * uncertain: with the uncertainty of the proof it has to stay within the tolerance. Where the last burn was read with less scatter than its
 * gauge is declared with, the proof is expected to be as well.
 *
 * @param plan as the procedure asks for it
 * @param gauge that it will be read with
 * @param history up to the burn that was read last
 * @returns the same layout where it names no number of readings, or where fewer would leave the proof to luck
 */
export function withFewestReadings(
  { plan, ...laid }: Omit<Laid, "plan"> & { plan: unknown },
  gauge: Gauge,
  history: History,
): unknown {
  if (!isRecord(plan) || typeof plan.repeats !== "number" || isFirstTry(laid, plan)) return plan;
  const last = uncertainIn(laid, gauge, history);
  if (!last) return plan;
  for (let repeats = 1; repeats < plan.repeats; repeats++) {
    const fewer = { ...plan, repeats };
    const told = toldBy({ ...laid, plan: fewer }, gauge);
    if (told && last.read + (last.read / last.expected) * told.expanded <= laid.tolerance) return fewer;
  }
  return plan;
}

/** The next correction is worked out from this burn as well, where the effect of a setting is not known yet. */
function isFirstTry({ procedure, context: { machine } }: Omit<Laid, "plan">, plan: unknown): boolean {
  return procedure.sets(plan, machine).some((key) => machine.held[key]?.senseAssumed);
}

/** Half widths of the last burn: as it was read, which counts only where it is smaller, and as it was to be expected. */
function uncertainIn(laid: Omit<Laid, "plan">, gauge: Gauge, history: History) {
  const last = history.rounds.at(-1);
  const model = last && laid.procedure.observe?.(history, last);
  const adjustment = model && adjust(ofReadings(model), new Map());
  const read = adjustment && leastKnown(adjustment);
  if (!last || !read || !isRecord(last.plan)) return null;
  const expected = toldBy({ ...laid, plan: last.plan }, gauge);
  return expected && { read: Math.min(read.expanded, expected.expanded), expected: expected.expanded };
}

/** A plan as fields by name. */
export function isRecord(plan: unknown): plan is Record<string, unknown> {
  return typeof plan === "object" && plan !== null;
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
  const fewest = repeats === null ? null : fewestRepeats(laid, gauge, repeats);
  if (fewest) return { plan: { repeats: fewest.repeats }, by: { repeats: fewest.repeats }, expanded: fewest.expanded };
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

/** The fewest readings of each point that leave a proof room; `null` where even the most do not. More readings never tell less. */
function fewestRepeats(laid: Laid, gauge: Gauge, now: number): { repeats: number; expanded: number } | null {
  const expandedAt = (repeats: number) =>
    toldBy({ ...laid, plan: { ...laid.plan, repeats } }, gauge)?.expanded ?? Number.POSITIVE_INFINITY;
  const isEnough = (expanded: number) => expanded <= LUCK_BELOW * laid.tolerance;
  let [few, many] = [now, Math.max(now, MOST_REPEATS)];
  let expanded = many > now ? expandedAt(many) : Number.POSITIVE_INFINITY;
  if (!isEnough(expanded)) return null;
  while (many - few > 1) {
    const between = Math.floor((few + many) / 2);
    const then = expandedAt(between);
    if (isEnough(then)) [many, expanded] = [between, then];
    else few = between;
  }
  return { repeats: many, expanded };
}

function toldBy(laid: Laid, gauge: Gauge): Told | null {
  const adjustment = adjustmentOf(laid, gauge);
  return (adjustment && leastKnown(adjustment)) ?? judgedBy(laid, gauge);
}

/** The readings that the layout asks for, each as it is expected. */
function adjustmentOf(laid: Laid, gauge: Gauge): Adjustment | null {
  const { procedure } = laid;
  if (!procedure.observe) return null;
  const { history, round } = unreadOf(laid, gauge);
  const answers = round.spec.sites.flatMap((site): Answer[] => {
    if (site.ask.kind !== "quantity") return [];
    const usual = usualAnswer(site, round.spec.sites);
    const expected = procedure.expected(history, site.id)?.value ?? (usual?.kind === "quantity" ? usual.value : 0);
    const value = Math.abs(expected) > 1e-6 ? expected : USUAL_STEP_MM;
    const reading = imaginedReading({ site: site.id, value, gauge: gauge.id, session: SESSION });
    return Array.from({ length: site.repeats }, () => reading);
  });
  const read = { ...round, answers };
  const model = procedure.observe({ ...history, rounds: [read] }, read);
  return model && adjust(ofReadings(model), new Map());
}

/** What is judged in order is worked out as it usually comes. */
function judgedBy(laid: Laid, gauge: Gauge): Told | null {
  const { procedure } = laid;
  if (!procedure.judged) return null;
  const { history, round } = unreadOf(laid, gauge);
  const answers = round.spec.sites.flatMap((site): Answer[] => {
    const value = usualAnswer(site, round.spec.sites);
    if (!value) return [];
    const answer = imaginedReading({ site: site.id, value: 0, gauge: gauge.id, session: SESSION });
    return Array.from({ length: site.repeats }, () => ({ ...answer, content: { status: "read", value } }));
  });
  const read = { ...round, answers };
  const found = procedure.judged({ ...history, rounds: [read] }, read);
  return found && { label: found.label, expanded: expandedUncertainty(found.quantity) };
}

const SESSION = "forecast";

function unreadOf(
  { procedure, plan, context, tolerance }: Laid,
  gauge: Gauge,
): { history: History; round: RoundRecord } {
  const spec = procedure.round(plan, context, "measure");
  const round: RoundRecord = { n: 1, purpose: "measure", plan, spec, inForce: context.inForce, answers: [] };
  const { machine } = context;
  const history: History = { rounds: [round], gauges: [gauge], available: [gauge], machine, tolerance, decisions: {} };
  return { history, round };
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
