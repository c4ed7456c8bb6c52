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
import { type Adjustment, adjust, combine } from "../../estimate/adjustment";
import { known, type Model, type Observation, ofReadings, usual, usuallyAlike } from "../../estimate/model";
import { AXES, type Axis } from "../../machine/machine-kind";
import { USUAL_KERF_MM } from "../../measuring/beyond-machines";
import { examinationOf } from "../../measuring/examined";
import { modelWithKnown } from "../../measuring/known-length";
import {
  type LengthReading,
  lengthReadings,
  modelOf,
  type Term,
  withoutLeftOut,
} from "../../measuring/length-readings";
import { readLengths, type SiteRead } from "../../measuring/read-lengths";
import type { Budgeted } from "../../metrology/budget";
import type { Jaws } from "../../metrology/gauge";
import type { History, RoundRecord } from "../../trial/history";
import { cutSideMm } from "./layout";
import { isMateWay, isSquareWay, type KerfPlan } from "./plan";
import { combSite, type SquareSite, squareSites } from "./sites";

/** How far each cut of a drive strays from a straight line, sd, mm. (common practice, no source) */
const STRAY_MM = 0.01;
/** How a cut differs in width from place to place, sd, mm. (common practice, no source) */
const WANDER_MM = 0.003;
/** How far a cut along X differs in width from one along Y, sd, mm. (common practice, no source) */
const APART_MM = 0.03;
/** Before part and hole tell the scale themselves, sd, as a share. (common practice, no source) */
const USUAL_SCALE = 0.005;
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

type Cut = LengthReading & { axis: Axis; square: SquareSite | null };
type Known = Pick<History<KerfPlan>, "gauges" | "decisions">;

/** @returns `null` while too little is read */
export function readCuts(history: History<KerfPlan>, round: RoundRecord<KerfPlan>): KerfRead | null {
  const examined = examinationOf(history, round, observeCuts);
  if (!examined) return null;
  const all = placesRead(round, history);
  const axes = axesTold(round.plan, all);
  return {
    read: all,
    axes,
    ...resultsOf(examined.adjustment, axes, round.plan),
    taper: taperOf(cutsOf(round, history)),
  };
}

/** The sizes at the top face, or the gaps of combs, as a model. */
export function observeCuts(history: Known, round: RoundRecord<KerfPlan>): Model | null {
  const { plan } = round;
  if (isMateWay(plan.way)) return null;
  const axes = axesTold(plan, placesRead(round, history));
  const cuts = cutsOf(round, history).filter((r) => r.square?.face !== "bottom" && axes.includes(r.axis));
  if (cuts.length === 0) return null;
  const kerfRow = (share: Partial<Record<Axis, number>>) =>
    Object.fromEntries(axes.flatMap((axis) => (share[axis] === undefined ? [] : [[kerfOf(axis), share[axis]]])));
  const mean = kerfRow(Object.fromEntries(axes.map((axis) => [axis, 1 / axes.length])));
  return modelWithKnown(
    cuts,
    plan,
    { ...history, answers: round.answers },
    {
      jawsOf,
      lengthOf: (r) => r.value,
      row: (r) => ({ [kerfOf(r.axis)]: cutsIn(plan, r), ...(r.square ? { [scaleOf(r.axis)]: cutSideMm(plan) } : {}) }),
      y: (r) => r.value - sideOf(plan, r),
      terms: termsOf(plan, cuts),
      facts: (r) => ({
        pointLabel: labelOf(r),
        signedByWords: false,
        axis: r.axis,
        ...(r.square ? { object: `the ${r.square.of}` } : {}),
      }),
      known: [...axes.flatMap((axis) => knownOf(plan, axis)), ...alikeAlong(axes)],
      wanted: [
        { id: "kerf", label: "the kerf", row: mean },
        { id: "offset", label: "the offset per side", row: halved(mean) },
        ...axes.map((axis) => ({
          id: kerfOf(axis),
          label: `half the kerf along ${axis.toUpperCase()}`,
          row: { [kerfOf(axis)]: 1 },
          // Held against the tolerance as an offset per side.
          proves: 0.5,
        })),
      ],
    },
  );
}

