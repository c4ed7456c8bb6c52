/**
 * The scale of an axis from what was read along it.
 *
 *   tick:      y = s n + o + o_n + b [come to from the last] + c + d n / L + scatter
 *   distance:  y = s n + o + o_n + c + d + scatter       n from mark to mark, or by the readout
 *   part:      y = s N - k + c + d,   hole: y = s N + k + c + d        k the cut, on the same face
 *
 * s is what a nominal mm comes to, o what all marks have in common (where the first mark lies, the zero of the jaws), o_n what all at one
 * place have: a drive strays from a straight line a little even where nothing is wrong with it. b is the reversal. c and d are what a gauge always reads too much: half of its limit's variance lies in a constant, half grows with the length and is whole at the
 * longest reading L. Neither shrinks with repeats, and d stays in the scale however long the ladder.
 */
import type { Budgeted } from "../../metrology/budget";
import { commonUncertaintyMm, type Gauge, zeroUncertaintyMm } from "../../metrology/gauge";
import { type SourcedObservation, sourcedFit } from "../../metrology/sourced-fit";
import type { Axis } from "../axes";
import type { RoundRecord } from "../contract";
import { gaugeName, placingOf } from "../read-lengths";
import { type AxisScalePlan, isCut } from "./plan-type";
import { type PlaceRead, readPlaces } from "./read-places";

/** How far a sound drive strays from a straight line, sd, mm. (common practice, no source) */
const STRAY_MM = 0.01;
/** Play of a sound drive, before it is seen, sd, mm. (common practice, no source) */
const USUAL_PLAY_MM = 0.2;
/** Ends that differ by this many of their scatter differ. */
const BEYOND_SCATTER = 2.5;
/** The cut, where part and hole tell it, mm. */
const ANY_CUT_MM = 10;

export type AxisRead = {
  axis: Axis;
  /** Ticks, sides or the one distance that is read, in their order. */
  read: PlaceRead[];
  /** A nominal mm comes out as so many mm. */
  ratio: Budgeted;
  /** What each reading differs from the line, mm, and how uncertain it is, in their order. */
  residuals: { mm: number; u: number }[];
  degreesOfFreedom: number;
  /** Play seen by ticks come to from the two sides, below 0 for lost motion, mm; `null` where they were not. */
  reversal: Budgeted | null;
  /** Width of the cut, mm, where part and hole tell it. */
  kerf: Budgeted | null;
};

/** Something that several readings have in common. */
type Term = {
  id: string;
  label: string;
  of: (r: PlaceRead) => number;
  y: number;
  u: number;
  /** What one place has for itself: no part of the line. */
  isOwn?: true;
};

/** @returns `null` while too little is read to tell */
export function readAxis(round: RoundRecord<AxisScalePlan>, axis: Axis, gauges: readonly Gauge[]): AxisRead | null {
  const read = readPlaces(round, axis, gauges);
  const { way } = round.plan;
  const objects = new Set(read.map(({ place }) => (place.kind === "side" ? place.of : "")));
  if (read.length === 0 || read.every((r) => r.nominalMm === 0)) return null;
  if (way === "part and hole" && objects.size < 2) return null;
  const terms = termsOf(round.plan, read);
  const observations: SourcedObservation[] = [
    ...read.map((r) => ({
      row: [r.nominalMm, ...terms.map((term) => term.of(r))],
      ...{ y: r.mean, u: r.u, source: placingOf(r) },
    })),
    ...terms.map(({ id, label, y, u }, i) => ({
      row: [0, ...terms.map((_, k) => (k === i ? 1 : 0))],
      ...{ y, u, source: { id, label, kind: "B" as const, degreesOfFreedom: "infinite" as const } },
    })),
  ];
  const fit = sourcedFit(observations);
  if (!fit) return null;
  const of = (id: string) => {
    const at = terms.findIndex((term) => term.id === id);
    return at < 0 ? null : fit.combine([0, ...terms.map((_, k) => (k === at ? 1 : 0))]);
  };
  return {
    ...{ axis, read, ratio: fit.combine([1]), reversal: of("play") },
    kerf: way === "part and hole" ? of("kerf") : null,
    residuals: read.map((r) => {
      const line = fit.combine([r.nominalMm, ...terms.map((term) => (term.isOwn ? 0 : term.of(r)))]);
      return { mm: r.mean - line.quantity.value, u: Math.hypot(r.u, isCut(round.plan) ? 0 : STRAY_MM) };
    }),
    degreesOfFreedom: Math.max(0, read.length - freedomUsed(read, of("play") !== null, way)),
  };
}

