/**
 * The scale of each axis from what was read along it.
 *
 *   tick:      y - n = e n + o_0 + o_n + b [descending approach] + c + d n + z + scatter
 *   distance:  y - n = e n + o_0 + o_n + c + d n + z + scatter       n from mark to mark, or by the readout
 *   part:      y - N = e N - k + o + c + d N + z,   hole: y - N = e N + k + o + c + d N + z       k the cut, on the same face
 *
 * e is the scale error. o_0 and o_n are the positional deviations of the first mark and of the other mark: a sound drive has small
 * ones. b is the backlash. The systematic errors of the gauge (c, d, z) are common to both axes.
 */

import { combine } from "../../estimate/adjustment";
import type { Examination } from "../../estimate/examination";
import { departure, known, type Model, type Observation, usual } from "../../estimate/model";
import { elementAt } from "../../fitting/element-at";
import { AXES, type Axis } from "../../machine/machine-kind";
import { axesOf } from "../../measuring/axes-field";
import { USUAL_KERF_MM } from "../../measuring/beyond-machines";
import { examinationOf } from "../../measuring/examined";
import { modelWithKnown } from "../../measuring/known-length";
import { type LengthReading, lengthReadings, type Term, withoutLeftOut } from "../../measuring/length-readings";
import type { Budgeted } from "../../metrology/budget";
import type { Gauge } from "../../metrology/gauge";
import type { History, RoundRecord } from "../../trial/history";
import { type MeasuredPlace, placesOf } from "./places";
import { type AxisScalePlan, isCut } from "./plan";
import { type PlaceRead, readoutLength, readPlaces } from "./read-places";

/** Positional deviation of a mark of a sound drive, sd, mm. (common practice, no source) */
const STRAY_MM = 0.01;
/** Usual backlash of a drive, sd, mm. (common practice, no source) */
const USUAL_PLAY_MM = 0.2;
/** Usual scale error, sd, as a share. (common practice, no source) */
const USUAL_SCALE = 0.005;
/** Uncertainty of a kerf that is entered as 0, mm. (common practice, no source) */
const LEAST_CUT_ERROR_MM = 0.05;
/** Two ends differ if their difference is more than this many standard uncertainties. */
const BEYOND_SCATTER = 2.5;

export const estimateId = (axis: Axis) => `scale ${axis}`;
const kerfOf = (axis: Axis) => `kerf ${axis}`;
const backlashOf = (axis: Axis) => `backlash ${axis}`;

export type AxisRead = {
  axis: Axis;
  /** Ticks, sides or the one distance that is read, in their order. */
  read: PlaceRead[];
  /** Measured length of a nominal mm, mm. */
  ratio: Budgeted;
  /** Deviation of each point from the line, and its standard uncertainty, mm, in their order. */
  residuals: { mm: number; u: number }[];
  /** The axis departs from a straight line by more than a sound one. */
  strays: boolean;
  /** Backlash, mm, negative for lost motion; `null` unless ticks were approached from both sides. */
  reversal: Budgeted | null;
  /** Kerf, mm; `null` unless part and hole are measured. */
  kerf: Budgeted | null;
};

type Reading = LengthReading & { place: MeasuredPlace; nominalMm: number };

/** The axes with enough readings. */
export function axesRead(history: History<AxisScalePlan>, round: RoundRecord<AxisScalePlan>): AxisRead[] {
  const examined = examinationOf(history, round, observeAxes);
  if (!examined) return [];
  const kept = keptIn(history, round);
  return axesTold(kept, history.gauges).map((axis) => axisOf(examined, kept, axis, history.gauges));
}

