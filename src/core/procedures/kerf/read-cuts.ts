/**
 * The kerf from the sizes of a square that was cut out, or from combs.
 *
 *   part:  y = N (1 + e) - k + c + d y/L + z_out + w        hole:  y = N (1 + e) + k + c + d y/L + z_in + w
 *   comb:  y = n k + c + d y/L + z_in
 *
 * N is the side as it was sent, e the error of the axis, k the kerf along it, c and d what the gauge always reads too much (half of its limit's
 * variance a constant, half growing with the length), z the zero of the jaws, w how the two cuts of a side stray: the same for part and hole,
 * since they share the cuts. From part and hole e and k are told apart; from one of them alone e is what the person says of it.
 */
import type { Budgeted } from "../../metrology/budget";
import { commonUncertaintyMm, type Gauge, zeroUncertaintyMm } from "../../metrology/gauge";
import { type SourcedFit, type SourcedObservation, sourcedFit } from "../../metrology/sourced-fit";
import { AXES, type Axis } from "../axes";
import type { RoundRecord } from "../contract";
import { gaugeName, placingOf, readLengths, type SiteRead } from "../read-lengths";
import { cutSideMm } from "./layout";
import { isSquareWay, type KerfPlan } from "./plan-type";
import { combSite, type SquareSite, squareSites } from "./sites";

/** How far each cut of a drive strays from a straight line, sd, mm. (common practice, no source) */
const STRAY_MM = 0.01;
/** How a cut differs in width from place to place, sd, mm. (common practice, no source) */
const WANDER_MM = 0.003;
/** Before anything is read, mm. */
const ANY_CUT_MM = 10;
/** Where part and hole tell the scale themselves, as a share. */
const ANY_SCALE = 0.1;
/** Where it is no matter. */
const NO_SCALE = 1e-12;

export type CutRead = SiteRead & { axis: Axis; square: SquareSite | null };

export type KerfRead = {
  read: CutRead[];
  /** Axes along which it is told. */
  axes: Axis[];
  /** Mean over the axes, mm. */
  kerf: Budgeted;
  along: Partial<Record<Axis, Budgeted>>;
  /** Along X minus along Y; `null` where one of them is not told. */
  apart: Budgeted | null;
  /** Error of each axis as a share, and how it goes with the kerf (correlation); part and hole only. */
  scale: Partial<Record<Axis, { error: Budgeted; correlation: number }>>;
  /** What a wrong scale may add to a kerf from part or hole alone, mm; 0 elsewhere. */
  scaleShareMm: number;
  /** By how much the cut is narrower at the bottom than at the top, mm; `null` where only the top was read. */
  taper: Budgeted | null;
};

type Term = { id: string; label: string; u: number; of: (r: CutRead) => number };

/** @returns `null` while too little is read */
export function readCuts(round: RoundRecord<KerfPlan>, gauges: readonly Gauge[]): KerfRead | null {
  const { plan } = round;
  const all = placesRead(round, gauges);
  const read = all.filter((r) => r.square?.face !== "bottom");
  const axes = AXES.filter((axis) => isTold(plan, read, axis));
  const used = read.filter((r) => axes.includes(r.axis));
  if (axes.length === 0) return null;
  const terms = termsOf(plan, used);
  const zeros = () => terms.map(() => 0);
  const base = (r: CutRead) => axes.flatMap((axis) => (r.axis === axis ? [sideOf(plan, r), cutsIn(plan, r)] : [0, 0]));
  const unknown = axes.flatMap((_, i) => [
    {
      at: 2 * i,
      u: plan.way === "part and hole" ? ANY_SCALE : Math.max(plan.scaleWithin, NO_SCALE) / Math.sqrt(3),
      id: "scale",
      label: "Scale of the axis",
    },
    { at: 2 * i + 1, u: ANY_CUT_MM, id: "before", label: "Before it was read" },
  ]);
  const observations: SourcedObservation[] = [
    ...used.map((r) => ({
      row: [...base(r), ...terms.map((t) => t.of(r))],
      ...{ y: r.mean - sideOf(plan, r), u: r.u, source: placingOf(r) },
    })),
    ...unknown.map(({ at, u, id, label }) => ({
      row: [...axes.flatMap((_, i) => [at === 2 * i ? 1 : 0, at === 2 * i + 1 ? 1 : 0]), ...zeros()],
      ...{ y: 0, u, source: { id, label, kind: "B" as const, degreesOfFreedom: "infinite" as const } },
    })),
    ...terms.map(({ id, label, u }, k) => ({
      row: [...axes.flatMap(() => [0, 0]), ...terms.map((_, j) => (j === k ? 1 : 0))],
      ...{ y: 0, u, source: { id, label, kind: "B" as const, degreesOfFreedom: "infinite" as const } },
    })),
  ];
  const fit = sourcedFit(observations);
  if (!fit) return null;
  return { read: all, axes, ...resultsOf(fit, axes, plan), taper: taperOf(all) };
}