const kerfOf = (axis: Axis) => `kerf ${axis}`;
const scaleOf = (axis: Axis) => `scale ${axis}`;

function halved(row: Record<string, number>) {
  return Object.fromEntries(Object.entries(row).map(([id, share]) => [id, share / 2]));
}

function knownOf(plan: KerfPlan, axis: Axis): Observation[] {
  const { low, high } = USUAL_KERF_MM;
  const name = axis.toUpperCase();
  const cut = usual(kerfOf(axis), "usual kerf", (high - low) / 4, (low + high) / 2);
  if (!isSquareWay(plan.way)) return [cut];
  if (plan.way === "part and hole") return [cut, usual(scaleOf(axis), `usual scale of ${name}`, USUAL_SCALE)];
  const u = Math.max(plan.scaleWithin, NO_SCALE) / Math.sqrt(3);
  const scale = known(scaleOf(axis), `scale of ${name}`, { u, canBeWrong: plan.scaleWithin > 0 });
  return [cut, { ...scale, source: { id: "scale", label: "Scale of the axis", kind: "B" } }];
}

/** One beam cuts nearly as wide along both axes. */
function alikeAlong([first, second]: readonly Axis[]): Observation[] {
  if (!first || !second) return [];
  return [usuallyAlike([kerfOf(first), kerfOf(second)], "usual difference of the kerf along X and Y", APART_MM)];
}

function labelOf({ axis, square }: Cut): string {
  const name = axis.toUpperCase();
  if (!square) return `the gap of the comb along ${name}`;
  return `the ${square.of} along ${name}, ${square.near === "low" ? "one side" : "other side"}`;
}

function resultsOf(fit: Adjustment, axes: readonly Axis[], plan: KerfPlan) {
  const share = 1 / axes.length;
  const variance = (b: Budgeted) => b.quantity.standardUncertainty ** 2;
  const only = (axis: Axis, error: number, kerf: number) =>
    combine(fit, { [scaleOf(axis)]: error, [kerfOf(axis)]: kerf });
  const scaleAlong = (axis: Axis) => {
    const [error, kerf, both] = [only(axis, 1, 0), only(axis, 0, 1), only(axis, 1, 1)];
    const covariance = (variance(both) - variance(error) - variance(kerf)) / 2;
    return { error, correlation: covariance / Math.sqrt(variance(error) * variance(kerf)) };
  };
  const [first, second] = axes;
  return {
    kerf: combine(fit, Object.fromEntries(axes.map((axis) => [kerfOf(axis), share]))),
    along: Object.fromEntries(axes.map((axis) => [axis, only(axis, 0, 1)])),
    apart: first && second ? combine(fit, { [kerfOf(first)]: 1, [kerfOf(second)]: -1 }) : null,
    scale: plan.way === "part and hole" ? Object.fromEntries(axes.map((axis) => [axis, scaleAlong(axis)])) : {},
    scaleShareMm: isSquareWay(plan.way) && plan.way !== "part and hole" ? cutSideMm(plan) * plan.scaleWithin : 0,
  };
}

function axesTold(plan: KerfPlan, read: readonly CutRead[]): Axis[] {
  const top = read.filter((r) => r.square?.face !== "bottom");
  return AXES.filter((axis) => isTold(plan, top, axis));
}

/** Readings one by one, with the side that each is of. */
function cutsOf({ plan, answers }: RoundRecord<KerfPlan>, { gauges, decisions }: Known): Cut[] {
  if (plan.way === "comb")
    return AXES.flatMap((axis) =>
      lengthReadings(answers, [combSite(axis)], gauges, decisions).map((r) => ({ ...r, axis, square: null })),
    );
  const squares = squareSites(plan);
  const sites = squares.map((s) => s.id);
  return lengthReadings(answers, sites, gauges, decisions).flatMap((r): Cut[] => {
    const square = squares.find((s) => s.id === r.site);
    return square ? [{ ...r, square, axis: square.axis }] : [];
  });
}

