/**
 * How far a round part travels once its rotary is corrected, and how often intervals hold the truth, over rotaries drawn by chance.
 *
 * Simulated: rollers up to 2.5 % off and steps held wildly wrong on one in six, slip on one roller in five, chucks up to 2 % off that run out by up
 * to 0.15 mm, play of 0.15 mm, grip that wanders by 0.02 %, turning the other way on one in eight; parts 0.4 % off what they are called and up to
 * 0.04 mm oval; widths of lines by the beam, placing, step and zero of the gauge; the common error of the gauge where said.
 */

import type { MachineSpec } from "../../core/machine/machine-spec";
import type { RotaryDrive } from "../../core/machine/part-spec";
import type { Gauge } from "../../core/metrology/gauge";
import { expandedUncertainty } from "../../core/metrology/measured";
import type { RotaryPlan } from "../../core/procedures/rotary/plan";
import { rotaryPlan } from "../../core/procedures/rotary/plan-faults";
import { rotary } from "../../core/procedures/rotary/procedure";
import { readTravel } from "../../core/procedures/rotary/read-travel";
import { ROLLER_DIAMETER, ROTARY_STEPS } from "../../core/procedures/rotary/setting";
import type { SettingsInForce } from "../../core/settings/setting";
import type { History, RoundRecord } from "../../core/trial/history";
import type { PlanContext } from "../../core/trial/plan-form";
import type { PracticeController } from "../../practice/gantry-truth";
import { type PracticeTruth, practiceFromSeed, rotaryTruthOf } from "../../practice/practice-truth";
import { seeded, seedOf } from "../../practice/random";
import { partFromSeed, type RotaryTruth, TurningPart } from "../../practice/rotary-truth";
import { SAMPLE_MACHINE } from "../sample-machine";
import { rehearseRound } from "./rehearse-round";

/** What its controllers are found to hold. */
export const FOUND = { [ROTARY_STEPS]: 10_000, [ROLLER_DIAMETER]: 63 } as const;

export type RotarySet = {
  gauge: Gauge;
  plan: Partial<RotaryPlan>;
  drive: RotaryDrive;
  /** Whether the gauge has an error within its limit. */
  common: boolean;
  /** Left out: a gantry. */
  machine?: MachineSpec;
  /** Of the rotary as it was drawn. */
  truth?: (drawn: RotaryTruth) => RotaryTruth;
};

export type RotaryCase = {
  history: History<RotaryPlan>;
  truth: PracticeTruth;
  rotary: RotaryTruth;
  /** How much farther it truly goes than it should with the numbers as found. */
  trueRatio: number;
  /** Whether its interval holds that. */
  held: boolean;
  /** Error of travel once the correction is entered, a share; `null` where there is none. */
  left: number | null;
};

const inForce = (numbers: Record<string, number>): SettingsInForce =>
  Object.fromEntries(Object.entries(numbers).map(([key, value]) => [key, { shape: "scalar", value }]));

export function controllerWith(now: Record<string, number>): PracticeController {
  const numbers = Object.entries(FOUND).map(([key, found]) => [key, { found, now: now[key] ?? found }] as const);
  return { table: [], switchedOn: true, numbers: Object.fromEntries(numbers) };
}

/** A machine with this rotary on it. */
export function machineWith(
  seed: number,
  drive: RotaryDrive,
  change: RotarySet["truth"],
  machine = SAMPLE_MACHINE,
): PracticeTruth {
  const drawn = practiceFromSeed(seed, machine);
  const own = rotaryTruthOf(drawn, "", drive);
  return { ...drawn, rotaries: { [NAME]: change ? change(own) : own } };
}

const NAME = "practice";

