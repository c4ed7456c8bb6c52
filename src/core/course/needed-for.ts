/** The time, the stock and the gauge that one trial needs, worked out from its usual layout. Nothing is burned or stored. */
import { markingTimeS } from "../coupon/marking-time";
import type { RoundSpec } from "../coupon/round-spec";
import type { Site } from "../coupon/site";
import { lengthGauges } from "../measuring/length-gauges";
import type { AnyProcedure } from "../procedures/contract";
import { readDraft } from "../trial/draft";
import type { PlanContext } from "../trial/plan-form";
import { isRecord } from "./forecast";

export type Needed = {
  /** Both burns with their readings: the measuring burn and the proof burn, min. */
  minutes: number;
  /** Stock of one burn, piece by piece. */
  pieces: { widthMm: number; heightMm: number }[];
  /** Name of the gauge; `null` if no reading needs one. */
  gauge: string | null;
};

/** The measuring burn and the proof burn. */
const BURNS = 2;
/** Load the stock, set the height, send the file: s per burn. (common practice, no source) */
const SET_UP_S = 180;
/** One reading with a gauge or at the machine, one judgement by eye, s. (common practice, no source) */
const READING_S = { number: 15, eye: 8 } as const;
const SECONDS_PER_MINUTE = 60;
/** Minutes are rounded up to a multiple of this. */
const STEP_MIN = 5;

/** @returns `null` if the usual layout cannot be burned here: the working area is too small, or no stock is chosen */
export function neededFor(procedure: AnyProcedure, context: PlanContext): Needed | null {
  const read = readDraft(procedure.plan(context), {});
  if (!read.ok) return null;
  const spec = procedure.round(read.plan, context, "measure");
  const seconds = SET_UP_S + markingTimeS(spec) + readingTimeS(spec);
  return {
    minutes: Math.ceil((BURNS * seconds) / SECONDS_PER_MINUTE / STEP_MIN) * STEP_MIN,
    pieces: spec.pieces.map(({ widthMm, heightMm }) => ({ widthMm, heightMm })),
    gauge: spec.sites.some(isGauged) ? gaugeName(read.plan, context) : null,
  };
}

function readingTimeS({ sites }: RoundSpec): number {
  return sites
    .filter((site) => site.onlyWithin === undefined)
    .reduce((sum, { ask, repeats }) => sum + repeats * READING_S[ask.kind === "quantity" ? "number" : "eye"], 0);
}

/** A number at the machine's own readout needs no gauge. */
function isGauged({ ask }: Site): boolean {
  return ask.kind === "quantity" && ask.atMachine === undefined;
}

function gaugeName(plan: unknown, context: PlanContext): string | null {
  const all = lengthGauges(context);
  const chosen = isRecord(plan) ? all.find((g) => g.id === plan.gauge) : undefined;
  return (chosen ?? all[0])?.name ?? null;
}