/** The readings of both axes as a model. */
export function observeAxes(history: History<AxisScalePlan>, round: RoundRecord<AxisScalePlan>): Model | null {
  const kept = keptIn(history, round);
  const axes = axesTold(kept, history.gauges);
  const readings = readingsOf(round, history).filter((r) => axes.includes(r.place.axis));
  if (readings.length === 0) return null;
  return modelWithKnown(
    readings,
    round.plan,
    { ...history, answers: round.answers },
    {
      jawsOf: ({ place }) => (place.kind === "side" && place.of === "hole" ? "inside" : "outside"),
      lengthOf: (r) => r.nominalMm,
      row: (r) => ({ [estimateId(r.place.axis)]: r.nominalMm, ...ownRow(round.plan, r) }),
      y: (r) => r.value - r.nominalMm,
      terms: axes.flatMap((axis) => axisTerms(kept, axis, history.gauges)),
      facts: ({ place }) => ({
        pointLabel: pointLabel(place),
        signedByWords: false,
        axis: place.axis,
        ...(place.kind === "side" ? { object: `the ${place.of}` } : {}),
      }),
      known: axes.flatMap((axis) => knownOf(round, axis, readings)),
      wanted: axes.map((axis) => ({
        id: estimateId(axis),
        label: `the scale of ${axis.toUpperCase()}`,
        row: { [estimateId(axis)]: 1 },
        proves: 1,
      })),
    },
  );
}

/** A burn without the readings that are left out. */
function keptIn({ decisions }: History<AxisScalePlan>, round: RoundRecord<AxisScalePlan>): RoundRecord<AxisScalePlan> {
  return { ...round, answers: withoutLeftOut(round.answers, decisions) };
}

function axesTold(round: RoundRecord<AxisScalePlan>, gauges: readonly Gauge[]): Axis[] {
  return AXES.filter((axis) => {
    if (!axesOf(round.plan).includes(axis)) return false;
    const read = readPlaces(round, axis, gauges);
    const objects = new Set(read.map(({ place }) => (place.kind === "side" ? place.of : "")));
    if (read.every((r) => r.nominalMm === 0)) return false;
    return round.plan.way !== "part and hole" || objects.size === 2;
  });
}

function readingsOf(round: RoundRecord<AxisScalePlan>, { gauges, decisions }: History<AxisScalePlan>): Reading[] {
  const places = placesOf(round.plan).filter((p) => p.kind !== "readout");
  const sites = places.map((p) => p.site);
  return lengthReadings(round.answers, sites, gauges, decisions).flatMap((r): Reading[] => {
    const place = places.find((p) => p.site === r.site);
    const nominalMm = place?.kind === "distance" ? readoutLength(round, place.axis) : (place?.nominalMm ?? null);
    return place && nominalMm !== null ? [{ ...r, place, nominalMm }] : [];
  });
}

function pointLabel(place: MeasuredPlace): string {
  const name = place.axis.toUpperCase();
  switch (place.kind) {
    case "tick":
      return `${name}, tick ${place.index}`;
    case "side":
      return `the ${place.of} along ${name}, near ${place.near === "low" ? "one side" : "the other side"}`;
    default:
      return `the distance along ${name}`;
  }
}

/** Deviations of the marks at both ends of a length, backlash, and kerf. */
function ownRow(plan: AxisScalePlan, { place, nominalMm }: Reading): Record<string, number> {
  const { axis } = place;
  if (isCut(plan)) return { [kerfOf(axis)]: cutIn(place) };
  const play = place.kind === "tick" && place.side === "down" ? { [backlashOf(axis)]: 1 } : {};
  return { [`${strayOf(axis)} 0`]: 1, [`${strayOf(axis)} ${nominalMm}`]: 1, ...play };
}

const strayOf = (axis: Axis) => `stray ${axis}`;

function knownOf({ plan }: RoundRecord<AxisScalePlan>, axis: Axis, readings: readonly Reading[]): Observation[] {
  const name = axis.toUpperCase();
  const own = readings.filter((r) => r.place.axis === axis);
  const straight = `straightness of ${name}`;
  const source = { id: strayOf(axis), label: `Straightness of ${name}`, kind: "B" as const };
  const places = [...new Set(own.map((r) => r.nominalMm))];
  const strays = isCut(plan)
    ? []
    : [0, ...places].map((n) => ({ ...departure(`${strayOf(axis)} ${n}`, straight, STRAY_MM), source }));
  const play = own.some((r) => r.place.kind === "tick" && r.place.side === "down")
    ? [usual(backlashOf(axis), `usual backlash of ${name}`, USUAL_PLAY_MM)]
    : [];
  return [
    usual(estimateId(axis), `usual error of the scale of ${name}`, USUAL_SCALE),
    ...strays,
    ...play,
    ...(isCut(plan) ? [cutKnown(plan, axis)] : []),
  ];
}

