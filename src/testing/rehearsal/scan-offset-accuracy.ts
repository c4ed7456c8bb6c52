/**
 * How well scan-offset corrections come out, over many practice gantries.
 *
 * The true residual is found without any reading: the corrected coupon is burned once more and the marks themselves are
 * measured. A block that stands off the line is read again once, as the tool asks. Simulated errors: play, lags, acceleration, axis scale, row-end jitter, placing scatter, gauge step, one common
 * error of the gauge a trial, and where it has jaws what its step hides of their zero.
 */

import { burnGcode } from "../../burning/practice-burn";
import { mean } from "../../core/fitting/repeats";
import type { MachineSpec } from "../../core/machine/machine-spec";
import type { Gauge } from "../../core/metrology/gauge";
import { expandedUncertainty } from "../../core/metrology/measured";
import { SCAN_OFFSET, type ScanOffsetPlan } from "../../core/procedures/scan-offset/plan";
import { scanOffset } from "../../core/procedures/scan-offset/procedure";
import { ROW_SHIFT, ROW_SHIFT_BY_SPEED } from "../../core/procedures/scan-offset/setting";
import type { HeldSetting, SettingsInForce, SettingValue } from "../../core/settings/setting";
import type { History, Purpose, RoundRecord } from "../../core/trial/history";
import type { Estimate, Outcome } from "../../core/trial/outcome";
import type { PlanContext } from "../../core/trial/plan-form";
import { gcodeOf } from "../../formats/gcode-writer";
import {
  type GantryTruth,
  gantryFromSeed,
  type PracticeController,
  rowShiftAt,
  rowShiftFromSeed,
  withoutNoise,
} from "../../practice/gantry-truth";
import { trueValue } from "../../practice/measure";
import { seeded, seedOf } from "../../practice/random";
import { SAMPLE_MACHINE } from "../sample-machine";
import { type Rehearsed, rehearseRound } from "./rehearse-round";

type Solved = Extract<Outcome, { status: "solved" }>;

export type Errors = {
  placingMm: number;
  limitMm: number;
  resolutionMm: number;
  /** Whether the gauge has jaws, whose zero is seen only to its step. */
  jaws: boolean;
  noise: boolean;
  /** How far the drive departs from a line halfway between 100 and 600 mm/s, mm; left out: not at all. */
  bendMm?: number;
  /** Blocks are outlined, and the controller stores the shift of scanned rows as one value or one for each speed; left out: no outlines. */
  shift?: "one" | "by speed";
};

/** One reported number beside the truth, internal unit. */
export type JudgedEstimate = { id: string; error: number; halfWidth: number };

export type AccuracyCase = {
  seed: number;
  /** True stagger left at each speed, mm. */
  residualsMm: number[];
  /** Every number that the procedure reports, in the first round and in the proof: lag, constant part, offset at each speed. */
  estimates: JudgedEstimate[];
  /** True shift of scanned rows left at each speed, mm. */
  shiftsLeftMm: number[];
  /** Largest rounding of an entry, mm. */
  roundingMm: number;
};

/** Calipers as in most workshops, in a practised hand. */
export const CALIPER_ERRORS: Errors = {
  placingMm: 0.02,
  limitMm: 0.02,
  resolutionMm: 0.01,
  jaws: true,
  noise: true,
};

export function accuracyCases(fromSeed: number, count: number, errors: Errors): AccuracyCase[] {
  return Array.from({ length: count }, (_, i) => accuracyCase(fromSeed + i, errors));
}

/** One gantry read with calipers, as found. */
export function scanOffsetHistory(seed: number, repeats: number): History {
  const random = seeded(seedOf(seed, "hand"));
  const { placingMm, limitMm, resolutionMm } = CALIPER_ERRORS;
  const gauge: Gauge = { ...CALIPERS, resolutionMm, limitMm, placing: { sdMm: placingMm, relativeDoubt: 0.5 } };
  const context: PlanContext = {
    machine: SAMPLE_MACHINE,
    couponCode: `P-${seed}`,
    inForce: { [SCAN_OFFSET]: { shape: "table", rows: [] } },
  };
  const { round } = rehearseRound({
    procedure: scanOffset,
    plan: { ...scanOffset.plan(context).defaults, repeats },
    context,
    purpose: "measure",
    n: 1,
    truth: gantryFromSeed(seed),
    controller: { table: [], switchedOn: true },
    gauge,
    hand: { placingMm, commonMm: random.between(-limitMm, limitMm), resolutionMm },
    random,
  });
  const { default: tolerance } = scanOffset.tolerance;
  return { rounds: [round], gauges: [gauge], available: [gauge], machine: SAMPLE_MACHINE, tolerance, decisions: {} };
}

const CALIPERS = { id: "calipers", name: "Calipers", kind: "calipers", unit: "mm" } as const;

