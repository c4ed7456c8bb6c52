/**
 * The drive from what was read: how much farther the surface goes than it should, with its uncertainty part by part.
 *
 *   ratio = travelled / due          u^2 = sum (d ratio / d y_i)^2 u_i^2, derivatives by differences
 *
 * What a gauge always reads too much is in all its readings alike: half of its limit's variance a constant, half growing with the length, whole
 * at the longest reading. A chuck that runs out carries the surface sideways under the beam, e sin(phi) with e half of what is seen up
 * and down: over a part of a turn phi that leaves sqrt(2) e sin(phi/2) (rms over where it begins); over a whole turn nothing.
 */
import { type Adjustment, combine } from "../../estimate/adjustment";
import { known, type Model, type Observation, type Row, usual } from "../../estimate/model";
import { examinationOf } from "../../measuring/examined";
import {
  gaugeTerms,
  type LengthReading,
  lengthReadings,
  modelOf,
  type Term,
  withoutLeftOut,
} from "../../measuring/length-readings";
import { readLengths, type SiteRead } from "../../measuring/read-lengths";
import { type Budgeted, joined, times } from "../../metrology/budget";
import { type Gauge, readingUncertaintyMm } from "../../metrology/gauge";
import { expandedUncertainty } from "../../metrology/measured";
import { type Answer, quantitiesAt } from "../../trial/answer";
import type { History, RoundRecord } from "../../trial/history";
import { type RotaryPlan, sentMm, tapeOn } from "./plan";
import { aroundMm, type Readings, SITES, type SiteId, TAPE_LAYERS, type Travel, travelOf } from "./travel";

/** A roller does not carry a part better than this, sd, as a share of the way. (common practice, no source) */
const GRIP_SHARE = 0.0002;
/** How well a part is known that is laid out without being measured, sd, as a share. (common practice, no source) */
const LAID_OUT_SHARE = 0.01;
/** Uncertainty of the thickness of a tape and of its neutral layer, as a share of the thickness. (common practice, no source) */
const TAPE_KNOWN = 0.5;
/** By how much the tape is thicker than typed, in its standard uncertainties. */
const TAPE = "tape";
/** A part is laid out to within this before it is measured well, sd, mm. (common practice, no source) */
const LAID_OUT_WITHIN_MM = 1;
/** Where nothing is said of a readout, mm. */
const LEAST_U_MM = 1e-9;
/** Share of a value by which derivatives are taken. */
const STEP_SHARE = 1e-5;

/** Sizes scatter by the form of the part, lines by the hand: each by itself. */
const SIZES: readonly SiteId[] = [SITES.marked, SITES.resting];
const LINES: readonly SiteId[] = [SITES.gap, SITES.width, SITES.span, SITES.back, SITES.line, SITES.tape];
/** Tubes and bottles differ so much from side to side before they are measured, sd, mm. (common practice, no source) */
const FORM_MM = 0.015;
const INSIDE: readonly SiteId[] = [SITES.gap];

export type TravelRead = Travel & {
  ratio: Budgeted;
  /** What was read, mean over its readings. */
  read: Readings;
  sites: readonly SiteRead[];
  /** By how much it came back off its place, mm; `null` where it was not sent back. */
  back: Budgeted | null;
  /** Across where it is marked, and where it lies, mm. */
  marked: Budgeted | null;
  resting: Budgeted | null;
  /** It turned the other way; `null` where that was not said. */
  mirrored: boolean | null;
};

/** @returns `null` while something is missing */
export function readTravel(history: History<RotaryPlan>, round: RoundRecord<RotaryPlan>): TravelRead | null {
  const here = hereOf(history, round);
  const examined = here && examinationOf(history, round, observeTravel);
  if (!here || !examined) return null;
  const { adjustment } = examined;
  const { plan, answers } = round;
  const { travel, read, sites } = here;
  const error = combine(adjustment, ratioRow(plan, here));
  const size = (id: SiteId) =>
    read[id] === undefined ? null : times(at(adjustment, read, id), aroundMm(plan, 1) / Math.PI);
  return {
    ...travel,
    ratio: raised(error, here.ratio),
    read,
    sites,
    back: backOf(plan, read, adjustment),
    marked: size(SITES.marked),
    resting: size(SITES.resting),
    mirrored: mirroredIn(answers),
  };
}

