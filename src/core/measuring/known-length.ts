/**
 * A length that is known, read once with each pair of jaws: it shows a zero that was not taken, which the readings of a part, a hole or
 * an edge cannot show, since all of them have it in common.
 *
 *   y = L + s + c + d L + z + scatter        s what the known length itself may be off
 */
import { lengthAsk } from "../coupon/ask";
import type { Site } from "../coupon/site";
import { at, box, dimensionAcross, line, type Pen, path } from "../drawing/close-up";
import type { Detail } from "../drawing/scene";
import { type Gauge, hasJaws, type Jaws } from "../metrology/gauge";
import { plain } from "../metrology/quantity-text";
import type { Answer } from "../trial/answer";
import type { LookedAt } from "../trial/looked-at";
import { field, type When } from "../trial/plan-field";
import type { PlanContext } from "../trial/plan-form";
import { lengthGauges } from "./length-gauges";
import {
  gaugeTerms,
  type LengthReading,
  lengthReadings,
  modelOf,
  type ReadingSpec,
  type Term,
} from "./length-readings";

/** `knownMm`: 0 where there is none. */
export type KnownLength = { knownMm: number };

/** A gauge block, or a ring of a set. (common practice, no source) */
const USUAL_MM = 10;
/** Standard uncertainty of a gauge block, a pin or a ring of a workshop, mm. (common practice, no source) */
const ITSELF_MM = 0.002;
const LONGEST_MM = 300;
/** A reading may differ by so much before it is asked about, mm. */
const PLAUSIBLE_MORE_MM = 5;

/** Asked for where the workshop measures with jaws. */
function usualKnownMm(context: Pick<PlanContext, "gauges">): number {
  const [gauge] = lengthGauges(context);
  return gauge && hasJaws(gauge.kind) ? USUAL_MM : 0;
}

/** Asks for the known length, mm: 10 where the workshop measures with jaws, else 0. */
export function knownLengthField(context: Pick<PlanContext, "gauges">, when?: When) {
  return field.length({
    label: "Known length",
    group: "Reading",
    why: "Gauge block, pin or ring to check the jaws. Enter 0 without one.",
    usual: usualKnownMm(context),
    before: 0,
    min: 0,
    max: LONGEST_MM,
    when,
  });
}

const siteOf = (jaws: Jaws) => `known ${jaws}`;

/** Two readings, so that a slip in one of them is not taken for a zero error of the jaws. */
const KNOWN_REPEATS = 2;

/** One point for each pair of jaws that the other points are read with. */
export function knownLengthSites({ knownMm }: KnownLength, sites: readonly Site[]): Site[] {
  if (knownMm === 0) return [];
  return jawsIn(sites).map((jaws) => ({
    id: siteOf(jaws),
    label: `Known length, ${jaws} jaws`,
    question: QUESTIONS[jaws](`${plain(knownMm)} mm`),
    ask: lengthAsk({ jaws, plausibleUpTo: knownMm + PLAUSIBLE_MORE_MM }),
    measurand: { kind: "known length", mm: knownMm },
    place: null,
    repeats: KNOWN_REPEATS,
    openEnded: false,
  }));
}

const QUESTIONS: Record<Jaws, (mm: string) => string> = {
  outside: (mm) => `Measure a gauge block or pin of ${mm} with the outside jaws. What do the calipers read?`,
  inside: (mm) => `Measure a ring or slot of ${mm} with the inside jaws. What do the calipers read?`,
};

function jawsIn(sites: readonly Site[]): Jaws[] {
  const used = sites.flatMap(({ ask }) => (ask.kind === "quantity" && !ask.atMachine ? [ask.jaws] : []));
  return (["outside", "inside"] as const).filter((jaws) => used.includes(jaws));
}

/** A block between the jaws, or jaws within a ring; `null` for other points. */
export function knownLengthDetail<P>({ site, value, text }: LookedAt<P>): Detail | null {
  const { label, measurand, ask } = site;
  if (measurand.kind !== "known length" || ask.kind !== "quantity") return null;
  const [half, high] = [1.6, 0.9];
  const inside = ask.jaws === "inside";
  const walls = [-half, half].map((x) => line(at(x, high), at(x, -high), HEAVY));
  const jaw = (side: 1 | -1) => {
    const [near, far] = [side * half, side * (half + (inside ? -0.5 : 0.5))];
    return path([at(near, high * 1.6), at(near, -high / 2), at(far, -high / 2), at(far, high * 1.6)], JAW);
  };
  return {
    title: `Detail, ${label}`,
    note: inside ? "a ring or slot over the inside jaws" : "a block between the jaws",
    radius: 3.4,
    primitives: [
      ...(inside ? walls : [box(-half, -high, half, high, HEAVY)]),
      jaw(-1),
      jaw(1),
      dimensionAcross(at(-half, -1.5), at(half, -1.5), -1.5, value === null ? plain(measurand.mm) : text, "needs you"),
    ],
  };
}

const HEAVY: Pen = { tone: "ink", weight: "heavy" };
const JAW: Pen = { tone: "data" };

type Check = LengthReading & { checks: Jaws };
type Read<R> = R | Check;
const isCheck = <R extends LengthReading>(r: Read<R>): r is Check => "checks" in r;

/** Readings with those of a known length, as one model: the gauge is the same for all of them. */
export function modelWithKnown<R extends LengthReading>(
  readings: readonly R[],
  { knownMm }: KnownLength,
  {
    answers,
    gauges,
    decisions,
  }: { answers: readonly Answer[]; gauges: readonly Gauge[]; decisions: Readonly<Record<string, string>> },
  spec: ReadingSpec<R> & { jawsOf: (r: R) => Jaws; lengthOf: (r: R) => number },
) {
  const used = new Set(readings.map((r) => r.gauge.id));
  const pairs = knownMm > 0 ? (["outside", "inside"] as const) : [];
  const checks = pairs.flatMap((jaws) =>
    lengthReadings(answers, [siteOf(jaws)], gauges, decisions).map((r): Check => ({ ...r, checks: jaws })),
  );
  // A gauge that nothing else is read with needs no check.
  const all: Read<R>[] = [...readings, ...checks.filter((r) => used.has(r.gauge.id))];
  const own: Term<Read<R>>[] = spec.terms.map((t) => ({ ...t, of: (r) => (isCheck(r) ? 0 : t.of(r)) }));
  const itself = pairs.map(
    (jaws): Term<Read<R>> => ({
      id: siteOf(jaws),
      label: `size of the known length, ${jaws}`,
      u: ITSELF_MM,
      canBeWrong: true,
      source: "known length",
      of: (r) => (isCheck(r) && r.checks === jaws ? 1 : 0),
    }),
  );
  return modelOf(all, {
    row: (r) => (isCheck(r) ? {} : spec.row(r)),
    y: (r) => (isCheck(r) ? r.value - knownMm : spec.y(r)),
    terms: [
      ...gaugeTerms(all, {
        jawsOf: (r) => (isCheck(r) ? r.checks : spec.jawsOf(r)),
        lengthOf: (r) => (isCheck(r) ? knownMm : spec.lengthOf(r)),
      }),
      ...own,
      ...itself,
    ],
    facts: (r) =>
      isCheck(r) ? { pointLabel: `the known length, ${r.checks} jaws`, signedByWords: false } : spec.facts(r),
    ...(spec.known ? { known: spec.known } : {}),
    wanted: spec.wanted,
  });
}
