/**
 * How near kerf and snug offset come to the truth, over gantries and stocks drawn by chance.
 *
 * Simulated: cuts as wide as the beam leaves them by stock, thickness, power, speed and direction (a beam that is not round), each 0.003 mm (sd) off by
 * itself; scales within 0.1 %, lean, play, pulleys that run out by up to 0.02 mm; placing scatter, step, a zero of the jaws that is off by up to half a step, and (where said) the common error of the
 * calipers; mates judged by people who differ in what they call snug (sd 0.012 mm) and scatter by 0.006 to 0.014 mm.
 */

import { type Gauge, gaugeAsUsual } from "../../core/metrology/gauge";
import type { Measured } from "../../core/metrology/measured";
import { expandedUncertainty } from "../../core/metrology/measured";
import { kerfIn } from "../../core/procedures/kerf/found";
import type { KerfPlan } from "../../core/procedures/kerf/plan";
import { kerf } from "../../core/procedures/kerf/procedure";
import type { StockAtHand } from "../../core/stock/stock-at-hand";
import type { History, Purpose, RoundRecord } from "../../core/trial/history";
import type { PlanContext } from "../../core/trial/plan-form";
import { Cutter } from "../../practice/cut-width";
import { focusOf, type GantryTruth } from "../../practice/gantry-truth";
import { handFromSeed, snugGapOf } from "../../practice/judge-mate";
import { practiceFromSeed } from "../../practice/practice-truth";
import { seeded, seedOf } from "../../practice/random";
import { planWith } from "../plan-with";
import { SAMPLE_MACHINE } from "../sample-machine";
import { rehearseRound } from "./rehearse-round";

export const CALIPERS: Gauge = gaugeAsUsual("calipers");

/** A sheet of its own for each seed. */
export function stockOf(seed: number): StockAtHand {
  const meanMm = seeded(seedOf(seed, "sheet")).between(2.6, 3.4);
  return {
    key: `sheet-${seed}/1`,
    name: "Sheet",
    batch: "1",
    nominalMm: 3,
    thickness: { meanMm, leastMm: meanMm - 0.03, mostMm: meanMm + 0.03, sdMm: 0.02, count: 5, uMm: 0.009 },
  };
}

export function gantryOf(seed: number): GantryTruth {
  const truth = practiceFromSeed(seed, SAMPLE_MACHINE);
  if ("kind" in truth) throw new Error("a gantry is wanted");
  return truth;
}

export function kerfContext(seed: number, tolerance = 0.02): PlanContext {
  return {
    machine: SAMPLE_MACHINE,
    couponCode: "T-1",
    inForce: {},
    gauges: [CALIPERS],
    tolerance,
    stocks: [stockOf(seed)],
  };
}

export function kerfPlan(seed: number, changes: Partial<KerfPlan>): KerfPlan {
  return planWith(kerf.plan(kerfContext(seed)), changes);
}

/** One round of it burned and read. @param commonMm what the calipers always read too much */
export function rehearsedKerf(
  seed: number,
  plan: KerfPlan,
  { commonMm = 0, n = 1, purpose = "measure" as Purpose, truth = gantryOf(seed) } = {},
): RoundRecord<KerfPlan> {
  const jaws = seeded(seedOf(seed, n, "jaws"));
  const zero = () => jaws.between(-0.5, 0.5) * CALIPERS.resolutionMm;
  return rehearseRound({
    procedure: kerf,
    plan,
    context: kerfContext(seed),
    purpose,
    n,
    truth,
    gauge: CALIPERS,
    controller: { table: [], switchedOn: true },
    random: seeded(seedOf(seed, n, "kerf")),
    hand: {
      placingMm: CALIPERS.placing?.sdMm ?? 0,
      commonMm,
      resolutionMm: CALIPERS.resolutionMm,
      zeroMm: { outside: zero(), inside: zero() },
    },
  }).round as RoundRecord<KerfPlan>;
}

export function kerfHistory(rounds: RoundRecord<KerfPlan>[], gauge: Gauge = CALIPERS): History<KerfPlan> {
  return {
    rounds,
    gauges: [gauge],
    available: [],
    machine: SAMPLE_MACHINE,
    decisions: {},
    tolerance: 0.02,
  };
}

/** What a cut really takes, mean of both directions, mm. */
export function trueKerf(seed: number, plan: KerfPlan, truth = gantryOf(seed)): { mean: number; x: number; y: number } {
  const cut = {
    stock: plan.stock,
    passes: plan.passes,
    focusBelowMm: plan.focusBelowMm,
    thicknessMm: plan.from?.thickness?.meanMm ?? 3,
  };
  const cutter = new Cutter(focusOf(truth), cut, seed, true);
  const width = (along: "x" | "y") => cutter.width(plan.powerPct / 100, plan.speedMmPerS, along);
  // A size along X is bounded by cuts that run along Y.
  return { x: width("y"), y: width("x"), mean: (width("x") + width("y")) / 2 };
}

/** The offset per side at which the person of this machine calls tongue and slot snug, both of them offset, mm. */
export function trueSnugOffset(seed: number, plan: KerfPlan): number {
  const { x } = trueKerf(seed, plan);
  return (2 * x - snugGapOf(handFromSeed(gantryOf(seed).seed))) / 4;
}

export const KERF_SEEDS = 300;
export type KerfCase = { found: Measured; truth: number };
type Told = NonNullable<ReturnType<typeof kerfIn>>;

/** @param common whether the calipers have an error within their limit */
export function kerfCases<T = KerfCase>(
  first: number,
  changes: Partial<KerfPlan>,
  common: boolean,
  of: (seed: number, plan: KerfPlan, found: Told) => T,
): T[] {
  return Array.from({ length: KERF_SEEDS }, (_, i) => {
    const seed = first + i;
    const plan = kerfPlan(seed, { repeats: 2, ...changes });
    const commonMm = common ? seeded(seed).between(-1, 1) * CALIPERS.limitMm : 0;
    const round = rehearsedKerf(seed, plan, { commonMm });
    const gauge = common ? CALIPERS : { ...CALIPERS, limitMm: 0 };
    const found = kerfIn(kerfHistory([round], gauge), round);
    if (!found) throw new Error(`seed ${seed}: no kerf`);
    return of(seed, plan, found);
  });
}

export function meanKerf(seed: number, plan: KerfPlan, found: Told): KerfCase {
  return { found: found.kerf.quantity, truth: trueKerf(seed, plan).mean };
}

/** Of one ladder each: its snug offset, and the kerf along X that it stands for. */
export function snugCases(first: number, stepMm: number): { snug: KerfCase[]; kerf: KerfCase[] } {
  const cases = kerfCases(first, { way: "tongue and slot", stepMm }, false, (seed, plan, found) => ({
    snug: { found: found.snug ?? found.kerf.quantity, truth: trueSnugOffset(seed, plan) },
    kerf: { found: found.kerf.quantity, truth: trueKerf(seed, plan).x },
  }));
  return { snug: cases.map((c) => c.snug), kerf: cases.map((c) => c.kerf) };
}

export function rmsOf(cases: readonly KerfCase[]): number {
  return Math.sqrt(cases.reduce((sum, { found, truth }) => sum + (found.value - truth) ** 2, 0) / cases.length);
}

/** Share whose interval of 95 % holds the truth. */
export function heldShare(cases: readonly KerfCase[]): number {
  const held = cases.filter(({ found, truth }) => Math.abs(found.value - truth) <= expandedUncertainty(found));
  return held.length / cases.length;
}