/** What was read, and what it comes to as it is. */
type Here = { travel: Travel; read: Readings; sites: readonly SiteRead[]; ratio: number; onEachOther: boolean };

function hereOf({ gauges, decisions }: History<RotaryPlan>, round: RoundRecord<RotaryPlan>): Here | null {
  const { plan } = round;
  const answers = withoutLeftOut(round.answers, decisions);
  const sites = [...readLengths(answers, SIZES, gauges.map(onForm)), ...readLengths(answers, LINES, gauges)];
  const read = readingsOf({ ...round, answers }, sites);
  const onEachOther = liesOnEachOther(answers);
  const travel = travelOf(plan, read, onEachOther);
  if (!travel || travel.due <= 0) return null;
  return { travel, read, sites, ratio: travel.travelled / travel.due, onEachOther };
}

/**
 * The readings as a model of small changes about what was read: each place has a value of its own, and the ratio changes with it by its
 * derivative. Sizes of the part and how far a drive goes are known beforehand to within what parts and drives are.
 */
export function observeTravel(history: History<RotaryPlan>, round: RoundRecord<RotaryPlan>): Model | null {
  const here = hereOf(history, round);
  if (!here) return null;
  const { plan, answers } = round;
  const { read } = here;
  const own = (sites: readonly SiteId[], gauges: readonly Gauge[]) =>
    lengthReadings(answers, sites, gauges, history.decisions);
  const sizes = own(SIZES, history.gauges.map(onForm)).map((r) => ({
    ...r,
    scatter: { id: `size ${r.gauge.id}`, label: "Form and placing, across or around" },
  }));
  const lines = own(LINES, history.gauges).map((r) => ({
    ...r,
    scatter: { id: `line ${r.gauge.id}`, label: "Repeatability" },
  }));
  const readings = [...sizes, ...lines];
  const row = ratioRow(plan, here);
  return modelOf(readings, {
    row: (r) => (r.site === SITES.tape ? { [TAPE]: TAPE_LAYERS * tapeKnownMm(plan) } : { [r.site]: 1 }),
    y: (r) => r.value - (r.site === SITES.tape ? TAPE_LAYERS * tapeOn(plan) : (read[r.site as SiteId] ?? 0)),
    terms: commonTerms(readings, read),
    facts: ({ site }) => ({ pointLabel: LABELS[site as SiteId] ?? site, signedByWords: site === SITES.gap }),
    known: [...readings.map((r) => r.site), ...Object.keys(row)]
      .filter((id, i, all) => all.indexOf(id) === i)
      .flatMap((id) => knownOf(plan, here, id, readings)),
    wanted: [
      { id: "travel", label: "the error of travel", row, proves: 1 },
      ...[SITES.marked, SITES.resting, SITES.back].flatMap((site) =>
        readings.some((r) => r.site === site)
          ? [{ id: site.replace("size ", ""), label: LABELS[site] ?? site, row: { [site]: 1 } }]
          : [],
      ),
    ],
  });
}

const LABELS: Partial<Record<SiteId, string>> = {
  [SITES.marked]: "the size where it is marked",
  [SITES.resting]: "the size where it lies",
  [SITES.span]: "the distance from line to line",
  [SITES.gap]: "the gap",
  [SITES.width]: "the width of a line",
  [SITES.back]: "the place after the way back",
  [SITES.line]: "the length of the line",
  [SITES.tape]: `the thickness of ${TAPE_LAYERS} layers of the tape`,
};

/** How the ratio changes with each place, and with what is known beside them, all of size 1 there. */
function ratioRow(plan: RotaryPlan, { read, travel, ratio, onEachOther }: Here): Row {
  const of = (changed: Readings) => {
    const t = travelOf(plan, changed, onEachOther);
    return t ? t.travelled / t.due : ratio;
  };
  const slope = (id: SiteId) => {
    const value = read[id] ?? 0;
    const step = Math.max(Math.abs(value), 1) * STEP_SHARE;
    return (of({ ...read, [id]: value + step }) - of({ ...read, [id]: value - step })) / (2 * step);
  };
  const measured = [...SIZES, ...LINES].filter((id) => read[id] !== undefined && id !== SITES.back);
  const readouts = plan.way === "traced" ? [SITES.first, SITES.second] : [];
  const row: Record<string, number> = {};
  for (const id of [...measured, ...readouts]) {
    const s = slope(id);
    if (s !== 0) row[id] = s;
  }
  // A thicker tape was stretched more: the surface went less far.
  for (const { id, mm } of besides(plan, read, travel, onEachOther))
    if (mm > 0) row[id] = ((id === TAPE ? -1 : 1) * mm) / travel.due;
  return row;
}