function resultsOf(fit: SourcedFit, axes: readonly Axis[], plan: KerfPlan) {
  const at = (values: readonly [error: number, kerf: number][]) => fit.combine(values.flat());
  const only = (i: number, pair: [number, number]) => at(axes.map((_, k) => (k === i ? pair : [0, 0])));
  const share = 1 / axes.length;
  const variance = (b: Budgeted) => b.quantity.standardUncertainty ** 2;
  const scaleOf = (i: number) => {
    const [error, kerf, both] = [only(i, [1, 0]), only(i, [0, 1]), only(i, [1, 1])];
    const covariance = (variance(both) - variance(error) - variance(kerf)) / 2;
    return { error, correlation: covariance / Math.sqrt(variance(error) * variance(kerf)) };
  };
  return {
    kerf: at(axes.map(() => [0, share])),
    along: Object.fromEntries(axes.map((axis, i) => [axis, only(i, [0, 1])])),
    apart:
      axes.length === 2
        ? at([
            [0, 1],
            [0, -1],
          ])
        : null,
    scale: plan.way === "part and hole" ? Object.fromEntries(axes.map((axis, i) => [axis, scaleOf(i)])) : {},
    scaleShareMm: isSquareWay(plan.way) && plan.way !== "part and hole" ? cutSideMm(plan) * plan.scaleWithin : 0,
  };
}

function placesRead(round: RoundRecord<KerfPlan>, gauges: readonly Gauge[]): CutRead[] {
  const { plan } = round;
  if (plan.way === "comb")
    return AXES.flatMap((axis) =>
      readLengths(round.answers, [combSite(axis)], gauges).map((r) => ({ ...r, axis, square: null })),
    );
  const sites = squareSites(plan);
  return readLengths(
    round.answers,
    sites.map((s) => s.id),
    gauges,
  ).flatMap((r) => {
    const square = sites.find((s) => s.id === r.site);
    return square ? [{ ...r, square, axis: square.axis }] : [];
  });
}

/** Along an axis part and hole are both wanted where they are told apart. */
function isTold({ way }: KerfPlan, read: readonly CutRead[], axis: Axis): boolean {
  const here = read.filter((r) => r.axis === axis);
  const objects = new Set(here.map((r) => r.square?.of));
  return way === "part and hole" ? objects.size === 2 : here.length > 0;
}

function sideOf(plan: KerfPlan, { square }: CutRead): number {
  return square ? cutSideMm(plan) : 0;
}

/** How many kerfs a reading holds. */
function cutsIn({ cuts }: KerfPlan, { square }: CutRead): number {
  if (!square) return cuts;
  return square.of === "part" ? -1 : 1;
}

function termsOf(plan: KerfPlan, read: readonly CutRead[]): Term[] {
  const longest = Math.max(...read.map((r) => r.mean));
  const gauges = [...new Map(read.map((r) => [r.gauge.id, r.gauge])).values()];
  const own = (gauge: Gauge, of: (r: CutRead) => number) => (r: CutRead) => (r.gauge.id === gauge.id ? of(r) : 0);
  const isOutside = (r: CutRead) => r.square?.of === "part";
  const terms = gauges.flatMap((gauge): Term[] => {
    const limit = {
      ...{ id: `limit ${gauge.id}`, label: `Limit of error, ${gaugeName(gauge)}` },
      u: commonUncertaintyMm(gauge) / Math.SQRT2,
    };
    const zero = (jaws: string) => ({
      ...{ id: `zero ${gauge.id} ${jaws}`, label: `Zero of the ${jaws} jaws, ${gaugeName(gauge)}` },
      u: zeroUncertaintyMm(gauge),
    });
    return [
      { ...limit, of: own(gauge, () => 1) },
      { ...limit, of: own(gauge, (r) => (longest > 0 ? r.mean / longest : 0)) },
      { ...zero("outside"), of: own(gauge, (r) => (isOutside(r) ? 1 : 0)) },
      { ...zero("inside"), of: own(gauge, (r) => (isOutside(r) ? 0 : 1)) },
    ];
  });
  const sizes = AXES.filter((axis) => read.some((r) => r.axis === axis && r.square));
  // A part that is held against its own drawing has its strays in it.
  for (const axis of plan.way === "part and hole" || plan.scaleWithin > 0 ? sizes : [])
    terms.push({
      ...{ id: "stray", label: "How the axis strays", u: STRAY_MM * Math.SQRT2 },
      of: (r) => (r.axis === axis && r.square ? 1 : 0),
    });
  for (const axis of AXES)
    terms.push({
      ...{ id: "wander", label: "How the cut differs from place to place" },
      u: plan.way === "comb" ? WANDER_MM * Math.sqrt(plan.cuts) : WANDER_MM / Math.SQRT2,
      of: (r) => (r.axis === axis ? (r.square?.of === "part" ? -1 : 1) : 0),
    });
  return terms.filter((t) => t.u > 0 && read.some((r) => t.of(r) !== 0));
}

/** By how much the cut is narrower at the bottom, over the sizes that were read at both faces. */
function taperOf(all: readonly CutRead[]): Budgeted | null {
  const pairs = (["part", "hole"] as const).flatMap((of) =>
    AXES.flatMap((axis) => {
      const at = (face: "top" | "bottom") =>
        all.filter((r) => r.square?.of === of && r.axis === axis && r.square.face === face);
      const [top, bottom] = [at("top"), at("bottom")];
      return top.length > 0 && bottom.length > 0 ? [{ sign: of === "part" ? 1 : -1, top, bottom }] : [];
    }),
  );
  if (pairs.length === 0) return null;
  // Of one gauge what it always reads wrong is in both and falls out.
  const share = 1 / pairs.length;
  const observations: SourcedObservation[] = pairs
    .flatMap(({ top, bottom }) => [...top, ...bottom])
    .map((r, i, every) => ({
      row: every.map((_, k) => (k === i ? 1 : 0)),
      ...{ y: r.mean, u: r.u, source: placingOf(r) },
    }));
  const weights = pairs.flatMap(({ sign, top, bottom }) => [
    ...top.map(() => (-sign * share) / top.length),
    ...bottom.map(() => (sign * share) / bottom.length),
  ]);
  return sourcedFit(observations)?.combine(weights) ?? null;
}
