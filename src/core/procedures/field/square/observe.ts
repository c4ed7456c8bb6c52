/**
 * The lengths of a field as a model of small changes of its map, about the map that fits them.
 *
 *   L = |f(b) - f(a)|,   dL/dP = n (basis_P(b) - basis_P(a)),   n the direction from f(a) to f(b)
 *
 * Solved by Gauss-Newton steps on the terms of the map. To first order, with q = the share of the half field at which the square is drawn:
 * S = H (L_mid / 2a - 1),  T = H (L_back - L_front) / (2 q L_mid),  B = H ((L_back + L_front) / (2 L_mid) - 1) / q^2. Own cubics are
 * solved for only where quarter ticks are read. Eight lengths tell seven terms: one is left over to check the readings.
 */
import { type Adjustment, adjust, combine, combinedValue, type GroupScatter } from "../../../estimate/adjustment";
import { departure, known, type Model, type Observation, ofReadings, type Row, usual } from "../../../estimate/model";
import { mean } from "../../../fitting/repeats";
import { FIELD_TERMS } from "../../../geometry/field-term";
import { modelWithKnown } from "../../../measuring/known-length";
import { type LengthReading, lengthReadings } from "../../../measuring/length-readings";
import { type HistoryKnown, remembering } from "../../../measuring/remembering";
import type { Budgeted } from "../../../metrology/budget";
import { withinSentence } from "../../../metrology/sentence-case";
import type { RoundRecord } from "../../../trial/history";
import type { FieldFound } from "../found";
import { basisOf, type FieldMap, type MapTerm, mapped, termName, unmapped, type Vector } from "../map";
import { type FieldPlan, settableTerms } from "../plan";
import { presentMap } from "../present";
import { endsOf, LENGTHS, type LengthId, lengthOf, lengthsOf, nominalMm } from "./lengths";

export type Known = HistoryKnown<FieldPlan>;
type Round = RoundRecord<FieldPlan>;

/** What is usual of a field before it is seen, sd at the corner, mm. (common practice, no source; bows from the geometry of two mirrors) */
const USUAL: Readonly<Record<string, { label: string; u: number }>> = {
  scale: { label: "usual scale", u: 1 },
  bow: { label: "usual bow", u: 1.6 },
  keystone: { label: "usual keystone", u: 0.5 },
  shear: { label: "usual shear", u: 0.5 },
  own: { label: "usual own cubic", u: 0.2 },
};
/** How far own quadratics differ from what a tilt makes of them, sd at the corner, mm. */
const TIED_MM = 0.05;
/** Where the keystone in force is not known. */
const FREE_MM = 0.4;
/** How far a length of a real field differs from any such map, sd, mm. */
const STRAY_MM = 0.03;
/** What a value that is tried may do, sd at the corner, mm: a coefficient reaches so far. (common practice, no source) */
const TRIED_MM = 4;
const STEPS = 6;
/** The last step is taken by the model itself: what is left after it is this squared, by the size of the field. */
const SETTLED_MM = 1e-3;
const AS_EXPECTED: ReadonlyMap<string, GroupScatter> = new Map();

export type FieldRead = {
  found: FieldFound;
  map: FieldMap;
  /** Solved about the map. */
  fit: Adjustment;
  /** A term with its budget, mm at the corner. */
  term: (term: MapTerm) => Budgeted;
};

/** Terms that the readings of a plan are solved for. */
export function solvedTerms({ way }: Pick<FieldPlan, "way">): MapTerm[] {
  const own: MapTerm[] = way === "nine" ? ["own cubic x", "own cubic y"] : [];
  return [
    "scale x",
    "scale y",
    "bow x",
    "bow y",
    "keystone x",
    "keystone y",
    "shear",
    ...own,
    "quadratic x",
    "quadratic y",
  ];
}

export function observeField(history: Known, round: Round): Model | null {
  return solvedAt(history, round)?.model ?? null;
}

/** @returns `null` until every length of the square is read, or if no field has these lengths */
export const fieldIn = remembering<FieldPlan, FieldRead | null>((history, round) => {
  const solved = solvedAt(history, round);
  const fit = solved && adjust(ofReadings(solved.model));
  if (!solved || !fit) return null;
  const map: Partial<Record<MapTerm, number>> = {};
  const term = (id: MapTerm): Budgeted => {
    const change = combine(fit, { [id]: 1 });
    return { ...change, quantity: { ...change.quantity, value: change.quantity.value + (solved.at[id] ?? 0) } };
  };
  for (const id of solvedTerms(round.plan)) map[id] = (solved.at[id] ?? 0) + combinedValue(fit, { [id]: 1 });
  const { plan } = round;
  const half = plan.fieldMm / 2;
  return { map, fit, term, found: foundBy(map, fit, solvedTerms(plan), half) };
});

