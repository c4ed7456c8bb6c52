/**
 * Trials on practice machines in which slips are made on purpose.
 *
 * Simulated beside the slip: all that `axis-scale-accuracy`, `scan-offset-accuracy`, `origin-accuracy`, `kerf-accuracy`, `squareness-accuracy`,
 * `rotary-accuracy` and `field-accuracy` draw, with a common error of the gauge in axes, scan offset, kerf, rotary and field; `focus-ladder` for
 * the focus; for beds their own tilt and bow, 0.02 mm of scatter and a step of 0.1 mm.
 */
import type { Gauge } from "../../core/metrology/gauge";
import { usualGauge } from "../../core/metrology/gauge";
import { axisScale } from "../../core/procedures/axis-scale/procedure";
import { bedTilt } from "../../core/procedures/bed-tilt/procedure";
import type { AnyProcedure } from "../../core/procedures/contract";
import { galvoField } from "../../core/procedures/field/procedure";
import { fixtureStops } from "../../core/procedures/fixture-stops/procedure";
import { focus } from "../../core/procedures/focus/procedure";
import type { KerfPlan } from "../../core/procedures/kerf/plan";
import { kerf } from "../../core/procedures/kerf/procedure";
import { origin } from "../../core/procedures/origin/procedure";
import { rotary } from "../../core/procedures/rotary/procedure";
import { scanOffset } from "../../core/procedures/scan-offset/procedure";
import { squareness } from "../../core/procedures/squareness/procedure";
import type { History, RoundRecord } from "../../core/trial/history";
import { practiceFromSeed } from "../../practice/practice-truth";
import { seeded, seedOf } from "../../practice/random";
import { planWith } from "../plan-with";
import { SAMPLE_MACHINE } from "../sample-machine";
import { historyOf, LENGTH_GAUGES, rehearsedScale, soundGantry } from "./axis-scale-accuracy";
import { fieldTrial } from "./field-accuracy";
import { ladderHead, widthLadder } from "./focus-ladder";
import { kerfHistory, kerfPlan, rehearsedKerf } from "./kerf-accuracy";
import { AS_FOUND, originGantry, originHistory, rehearsedOrigin } from "./origin-accuracy";
import { rehearseRound } from "./rehearse-round";
import { machineWith, type RotarySet, rehearsedRotary, historyOf as rotaryHistory } from "./rotary-accuracy";
import { scanOffsetHistory } from "./scan-offset-accuracy";
import { type SlipCase, type SlipMaker, signSlips, slipMakers, zeroSlip } from "./slip-rehearsal";
import { rehearsedSquare } from "./squareness-accuracy";

const scale = (gauge: keyof typeof LENGTH_GAUGES, plan: object) => (seed: number) => {
  const random = seeded(seedOf(seed, "reading"));
  const known = LENGTH_GAUGES[gauge];
  const round = rehearsedScale(soundGantry(seed), known, plan, random, random.between(-1, 1) * known.limitMm);
  return historyOf([round], known);
};

const corner = (repeats: number) => (seed: number) =>
  originHistory(
    rehearsedOrigin(originGantry(seed), seed, 1, AS_FOUND, {
      sideX: "left",
      sideY: "front",
      senseX: "away",
      senseY: "away",
      repeats,
    }),
  );

const { calipers } = LENGTH_GAUGES;
/** Of a zero of the jaws: half as much again as a known length read twice shows. */
const ZERO_OFF_MM = 0.15;

const cutOut = (plan: Partial<KerfPlan>) => (seed: number) =>
  kerfHistory([
    rehearsedKerf(seed, kerfPlan(seed, { repeats: 3, ...plan }), {
      commonMm: seeded(seed).between(-1, 1) * calipers.limitMm,
    }),
  ]);

function historyBy(procedure: AnyProcedure, gauge: Gauge, round: RoundRecord): History {
  return {
    rounds: [round],
    gauges: [gauge],
    available: [gauge],
    machine: SAMPLE_MACHINE,
    decisions: {},
    tolerance: procedure.tolerance.default,
  };
}

const LINE_AROUND: RotarySet = {
  gauge: calipers,
  plan: {},
  drive: "chuck",
  common: true,
  truth: (drawn) => ({ ...drawn, turns: 1 }),
};

const around = (seed: number) =>
  rotaryHistory(LINE_AROUND, rehearsedRotary(machineWith(seed, "chuck", LINE_AROUND.truth), LINE_AROUND, seed));

/** A first burn on a gantry of this seed, read with what scatters and nothing common. */
function firstRead(procedure: AnyProcedure, gauge: Gauge, seed: number, changes: object): History {
  const context = { machine: SAMPLE_MACHINE, couponCode: "T-1", inForce: {}, gauges: [gauge] };
  const { round } = rehearseRound({
    procedure,
    plan: planWith(procedure.plan(context), changes),
    context,
    n: 1,
    purpose: "measure",
    truth: practiceFromSeed(seed, SAMPLE_MACHINE),
    gauge,
    random: seeded(seedOf(seed, 1)),
    controller: { table: [], switchedOn: true },
    hand: { placingMm: gauge.placing?.sdMm ?? 0, commonMm: 0, resolutionMm: gauge.resolutionMm },
  });
  return historyBy(procedure, gauge, round);
}

const READOUT: Gauge = {
  id: "readout",
  name: "Readout",
  kind: "rule",
  unit: "mm",
  ...usualGauge("rule", "mm"),
  resolutionMm: 0.1,
  placing: { sdMm: 0.02, relativeDoubt: 0.5 },
};