function placesRead({ plan, answers: all }: RoundRecord<KerfPlan>, { gauges, decisions }: Known): CutRead[] {
  const answers = withoutLeftOut(all, decisions);
  if (plan.way === "comb")
    return AXES.flatMap((axis) =>
      readLengths(answers, [combSite(axis)], gauges).map((r) => ({ ...r, axis, square: null })),
    );
  const sites = squareSites(plan);
  return readLengths(
    answers,
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

function sideOf(plan: KerfPlan, { square }: Pick<Cut, "square">): number {
  return square ? cutSideMm(plan) : 0;
}

/** How many kerfs a reading holds. */
function cutsIn({ cuts }: KerfPlan, { square }: Pick<Cut, "square">): number {
  if (!square) return cuts;
  return square.of === "part" ? -1 : 1;
}

function termsOf(plan: KerfPlan, read: readonly Cut[]): Term<Cut>[] {
  const sizes = AXES.filter((axis) => read.some((r) => r.axis === axis && r.square));
  // A part that is held against its own drawing has its strays in it.
  const strays = (plan.way === "part and hole" || plan.scaleWithin > 0 ? sizes : []).map(
    (axis): Term<Cut> => ({
      id: `stray ${axis}`,
      label: `straightness of ${axis.toUpperCase()}`,
      u: STRAY_MM * Math.SQRT2,
      of: (r) => (r.axis === axis && r.square ? 1 : 0),
      canBeWrong: false,
    }),
  );
  const wander = AXES.map(
    (axis): Term<Cut> => ({
      id: `wander ${axis}`,
      source: "wander",
      label: "variation of the kerf along the cut",
      u: plan.way === "comb" ? WANDER_MM * Math.sqrt(plan.cuts) : WANDER_MM / Math.SQRT2,
      of: (r) => (r.axis === axis ? (r.square?.of === "part" ? -1 : 1) : 0),
      canBeWrong: false,
    }),
  );
  return [...strays, ...wander];
}

function jawsOf({ square }: Pick<Cut, "square">): Jaws {
  return square?.of === "part" ? "outside" : "inside";
}

/** By how much the cut is narrower at the bottom, over the sizes that were read at both faces. Of one gauge what it always reads wrong falls out. */
function taperOf(cuts: readonly Cut[]): Budgeted | null {
  const pairs = (["part", "hole"] as const).flatMap((of) =>
    AXES.flatMap((axis) => {
      const at = (face: "top" | "bottom") =>
        cuts.some((r) => r.square?.of === of && r.axis === axis && r.square.face === face);
      return at("top") && at("bottom") ? [{ of, axis, sign: of === "part" ? 1 : -1 }] : [];
    }),
  );
  if (pairs.length === 0) return null;
  const nameOf = (of: "part" | "hole", axis: Axis, face: string) => `${of} ${axis} ${face}`;
  const used = cuts.filter((r) => pairs.some((p) => p.of === r.square?.of && p.axis === r.axis));
  const row: Record<string, number> = {};
  for (const { of, axis, sign } of pairs) {
    row[nameOf(of, axis, "top")] = -sign / pairs.length;
    row[nameOf(of, axis, "bottom")] = sign / pairs.length;
  }
  const model = modelOf(used, {
    row: (r) => (r.square ? { [nameOf(r.square.of, r.axis, r.square.face)]: 1 } : {}),
    y: (r) => r.value,
    terms: [],
    facts: (r) => ({ pointLabel: labelOf(r), signedByWords: false }),
    wanted: [],
  });
  const fit = adjust(ofReadings(model));
  return fit && combine(fit, row);
}