function foundBy(map: FieldMap, fit: Adjustment, terms: readonly MapTerm[], half: number): FieldFound {
  const to = (at: Vector) => mapped(map, at, half);
  return {
    to,
    from: (at) => unmapped(map, at, half),
    terms,
    combined: (row) => combine(fit, row),
    errorOver: (parts) => {
      const row: Record<string, number> = {};
      let value = 0;
      for (const { at, along } of parts) {
        for (const term of terms) {
          const b = basisOf(term, { x: at.x / half, y: at.y / half });
          row[term] = (row[term] ?? 0) + along.x * b.x + along.y * b.y;
        }
        const there = to(at);
        value += (there.x - at.x) * along.x + (there.y - at.y) * along.y;
      }
      const spread = combine(fit, row);
      return { ...spread, quantity: { ...spread.quantity, value } };
    },
    reachMm: half,
  };
}

/** Lengths without which scale, bow, keystone and shear cannot be told apart. */
export const NEEDED: readonly LengthId[] = ["x front", "x middle", "x back", "y left", "y middle", "y right"];
const DIAGONALS: readonly LengthId[] = ["diagonal 1", "diagonal 2"];

/** Of the lengths that are needed, those that have no reading. */
export function missingIn(history: Known, { plan, answers }: Pick<Round, "plan" | "answers">): LengthId[] {
  const readings = lengthReadings(answers, lengthsOf(plan), history.gauges, history.decisions);
  const isRead = (id: LengthId) => readings.some((r) => r.site === id);
  const quarters: LengthId[] = plan.way === "nine" ? ["x quarter", "y quarter"] : [];
  const diagonals = DIAGONALS.some(isRead) ? [] : DIAGONALS;
  return [...NEEDED, ...quarters, ...diagonals].filter((id) => !isRead(id));
}

type Solved = { model: Model; at: FieldMap };

/** The map that fits, and the model about it. */
const solvedAt: (history: Known, round: Round) => Solved | null = remembering((history, round) => {
  const { plan } = round;
  if (missingIn(history, round).length > 0) return null;
  const readings = lengthReadings(round.answers, lengthsOf(plan), history.gauges, history.decisions);
  // A reading that is not taken yet has no value to go by; a forecast has no others.
  const taken = { ...round, answers: round.answers.filter((a) => !a.imagined) };
  const isForecast = readings.every((r) => r.imagined);
  if (!isForecast && missingIn(history, taken).length > 0) return null;
  const base = history.rounds.find((r) => r.n === round.n && r !== round);
  const isAhead = base !== undefined && !isForecast && isSame(base.answers, taken.answers);
  const at = isAhead
    ? solvedAt(history, base)?.at
    : mapThatFits(history, isForecast ? round : taken, isForecast ? readings : readings.filter((r) => !r.imagined));
  return at ? { model: modelAt(history, round, readings, at), at } : null;
});

function isSame(a: readonly object[], b: readonly object[]): boolean {
  return a.length === b.length && a.every((answer, i) => answer === b[i]);
}

/** Gauss-Newton steps; `null` where they lead nowhere. The scatter is estimated once the map is found. */
function mapThatFits(history: Known, round: Round, readings: readonly LengthReading[]): FieldMap | null {
  const { plan } = round;
  let at: Partial<Record<MapTerm, number>> = startFrom(plan, readings);
  for (let step = 0; step < STEPS; step++) {
    const fit = adjust(ofReadings(modelAt(history, round, readings, at)), AS_EXPECTED);
    if (!fit) return null;
    let moved = 0;
    const next: Partial<Record<MapTerm, number>> = {};
    for (const id of solvedTerms(plan)) {
      const change = combinedValue(fit, { [id]: 1 });
      next[id] = (at[id] ?? 0) + change;
      moved = Math.max(moved, Math.abs(change));
    }
    at = next;
    if (Object.values(at).some((mm) => !(Math.abs(mm ?? 0) < plan.fieldMm))) return null;
    if (moved < SETTLED_MM) break;
  }
  return at;
}

/** The scales by the mid-lines: from there the steps are short. */
function startFrom({ fieldMm, ...plan }: FieldPlan, readings: readonly LengthReading[]): FieldMap {
  const scale = (id: LengthId) => {
    const own = readings.filter((r) => r.site === id).map((r) => r.value);
    return own.length > 0 ? (fieldMm / 2) * (mean(own) / nominalMm(id, plan) - 1) : 0;
  };
  return { "scale x": scale("x middle"), "scale y": scale("y middle") };
}

