/**
 * A model looked at as a whole: which reading contradicts the others, by which slip, what it touches, and what could not have been seen.
 *
 * Slips with names are tried first, on untouched readings. The best is taken out, and the rest is tried again, three times at
 * most. What is left is held against the others one by one. Few readings name no culprit: no more is taken out than a third of
 * the redundancy.
 */

import { expandedUncertainty } from "../metrology/measured";
import { atBeginning } from "../metrology/sentence-case";
import { type Adjustment, adjust, combine } from "./adjustment";
import { alonePoints, effectOn, type Influence, influences, isSuspect, sameAs } from "./influence";
import { type Model, type Observation, ofReadings, type ReadingFacts, type Wanted } from "./model";
import { type Slip, slipsIn, slipsOn } from "./slips";

const MOST_SLIPS = 3;
/** A result that a suspect moves by less than this share of its uncertainty is not held back. */
const TOUCHED_FROM = 0.25;
/** Most other explanations that are named. */
const NAMED = 2;
/** A reading that moves a result by less than this share of its uncertainty does not matter to it. */
const MATTERS_FROM = 0.01;

/** With less redundancy than this an error of unknown size shows, and its place does not. */
const NAMES_CULPRIT_FROM = 1.5;

export type Suspect = {
  id: string;
  kind: Slip["kind"];
  headline: string;
  text: string;
  /** Other explanations that are nearly as good. */
  orElse: readonly string[];
  observations: readonly Observation[];
  /** By how much it moves each result that it touches, by id of the result. */
  moves: ReadonlyMap<string, number>;
};

/** What would have been seen, for one result. */
export type Seen = {
  wanted: Wanted;
  /** The reading whose smallest visible error moves the result most. */
  worst: { observation: Observation; smallest: number; effect: number } | null;
  /** Readings that nothing checks, and what an error of 1 in each does to the result. */
  unchecked: readonly { observation: Observation; effect: number }[];
  /** Points at which all readings can be wrong alike, and nothing shows it. */
  alone: readonly ReadingFacts[];
};

export type Examination = {
  adjustment: Adjustment;
  suspects: Suspect[];
  /** The machine does not keep the law that a sound one keeps: its departures are taken as so much larger. */
  isLoose: boolean;
};

/**
 * @param accepted ids of suspects that a person accepts: their readings are right
 * @returns `null` when the observations cannot tell the parameters apart
 */
export function examine(model: Model, accepted: ReadonlySet<string>): Examination | null {
  const { slips: first, model: lawful, isLoose } = slipsIn(model);
  const adjustment = adjust(ofReadings(lawful));
  if (!adjustment) return null;
  const redundancy = adjustment.redundancy.reduce((sum, r) => sum + r, 0);
  const most = Math.max(1, redundancy / 3);
  const suspects: Named[] = [];
  let left = lawful;
  let taken = 0;
  let found = first;
  for (let k = 0; k < MOST_SLIPS && taken < most; k++) {
    const [best, ...others] = found;
    if (!best) break;
    // What a person accepts is no suspect, nor is what explains it as well; the rest is looked at without it.
    if (!isAccepted(best, accepted)) {
      const suspect = suspectOf(best, others);
      // One contradiction among few readings shows that one is wrong, not which.
      const isUnclear = best.direction !== null && redundancy < NAMES_CULPRIT_FROM;
      suspects.push(isUnclear ? withoutCulprit(suspect, adjustment) : suspect);
    }
    taken += best.direction ? best.observations.length : 1;
    left = withoutSlip(left, best);
    found = slipsOn(left);
  }
  const rest = adjust(ofReadings(left));
  if (rest && taken < most) suspects.push(...snooped(rest, accepted));
  // With every reading in it, but without the scatter that a suspect feigns.
  const asRead = (suspects.length > 0 && rest && adjust(ofReadings(lawful), rest.scatter)) || adjustment;
  return {
    adjustment: asRead,
    suspects: suspects.map((s) => ({ ...s, moves: movesOf(asRead, s.candidates) })),
    isLoose,
  };
}

/** What was added to y, by id. */
type Added = ReadonlyMap<string, number>;

/** A suspect with what it added, as each explanation that is nearly as good has it. */
type Named = Omit<Suspect, "moves"> & { candidates: readonly Added[] };

function isAccepted(slip: Slip, accepted: ReadonlySet<string>): boolean {
  if (accepted.has(slip.id)) return true;
  return slip.observations.length > 0 && slip.observations.every((o) => accepted.has(`of ${o.id}`));
}

/** Ids that a person's acceptance of a suspect stands for: the suspect, and each of its readings. */
export function acceptedBy({ id, observations }: Pick<Suspect, "id" | "observations">): string[] {
  return [id, ...observations.map((o) => `of ${o.id}`)];
}