const SHIFT_SETTING = { one: ROW_SHIFT, "by speed": ROW_SHIFT_BY_SPEED } as const;

function machineFor({ shift }: Errors): MachineSpec {
  if (!shift) return SAMPLE_MACHINE;
  const held: HeldSetting = { unit: "mm", step: 0.001, range: null, tableKind: "exact speed only", sense: 1 };
  return { ...SAMPLE_MACHINE, held: { ...SAMPLE_MACHINE.held, [SHIFT_SETTING[shift]]: held } };
}

/** What the controller stores of the shift of scanned rows, as the ledger has it. */
function shiftInForce({ numbers, rowShifts = [] }: PracticeController): SettingsInForce {
  return {
    [ROW_SHIFT]: { shape: "scalar", value: numbers?.[ROW_SHIFT]?.now ?? 0 },
    [ROW_SHIFT_BY_SPEED]: { shape: "table", rows: rowShifts },
  };
}

/** The controller with a new shift entered. */
function withShift(held: PracticeController, value: SettingValue | undefined): PracticeController {
  if (value?.shape === "table") return { ...held, rowShifts: value.rows };
  return value?.shape === "scalar" ? { ...held, numbers: { [ROW_SHIFT]: { found: 0, now: value.value } } } : held;
}

/** One gantry: measured once, corrected, burned again, its true residuals compared with what was promised. */
function accuracyCase(seed: number, errors: Errors): AccuracyCase {
  const machine = machineFor(errors);
  const drawn = { ...gantryFromSeed(seed), bendMm: errors.bendMm, rowShift: rowShiftFromSeed(seed, 1) };
  const truth = errors.noise ? drawn : withoutNoise(drawn);
  const random = seeded(seedOf(seed, "hand"));
  const gauge: Gauge = {
    id: "calipers",
    name: "Calipers",
    kind: errors.jaws ? "calipers" : "scan",
    unit: "mm",
    resolutionMm: Math.max(errors.resolutionMm, 1e-6),
    limitMm: errors.limitMm,
    placing: { sdMm: Math.max(errors.placingMm, 1e-6), relativeDoubt: 0.5 },
  };
  const zeroMm = errors.jaws ? random.between(-errors.resolutionMm / 2, errors.resolutionMm / 2) : 0;
  const commonMm = random.between(-errors.limitMm, errors.limitMm) + zeroMm;
  const controller: PracticeController = { table: [], switchedOn: true };
  const context: PlanContext = {
    machine,
    couponCode: `P-${seed}`,
    inForce: { [SCAN_OFFSET]: { shape: "table", rows: [] } },
  };
  const plan: ScanOffsetPlan = {
    ...scanOffset.plan(context).defaults,
    outline: errors.shift ? "each block" : "none",
    ...(errors.shift ? { stockHeightMm: 125 } : {}),
  };
  const read = (purpose: Purpose, n: number, held: PracticeController) =>
    rehearseRound({
      procedure: scanOffset,
      plan,
      context: { ...context, inForce: { [SCAN_OFFSET]: { shape: "table", rows: held.table }, ...shiftInForce(held) } },
      purpose,
      n,
      truth,
      controller: held,
      gauge,
      hand: { placingMm: errors.placingMm, commonMm, resolutionMm: errors.resolutionMm },
      random,
    });
  const first = read("measure", 1, controller);
  const solve = (rounds: RoundRecord[]) => {
    const history: History = {
      rounds,
      gauges: [gauge],
      available: [gauge],
      machine,
      tolerance: 0.05,
      decisions: {},
    };
    const outcome = scanOffset.solve(history as never);
    if (outcome.status !== "solved") throw new Error(`seed ${seed}: ${outcome.status}`);
    return outcome;
  };
  const { round: measured, outcome } = readOnceMore(first, (round) => solve([round]));
  const correction = outcome.corrections[0];
  if (correction?.newValue.shape !== "table") throw new Error(`seed ${seed}: no table`);
  const table = correction.rows.map((row) => ({ at: row.at ?? 0, value: row.enter }));
  const corrected = withShift({ table, switchedOn: true }, outcome.corrections[1]?.newValue);
  const residualsMm = trueStaggers(context, plan, truth, corrected);
  const { outcome: proof } = readOnceMore(read("proof", 2, corrected), (round) => solve([measured, round]));
  const before = trueStaggers(context, plan, truth, controller);
  const shiftsMm = (held: PracticeController) => plan.speedsMmPerS.map((v) => rowShiftAt(truth, held, v));
  const lagDifference = truth.lagOffS - truth.lagOnS;
  const speeds = [...plan.speedsMmPerS].sort((x, y) => x - y);
  return {
    seed,
    residualsMm,
    shiftsLeftMm: shiftsMm(corrected),
    estimates: [
      ...judged("", outcome.estimates, speeds, before, before, shiftsMm(controller), lagDifference),
      ...judged("proof ", proof.estimates, speeds, before, residualsMm, shiftsMm(corrected), lagDifference),
    ],
    roundingMm: Math.max(...correction.rows.map((row) => Math.abs(row.rounding))),
  };
}

