/**
 * A field measured with a gauge, corrected once and looked at over the whole field, on heads drawn by chance.
 *
 * The errors of a head: two mirrors 12 to 20 mm apart, a lens with cubic and quintic of its own and a pupil error, own cubics and sizes of both
 * axes, mirrors up to 0.4 degrees out of square, stock tilted by up to 0.3 degrees, a height up to 0.3 mm wrong. A turn of the whole, which
 * only a fence shows, is taken out.
 */

import { FIELD_TERMS } from "../../core/geometry/field-term";
import type { MachineSpec } from "../../core/machine/machine-spec";
import { type Gauge, gaugeAsUsual } from "../../core/metrology/gauge";
import { expandedUncertainty } from "../../core/metrology/measured";
import { unmapped } from "../../core/procedures/field/map";
import { type FieldPlan, keyOf, settableTerms } from "../../core/procedures/field/plan";
import { galvoField } from "../../core/procedures/field/procedure";
import { FIELD_SETTINGS } from "../../core/procedures/field/setting";
import { fieldIn } from "../../core/procedures/field/square/observe";
import type { HeldSetting, SettingsInForce } from "../../core/settings/setting";
import type { History, RoundRecord } from "../../core/trial/history";
import type { HeldNumber } from "../../practice/axes-truth";
import { GalvoHead, type HeadHeld, type HeadTruth, type Place } from "../../practice/galvo-head";
import type { PracticeController } from "../../practice/gantry-truth";
import type { Hand } from "../../practice/measure";
import { isGalvo, practiceFromSeed } from "../../practice/practice-truth";
import { seeded, seedOf } from "../../practice/random";
import { SAMPLE_GALVO } from "../sample-machine";
import { rehearseRound } from "./rehearse-round";

export type FieldCase = {
  way: FieldPlan["way"];
  gauge: "calipers" | "rule";
  /** Whether the machine page says what its coefficients do. */
  effects: "known" | "not known";
  repeats?: number;
  /** Readings without any error. */
  quiet?: boolean;
};

export const FIELD_GAUGES: Readonly<Record<FieldCase["gauge"], Gauge>> = {
  calipers: gaugeAsUsual("calipers"),
  rule: gaugeAsUsual("rule"),
};

const RANGE = { low: -100, high: 100 };
/** What one more of each coefficient moves the corner, mm, where it is known. */
const EFFECT_MM = 0.04;

/** A galvo that holds every setting of a field. */
export function fieldMachine(effects: FieldCase["effects"]): MachineSpec {
  const held = FIELD_SETTINGS.map(({ key, unit }): [string, HeldSetting] => [
    key,
    unit === "percent"
      ? { unit, step: 0.0001, range: null, tableKind: "not known", sense: 1 }
      : {
          unit,
          step: 0.1,
          range: RANGE,
          tableKind: "not known",
          sense: 1,
          ...(effects === "known" ? { effectMm: EFFECT_MM } : {}),
        },
  ]);
  return { ...SAMPLE_GALVO, held: Object.fromEntries(held) };
}

/** The head of a seed, with its orientation right. */
export function fieldTruth(seed: number, machine: MachineSpec) {
  const truth = practiceFromSeed(seed, machine);
  if (!isGalvo(truth) || !truth.head) throw new Error("no galvo");
  const head: HeadTruth = {
    ...truth.head,
    turnRad: 0,
    mounted: { swap: false, invertX: false, invertY: false },
  };
  return { ...truth, head };
}

/** A suspect is read again so often. */
const MOST_AGAIN = 2;

export const NOTHING: PracticeController = { table: [], switchedOn: true };

/** Which intervals hold: against the same solver on lengths without any noise. What the model cannot follow is in both. */
export function fieldCoverage(seeds: readonly number[], c: FieldCase): { held: number; of: number } {
  let [held, of] = [0, 0];
  for (const seed of seeds) {
    const [noisy, quiet] = [fieldTrial(seed, c, 1), fieldTrial(seed, { ...c, quiet: true }, 1)];
    const [a, b] = [mapOf(noisy), mapOf(quiet)];
    if (!a || !b) continue;
    for (const term of settableTerms({ way: c.way })) {
      const { quantity, parts } = a.term(term);
      // The form of the field is no error of the readings.
      const u = Math.hypot(
        ...parts.filter((p) => p.id !== "stray" && !p.id.startsWith("quadratic")).map((p) => p.standardUncertainty),
      );
      const share = quantity.standardUncertainty > 0 ? u / quantity.standardUncertainty : 0;
      of += 1;
      if (Math.abs(quantity.value - (b.map[term] ?? 0)) <= share * expandedUncertainty(quantity)) held += 1;
    }
  }
  return { held, of };
}

function mapOf({ history }: FieldTrial) {
  const [round] = history.rounds;
  return round ? fieldIn(history, round) : null;
}

export type FieldTrial = {
  machine: MachineSpec;
  history: History<FieldPlan>;
  /** Farthest point over the field before, after each correction, and as a table of the inverse map would leave it, mm. */
  before: number;
  after: number[];
  table: number;
};