export function rehearsedRotary(
  truth: PracticeTruth,
  set: RotarySet,
  seed: number,
  { n = 1, numbers = {} }: { n?: number; numbers?: Record<string, number> } = {},
): RoundRecord<RotaryPlan> {
  const { gauge, drive, machine = SAMPLE_MACHINE } = set;
  const held = { ...FOUND, ...numbers };
  const context: PlanContext = { machine, couponCode: "T-1", inForce: inForce(held), gauges: [gauge] };
  const plan = { ...rotaryPlan(context).defaults, rotary: NAME, drive, ...set.plan };
  const chance = seeded(seedOf(seed, "hand", n));
  const zero = () => chance.between(-gauge.resolutionMm / 2, gauge.resolutionMm / 2);
  return rehearseRound({
    procedure: rotary,
    plan,
    context,
    purpose: n === 1 ? "measure" : "proof",
    n,
    truth,
    gauge,
    controller: controllerWith(held),
    random: chance,
    hand: {
      placingMm: gauge.placing?.sdMm ?? 0,
      resolutionMm: gauge.resolutionMm,
      commonMm: set.common ? seeded(seed).between(-1, 1) * gauge.limitMm : 0,
      ...(gauge.kind === "calipers" ? { zeroMm: { outside: zero(), inside: zero() } } : {}),
    },
  }).round as RoundRecord<RotaryPlan>;
}

export function historyOf(set: RotarySet, ...rounds: RoundRecord<RotaryPlan>[]): History<RotaryPlan> {
  const gauge = set.common ? set.gauge : { ...set.gauge, limitMm: 0 };
  return {
    rounds,
    gauges: [gauge],
    available: [gauge],
    machine: SAMPLE_MACHINE,
    decisions: {},
    tolerance: rotary.tolerance.default,
  };
}

export function rotaryCases(first: number, count: number, set: RotarySet): RotaryCase[] {
  return Array.from({ length: count }, (_, i) => rotaryCase(first + i, set));
}

function rotaryCase(seed: number, set: RotarySet): RotaryCase {
  const truth = machineWith(seed, set.drive, set.truth);
  const own = rotaryTruthOf(truth, NAME, set.drive);
  const round = rehearsedRotary(truth, set, seed);
  const history = historyOf(set, round);
  const read = readTravel(history, round);
  const trueRatio = goesBy(truth, own, round.plan, {});
  const outcome = rotary.solve(history);
  const corrections = outcome.status === "solved" ? outcome.corrections : [];
  const entered = Object.fromEntries(
    corrections.flatMap((c) => (c.newValue.shape === "scalar" ? [[c.setting, c.newValue.value]] : [])),
  );
  const ratio = read?.ratio.quantity;
  return {
    history,
    truth,
    rotary: own,
    trueRatio,
    held: ratio !== undefined && Math.abs(ratio.value - trueRatio) <= expandedUncertainty(ratio),
    left: corrections.length > 0 ? goesBy(truth, own, round.plan, entered) - 1 : null,
  };
}

/** Over many turns of a part without runout, without chance: how much farther it goes than sent, as for a part that rests where it is marked. */
function goesBy(truth: PracticeTruth, own: RotaryTruth, plan: RotaryPlan, now: Record<string, number>): number {
  const laid = { drive: plan.drive, diameterMm: plan.diameterMm, restsOnMm: plan.restsOnMm ?? plan.diameterMm };
  const rests = plan.rests === "other" ? laid : { ...laid, restsOnMm: laid.diameterMm };
  const part = partFromSeed(truth.seed, rests);
  const { numbers = {} } = controllerWith(now);
  const still = { ...own, gripSd: 0, runoutMm: 0, playMm: 0, turns: 1 as const };
  const turning = new TurningPart(
    still,
    part,
    laid,
    { steps: numbers[ROTARY_STEPS], roller: numbers[ROLLER_DIAMETER] },
    seeded(1),
  );
  turning.move(FAR_MM);
  const shape = plan.drive === "chuck" ? part.markedMm / plan.diameterMm : part.markedMm / part.restsOnMm;
  return turning.surfaceMm / (FAR_MM * shape);
}

const FAR_MM = 10_000;

export function coverageOf(cases: readonly RotaryCase[]): number {
  return cases.filter((c) => c.held).length / cases.length;
}

export function rmsLeft(cases: readonly RotaryCase[]): number {
  const left = cases.flatMap((c) => (c.left === null ? [] : [c.left]));
  return Math.sqrt(left.reduce((sum, v) => sum + v * v, 0) / left.length);
}
