/**
 * Questions about unlikely readings. Each is asked once. The same reading, entered again, is saved: the operator decides.
 *
 * A reading some 25.4 or 1000 times off what its neighbours say was typed in another unit; a series that repeats itself number
 * for number was sent twice; X and Y may have changed places; and from five readings on a value can stand far off the rest.
 */
import type { Measurand, Site } from "../coupon/site";
import { criticalT } from "../estimate/influence";
import { median } from "../fitting/median";
import { readingUncertaintyMm } from "../metrology/gauge";
import { freedomOf, type Measured } from "../metrology/measured";
import { shownLength } from "../metrology/quantity-text";
import { MM_PER_INCH } from "../metrology/units";
import type { AnyProcedure } from "../procedures/contract";
import { type Answer, type AnswerValue, quantitiesAt } from "../trial/answer";
import { lengthUnitOf } from "../trial/decisions";
import type { History } from "../trial/history";

const SLIPS = [
  {
    factor: MM_PER_INCH,
    question: "about 25 times what its neighbours read. Were inches typed for mm, or mm for inches?",
  },
  { factor: 1 / MM_PER_INCH, question: "about 25 times less than its neighbours read. Were mm typed for inches?" },
  { factor: 1000, question: "about 1000 times what its neighbours read. Was µm meant, or thou?" },
  { factor: 1 / 1000, question: "about 1000 times less than its neighbours read. Was it typed in another unit?" },
] as const;
/** How near a ratio must come to a slip, as a share. */
const SLIP_WITHIN = 0.25;
/** Sizes that differ by no more than this many times tell what a neighbour should be. */
const NEIGHBOURS_WITHIN = 5;
/** Without a model of the readings, from so many on. */
const FAR_OFF_FROM_READINGS = 5;
/** Without a model, standard deviations as for points off a line. */
const FAR_OFF_BEYOND = 3.5;
const SAME_SERIES_FROM = 3;
/** What happens by chance on fewer coupons than this is asked about. */
const RARE = 0.001;
/** How often two readings are equal where their gauge is not known. (common practice, no source) */
const USUALLY_SAME = 0.15;
const STUCK_FROM = 6;
/** Swapped places must fit this many times better than as typed. */
const SWAP_FITS_BETTER = 4;

/** A question to ask before a reading is taken; `null` where there is nothing to ask. */
export function questionAbout(
  procedure: AnyProcedure,
  history: History,
  site: Site,
  value: AnswerValue,
): string | null {
  switch (value.kind) {
    case "quantity":
      return (
        unitSlip(procedure, history, site, value.value) ??
        tooMuch(history, site, value.value) ??
        farOff(procedure, history, site, value.value) ??
        sameSeries(history, site, value.value)
      );
    case "points":
      return swappedPoints(site, value.points);
    case "pair":
      return swapped(history, site, [value.first, value.second], "The two numbers look as if they had changed places.");
    case "vector":
      return swapped(history, site, [value.x, value.y], "X and Y look as if they had changed places.");
    default:
      return null;
  }
}

/** With a model, only what is far from the others as typed, and near them in the other unit; without one, by the ratio alone. */
function unitSlip(procedure: AnyProcedure, history: History, site: Site, value: number): string | null {
  const expected = procedure.expected(history, site.id);
  const about = expected?.value ?? neighbours(history, site);
  if (about === null || about === 0 || value === 0) return null;
  const ratio = Math.abs(value / about);
  const slip = SLIPS.find((s) => Math.abs(Math.log(ratio / s.factor)) < Math.log(1 + SLIP_WITHIN));
  if (!slip) return null;
  if (procedure.observe && expected) {
    const far = (v: number) => isFarOff(procedure, history, expected, v);
    if (!far(value) || far(value / slip.factor)) return null;
  }
  // Where a model says nothing, a mark may be next to nothing.
  if (procedure.observe && !expected && slip.factor < 1) return null;
  return `This is ${slip.question}`;
}

/** By the model and the limit of suspects, so that what is asked here and what is found afterwards agree. */
function isFarOff(procedure: AnyProcedure, history: History, expected: Measured, value: number): boolean {
  const beyond = procedure.observe ? criticalT(freedomOf(expected), sharedAmong(history)) : FAR_OFF_BEYOND;
  return Math.abs(value - expected.value) > beyond * expected.standardUncertainty;
}

/**
 * Among how many readings false alarms are shared, for the next one. The first ones get more of them, since hardly anything is known of the
 * scatter then: 1/2, 1/6, 1/12 ..., and half of an equal share at least. Their sum is at most one and a half.
 */
function sharedAmong({ rounds }: History): number {
  const round = rounds.at(-1);
  const all = 2 * (round?.spec.sites.reduce((sum, s) => sum + s.repeats, 0) ?? 1);
  const before = round?.answers.length ?? 0;
  return before === 0 ? all : Math.min(before * (before + 1), all);
}

function tooMuch(history: History, site: Site, value: number): string | null {
  if (site.ask.kind !== "quantity" || Math.abs(value) <= site.ask.plausibleUpTo) return null;
  if (site.ask.dimension !== "length") return "This would be much here.";
  return `More than ${shownLength(site.ask.plausibleUpTo, lengthUnitOf(history), 0)} would be much here.`;
}

