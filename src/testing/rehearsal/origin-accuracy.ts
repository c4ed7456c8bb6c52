/**
 * How near the origin comes to the truth, over gantries drawn by chance.
 *
 * Simulated: homes up to 1.5 mm off, either sense, a stock that lies turned by 0.1 degree (sd), lean within 1.5 mm a metre, scales within 0.1 %, play,
 * pulleys that run out, placing scatter, the step of the gauge.
 */

import { expandedUncertainty } from "../../core/metrology/measured";
import { edgesIn } from "../../core/procedures/origin/observe";
import { type OriginPlan, originPlan } from "../../core/procedures/origin/plan";
import { origin } from "../../core/procedures/origin/procedure";
import { HOME_OFFSET } from "../../core/procedures/origin/setting";
import type { History, RoundRecord } from "../../core/trial/history";
import type { PlanContext } from "../../core/trial/plan-form";
import { type PracticeTruth, practiceFromSeed } from "../../practice/practice-truth";
import { seeded, seedOf } from "../../practice/random";
import { planWith } from "../plan-with";
import { SAMPLE_MACHINE } from "../sample-machine";
import { LENGTH_GAUGES } from "./axis-scale-accuracy";
import { rehearseRound } from "./rehearse-round";

const COUNTS = { unit: "counts", step: 1, range: null, tableKind: "not known", sense: 1 } as const;
const MACHINE = {
  ...SAMPLE_MACHINE,
  held: { ...SAMPLE_MACHINE.held, [HOME_OFFSET.x]: COUNTS, [HOME_OFFSET.y]: COUNTS },
};
const FOUND = 500;
const GAUGE = { ...LENGTH_GAUGES.calipers, limitMm: 0 };

type Numbers = Record<string, number>;
export const AS_FOUND: Numbers = { [HOME_OFFSET.x]: FOUND, [HOME_OFFSET.y]: FOUND };

export function rehearsedOrigin(
  truth: PracticeTruth,
  seed: number,
  n: number,
  now: Numbers,
  changes: Partial<OriginPlan>,
) {
  const inForce = Object.fromEntries(
    Object.entries(now).map(([key, value]) => [key, { shape: "scalar" as const, value }]),
  );
  const context: PlanContext = { machine: MACHINE, couponCode: `T-${n}`, inForce };
  const form = originPlan(context);
  const numbers = Object.fromEntries(Object.entries(now).map(([key, value]) => [key, { found: FOUND, now: value }]));
  return rehearseRound({
    procedure: origin,
    plan: planWith(form, changes),
    context,
    n,
    truth,
    purpose: n === 1 ? "measure" : "proof",
    controller: { table: [], switchedOn: true, numbers },
    gauge: GAUGE,
    random: seeded(seedOf(seed, n)),
    hand: { placingMm: GAUGE.placing?.sdMm ?? 0, commonMm: 0, resolutionMm: GAUGE.resolutionMm },
  }).round as RoundRecord<OriginPlan>;
}

export const originHistory = (...rounds: RoundRecord<OriginPlan>[]): History<OriginPlan> => ({
  rounds,
  gauges: [GAUGE],
  available: [],
  machine: MACHINE,
  decisions: {},
  tolerance: origin.tolerance.default,
});

export function entered(...rounds: RoundRecord<OriginPlan>[]): Numbers {
  const outcome = origin.solve(originHistory(...rounds));
  if (outcome.status !== "solved") throw new Error(JSON.stringify(outcome));
  return Object.fromEntries(
    outcome.corrections.map((c) => [c.setting, c.newValue.shape === "scalar" ? c.newValue.value : Number.NaN]),
  );
}

export function originGantry(seed: number) {
  const truth = practiceFromSeed(seed, MACHINE);
  if ("kind" in truth || !truth.axes) throw new Error("a gantry with axes is wanted");
  return { ...truth, axes: truth.axes };
}

/** Where the two lines truly lie at the corner, too far from the left and the front edge, without turn: by the marks of the machine. */
function trulyOff({ scaleX, scaleY, axes }: ReturnType<typeof originGantry>) {
  return { x: 20 * (scaleX - 1) + axes.x.homeMm, y: 15 * (scaleY - 1) + axes.y.homeMm };
}

/** Share of gantries, both axes, whose error lies within what is said of it. */
export function originCoverage(first: number, count: number): number {
  let held = 0;
  for (let seed = first; seed < first + count; seed++) {
    const truth = originGantry(seed);
    const round = rehearsedOrigin(truth, seed, 1, AS_FOUND, { sideX: "left", sideY: "front" });
    const errors = edgesIn(originHistory(round), round)?.errors;
    const truly = trulyOff(truth);
    for (const axis of ["x", "y"] as const) {
      const error = errors?.[axis]?.quantity;
      if (error && Math.abs(error.value - truly[axis]) <= expandedUncertainty(error)) held++;
    }
  }
  return held / (2 * count);
}