export type SlipSet = {
  name: string;
  procedure: AnyProcedure;
  historyOf: (seed: number) => History;
  /** Size of an error of unknown size, mm; slips that change a reading by less need not be named. */
  sizeMm: number;
  makers: readonly SlipMaker[];
  /** Kinds that this layout cannot show, which the page says before. */
  unseen: readonly string[];
  /** Share of slips whose point is named first, at least, over all kinds; left out: 90 %. */
  namedFirst?: number;
  /** Share of slips that may move a result without a word; left out: 3 %. */
  silent?: number;
  /** The same of two slips together; left out: 5 %. */
  silentOfTwo?: number;
};

const of = (set: Omit<SlipSet, "makers"> & { more?: readonly SlipMaker[] }): SlipSet => ({
  ...set,
  makers: [...slipMakers(set.sizeMm), ...(set.more ?? [])],
});

export const SLIP_SETS: readonly SlipSet[] = [
  of({
    name: "axis scale by a ladder, calipers",
    procedure: axisScale,
    historyOf: scale("calipers", {}),
    more: [zeroSlip("outside", ZERO_OFF_MM)],
    sizeMm: 0.3,
    unseen: [],
  }),
  of({
    name: "axis scale by part and hole, calipers",
    procedure: axisScale,
    historyOf: scale("calipers", { way: "part and hole" }),
    more: [zeroSlip("outside", ZERO_OFF_MM)],
    sizeMm: 0.3,
    unseen: [],
  }),
  of({
    name: "axis scale by a ladder, rule",
    procedure: axisScale,
    historyOf: scale("rule", {}),
    sizeMm: 2,
    unseen: [],
  }),
  of({
    name: "scan offset, calipers, three readings",
    procedure: scanOffset,
    historyOf: (seed) => scanOffsetHistory(seed, 3),
    sizeMm: 0.2,
    more: signSlips,
    unseen: [],
  }),
  of({
    name: "origin, three readings a place",
    procedure: origin,
    historyOf: corner(3),
    more: [zeroSlip("outside", ZERO_OFF_MM)],
    sizeMm: 0.3,
    unseen: ["two points swapped"],
  }),
  of({
    name: "kerf by part and hole",
    procedure: kerf,
    historyOf: cutOut({}),
    more: [zeroSlip("outside", ZERO_OFF_MM)],
    sizeMm: 0.3,
    // Two sizes of one object along one axis may be alike.
    unseen: ["two points swapped"],
  }),
  of({
    name: "kerf by a comb",
    procedure: kerf,
    historyOf: cutOut({ way: "comb" }),
    more: [zeroSlip("inside", ZERO_OFF_MM)],
    sizeMm: 0.3,
    // No other point checks a gap, as Lay out says.
    unseen: ["one point 0.3 mm off", "one point in inches", "two points swapped"],
    // Of eight readings one that is off hides a wrong zero, and the zero hides it: both look like scatter.
    silentOfTwo: 0.25,
  }),
  of({
    name: "squareness by diagonals, calipers",
    procedure: squareness,
    historyOf: (seed) =>
      historyBy(
        squareness,
        calipers,
        rehearsedSquare(practiceFromSeed(seed, SAMPLE_MACHINE), calipers, seed, 0, { repeats: 3 }),
      ),
    sizeMm: 0.5,
    // Both diagonals are drawn equally long.
    unseen: ["two points swapped"],
    // Any of the four lengths may be the wrong one.
    namedFirst: 0.85,
  }),
  of({
    name: "fixture stops",
    procedure: fixtureStops,
    historyOf: (seed) => firstRead(fixtureStops, calipers, seed, { sideX: "left", sideY: "front", repeats: 3 }),
    more: [zeroSlip("outside", ZERO_OFF_MM)],
    sizeMm: 0.3,
    unseen: ["two points swapped"],
  }),
  of({
    name: "bed tilt, five points",
    procedure: bedTilt,
    historyOf: (seed) => firstRead(bedTilt, READOUT, seed, {}),
    sizeMm: 1,
    // A bed may be bowed: of five points none is checked well.
    unseen: ["one point 1 mm off", "one point in inches", "two points swapped"],
  }),
  of({
    name: "rotary by a line once around",
    procedure: rotary,
    historyOf: around,
    sizeMm: 0.5,
    // No other point checks the gap, as Lay out says.
    unseen: ["one point 0.5 mm off", "one point in inches", "two points swapped"],
  }),
  of({
    name: "field of a galvo, calipers",
    procedure: galvoField,
    historyOf: (seed) => fieldTrial(seed, { way: "seven", gauge: "calipers", effects: "known", repeats: 2 }, 1).history,
    sizeMm: 0.8,
    unseen: [],
    namedFirst: 0.8,
  }),
  of({
    name: "focus by the widths of a ladder",
    procedure: focus,
    historyOf: (seed) => widthLadder(ladderHead(seed)),
    sizeMm: 0.1,
    // Widths at heights as far above focus as below are alike.
    unseen: ["two points swapped"],
    // Of eight cells the last to mark is checked by nothing, and the page says so.
    silent: 0.05,
    namedFirst: 0.85,
  }),
];

export function slipCases({ procedure, historyOf: history }: SlipSet, first: number, count: number): SlipCase[] {
  return Array.from({ length: count }, (_, i) => ({ procedure, history: history(first + i) }));
}