function knownOf(plan: RotaryPlan, here: Here, id: string, readings: readonly LengthReading[]): Observation[] {
  const { read, travel, onEachOther } = here;
  const beside = besides(plan, read, travel, onEachOther).find((b) => b.id === id);
  if (beside) return [known(id, beside.label, { u: 1, canBeWrong: id === TAPE })];
  if (id === SITES.first || id === SITES.second) {
    const u = Math.hypot(plan.readoutStepMm / Math.sqrt(12), plan.dotMm / Math.sqrt(3));
    const source = { id: "readout", label: "Readout, and the dot on the line", kind: "B" as const };
    return [{ ...known(id, "readout", { u: Math.max(u, LEAST_U_MM) }), source }];
  }
  const first = readings.find((r) => r.site === id);
  if (!first) return [];
  const { value, u } = usualAt(plan, here, id as SiteId);
  return [
    usual(
      id,
      `usual size of ${LABELS[id as SiteId] ?? id}`,
      Math.max(u, readingUncertaintyMm(first.gauge)),
      value - (read[id as SiteId] ?? 0),
    ),
  ];
}

/** What a place reads as a rule, before it is read, mm. (common practice, no source) */
function usualAt(plan: RotaryPlan, { travel, read }: Here, id: SiteId): { value: number; u: number } {
  const turn = aroundMm(plan, 1) === 1 ? Math.PI : 1;
  switch (id) {
    case SITES.marked:
      return { value: plan.diameterMm * turn, u: LAID_OUT_WITHIN_MM };
    case SITES.resting:
      return { value: plan.restsOnMm * turn, u: LAID_OUT_WITHIN_MM };
    case SITES.width:
      return { value: 0.2, u: 0.15 };
    case SITES.back:
      return { value: 0, u: 1 };
    default:
      // A drive that was never adjusted may be off by any factor: the readings are taken as they are.
      return { value: read[id] ?? 0, u: Math.max(1, Math.abs(travel.due)) };
  }
}

/** What the drive and the part are known for beside the readings, in mm of travel. */
function besides(
  plan: RotaryPlan,
  read: Readings,
  { travelled, around }: Travel,
  onEachOther: boolean,
): { id: string; label: string; mm: number }[] {
  const phi = (2 * travelled) / (around === null ? plan.diameterMm : around / Math.PI);
  const turnsUnmeasured = plan.way === "span" && around === null ? (read[SITES.turns] ?? 0) : 0;
  const eccentric = plan.drive === "chuck" ? plan.runoutMm / 2 : 0;
  return [
    {
      id: "laid out",
      label: "the part as laid out, not measured",
      mm: LAID_OUT_SHARE * turnsUnmeasured * Math.PI * plan.diameterMm,
    },
    { id: "runout", label: "the chuck runs out", mm: Math.SQRT2 * eccentric * Math.abs(Math.sin(phi / 2)) },
    {
      id: TAPE,
      label: "thickness of the tape",
      mm: (tapeKnownMm(plan) * travelled) / plan.diameterMm,
    },
    { id: "grip", label: "grip of the rollers", mm: gripMm(plan, travelled) },
    {
      id: "on each other",
      label: "lines lie on each other",
      mm: onEachOther ? (read[SITES.width] ?? 0) / Math.sqrt(3) : 0,
    },
  ];
}

/** Standard uncertainty of the thickness that was typed, mm. */
function tapeKnownMm(plan: RotaryPlan): number {
  return (TAPE_KNOWN * tapeOn(plan)) / Math.sqrt(3);
}

/** A gap that is overlapped is read as its size: too much makes it more negative. */
function commonTerms(readings: readonly LengthReading[], read: Readings): Term[] {
  const way = (r: LengthReading) => ((read[r.site as SiteId] ?? 0) < 0 ? -1 : 1);
  const jawsOf = (r: LengthReading) => (INSIDE.includes(r.site as SiteId) ? ("inside" as const) : ("outside" as const));
  const lengthOf = (r: LengthReading) => read[r.site as SiteId] ?? 0;
  return gaugeTerms(readings, { jawsOf, lengthOf }).map((term) => ({ ...term, of: (r) => way(r) * term.of(r) }));
}

