/** Readings of lengths, one by one, and the model that they make with what they have in common. */

import { known, type Model, type Observation, type ReadingFacts, type Row, type ScatterGroup } from "../estimate/model";
import {
  commonUncertaintyMm,
  degreesOfFreedomFrom,
  type Gauge,
  hasJaws,
  type Jaws,
  readingUncertaintyMm,
  resolutionUncertaintyMm,
  zeroUncertaintyMm,
} from "../metrology/gauge";
import type { Answer } from "../trial/answer";
import { leaveOut } from "../trial/decisions";
import { gaugeName } from "./read-lengths";

/** The length at which half of a gauge's limit of error, as a variance, is a share of the length, mm. (common practice, no source) */
const HALF_GROWS_AT_MM = 100;

/** Jaws that were not closed and looked at may be off by this, sd, mm. (common practice, no source) */
const ZERO_WRONG_BY_MM = 0.1;

export type LengthReading = {
  /** Keeps its name while other readings come and go: point, which of equal ones, session, value. */
  id: string;
  site: string;
  /** 0 for the first at its point. */
  repeat: number;
  value: number;
  gauge: Gauge;
  /** Readings whose scatter is estimated together: those of one gauge, unless a procedure tells them apart. */
  scatter: { id: string; label: string };
  session: string;
  shares: Answer["shares"];
  /** Standard uncertainty of this reading alone, as expected of its gauge, or as its picture says. */
  u: number;
  fromPicture: boolean;
  /** Not taken: for a forecast or a prediction. */
  imagined: boolean;
};

/** Something that several readings have in common. */
export type Term<R extends LengthReading = LengthReading> = {
  id: string;
  /** Within a sentence: `the zero of the jaws`. */
  label: string;
  value?: number;
  /** Standard uncertainty; a term without any is left out. */
  u: number;
  of: (reading: R) => number;
  /** A check may find it wrong, and a person can look at it. */
  canBeWrong: boolean;
  /** By how much it may be wrong where it is, sd; left out: five times its uncertainty. */
  wrongBy?: number;
  /** Id of the line in the budget; its own where it is left out. */
  source?: string;
};

/** Names readings one after the other: each keeps its name while others come and go. */
export function readingNamer(): (answer: Answer, value: number | string) => string {
  const equals = new Map<string, number>();
  return ({ site, session }, value) => {
    const key = `${site} ${session} ${value}`;
    const before = equals.get(key) ?? 0;
    equals.set(key, before + 1);
    return `${site}${before === 0 ? "" : ` (${before + 1})`} ${session} ${value}`;
  };
}

/** Answers without the readings that a person left out. */
export function withoutLeftOut(
  answers: readonly Answer[],
  decisions: Readonly<Record<string, string>>,
): readonly Answer[] {
  const nameOf = readingNamer();
  return answers.filter((a) => {
    const read = readOf(a);
    return read === null || !leaveOut(nameOf(a, read)).of(decisions);
  });
}

/** What names a reading: its value, its word or its cells; `null` where it cannot be left out by itself. */
function readOf({ content }: Answer): number | string | null {
  if (content.status !== "read") return null;
  const { value } = content;
  if (value.kind === "quantity") return value.value;
  if (value.kind === "ordinal") return value.category.replaceAll(" ", "_");
  return value.kind === "cells" ? value.cells.join(",") : null;
}

/** Judgements that are kept, each with the name by which it is left out. */
export function namedAnswers(
  answers: readonly Answer[],
  decisions: Readonly<Record<string, string>>,
): { answer: Answer; id: string }[] {
  const nameOf = readingNamer();
  return answers.flatMap((answer) => {
    const read = readOf(answer);
    if (read === null) return [];
    const id = nameOf(answer, read);
    return leaveOut(id).of(decisions) ? [] : [{ answer, id }];
  });
}