function freedomUsed(read: readonly PlaceRead[], play: boolean, way: AxisScalePlan["way"]): number {
  const isLadder = new Set(read.map((r) => r.nominalMm)).size > 1;
  return 1 + (isLadder ? 1 : 0) + (play ? 1 : 0) + (way === "part and hole" ? 1 : 0);
}

function termsOf(plan: AxisScalePlan, read: readonly PlaceRead[]): Term[] {
  const longest = Math.max(...read.map((r) => r.nominalMm));
  const gauges = [...new Map(read.map((r) => [r.gauge.id, r.gauge])).values()];
  const sides = new Set(read.map((r) => (isFromLast(r) ? "last" : "first")));
  const each = (gauge: Gauge, of: (r: PlaceRead) => number) => (r: PlaceRead) => (r.gauge.id === gauge.id ? of(r) : 0);
  const limit = (gauge: Gauge) => ({
    ...{ id: `limit ${gauge.id}`, label: `Limit of error, ${gaugeName(gauge)}`, y: 0 },
    u: commonUncertaintyMm(gauge) / Math.SQRT2,
  });
  const terms: Term[] = gauges.flatMap((gauge) => [
    { ...limit(gauge), of: each(gauge, () => 1) },
    { ...limit(gauge), of: each(gauge, (r) => r.nominalMm / longest) },
    {
      ...{ id: `zero ${gauge.id}`, label: `Zero of the jaws, ${gaugeName(gauge)}`, y: 0, u: zeroUncertaintyMm(gauge) },
      of: each(gauge, () => 1),
    },
  ]);
  terms.push(...straysOf(plan, read));
  if (sides.size > 1)
    terms.push({ id: "play", label: "Play", of: (r) => (isFromLast(r) ? 1 : 0), y: 0, u: USUAL_PLAY_MM });
  if (isCut(plan)) terms.push({ id: "kerf", label: "Width of the cut", of: cutIn, ...cutKnown(plan) });
  if (isCut(plan)) terms.push({ id: "form", label: "Form of the part", of: () => 1, y: 0, u: formDoubt(read) });
  if (plan.way === "by hand")
    terms.push({
      id: "readout",
      label: "Step of the readout, twice",
      of: () => 1,
      y: 0,
      u: (plan.readoutStepMm ?? 0) / Math.sqrt(6),
    });
  return terms.filter((term) => term.u > 0);
}

/** Of a part the two cuts stray, of marks the first one and each of the others. */
function straysOf(plan: AxisScalePlan, read: readonly PlaceRead[]): Term[] {
  const stray = { id: "stray", label: "How the axis strays", y: 0, u: STRAY_MM };
  if (isCut(plan)) return [{ ...stray, u: STRAY_MM * Math.SQRT2, of: () => 1 }];
  const places = [...new Set(read.map((r) => r.nominalMm))];
  return [
    { ...stray, of: () => 1 },
    ...places.map((n): Term => ({ ...stray, isOwn: true, of: (r) => (r.nominalMm === n ? 1 : 0) })),
  ];
}

function isFromLast({ place }: PlaceRead): boolean {
  return place.kind === "tick" && place.side === "down";
}

function cutIn({ place }: PlaceRead): number {
  if (place.kind !== "side") return 0;
  return place.of === "part" ? -1 : 1;
}

/** What its two ends differ by beyond their scatter is its form: the scale lies somewhere between. */
function formDoubt(read: readonly PlaceRead[]): number {
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

/** From a part alone the cut is what the person says, give or take half of it. */
function cutKnown({ way, kerfMm = 0 }: AxisScalePlan): { y: number; u: number } {
  return way === "part" ? { y: kerfMm, u: kerfMm / 2 / Math.sqrt(3) } : { y: 0, u: ANY_CUT_MM };
}
