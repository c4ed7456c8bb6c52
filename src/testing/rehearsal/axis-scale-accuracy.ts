/**
 * How near the scale of an axis comes to the truth, over gantries drawn by chance: ticks burned and read in a whole rehearsal.
 *
 * Simulated: scale within 0.1 %, lean, no tooth that sits badly, play of both drives, pulleys that run out by up to 0.02 mm, placing scatter, the step of the gauge, and
 * one common error within its limit.
 */

import { type Gauge, gaugeAsUsual } from "../../core/metrology/gauge";
import { expandedUncertainty } from "../../core/metrology/measured";
import { axesRead } from "../../core/procedures/axis-scale/observe";
import type { AxisScalePlan } from "../../core/procedures/axis-scale/plan";
import { axisScalePlan } from "../../core/procedures/axis-scale/plan-faults";
import { axisScale } from "../../core/procedures/axis-scale/procedure";
import { AXIS_SCALE } from "../../core/procedures/axis-scale/setting";
import { errorOf } from "../../core/procedures/axis-scale/solve";
import type { History, RoundRecord } from "../../core/trial/history";
import type { PlanContext } from "../../core/trial/plan-form";
import { practiceFromSeed } from "../../practice/practice-truth";
import { seeded, seedOf } from "../../practice/random";
import { planWith } from "../plan-with";
import { SAMPLE_MACHINE } from "../sample-machine";
import { rehearseRound } from "./rehearse-round";

export const FOUND_UM = 6.25;
const HELD = { unit: "um", step: 1e-6, range: null, tableKind: "not known", sense: -1 } as const;
export const SCALED_MACHINE = {
  ...SAMPLE_MACHINE,
  held: { ...SAMPLE_MACHINE.held, [AXIS_SCALE.x]: HELD, [AXIS_SCALE.y]: HELD },
};

export type ScaleCase = {
  /** Share by which lengths come out too long: as found, and once the number is entered. */
  truly: number;
  found: number;
  expanded: number;
  left: number;
};

export type ScaleSet = {
  gauge: Gauge;
  plan: Partial<AxisScalePlan>;
  /** Whether the gauge has a common error within its limit. */
  common: boolean;
};

export const LENGTH_GAUGES = {
  calipers: gaugeAsUsual("calipers"),
  rule: gaugeAsUsual("rule", { name: "Steel rule" }),
} as const satisfies Record<string, Gauge>;

/** Two cases a seed: X and Y. */
export function scaleCases(first: number, count: number, set: ScaleSet): ScaleCase[] {
  return Array.from({ length: count }, (_, i) => scaleCase(first + i, set)).flat();
}

function scaleCase(seed: number, { gauge, plan, common }: ScaleSet): ScaleCase[] {
  const truth = soundGantry(seed);
  const random = seeded(seedOf(seed, "reading"));
  const round = rehearsedScale(truth, gauge, plan, random, common ? random.between(-1, 1) * gauge.limitMm : 0);
  const known = common ? gauge : { ...gauge, limitMm: 0 };
  const history: History<AxisScalePlan> = historyOf([round], known);
  const outcome = axisScale.solve(history);
  if (outcome.status !== "solved") throw new Error(JSON.stringify(outcome));
  return axesRead(history, round).map((read) => {
    const truly = (read.axis === "x" ? truth.scaleX : truth.scaleY) - 1;
    const entered = outcome.corrections.find((c) => c.setting === AXIS_SCALE[read.axis])?.newValue;
    const number = entered?.shape === "scalar" ? entered.value : Number.NaN;
    const error = errorOf(read);
    return {
      truly,
      found: error.value,
      expanded: expandedUncertainty(error),
      left: (1 + truly) * (FOUND_UM / 1000 / number) - 1,
    };
  });
}

/** A gantry none of whose teeth sits badly: such an axis has no one scale. */
export function soundGantry(seed: number) {
  const truth = practiceFromSeed(seed, SCALED_MACHINE);
  if ("kind" in truth || !truth.axes) throw new Error("a gantry with axes is wanted");
  const { axes } = truth;
  return { ...truth, axes: { ...axes, x: { ...axes.x, step: null }, y: { ...axes.y, step: null } } };
}

export function historyOf(rounds: RoundRecord<AxisScalePlan>[], gauge: Gauge): History<AxisScalePlan> {
  return {
    rounds,
    gauges: [gauge],
    available: [gauge],
    machine: SCALED_MACHINE,
    decisions: {},
    tolerance: axisScale.tolerance.default,
  };
}

export function rehearsedScale(
  truth: ReturnType<typeof practiceFromSeed>,
  gauge: Gauge,
  changes: Partial<AxisScalePlan>,
  random: ReturnType<typeof seeded>,
  commonMm = 0,
  n = 1,
  now: Readonly<Record<string, number>> = {},
): RoundRecord<AxisScalePlan> {
  const numbers = Object.fromEntries(
    Object.values(AXIS_SCALE).map((key) => [key, { found: FOUND_UM / 1000, now: now[key] ?? FOUND_UM / 1000 }]),
  );
  const inForce = Object.fromEntries(
    Object.entries(numbers).map(([key, held]) => [key, { shape: "scalar" as const, value: held.now }]),
  );
  const context: PlanContext = { machine: SCALED_MACHINE, couponCode: "T-1", inForce, gauges: [gauge] };
  const form = axisScalePlan(context);
  const plan = planWith(form, changes);
  return rehearseRound({
    procedure: axisScale,
    plan,
    context,
    purpose: n === 1 ? "measure" : "proof",
    n,
    truth,
    gauge,
    random,
    controller: { table: [], switchedOn: true, numbers },
    hand: { placingMm: gauge.placing?.sdMm ?? 0, commonMm, resolutionMm: gauge.resolutionMm },
  }).round as RoundRecord<AxisScalePlan>;
}

export function rms(values: readonly number[]): number {
  return Math.sqrt(values.reduce((sum, v) => sum + v ** 2, 0) / values.length);
}

/** Share of cases whose truth lies within what was stated. */
export function covered(cases: readonly ScaleCase[]): number {
  return cases.filter((c) => Math.abs(c.found - c.truly) <= c.expanded).length / cases.length;
}