/** All readings of lengths at these points, in their order, without those that are left out. */
export function lengthReadings(
  answers: readonly Answer[],
  sites: readonly string[],
  gauges: readonly Gauge[],
  decisions: Readonly<Record<string, string>>,
): LengthReading[] {
  const known = new Map(gauges.map((g) => [g.id, g]));
  const wanted = new Set(sites);
  const bySite = new Map<string, LengthReading[]>();
  const repeats = new Map<string, number>();
  const nameOf = readingNamer();
  for (const a of answers) {
    if (!wanted.has(a.site)) continue;
    const repeat = repeats.get(a.site) ?? 0;
    repeats.set(a.site, repeat + 1);
    const gauge = known.get(a.gauge);
    if (!gauge || a.content.status !== "read" || a.content.value.kind !== "quantity") continue;
    const { value } = a.content.value;
    const id = nameOf(a, value);
    if (leaveOut(id).of(decisions)) continue;
    const here = bySite.get(a.site) ?? [];
    bySite.set(a.site, here);
    here.push({
      id,
      site: a.site,
      repeat,
      value,
      gauge,
      scatter: { id: gauge.id, label: "Repeatability" },
      session: a.session,
      shares: a.shares,
      u: a.u ?? readingUncertaintyMm(gauge) * a.shares.scatter,
      fromPicture: a.picture !== undefined,
      imagined: a.imagined === true,
    });
  }
  return sites.flatMap((site) => bySite.get(site) ?? []);
}

/** Gauges that were read with, in the order in which they were taken up. */
function gaugesOf(readings: readonly LengthReading[]): Gauge[] {
  return [...new Map(readings.map((r) => [r.gauge.id, r.gauge])).values()];
}

/**
 * What a gauge always reads too much: a constant, a share of the length, and the zero of each pair of jaws in each session.
 *
 * Half of its limit of error, as a variance, grows with the length, and is whole at the longest reading, or at 100 mm where all are
 * shorter. Both together never exceed the limit. [JCGM 100:2008 4.3.7, F.1.2]
 *
 * @param jawsOf which jaws a reading was taken with
 * @param lengthOf the length that was spanned, mm
 */
export function gaugeTerms<R extends LengthReading>(
  readings: readonly R[],
  { jawsOf, lengthOf }: { jawsOf: (r: R) => Jaws; lengthOf: (r: R) => number },
): Term<R>[] {
  const longest = Math.max(0, ...readings.map((r) => Math.abs(lengthOf(r))));
  const whole = Math.max(longest, HALF_GROWS_AT_MM);
  const grows = 0.5 * (longest / whole) ** 2;
  const common = (r: R) => r.shares.common;
  return gaugesOf(readings).flatMap((gauge) => {
    const limit = commonUncertaintyMm(gauge);
    const own = (r: R) => r.gauge.id === gauge.id;
    const name = gaugeName(gauge);
    const zeros = hasJaws(gauge.kind)
      ? [...new Set(readings.filter(own).map((r) => `${jawsOf(r)} jaws|${r.session}`))]
      : [];
    return [
      {
        id: `limit ${gauge.id}`,
        label: `limit of error, ${name}`,
        u: limit * Math.sqrt(1 - grows),
        of: (r: R) => (own(r) ? common(r) : 0),
        canBeWrong: true,
      },
      {
        id: `limit share ${gauge.id}`,
        source: `limit ${gauge.id}`,
        label: `limit of error, ${name}`,
        u: limit * Math.SQRT1_2,
        of: (r: R) => (own(r) ? (common(r) * Math.abs(lengthOf(r))) / whole : 0),
        canBeWrong: true,
      },
      ...zeros.map((zero) => {
        const [jaws = "", session = ""] = zero.split("|");
        return {
          id: `zero ${gauge.id} ${zero}`,
          label: `zero of the ${jaws}, ${name}`,
          u: zeroUncertaintyMm(gauge),
          wrongBy: ZERO_WRONG_BY_MM,
          of: (r: R) => (own(r) && r.session === session && `${jawsOf(r)} jaws` === jaws ? common(r) : 0),
          canBeWrong: true,
        };
      }),
    ];
  });
}

