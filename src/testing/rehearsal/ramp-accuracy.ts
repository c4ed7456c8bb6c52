/**
 * Ramps on random practice machines, from the first burn to the verdict.
 *
 * Simulated: the stock of each machine (five kinds), a surface of 4 % of the best mark (SD), half of it a texture; an eye that compares stretches of 4 mm
 * with a scatter of 2 % (SD); a scale that is read to 0.5 mm; on propped stock a slope that is 0.4 % off (SD).
 */
import { burnFile } from "../../burning/practice-burn";
import { gaugeAsUsual } from "../../core/metrology/gauge";
import type { RampPlan } from "../../core/procedures/ramp/plan";
import { rampPlan } from "../../core/procedures/ramp/plan-faults";
import { ramp } from "../../core/procedures/ramp/procedure";
import { areaOf, placeOf } from "../../core/procedures/ramp/strip";
import type { History, RoundRecord } from "../../core/trial/history";
import type { PlanContext } from "../../core/trial/plan-form";
import { gcodeOf } from "../../formats/gcode-writer";
import { cellLooks } from "../../practice/cell-look";
import { practiceFromSeed } from "../../practice/practice-truth";
import { seeded, seedOf } from "../../practice/random";
import { SAMPLE_MACHINE, SAMPLE_STOCK } from "../sample-machine";
import { typedPlan } from "../typed-plan";
import { rehearseRound } from "./rehearse-round";

const CONTEXT: PlanContext = { machine: SAMPLE_MACHINE, couponCode: "T-1", inForce: {}, stocks: [SAMPLE_STOCK] };
const CONTROLLER = { table: [], switchedOn: true };
const EYE = gaugeAsUsual("eye");
const MOST_BURNS = 5;

export type RampTrial = {
  result: "proved" | "not proved" | "cannot tell" | "none";
  burns: number;
  /** Loss of the value against the best of the first strip, as a share; `null` if the value is beyond this strip. */
  lacks: number | null;
};

/** @returns `null` if the strip shows no mark */
export function rampTrial(seed: number, texts: Record<string, string>): RampTrial | null {
  const truth = practiceFromSeed(seed, SAMPLE_MACHINE);
  const first = typedPlan(rampPlan(CONTEXT), texts);
  const rounds: RoundRecord<RampPlan>[] = [];
  let plan = first;
  let purpose: RoundRecord["purpose"] = "measure";
  for (let n = 1; n <= MOST_BURNS; n++) {
    const { round } = rehearseRound({
      procedure: ramp,
      plan,
      context: CONTEXT,
      purpose,
      n,
      truth,
      controller: CONTROLLER,
      gauge: EYE,
      hand: { placingMm: 0, commonMm: 0, resolutionMm: 0 },
      random: seeded(seedOf("ramp", seed, n)),
    });
    rounds.push(round as RoundRecord<RampPlan>);
    const now = historyOf(rounds);
    const outcome = ramp.solve(now);
    if (outcome.status !== "solved") return rounds.length === 1 ? null : { result: "none", burns: n, lacks: null };
    const next = ramp.next(now, outcome);
    if (purpose === "proof" || next.do !== "round") break;
    plan = next.plan;
    purpose = next.purpose;
  }
  const history = historyOf(rounds);
  const outcome = ramp.solve(history);
  const best = outcome.status === "solved" ? (outcome.estimates[0]?.quantity.value ?? Number.NaN) : Number.NaN;
  const value = first.varied === "powerPct" ? 100 * best : best;
  return {
    result: ramp.judge(history)?.result ?? "none",
    burns: rounds.length,
    lacks: lackAt(first, value, truth),
  };
}

function historyOf(rounds: readonly RoundRecord<RampPlan>[]): History<RampPlan> {
  return {
    rounds,
    gauges: [EYE],
    available: [EYE],
    machine: SAMPLE_MACHINE,
    tolerance: ramp.tolerance.default,
    decisions: {},
  };
}

/** Stretches of the true response, mm. */
const TRUTH = { stretchMm: 2, stepMm: 1 };

function lackAt(plan: RampPlan, value: number, truth: ReturnType<typeof practiceFromSeed>): number | null {
  const spec = ramp.round(plan, CONTEXT, "measure");
  const file = gcodeOf(spec, {
    couponCode: "T-1",
    machineName: SAMPLE_MACHINE.name,
    dialect: SAMPLE_MACHINE.gcode,
    bed: SAMPLE_MACHINE,
  });
  const burn = burnFile(file, "T-1", SAMPLE_MACHINE, truth, CONTROLLER, spec);
  if (!burn.ok) throw new Error(burn.message);
  const half = TRUTH.stretchMm / 2;
  const places: number[] = [];
  for (let s = half; s <= plan.lengthMm - half; s += TRUTH.stepMm) places.push(s);
  const stretches = places.map((s) => areaOf(plan, { s0: s - half, s1: s + half }));
  const surface = {
    seed: truth.seed,
    stock: SAMPLE_STOCK.key,
    topSpeedMmPerS: SAMPLE_MACHINE.topSpeedMmPerS,
    isSmooth: true as const,
  };
  const quality = cellLooks(stretches, burn.marks, burn.corner, surface).map((l) => l?.quality ?? 0);
  const at = placeOf(plan, value);
  if (at < 0 || at > plan.lengthMm) return null;
  const nearest = places.reduce((best, s, i) => (Math.abs(s - at) < Math.abs((places[best] ?? 0) - at) ? i : best), 0);
  const most = Math.max(...quality);
  return (most - (quality[nearest] ?? 0)) / most;
}