/** The value at a place, as adjusted. */
function at(adjustment: Adjustment, read: Readings, id: SiteId): Budgeted {
  return raised(combine(adjustment, { [id]: 1 }), read[id] ?? 0);
}

function raised({ quantity, parts }: Budgeted, by: number): Budgeted {
  return { quantity: { ...quantity, value: quantity.value + by }, parts };
}

/** A gauge across a part that is not quite round: what is expected of its scatter has the form in it. */
function onForm(gauge: Gauge): Gauge {
  const { placing } = gauge;
  return placing ? { ...gauge, placing: { ...placing, sdMm: Math.hypot(placing.sdMm, FORM_MM) } } : gauge;
}

function readingsOf({ plan, spec, answers }: RoundRecord<RotaryPlan>, sites: readonly SiteRead[]): Readings {
  const read: Readings = {};
  for (const site of spec.sites) {
    const id = site.id as SiteId;
    const here = sites.filter((s) => s.site === id);
    const last = answers.findLast((a) => a.site === id)?.content;
    if (here.length > 0) read[id] = weighted(here);
    else if (last?.status === "read" && last.value.kind === "count") read[id] = last.value.value;
    else if (site.measurand.kind === "readout on line") read[id] = readoutAt(plan, answers, id);
  }
  return read;
}

/** The last readout on a line; one that is only imagined is as far from the other as the lines are apart. */
function readoutAt(plan: RotaryPlan, answers: readonly Answer[], id: SiteId): number | undefined {
  const last = answers.findLast((a) => a.site === id);
  if (last?.imagined) return id === SITES.second ? sentMm(plan) : 0;
  return quantitiesAt(answers, id).at(-1);
}

/** Of one place read with several gauges the finer counts more. */
function weighted(reads: readonly SiteRead[]): number {
  const weights = reads.map((r) => 1 / r.u ** 2);
  return reads.reduce((sum, r, i) => sum + r.mean * (weights[i] ?? 0), 0) / total(weights);
}

function total(values: readonly number[]): number {
  return values.reduce((sum, v) => sum + v, 0);
}

function liesOnEachOther(answers: readonly Answer[]): boolean {
  return answers.findLast((a) => a.site === SITES.gap)?.content.status === "cannot read";
}

function mirroredIn(answers: readonly Answer[]): boolean | null {
  const said = answers.findLast((a) => a.site === SITES.words)?.content;
  if (said?.status !== "read" || said.value.kind !== "choice") return null;
  return said.value.option === "mirrored";
}

/** Rollers that grip well still come back within a little, there and back. */
function backOf(plan: RotaryPlan, read: Readings, adjustment: Adjustment): Budgeted | null {
  const grip = {
    id: "grip",
    label: "Grip of the rollers, twice",
    kind: "B",
    degreesOfFreedom: "infinite",
    standardUncertainty: Math.SQRT2 * gripMm(plan, sentMm(plan)),
  } as const;
  const withGrip = ({ quantity, parts }: Budgeted) =>
    joined(quantity.value, grip.standardUncertainty > 0 ? [...parts, grip] : parts);
  if (plan.way === "traced") {
    const [first, again] = [read[SITES.first], read[SITES.again]];
    if (first === undefined || again === undefined) return null;
    const once = Math.hypot(plan.readoutStepMm / Math.sqrt(12), plan.dotMm / Math.sqrt(3));
    const readout = { ...grip, id: "readout", label: "Readout and dot, twice", standardUncertainty: Math.SQRT2 * once };
    return withGrip(joined(again - first, once > 0 ? [readout] : []));
  }
  return read[SITES.back] === undefined ? null : withGrip(at(adjustment, read, SITES.back));
}

function gripMm({ drive }: RotaryPlan, mm: number): number {
  return drive === "roller" ? GRIP_SHARE * mm : 0;
}

/** Whether it slips: it did not come back to its place beyond what the reading may be off. */
export function slips({ back }: Pick<TravelRead, "back">): boolean {
  return back !== null && Math.abs(back.quantity.value) > expandedUncertainty(back.quantity);
}

/** By how much it slips for each mm that goes by, there and back. */
export function slipShare({ back, travelled }: Pick<TravelRead, "back" | "travelled">): number {
  return back === null ? 0 : Math.abs(back.quantity.value / (2 * travelled));
}