/** A length by the map, and how it changes with each term. */
function lengthAt(id: LengthId, plan: FieldPlan, at: FieldMap): { mm: number; row: Row } {
  const half = plan.fieldMm / 2;
  const { from, to } = endsOf(id, plan);
  const [a, b] = [mapped(at, from, half), mapped(at, to, half)];
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  const mm = Math.hypot(dx, dy);
  const share = ({ x, y }: { x: number; y: number }) => ({ x: x / half, y: y / half });
  const row: Record<string, number> = {};
  for (const term of solvedTerms(plan)) {
    const [p, q] = [basisOf(term, share(from)), basisOf(term, share(to))];
    const by = ((q.x - p.x) * dx + (q.y - p.y) * dy) / mm;
    if (by !== 0) row[term] = by;
  }
  return { mm, row };
}

function modelAt(history: Known, round: Round, readings: readonly LengthReading[], at: FieldMap): Model {
  const { plan } = round;
  const lengths = new Map(lengthsOf(plan).map((id) => [id as string, lengthAt(id, plan, at)]));
  const seen = lengthsOf(plan).filter((id) => readings.some((r) => r.site === id));
  const of = (r: LengthReading) => lengths.get(r.site) ?? { mm: Number.NaN, row: {} };
  return modelWithKnown(
    readings,
    plan,
    { answers: round.answers, gauges: history.gauges, decisions: history.decisions },
    {
      jawsOf: () => "outside",
      lengthOf: (r) => nominalMm(lengthOf(r.site), plan),
      row: (r) => ({ ...of(r).row, [`stray ${r.site}`]: 1 }),
      y: (r) => r.value - of(r).mm,
      terms: [],
      facts: (r) => ({
        pointLabel: withinSentence(LENGTHS[lengthOf(r.site)].label),
        signedByWords: false,
        ...(r.site.startsWith("diagonal") ? {} : { axis: r.site.slice(0, 1) }),
      }),
      known: [
        ...solvedTerms(plan).flatMap((id) => usualOf(id, at, isTried(history, round, id))),
        ...quadratics(history, round, at),
        ...seen.map((id) => ({
          ...departure(`stray ${id}`, "form of the field", STRAY_MM),
          source: { id: "stray", label: "Form of the field", kind: "B" as const },
        })),
      ],
      wanted: settableTerms(plan).map((id) => ({
        id,
        label: `the ${withinSentence(termName(id))}`,
        row: { [id]: 1 },
        proves: 1,
      })),
    },
  );
}

function usualOf(id: MapTerm, at: FieldMap, tried: boolean): Observation[] {
  const [kind = ""] = id.split(" ");
  const found = USUAL[kind];
  return found ? [usual(id, found.label, tried ? TRIED_MM : found.u, -(at[id] ?? 0))] : [];
}

/** A coefficient of unknown effect has a value that is tried: what it does to the field may be much. */
function isTried(history: Known, round: Round, id: MapTerm): boolean {
  const term = FIELD_TERMS.find((t) => t === id);
  return term !== undefined && presentMap(history, round)[term] === undefined;
}

/** Own quadratics go with the keystone that a tilt makes: that of the head, without what the controller adds. */
function quadratics(history: Known, round: Round, at: FieldMap): Observation[] {
  const pairs = [
    ["quadratic x", "keystone y"],
    ["quadratic y", "keystone x"],
  ] as const;
  return pairs.map(([own, keystone]): Observation => {
    const before = quadraticBefore(history, round, own);
    const present = presentMap(history, round)[keystone];
    const label = "tilt of the stock";
    const here = at[own] ?? 0;
    if (before !== null) return known(own, label, { value: before - here, u: TIED_MM, canBeWrong: false });
    if (present === undefined) return known(own, label, { value: -here, u: FREE_MM, canBeWrong: false });
    const tied = known(own, label, { value: (at[keystone] ?? 0) - present - here, u: TIED_MM, canBeWrong: false });
    return { ...tied, row: { [own]: 1, [keystone]: -1 } };
  });
}

/** An own quadratic as the first burn told it, which no setting changes; `null` in the first burn. */
function quadraticBefore(history: Known, round: Round, term: "quadratic x" | "quadratic y"): number | null {
  const [first] = history.rounds;
  if (!first || first.n >= round.n) return null;
  return fieldIn(history, first)?.map[term] ?? null;
}