/** The same model with the slip undone; where its size had to be found, with it left open. */
function withoutSlip(model: Model, { id, added, direction }: Slip): Model {
  const parameter = `open ${id}`;
  return {
    ...model,
    observations: model.observations.map((o) => {
      const per = direction?.get(o.id);
      if (per !== undefined) return { ...o, row: { ...o.row, [parameter]: per } };
      return direction ? o : { ...o, y: o.y - (added.get(o.id) ?? 0) };
    }),
  };
}

function suspectOf(slip: Slip, others: readonly Slip[]): Named {
  const { id, kind, headline, text, observations, added } = slip;
  return {
    id,
    kind,
    headline,
    text,
    orElse: others.slice(0, NAMED).map((o) => o.headline),
    observations,
    candidates: [added, ...others.map((o) => o.added)],
  };
}

/** Any of the readings may be the wrong one, each by what the others say of it. */
function withoutCulprit(suspect: Named, adjustment: Adjustment): Named {
  const readings = influences(adjustment).each.filter((i) => i.observation.reading && i.t !== null);
  return {
    ...suspect,
    headline: "The readings contradict each other.",
    text: "Read all points again.",
    orElse: [suspect.headline, ...suspect.orElse].slice(0, NAMED),
    candidates: readings.map((i) => new Map([[i.observation.id, i.error]])),
  };
}

/** By how much each result that is touched moves at most. */
function movesOf(adjustment: Adjustment, candidates: readonly Added[]): Map<string, number> {
  const moves = new Map<string, number>();
  for (const { id, row } of adjustment.model.wanted) {
    const effect = effectOn(adjustment, row);
    const by = candidates
      .map((added) =>
        adjustment.model.observations.reduce(
          (sum, o, i) => sum + (effect[i] ?? Number.NaN) * (added.get(o.id) ?? 0),
          0,
        ),
      )
      .reduce((most, one) => (Math.abs(one) > Math.abs(most) ? one : most), 0);
    if (Math.abs(by) > TOUCHED_FROM * expandedUncertainty(combine(adjustment, row).quantity)) moves.set(id, by);
  }
  return moves;
}

/** The one observation that lies farthest from what the others say, where that is beyond chance. */
function snooped(rest: Adjustment, accepted: ReadonlySet<string>): Named[] {
  const { each, checked } = influences(rest);
  const worst = each
    .filter((i) => i.observation.canBeWrong && !accepted.has(`of ${i.observation.id}`) && isSuspect(i, checked))
    .sort((a, b) => Math.abs(b.t ?? 0) - Math.abs(a.t ?? 0))[0];
  if (!worst) return [];
  const { observation } = worst;
  const same = sameAs(rest, worst.index).filter((o) => o !== observation && o.canBeWrong);
  return [
    {
      id: `snooped ${observation.id}`,
      kind: observation.reading ? "reading" : "known",
      headline: observation.reading
        ? `${atBeginning(observation.label)} contradicts the others.`
        : `The readings contradict the ${observation.label}.`,
      text: observation.reading ? "Read this point again." : "Check this value.",
      orElse: same
        .slice(0, NAMED)
        .map((o) => (o.reading ? `${atBeginning(o.label)} contradicts the others.` : `The ${o.label} is wrong.`)),
      observations: [observation],
      candidates: [new Map([[observation.id, worst.error]])],
    },
  ];
}

/** For each wanted result: the smallest error of one reading that would be seen, and what it would do. */
export function seenIn(adjustment: Adjustment): Seen[] {
  const { each } = influences(adjustment);
  const readings = each.filter((i) => i.observation.reading !== null);
  const points = alonePoints(adjustment);
  return adjustment.model.wanted.map((wanted) => {
    const effect = effectOn(adjustment, wanted.row);
    const of = (i: Influence) => effect[i.index] ?? Number.NaN;
    const expanded = expandedUncertainty(combine(adjustment, wanted.row).quantity);
    const matters = (indices: readonly number[]) => {
      const moves = indices.map((i) => (effect[i] ?? Number.NaN) * (adjustment.model.observations[i]?.u ?? Number.NaN));
      return Math.abs(moves.reduce((sum, by) => sum + by, 0)) > MATTERS_FROM * expanded;
    };
    const visible = readings
      .filter((i) => i.t !== null)
      .sort((a, b) => Math.abs(b.smallestSeen * of(b)) - Math.abs(a.smallestSeen * of(a)))[0];
    return {
      wanted,
      worst: visible
        ? {
            observation: visible.observation,
            smallest: visible.smallestSeen,
            effect: Math.abs(visible.smallestSeen * of(visible)),
          }
        : null,
      unchecked: readings
        .filter((i) => i.t === null && matters([i.index]))
        .map((i) => ({ observation: i.observation, effect: Math.abs(of(i)) })),
      alone: points.flatMap(({ indices, facts }) => (matters(indices) ? [facts] : [])),
    };
  });
}