/** Does what the tool asks for: reads again, once, both ends of every block that stands off the line. */
function readOnceMore({ round, readAgain }: Rehearsed, solve: (round: RoundRecord) => Solved) {
  const outcome = solve(round);
  const rows = outcome.corrections.flatMap((c) => c.rows);
  const sites = rows.flatMap((row) => (row.heldBack ? [`v${row.key}-left`, `v${row.key}-right`] : []));
  if (sites.length === 0) return { round, outcome };
  const more = { ...round, answers: [...round.answers, ...readAgain(sites)] };
  return { round: more, outcome: solve(more) };
}

/**
 * The truth of the marks themselves: half of the stagger at each speed, and the straight line through the ends of what it is
 * without any table.
 */
function judged(
  round: string,
  estimates: readonly Estimate[],
  speeds: readonly number[],
  bare: readonly number[],
  staggers: readonly number[],
  shifts: readonly number[],
  lagDifference: number,
): JudgedEstimate[] {
  const last = speeds.length - 1;
  const [v0 = 0, v1 = 1, s0 = 0, s1 = 0] = [speeds[0], speeds[last], bare[0], bare[last]];
  const lag = (s1 - s0) / (v1 - v0) / 2;
  const truths = new Map([
    ["lag", lag],
    ["constant", s0 / 2 - lag * v0],
    ["lag difference", lagDifference],
    ["shift", mean(shifts)],
    ...speeds.map((v, i) => [`shift at ${v}`, shifts[i] ?? Number.NaN] as const),
    ...speeds.map((v, i) => [`offset ${v}`, (staggers[i] ?? Number.NaN) / 2] as const),
  ]);
  return estimates.map((e) => ({
    id: round + e.id,
    error: e.quantity.value - (truths.get(e.id) ?? Number.NaN),
    halfWidth: expandedUncertainty(e.quantity),
  }));
}

function trueStaggers(
  context: PlanContext,
  plan: never | object,
  truth: GantryTruth,
  controller: PracticeController,
): number[] {
  const spec = scanOffset.round(plan as never, context, "proof");
  const options = {
    couponCode: context.couponCode,
    machineName: SAMPLE_MACHINE.name,
    dialect: SAMPLE_MACHINE.gcode,
  };
  const still = { ...truth, endJitterMm: 0 };
  const burn = burnGcode(gcodeOf(spec, options), context.couponCode, SAMPLE_MACHINE, still, controller, spec);
  if (!burn.ok) throw new Error(burn.message);
  return spec.sites
    .filter((site) => /^v.*-right$/.test(site.id))
    .map((site) => {
      const value = trueValue(site.measurand, burn.marks, burn.corner);
      if (!value.ok) throw new Error(value.why);
      return value.value;
    });
}

export type AccuracySummary = {
  cases: number;
  /** Share of gantries with every speed under 0.03 mm. */
  shareUnder30um: number;
  /** Median over gantries of the worst speed, mm. */
  medianWorstMm: number;
  /** Median over all speeds, mm. */
  medianMm: number;
  /** By estimate: how often its 95 % interval holds the truth, and how wide it is beside the error. */
  estimates: { id: string; coverage: number; widthByError: number }[];
  worstMm: number;
};

export function summaryOf(cases: readonly AccuracyCase[]): AccuracySummary {
  const all = cases.flatMap((c) => c.residualsMm.map(Math.abs));
  const worst = cases.map((c) => Math.max(...c.residualsMm.map(Math.abs)));
  return {
    cases: cases.length,
    shareUnder30um: worst.filter((w) => w < 0.03).length / cases.length,
    medianWorstMm: middle(worst),
    medianMm: middle(all),
    estimates: (cases[0]?.estimates ?? []).map(({ id }) => estimateSummary(id, cases)),
    worstMm: Math.max(...worst),
  };
}

/** `widthByError`: mean half width over the root mean square of the error. */
function estimateSummary(id: string, cases: readonly AccuracyCase[]) {
  const all = cases.flatMap((c) => c.estimates.filter((e) => e.id === id));
  const rms = Math.sqrt(all.reduce((sum, e) => sum + e.error ** 2, 0) / all.length);
  return {
    id,
    coverage: all.filter((e) => Math.abs(e.error) <= e.halfWidth).length / all.length,
    widthByError: all.reduce((sum, e) => sum + e.halfWidth, 0) / all.length / rms,
  };
}

function middle(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[sorted.length >> 1] ?? Number.NaN;
}