function farOff(procedure: AnyProcedure, history: History, site: Site, value: number): string | null {
  const round = history.rounds.at(-1);
  if (!round || (!procedure.observe && round.answers.length < FAR_OFF_FROM_READINGS)) return null;
  const expected = procedure.expected(history, site.id);
  if (!expected || !isFarOff(procedure, history, expected, value)) return null;
  if (site.ask.kind !== "quantity" || site.ask.dimension !== "length") return "This is far from what the others say.";
  const unit = lengthUnitOf(history);
  const signs = site.ask.signedBy;
  if (
    signs &&
    Math.sign(value) !== Math.sign(expected.value) &&
    Math.abs(Math.abs(value) - Math.abs(expected.value)) < Math.abs(expected.value) / 2
  )
    return `The other readings say “${signs[expected.value > 0 ? "positive" : "negative"]}” here.`;
  return `The other readings say about ${shownLength(Math.abs(expected.value), unit, 2)} here.`;
}

/** Series that are equal number for number at two sites, where that is no chance, or one number again and again over sites. */
function sameSeries(history: History, site: Site, value: number): string | null {
  const round = history.rounds.at(-1);
  if (!round) return null;
  const here = [...quantitiesAt(round.answers, site.id), value];
  if (here.length >= SAME_SERIES_FROM && new Set(here).size > 1) {
    const others = round.spec.sites.filter(
      (s) => s.id !== site.id && quantitiesAt(round.answers, s.id).length === here.length,
    );
    const twin = others.find((s) => same(quantitiesAt(round.answers, s.id), here));
    if (twin && others.length * sameByChance(history) ** here.length < RARE)
      return `These are the very numbers of “${twin.label}”. Were they sent twice?`;
  }
  const last = round.answers.slice(1 - STUCK_FROM).flatMap(sizeOf);
  const stuck = last.length === STUCK_FROM - 1 && last.every((v) => v === Math.abs(value));
  return stuck && value !== 0
    ? "The same number now for the sixth time, at several places. Does the gauge still follow?"
    : null;
}

/**
 * How likely two readings of one size are equal: step / (2 sqrt(pi) s), s their scatter. Both ends of a row show one stagger, so three
 * readings with calipers are often the same at both.
 */
function sameByChance({ gauges, rounds }: History): number {
  const last = rounds.at(-1)?.answers.at(-1)?.gauge;
  const gauge = gauges.find((g) => g.id === last);
  if (!gauge) return USUALLY_SAME;
  return Math.min(1, gauge.resolutionMm / (2 * Math.sqrt(Math.PI) * readingUncertaintyMm(gauge)));
}

function sizeOf(answer: Answer): number[] {
  const { content } = answer;
  return content.status === "read" && content.value.kind === "quantity" ? [Math.abs(content.value.value)] : [];
}

function same(a: readonly number[], b: readonly number[]): boolean {
  return a.length === b.length && a.every((v, i) => v === b[i]);
}

/** Middle size read at the other places that ask for the same thing; `null` below two of them, or where their sizes have little in common. */
function neighbours(history: History, site: Site): number | null {
  const round = history.rounds.at(-1);
  const others = (round?.spec.sites ?? []).filter((s) => s.id !== site.id && isAlike(s.measurand, site.measurand));
  const values = others.flatMap((s) => quantitiesAt(round?.answers ?? [], s.id).map(Math.abs));
  const isAlikeInSize = Math.max(...values) < NEIGHBOURS_WITHIN * Math.min(...values);
  return values.length < 2 || !isAlikeInSize ? null : median(values);
}

/** Whether two points measure the same quantity. Points around a round part differ in their meaning. */
function isAlike(a: Measurand, b: Measurand): boolean {
  return a.kind === b.kind && (a.kind !== "around" || b.kind !== "around" || a.as === b.as);
}

type Point = { x: number; y: number };

function swappedPoints(site: Site, points: readonly (Point | null)[]): string | null {
  // A scan lies as it was laid on the glass.
  if (site.ask.kind !== "points" || site.measurand.kind === "dots") return null;
  let asTyped = 0;
  let asSwapped = 0;
  site.ask.nominal.forEach((nominal, i) => {
    const point = points[i];
    if (!point) return;
    asTyped += (point.x - nominal.x) ** 2 + (point.y - nominal.y) ** 2;
    asSwapped += (point.y - nominal.x) ** 2 + (point.x - nominal.y) ** 2;
  });
  return asSwapped * SWAP_FITS_BETTER ** 2 < asTyped ? "X and Y look as if they had changed places." : null;
}

/** Against an earlier reading at the same place. */
function swapped(history: History, site: Site, [a, b]: [number, number], question: string): string | null {
  const earlier = history.rounds.at(-1)?.answers.findLast((x) => x.site === site.id)?.content;
  if (earlier?.status !== "read") return null;
  const { value } = earlier;
  const [p, q] =
    value.kind === "pair" ? [value.first, value.second] : value.kind === "vector" ? [value.x, value.y] : [a, b];
  const asTyped = Math.hypot(a - p, b - q);
  return Math.hypot(b - p, a - q) * SWAP_FITS_BETTER < asTyped ? question : null;
}
