/**
 * The drive from what was read: how much farther the surface goes than it should, with its doubt part by part.
 *
 *   ratio = travelled / due          u^2 = sum (d ratio / d y_i)^2 u_i^2, derivatives by differences
 *
 * What a gauge always reads too much is in all its readings alike: half of its limit's variance a constant, half growing with the length, whole
 * at the longest reading. A chuck that runs out carries the surface sideways under the beam, e sin(phi) with e half of what is seen up
 * and down: over a part of a turn phi that leaves sqrt(2) e sin(phi/2) (rms over where it begins); over a whole turn nothing.
 */
import { expandedUncertainty } from "../../fitting/student-t";
import { type Budgeted, type BudgetPart, joined, times } from "../../metrology/budget";
import { commonUncertaintyMm, type Gauge, zeroUncertaintyMm } from "../../metrology/gauge";
import { type Answer, quantitiesAt } from "../answer";
import type { RoundRecord } from "../contract";
import { gaugeName, placingOf, readLengths, type SiteRead } from "../read-lengths";
import { type RotaryPlan, sentMm } from "./plan-type";
import { aroundMm, type Readings, SITES, type SiteId, type Travel, travelOf } from "./travel";

/** A roller does not carry a part better than this, sd, as a share of the way. (common practice, no source) */
const GRIP_SHARE = 0.0002;
/** How well a part is known that is laid out without being measured, sd, as a share. (common practice, no source) */
const LAID_OUT_SHARE = 0.01;
/** Uncertainty of the thickness of a tape and of its neutral layer, as a share of the thickness. (common practice, no source) */
const TAPE_KNOWN = 0.5;
/** Share of a value by which derivatives are taken. */
const STEP_SHARE = 1e-5;

/** Sizes scatter by the form of the part, lines by the hand: each by itself. */
const SIZES: readonly SiteId[] = [SITES.marked, SITES.resting];
const LINES: readonly SiteId[] = [SITES.gap, SITES.width, SITES.span, SITES.back, SITES.line];
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
export function readTravel(round: RoundRecord<RotaryPlan>, gauges: readonly Gauge[]): TravelRead | null {
  const { plan, answers } = round;
  const sites = [...readLengths(answers, SIZES, gauges.map(onForm)), ...readLengths(answers, LINES, gauges)];
  const read = readingsOf(round, sites);
  const onEachOther = liesOnEachOther(answers);
  const travel = travelOf(plan, read, onEachOther);
  if (!travel || travel.due <= 0) return null;
  const ratio = travel.travelled / travel.due;
  const of = (changed: Readings) => {
    const t = travelOf(plan, changed, onEachOther);
    return t ? t.travelled / t.due : ratio;
  };
  const parts = [
    ...readingParts(plan, read, sites, of),
    ...otherParts(plan, read, travel, onEachOther).filter((p) => p.standardUncertainty > 0),
  ];
  const size = (id: SiteId) => (read[id] === undefined ? null : sizeOf(plan, id, read, sites));
  return {
    ...{ ...travel, ratio: joined(ratio, parts), read, sites },
    back: backOf(plan, read, sites),
    ...{ marked: size(SITES.marked), resting: size(SITES.resting), mirrored: mirroredIn(answers) },
  };
}

/** A gauge across a part that is not quite round: what is expected of its scatter has the form in it. */
function onForm(gauge: Gauge): Gauge {
  const { placing } = gauge;
  return placing ? { ...gauge, placing: { ...placing, sdMm: Math.hypot(placing.sdMm, FORM_MM) } } : gauge;
}

