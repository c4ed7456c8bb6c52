/**
 * What a procedure declares of its readings: observations, parameters, and wanted results.
 *
 *   y_i = a_i' theta + e_i,   var(e_i) = (f_g u_i)^2
 *
 * Everything known beforehand is an observation too: the zero of each pair of jaws, the limit of error of a gauge, the size of a
 * reference step, how far a sound drive departs from a line. It has a value, a standard uncertainty and a name, so it stays common
 * to all readings that it touches, and it can be found wrong like any reading. The factor f of a group of readings is estimated;
 * what is known beforehand keeps f = 1.
 */

import type { BudgetPart } from "../metrology/budget";
import { atBeginning } from "../metrology/sentence-case";

/** Where uncertainty comes from, as the budget lists it. */
export type Source = Pick<BudgetPart, "id" | "label" | "kind">;

export type Row = Readonly<Record<string, number>>;

/** How a reading was made: what a slip can do to it. */
export type ReadingFacts = {
  /** Id of the point; repeats share it. */
  point: string;
  /** Name of the point within a sentence, for example `400 mm/s, left end`. */
  pointLabel: string;
  /** 0 for the first reading at its point. */
  repeat: number;
  gauge: string;
  /** Name of the gauge within a sentence. */
  gaugeLabel: string;
  session: string;
  /** As typed, signed by the words that were chosen, internal unit. */
  typed: number;
  /** How often the typed value is in `y`: -1 where the sign is turned. */
  per: number;
  /** Which way its size counts, -1 to 1: 1 where the sign is no matter, near 0 where the size is within the scatter. */
  sizeSign: number;
  /** Words choose the sign of this reading. */
  signedByWords: boolean;
  /** What several points measure together, for example a speed, with its name within a sentence; left out elsewhere. */
  place?: string;
  placeLabel?: string;
  /** `x` or `y`; left out where there is one axis only. */
  axis?: string;
  /** `part` or `hole`; left out elsewhere. */
  object?: string;
};

export type Observation = {
  id: string;
  /** For a person, within a sentence: `the reading at 400 mm/s, left end` or `the zero of the jaws`. */
  label: string;
  /** Coefficient of each parameter; 0 where left out. */
  row: Row;
  y: number;
  /** Standard uncertainty of y before the factor of its group, > 0. */
  u: number;
  source: Source;
  /** Id of the scatter group; `null` for what is known beforehand. */
  group: string | null;
  /** `null` for what is known beforehand. */
  reading: ReadingFacts | null;
  /** It stands for something that a check may find wrong and a person can look at. A departure or a form is none of that. */
  canBeWrong: boolean;
  /** By how much it may be wrong where it is, sd, unit of y; five times its own uncertainty where it is left out. */
  wrongBy?: number;
  /**
   * Only what is usual of such machines: it names slips and predicts a first reading, but has no part in a result, which would lean
   * toward the usual.
   */
  isUsual?: true;
  /** How far a sound machine departs here from the law that the other parameters say. */
  isDeparture?: true;
  /** Its standard uncertainty on a machine that keeps the law nearly. */
  gently?: number;
};

/** Readings whose scatter is estimated together, with what is expected of it before there are repeats. */
export type ScatterGroup = {
  id: string;
  /** Degrees of freedom that the expectation is worth; 0 where nothing is known. */
  priorFreedom: number;
  /** Smallest factor: the step of the gauge. */
  leastFactor: number;
};

export type Wanted = {
  id: string;
  /** For a person, within a sentence. */
  label: string;
  row: Row;
  /** So many times this result is held against the tolerance by a proof; left out where none is. */
  proves?: number;
};

export type Model = {
  observations: readonly Observation[];
  groups: readonly ScatterGroup[];
  wanted: readonly Wanted[];
};

/** Ids of all parameters, in the order in which observations name them. */
export function parametersOf(model: Pick<Model, "observations">): string[] {
  return [...new Set(model.observations.flatMap((o) => Object.keys(o.row).filter((id) => o.row[id] !== 0)))];
}

/** What is usual of a parameter that the readings are to tell. */
export function usual(parameter: string, label: string, u: number, value = 0): Observation {
  return { ...known(parameter, label, { value, u, canBeWrong: false }), isUsual: true };
}

/** What is usual of the difference of two parameters: nearly the same on every such machine. */
export function usuallyAlike([first, second]: readonly [string, string], label: string, u: number): Observation {
  const observation = usual(`${first} minus ${second}`, label, u);
  return { ...observation, row: { [first]: 1, [second]: -1 } };
}

/**
 * A departure from a smooth law, with its standard deviation on a sound machine.
 *
 * @param gently its standard deviation on a machine that keeps the law nearly, as many do; left out where there is no such thing
 */
export function departure(parameter: string, label: string, u: number, gently?: number): Observation {
  const observation = known(parameter, label, { u, canBeWrong: false });
  return { ...observation, isDeparture: true, ...(gently === undefined ? {} : { gently }) };
}

/** A machine that does not keep the law departs from it so many times as far. */
const LOOSER = 10;

/** The same model of a machine that keeps its law nearly; `null` where there is no such thing. */
export function gentlyBent(model: Model): Model | null {
  if (!model.observations.some((o) => o.gently !== undefined)) return null;
  return {
    ...model,
    observations: model.observations.map((o) => (o.gently === undefined ? o : { ...o, u: o.gently })),
  };
}

/** The same model of a machine that does not keep its law; `null` where it declares none. */
export function loosened(model: Model): Model | null {
  if (!model.observations.some((o) => o.isDeparture)) return null;
  return {
    ...model,
    observations: model.observations.map((o) => (o.isDeparture ? { ...o, u: LOOSER * (o.gently ?? o.u) } : o)),
  };
}

/** The model of a result: without what is only usual. */
export function ofReadings(model: Model): Model {
  return { ...model, observations: model.observations.filter((o) => !o.isUsual) };
}

/** What is known beforehand of one parameter. */
export function known(
  parameter: string,
  label: string,
  { value = 0, u, canBeWrong = true, wrongBy }: { value?: number; u: number; canBeWrong?: boolean; wrongBy?: number },
): Observation {
  return {
    id: `known ${parameter}`,
    label,
    row: { [parameter]: 1 },
    y: value,
    u,
    source: { id: parameter, label: atBeginning(label), kind: "B" },
    group: null,
    reading: null,
    canBeWrong,
    ...(wrongBy === undefined ? {} : { wrongBy }),
  };
}