/** With a part alone, the entered kerf is known to half of its width. */
function cutKnown({ way, kerfMm }: AxisScalePlan, axis: Axis): Observation {
  if (way === "part")
    return known(kerfOf(axis), "kerf", {
      value: kerfMm,
      u: Math.max(kerfMm / 2, LEAST_CUT_ERROR_MM) / Math.sqrt(3),
    });
  const { low, high } = USUAL_KERF_MM;
  return usual(kerfOf(axis), "usual kerf", (high - low) / 4, (low + high) / 2);
}

/** Errors that all points of an axis share, except those of the gauge. */
function axisTerms(round: RoundRecord<AxisScalePlan>, axis: Axis, gauges: readonly Gauge[]): Term<Reading>[] {
  const { plan } = round;
  const name = axis.toUpperCase();
  const of = (r: Reading) => Number(r.place.axis === axis);
  if (isCut(plan))
    return [
      // The two cuts of a side stray.
      {
        id: strayOf(axis),
        label: `straightness of ${name}`,
        u: STRAY_MM * Math.SQRT2,
        of,
        canBeWrong: false,
      },
      {
        id: `form ${axis}`,
        label: "form of the part",
        u: formUncertainty(readPlaces(round, axis, gauges)),
        of,
        canBeWrong: false,
      },
    ];
  if (plan.way !== "by hand") return [];
  return [
    {
      id: `readout ${axis}`,
      label: "resolution of the readout, twice",
      u: plan.readoutStepMm / Math.sqrt(6),
      of,
      canBeWrong: true,
    },
  ];
}

function cutIn(place: MeasuredPlace): number {
  if (place.kind !== "side") return 0;
  return place.of === "part" ? -1 : 1;
}

function axisOf(
  { adjustment, isLoose }: Examination,
  round: RoundRecord<AxisScalePlan>,
  axis: Axis,
  gauges: readonly Gauge[],
): AxisRead {
  const { plan } = round;
  const read = readPlaces(round, axis, gauges);
  const error = combine(adjustment, { [estimateId(axis)]: 1 });
  const has = (id: string) => adjustment.parameters.includes(id);
  return {
    axis,
    read,
    ratio: { ...error, quantity: { ...error.quantity, value: 1 + error.quantity.value } },
    reversal: has(backlashOf(axis)) ? combine(adjustment, { [backlashOf(axis)]: 1 }) : null,
    kerf: plan.way === "part and hole" ? combine(adjustment, { [kerfOf(axis)]: 1 }) : null,
    residuals: read.map((r) => {
      const off = (id: string) => combine(adjustment, { [id]: 1 }).quantity.value;
      const own = isCut(plan) ? 0 : off(`${strayOf(axis)} ${r.nominalMm}`);
      return { mm: own + lineResidual(adjustment, r), u: Math.hypot(r.u, isCut(plan) ? 0 : STRAY_MM) };
    }),
    strays: isLoose && !isCut(plan) && read.length > 2,
  };
}

/** Mean residual of the readings at a place. */
function lineResidual({ model, residuals, u }: Examination["adjustment"], { site, gauge }: PlaceRead): number {
  const own = model.observations.flatMap((o, i) =>
    o.reading?.point === site && o.reading.gauge === gauge.id ? [elementAt(residuals, i) * elementAt(u, i)] : [],
  );
  return own.length === 0 ? 0 : own.reduce((sum, mm) => sum + mm, 0) / own.length;
}

/** Two ends that differ beyond their scatter show an error of form: the scale is between them. */
function formUncertainty(read: readonly PlaceRead[]): number {
  return Math.max(0, ...formsOf(read).map(({ differMm }) => differMm / Math.sqrt(12)));
}

/** Part or hole whose two ends differ by more than their readings scatter. */
export function formsOf(
  read: readonly PlaceRead[],
): { of: "part" | "hole"; longer: PlaceRead; shorter: PlaceRead; differMm: number }[] {
  return (["part", "hole"] as const).flatMap((of) => {
    const [a, b] = read.filter(({ place }) => place.kind === "side" && place.of === of);
    if (!a || !b || Math.abs(a.mean - b.mean) <= BEYOND_SCATTER * Math.hypot(a.u, b.u)) return [];
    const [longer, shorter] = a.mean > b.mean ? [a, b] : [b, a];
    return [{ of, longer, shorter, differMm: longer.mean - shorter.mean }];
  });
}