/** One reading of each kind of scatter. */
function scattersOf(readings: readonly LengthReading[]): LengthReading[] {
  return [...new Map(readings.map((r) => [r.scatter.id, r])).values()];
}

/** Each kind of scatter, with what is expected of it before there are repeats. */
function scatterGroups(readings: readonly LengthReading[]): ScatterGroup[] {
  return scattersOf(readings).map(({ gauge, scatter }) => ({
    id: scatter.id,
    priorFreedom: gauge.placing ? degreesOfFreedomFrom(gauge.placing.relativeDoubt) : 0,
    leastFactor: resolutionUncertaintyMm(gauge) / readingUncertaintyMm(gauge),
  }));
}

export type ReadingSpec<R extends LengthReading> = {
  /** Coefficients of what the readings are to tell. */
  row: (r: R) => Row;
  /** What is compared: the reading less what is drawn. */
  y: (r: R) => number;
  terms: readonly Term<R>[];
  facts: (
    r: R,
  ) => Pick<ReadingFacts, "pointLabel" | "signedByWords"> &
    Pick<Partial<ReadingFacts>, "sizeSign" | "place" | "placeLabel" | "axis" | "object">;
  /** What is known beforehand of what the readings are to tell. */
  known?: readonly Observation[];
  wanted: Model["wanted"];
};

/** Readings and what is known beforehand, as one model. */
export function modelOf<R extends LengthReading>(readings: readonly R[], spec: ReadingSpec<R>): Model {
  const terms = spec.terms.filter((t) => t.u > 0 && readings.some((r) => t.of(r) !== 0));
  const counts = new Map<string, number>();
  for (const r of readings) counts.set(r.site, (counts.get(r.site) ?? 0) + 1);
  const sources = new Map(scattersOf(readings).map((r) => [r.scatter.id, placingSource(r, readings)]));
  return {
    observations: [
      ...readings.map((r): Observation => {
        const facts = spec.facts(r);
        const row: Record<string, number> = { ...spec.row(r) };
        for (const term of terms) {
          const share = term.of(r);
          if (share !== 0) row[term.id] = (row[term.id] ?? 0) + share;
        }
        const several = (counts.get(r.site) ?? 0) > 1;
        return {
          id: r.id,
          label: several ? `reading ${r.repeat + 1} of ${facts.pointLabel}` : facts.pointLabel,
          row,
          y: spec.y(r),
          u: r.u,
          source: sources.get(r.scatter.id) ?? placingSource(r, readings),
          group: r.scatter.id,
          reading: {
            point: r.site,
            repeat: r.repeat,
            gauge: r.gauge.id,
            gaugeLabel: gaugeName(r.gauge),
            session: r.session,
            typed: r.value,
            per: 1,
            sizeSign: 1,
            ...facts,
          },
          canBeWrong: true,
        };
      }),
      ...(spec.known ?? []),
      ...terms.map(knownTerm),
    ],
    groups: scatterGroups(readings),
    wanted: spec.wanted,
  };
}

function knownTerm<R extends LengthReading>({ id, label, source = id, ...facts }: Term<R>): Observation {
  const observation = known(id, label, facts);
  return { ...observation, source: { ...observation.source, id: source } };
}

function placingSource({ gauge, scatter }: LengthReading, readings: readonly LengthReading[]): Observation["source"] {
  const own = readings.filter((r) => r.scatter.id === scatter.id);
  const hasRepeats = new Set(own.map((r) => r.site)).size < own.length;
  const alone = !gauge.placing && !hasRepeats ? " (resolution alone)" : "";
  return {
    id: `placing ${scatter.id}`,
    label: `${scatter.label}, ${gaugeName(gauge)}${alone}`,
    kind: hasRepeats ? "A" : "B",
  };
}