function readingsOf({ spec, answers }: RoundRecord<RotaryPlan>, sites: readonly SiteRead[]): Readings {
  const read: Readings = {};
  for (const site of spec.sites) {
    const id = site.id as SiteId;
    const here = sites.filter((s) => s.site === id);
    const last = answers.findLast((a) => a.site === id)?.content;
    if (here.length > 0) read[id] = weighted(here);
    else if (last?.status === "read" && last.value.kind === "count") read[id] = last.value.value;
    else if (site.measurand.kind === "readout on line") read[id] = quantitiesAt(answers, id).at(-1);
  }
  return read;
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

type Of = (read: Readings) => number;

/** Placing of each site and gauge, and what each gauge has in common. */
function readingParts(plan: RotaryPlan, read: Readings, sites: readonly SiteRead[], of: Of): BudgetPart[] {
  const used = sites.filter((s) => s.site !== SITES.back);
  const slope = (id: SiteId) => {
    const value = read[id] ?? 0;
    const step = Math.max(Math.abs(value), 1) * STEP_SHARE;
    return (of({ ...read, [id]: value + step }) - of({ ...read, [id]: value - step })) / (2 * step);
  };
  const share = (s: SiteRead) => {
    const here = used.filter((o) => o.site === s.site);
    return slope(s.site as SiteId) / s.u ** 2 / total(here.map((o) => 1 / o.u ** 2));
  };
  const gauges = [...new Map(used.map((s) => [s.gauge.id, s.gauge])).values()];
  return [
    ...placings(used, share),
    ...gauges.flatMap((gauge) => {
      const own = used.filter((s) => s.gauge.id === gauge.id);
      return commonParts(gauge, own, share);
    }),
    ...(plan.way === "traced" ? readoutParts(plan, slope) : []),
  ].filter((p) => p.standardUncertainty > 0);
}

/** Of one gauge all placings are one part, however many places were read. */
function placings(sites: readonly SiteRead[], share: (s: SiteRead) => number): BudgetPart[] {
  const kinds = [...new Map(sites.map((s) => [keyOf(s), s])).entries()];
  return kinds.map(([key, first]) => {
    const own = sites.filter((s) => keyOf(s) === key);
    const [word, about] = isSize(first) ? ["size", "Form and placing, across or around"] : ["line", "Placing"];
    const { degreesOfFreedom, kind } = placingOf(first);
    return {
      ...{
        id: `placing ${word} ${first.gauge.id}`,
        label: `${about}, ${gaugeName(first.gauge)}`,
        kind,
        degreesOfFreedom,
      },
      standardUncertainty: Math.hypot(...own.map((s) => share(s) * s.u)),
    };
  });
}

function keyOf(s: SiteRead): string {
  return `${isSize(s)} ${s.gauge.id}`;
}

function isSize({ site }: SiteRead): boolean {
  return SIZES.includes(site as SiteId);
}

function commonParts(gauge: Gauge, own: readonly SiteRead[], share: (s: SiteRead) => number): BudgetPart[] {
  const longest = Math.max(...own.map((s) => Math.abs(s.mean)), Number.MIN_VALUE);
  const sum = (of: (s: SiteRead) => number) => Math.abs(total(own.map((s) => share(s) * of(s))));
  // A gap that is overlapped is read as its size: too much makes it more negative.
  const way = (s: SiteRead) => (s.mean < 0 ? -1 : 1);
  const limit = commonUncertaintyMm(gauge) / Math.SQRT2;
  const jaws = (inside: boolean) =>
    sum((s) => (INSIDE.includes(s.site as SiteId) === inside ? way(s) : 0)) * zeroUncertaintyMm(gauge);
  const part = (id: string, label: string, standardUncertainty: number): BudgetPart => ({
    ...known(`${id} ${gauge.id}`, `${label}, ${gaugeName(gauge)}`),
    standardUncertainty,
  });
  return [
    part(
      "limit",
      "Limit of error",
      Math.hypot(
        sum(way),
        sum((s) => (longest > 0 ? s.mean / longest : 0)),
      ) * limit,
    ),
    part("zero", "Zero of the jaws", Math.hypot(jaws(true), jaws(false))),
  ];
}

function readoutParts({ readoutStepMm = 0, dotMm = 0 }: RotaryPlan, slope: (id: SiteId) => number): BudgetPart[] {
  const both = Math.hypot(slope(SITES.first), slope(SITES.second));
  return [
    {
      ...known("readout", "Step of the readout, twice"),
      standardUncertainty: (both * readoutStepMm) / Math.sqrt(12),
    },
    { ...known("dot", "The dot on the line, twice"), standardUncertainty: (both * dotMm) / Math.sqrt(3) },
  ];
}

function otherParts(
  plan: RotaryPlan,
  read: Readings,
  { travelled, due, around }: Travel,
  onEachOther: boolean,
): BudgetPart[] {
  const part = (id: string, label: string, mm: number): BudgetPart => ({
    ...known(id, label),
    standardUncertainty: mm / due,
  });
  const phi = (2 * travelled) / (around === null ? plan.diameterMm : around / Math.PI);
  const turnsUnmeasured = plan.way === "span" && around === null ? (read[SITES.turns] ?? 0) : 0;
  const eccentric = plan.drive === "chuck" ? (plan.runoutMm ?? 0) / 2 : 0;
  return [
    part(
      "laid out",
      "The part as laid out, not measured",
      LAID_OUT_SHARE * turnsUnmeasured * Math.PI * plan.diameterMm,
    ),
    part("runout", "The chuck runs out", Math.SQRT2 * eccentric * Math.abs(Math.sin(phi / 2))),
    part(
      "tape",
      "Thickness of the tape",
      plan.way === "wrap" ? 0 : (TAPE_KNOWN * (plan.tapeMm ?? 0) * travelled) / plan.diameterMm / Math.sqrt(3),
    ),
    part("grip", "Grip of the rollers", gripMm(plan, travelled)),
    part("on each other", "Lines lie on each other", onEachOther ? (read[SITES.width] ?? 0) / Math.sqrt(3) : 0),
  ];
}

/** What a size or a way back is uncertain by itself. */
function plainParts(own: readonly SiteRead[]): BudgetPart[] {
  return own.flatMap((s): BudgetPart[] => [
    { ...placingOf(s), standardUncertainty: s.u / own.length },
    {
      ...known(`limit ${s.gauge.id}`, `Limit of error, ${gaugeName(s.gauge)}`),
      standardUncertainty: Math.hypot(commonUncertaintyMm(s.gauge), zeroUncertaintyMm(s.gauge)) / own.length,
    },
  ]);
}

function sizeOf(plan: RotaryPlan, id: SiteId, read: Readings, sites: readonly SiteRead[]): Budgeted {
  const parts = plainParts(sites.filter((s) => s.site === id));
  return times(joined(read[id] ?? 0, parts), aroundMm(plan, 1) / Math.PI);
}

/** Rollers that grip well still come back within a little, there and back. */
function backOf(plan: RotaryPlan, read: Readings, sites: readonly SiteRead[]): Budgeted | null {
  const grip = {
    ...known("grip", "Grip of the rollers, twice"),
    standardUncertainty: Math.SQRT2 * gripMm(plan, sentMm(plan)),
  };
  const parts = (more: BudgetPart[]) => [...more, ...(grip.standardUncertainty > 0 ? [grip] : [])];
  if (plan.way === "traced") {
    const [first, again] = [read[SITES.first], read[SITES.again]];
    if (first === undefined || again === undefined) return null;
    return joined(again - first, parts(readoutParts(plan, () => 1)));
  }
  const value = read[SITES.back];
  const own = sites.filter((s) => s.site === SITES.back);
  return value === undefined || own.length === 0 ? null : joined(value, parts(plainParts(own)));
}

function gripMm({ drive }: RotaryPlan, mm: number): number {
  return drive === "roller" ? GRIP_SHARE * mm : 0;
}

/** Of a part that is stated, not seen. */
function known(id: string, label: string) {
  return { id, label, kind: "B", degreesOfFreedom: "infinite" } as const;
}

/** Whether it slips: it did not come back to its place beyond what the reading may be off. */
export function slips({ back }: Pick<TravelRead, "back">): boolean {
  return back !== null && Math.abs(back.quantity.value) > expandedUncertainty(back.quantity);
}

/** By how much it slips for each mm that goes by, there and back. */
export function slipShare({ back, travelled }: Pick<TravelRead, "back" | "travelled">): number {
  return back === null ? 0 : Math.abs(back.quantity.value / (2 * travelled));
}
