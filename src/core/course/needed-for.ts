/** What one trial of a procedure needs on a machine, as its usual layout has it: time, stock and gauges. Nothing is burned and nothing kept. */
import { markingTimeS } from "../coupon/marking-time";
import type { RoundSpec } from "../coupon/round-spec";
import type { Site } from "../coupon/site";
import { lengthGauges } from "../measuring/length-gauges";
import type { AnyProcedure } from "../procedures/contract";
import { readDraft } from "../trial/draft";
import type { PlanContext } from "../trial/plan-form";
import { isRecord } from "./forecast";

export type Needed = {
  /** For the burn that measures and the burn that proves, with reading both, min. */
  minutes: number;
  /** Stock for both, each piece by itself. */
  pieces: { widthMm: number; heightMm: number }[];
  /** What is read with; empty where everything is judged by eye. */
  gauges: string[];
};

/** A burn to measure and a burn to prove. */
const BURNS = 2;
/** Loading, setting the height, sending the file, s for each burn. (common practice, no source) */
const SET_UP_S = 180;
/** A reading with a gauge, and a judgement by eye, s each. (common practice, no source) */
const READING_S = { gauge: 15, eye: 8 } as const;
const SECONDS_PER_MINUTE = 60;
/** Nobody plans a day to the minute. */
const STEP_MIN = 5;

/** @returns `null` where the usual layout cannot be burned here: on too small a working area, or before something is chosen for it */
export function neededFor(procedure: AnyProcedure, context: PlanContext): Needed | null {
  const read = readDraft(procedure.plan(context), {});
  if (!read.ok) return null;
  const spec = procedure.round(read.plan, context, "measure");
  const seconds = SET_UP_S + markingTimeS(spec) + readingTimeS(spec);
  return {
    minutes: Math.ceil((BURNS * seconds) / SECONDS_PER_MINUTE / STEP_MIN) * STEP_MIN,
    pieces: spec.pieces.map(({ widthMm, heightMm }) => ({ widthMm, heightMm })),
    gauges: spec.sites.some(isGauged) ? [gaugeName(read.plan, context)] : [],
  };
}

function readingTimeS({ sites }: RoundSpec): number {
  return sites
    .filter((site) => site.onlyWithin === undefined)
    .reduce((sum, site) => sum + site.repeats * (isGauged(site) ? READING_S.gauge : READING_S.eye), 0);
}

function isGauged({ ask }: Site): boolean {
  return ask.kind === "quantity";
}

function gaugeName(plan: unknown, context: PlanContext): string {
  const all = lengthGauges(context);
  const chosen = isRecord(plan) ? all.find((g) => g.id === plan.gauge) : undefined;
  return (chosen ?? all[0])?.name ?? "";
}