/** One head: measured, corrected, and measured again as often as is asked for. @param mostBurns counted with the first */
export function fieldTrial(seed: number, c: FieldCase, mostBurns = 2): FieldTrial {
  const machine = fieldMachine(c.effects);
  const truth = fieldTruth(seed, machine);
  const gauge = FIELD_GAUGES[c.gauge];
  const random = seeded(seedOf(seed, "hand", c.gauge));
  const hand: Hand = c.quiet
    ? { placingMm: 0, commonMm: 0, resolutionMm: 0 }
    : {
        placingMm: gauge.placing?.sdMm ?? 0.02,
        commonMm: random.between(-gauge.limitMm, gauge.limitMm),
        resolutionMm: gauge.resolutionMm,
      };
  const context = { machine, couponCode: "T-1", inForce: {}, gauges: [gauge] };
  const form = galvoField.plan(context);
  const plan: FieldPlan = {
    ...form.defaults,
    way: c.way,
    fieldMm: 110,
    sideXMm: 103.5,
    sideYMm: 100,
    knownMm: 0,
    repeats: c.repeats ?? 2,
  };
  let numbers: Record<string, HeldNumber> = Object.fromEntries(
    settableTerms(plan).map((t) => [keyOf(t), start(t.startsWith("scale") ? 1 : 0)]),
  );
  const worst = (held: Record<string, HeldNumber>) => worstOf(new GalvoHead(truth.head, heldBy(held), 55));
  const history: History<FieldPlan> = {
    rounds: [],
    gauges: [gauge],
    available: [gauge],
    machine,
    tolerance: galvoField.tolerance.default,
    decisions: {},
  };
  const before = worst(numbers);
  const after: number[] = [];
  let table = Number.NaN;
  const rounds: RoundRecord<FieldPlan>[] = [];
  for (let n = 1; n <= mostBurns; n++) {
    const inForce: SettingsInForce = Object.fromEntries(
      Object.entries(numbers).map(([key, { now }]) => [key, { shape: "scalar", value: now }]),
    );
    const { round: first, readAgain } = rehearseRound({
      procedure: galvoField,
      plan,
      context: { ...context, inForce },
      purpose: n === 1 ? "measure" : "proof",
      n,
      truth,
      controller: { ...NOTHING, numbers },
      gauge,
      hand,
      random,
    });
    const asRead = (answers: typeof first.answers) => {
      const known = { ...history, rounds: [...rounds, { ...first, plan, answers }] };
      return { known, outcome: galvoField.solve(known) };
    };
    // A reading that contradicts the others is held back: everything is read once more, as the screen asks.
    const isHeld = ({ outcome }: ReturnType<typeof asRead>) =>
      outcome.status === "solved" && outcome.corrections.some((c) => c.rows.some((row) => row.heldBack));
    let solved = asRead(first.answers);
    for (let more = 0; more < MOST_AGAIN && isHeld(solved); more++)
      solved = asRead(readAgain(first.spec.sites.map((s) => s.id)));
    const { known, outcome } = solved;
    rounds.push(...known.rounds.slice(-1));
    if (outcome.status !== "solved") throw new Error(`seed ${seed}: ${JSON.stringify(outcome)}`);
    const read = fieldIn(known, rounds[rounds.length - 1] as RoundRecord<FieldPlan>);
    if (n === 1 && read) {
      const head = new GalvoHead(truth.head, heldBy(numbers), 55);
      table = worstBy((at) => head.marked(unmapped(read.map, at, 55), 0));
    }
    const entered = outcome.corrections.map((correction) => {
      const [row] = correction.rows;
      const held = numbers[correction.setting] ?? start(0);
      return [correction.setting, { ...held, now: row && !row.heldBack ? row.enter : held.now }] as const;
    });
    numbers = { ...numbers, ...Object.fromEntries(entered) };
    after.push(worst(numbers));
  }
  return { machine, history: { ...history, rounds }, before, after, table };
}

function start(value: number): HeldNumber {
  return { found: value, now: value };
}

function heldBy(numbers: Record<string, HeldNumber>): HeadHeld {
  const scale = (axis: "x" | "y") => ({ held: numbers[`field scale ${axis}`], grows: true });
  return {
    turn: { held: undefined, sense: 1 },
    swap: undefined,
    invertX: undefined,
    invertY: undefined,
    scale: { x: scale("x"), y: scale("y") },
    terms: Object.fromEntries(FIELD_TERMS.map((t) => [t, numbers[`field ${t}`]])),
  };
}

function worstOf(head: GalvoHead): number {
  return worstBy((at) => head.marked(at, 0));
}

/** Over the field, with the turn taken out that brings the places nearest to where they are drawn. */
export function worstBy(map: (at: Place) => Place): number {
  const places = Array.from({ length: 441 }, (_, i) => ({
    x: -55 + 5.5 * (i % 21),
    y: -55 + 5.5 * Math.floor(i / 21),
  }));
  const to = places.map(map);
  let [cross, dot] = [0, 0];
  places.forEach((p, i) => {
    const q = to[i] ?? p;
    cross += p.x * q.y - p.y * q.x;
    dot += p.x * q.x + p.y * q.y;
  });
  const turn = -Math.atan2(cross, dot);
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  return Math.max(
    ...places.map((p, i) => {
      const q = to[i] ?? p;
      return Math.hypot(c * q.x - s * q.y - p.x, s * q.x + c * q.y - p.y);
    }),
  );
}
