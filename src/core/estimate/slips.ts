/**
 * Slips have names, and are tried before any reading is called wrong.
 *
 *   score = -2 ln (share of the slip beforehand x likelihood),   compared with that of no slip
 *
 * Shares: a slip happens in one of twenty trials; kinds share that by their weights, and each kind is shared by its instances.
 * A multiplied reading also pays -2 ln |factor|, since a change of unit spreads the density.
 */
import { atBeginning } from "../metrology/sentence-case";
import type { Change, Likelihood } from "./likelihood";
import { allowed, likelihoodOf, openAtLeast, undone, undoneAtLeast } from "./likelihood";
import { gentlyBent, loosened, type Model, type Observation } from "./model";

const SLIPS_IN = 0.05;
/** By how much a sum at two factors may miss the whole, -2 ln. */
const MARGIN = 6;
/** A slip is named when it gains this much over no slip. */
const NAMED_FROM = 3;
/** Others within this much of the best are named with it. */
const NEARLY_AS_GOOD = 4.6;
/** What leaves as little unexplained as the best, -2 ln, cannot be told from it by readings. */
const SAME_FIT = 1;
const MM_PER_INCH = 25.4;

export type SlipKind =
  | "reading"
  | "point"
  | "known"
  | "sign"
  | "tenfold"
  | "inch"
  | "all inches"
  | "swapped points"
  | "swapped axes"
  | "swapped objects"
  | "axis"
  | "session";

/** How often a kind happens beside the others; tuned on seeds that no report uses. */
const WEIGHTS: Record<SlipKind, number> = {
  reading: 4,
  point: 2,
  known: 2,
  sign: 2,
  "swapped points": 2,
  inch: 0.5,
  "all inches": 0.3,
  tenfold: 1,
  "swapped axes": 1,
  "swapped objects": 1,
  axis: 1,
  session: 1,
};

const WEIGHT_OF_ALL = Object.values(WEIGHTS).reduce((sum, weight) => sum + weight, 0);

/** How large an unknown error is, sd, mm. */
const USUAL_MM = { reading: 1, point: 1, axis: 0.5, session: 0.1 } as const;
/** Where nothing else is said, what is known beforehand may be wrong by so many of its own uncertainties, sd. */
const KNOWN_WRONG_BY = 5;

type Hypothesis = {
  id: string;
  kind: SlipKind;
  /** Indices of the observations that it speaks of. */
  of: readonly number[];
  headline: string;
  text: string;
} & ({ change: Change; spread: number } | { direction: Change; usual: number });

export type Slip = {
  id: string;
  kind: SlipKind;
  headline: string;
  text: string;
  observations: readonly Observation[];
  /** What it added to y, by id: as the slip says, or as found. */
  added: ReadonlyMap<string, number>;
  /** What a size of 1 adds, by id, where the size had to be found; `null` where the slip says it. */
  direction: ReadonlyMap<string, number> | null;
  /** By how much it explains the readings better than no slip does, -2 ln. */
  gain: number;
  /** The same without what is likely of its kind and size. */
  fit: number;
};

/** Readings that scatter so much more than expected, as a variance, may also be of a machine that does not keep its law. */
const SUSPICIOUS_FACTOR = 1.5;
/** Weight of a machine that does not keep its law, beside the slips. */
const LOOSE_WEIGHT = 2;

/** Share of machines that keep their law nearly, and not as a sound one does. (common practice, no source) */
const GENTLY_BENT = 0.5;

/**
 * All slips that would explain the readings better than none, the best first; empty where none does.
 *
 * They are tried upon a machine that keeps its law as a sound one does, nearly, or not at all: the likeliest pair of both is taken. A machine
 * is no slip, but one that does not keep its law explains readings that would else be accused.
 *
 * @returns `model` is the one that was taken
 */
export function slipsIn(declared: Model): { slips: Slip[]; model: Model; isLoose: boolean } {
  const laws = [
    { model: declared, penalty: 0, isLoose: false },
    { model: gentlyBent(declared), penalty: -2 * Math.log(GENTLY_BENT / (1 - GENTLY_BENT)), isLoose: false },
  ].flatMap(taken);
  const likelier = laws.toSorted((a, b) => a.score - b.score)[0];
  if (!likelier) return { slips: [], model: declared, isLoose: false };
  const slips = slipsBy(likelier.likelihood);
  const isClean = slips.length === 0 && likelier.likelihood.bestFactor <= SUSPICIOUS_FACTOR;
  // What looks like a bent machine may be one wrong place.
  if (isClean && likelier === laws[0]) return { slips, model: likelier.model, isLoose: false };
  const penalty = -2 * Math.log((SLIPS_IN * LOOSE_WEIGHT) / WEIGHT_OF_ALL / (1 - SLIPS_IN));
  const loose = taken({ model: loosened(declared), penalty, isLoose: true });
  const pairs = [...laws, ...loose].map((law) => {
    const found = law === likelier ? slips : slipsBy(law.likelihood);
    return { ...law, slips: found, score: law.score - (found[0]?.gain ?? 0) };
  });
  const best = pairs.toSorted((a, b) => a.score - b.score)[0] ?? { ...likelier, slips };
  return { slips: best.slips, model: best.model, isLoose: best.isLoose };
}

type Law = { model: Model | null; penalty: number; isLoose: boolean };

function taken({ model, penalty, isLoose }: Law) {
  const likelihood = model && likelihoodOf(model);
  return likelihood ? [{ model, likelihood, isLoose, score: likelihood.asRead + penalty }] : [];
}

/** The same upon this model as it is. */
export function slipsOn(model: Model): Slip[] {
  const likelihood = likelihoodOf(model);
  return likelihood ? slipsBy(likelihood) : [];
}

function slipsBy(likelihood: Likelihood): Slip[] {
  const { model } = likelihood;
  const hypotheses = catalogueFor(model);
  const present = [...new Set(hypotheses.map((h) => h.kind))];
  const weight = present.reduce((sum, kind) => sum + WEIGHTS[kind], 0);
  const count = (kind: SlipKind) => hypotheses.filter((h) => h.kind === kind).length;
  const penalty = (kind: SlipKind) => -2 * Math.log((SLIPS_IN * WEIGHTS[kind]) / weight / count(kind) / (1 - SLIPS_IN));
  const scored = hypotheses
    .filter((h) => mayExplain(likelihood, h, penalty(h.kind)))
    .map((h) => scoreOf(likelihood, h, penalty(h.kind)))
    .filter((s) => s.gain >= NAMED_FROM)
    .sort((a, b) => b.gain - a.gain);
  const best = scored[0];
  return best ? scored.filter((s) => s.gain >= best.gain - NEARLY_AS_GOOD || s.fit >= best.fit - SAME_FIT) : [];
}

/** Whether it is worth the whole sum: what explains next to nothing at two factors explains nothing. */
function mayExplain(likelihood: Likelihood, h: Hypothesis, penalty: number): boolean {
  const least = "change" in h ? undoneAtLeast(likelihood, h.change) : openAtLeast(likelihood, h.direction);
  return likelihood.asRead - least - penalty >= NAMED_FROM - MARGIN;
}

function scoreOf(likelihood: Likelihood, h: Hypothesis, penalty: number): Slip {
  const { id, kind, headline, text } = h;
  const observation = (index: number) => likelihood.model.observations[index] as Observation;
  const byId = (change: Change, times: number) =>
    new Map(change.map(({ index, by }) => [observation(index).id, times * by]));
  const observations = h.of.map(observation);
  if ("change" in h) {
    const fit = likelihood.asRead - undone(likelihood, h.change);
    const gain = fit + 2 * Math.log(h.spread) - penalty;
    return { id, kind, headline, text, observations, added: byId(h.change, 1), direction: null, gain, fit };
  }
  const { score, size, open } = allowed(likelihood, h.direction, h.usual);
  return {
    id,
    kind,
    headline,
    text,
    observations,
    added: byId(h.direction, size),
    direction: byId(h.direction, 1),
    gain: likelihood.asRead - score - penalty,
    fit: likelihood.asRead - open,
  };
}

type Read = { index: number; o: Observation; r: NonNullable<Observation["reading"]> };

/** Every slip that could have happened to these readings. */
export function catalogueFor(model: Model): Hypothesis[] {
  const read: Read[] = model.observations.flatMap((o, index) => (o.reading ? [{ index, o, r: o.reading }] : []));
  const points = grouped(read, ({ r }) => r.point);
  const sets = [
    ...swappedSets(read, "swapped axes", ({ r }) => r.axis),
    ...swappedSets(read, "swapped objects", ({ r }) => r.object),
  ];
  const isSameAsSet = (h: Hypothesis) =>
    sets.some((s) => s.of.length === h.of.length && s.of.every((i) => h.of.includes(i)));
  return [
    ...read.map(wrongReading),
    ...points.filter((p) => p.length > 1).map(wrongPoint),
    ...placesIn(read).map(wrongPlace),
    ...placesIn(read).flatMap(reversedPlace),
    ...model.observations.flatMap(wrongKnown),
    ...points.flatMap(reversed),
    ...read.flatMap(multiplied),
    ...allInches(read),
    ...swappedPoints(points).filter((h) => !isSameAsSet(h)),
    ...sets,
    ...shiftedSets(read, "axis", ({ r }) => r.axis),
    ...shiftedSets(read, "session", ({ r }) => r.session),
  ];
}

function wrongReading({ index, o }: Read): Hypothesis {
  return {
    id: `reading ${o.id}`,
    kind: "reading",
    of: [index],
    headline: `${atBeginning(o.label)} contradicts the others.`,
    text: "Read this point again.",
    direction: [{ index, by: 1 }],
    usual: USUAL_MM.reading,
  };
}

function wrongPoint(point: readonly Read[]): Hypothesis {
  const [first] = point as [Read, ...Read[]];
  return {
    id: `point ${first.r.point}`,
    kind: "point",
    of: point.map((p) => p.index),
    headline: `${atBeginning(first.r.pointLabel)} contradicts the other points.`,
    text: "Check that the right marks were measured. Read this point again.",
    direction: point.map(({ index, r }) => ({ index, by: Math.sign(r.per) || 1 })),
    usual: USUAL_MM.point,
  };
}

/** Places that are measured at several points. */
function placesIn(read: readonly Read[]): Read[][] {
  const placed = read.filter(({ r }) => r.place !== undefined);
  return grouped(placed, ({ r }) => r.place ?? "").filter((place) => new Set(place.map(({ r }) => r.point)).size > 1);
}

function wrongPlace(place: readonly Read[]): Hypothesis {
  const [first] = place as [Read, ...Read[]];
  return {
    id: `place ${first.r.place}`,
    kind: "point",
    of: place.map((p) => p.index),
    headline: `${atBeginning(first.r.placeLabel ?? "")} contradicts the others.`,
    text: "Check that the right marks were measured. Read its points again, or burn it again.",
    direction: place.map(({ index, r }) => ({ index, by: Math.sign(r.per) || 1 })),
    usual: USUAL_MM.point,
  };
}

function reversedPlace(place: readonly Read[]): Hypothesis[] {
  const signed = place.filter(({ r }) => r.signedByWords && r.typed !== 0);
  const [first] = signed;
  if (!first) return [];
  return [
    {
      id: `sign place ${first.r.place}`,
      kind: "sign",
      of: signed.map((s) => s.index),
      headline: `${atBeginning(first.r.placeLabel ?? "")} has the opposite sign of the others.`,
      text: REVERSED_TEXT,
      change: turned(signed),
      spread: 1,
    },
  ];
}

const REVERSED_TEXT = "Check which rows stand out. Enter the reading again with the right words.";

/** What turned signs added. */
function turned(reads: readonly Read[]): Change {
  return reads.map(({ index, r }) => ({ index, by: 2 * r.typed * r.per }));
}

function wrongKnown(o: Observation, index: number): Hypothesis[] {
  if (o.reading || !o.canBeWrong) return [];
  return [
    {
      id: `known ${o.id}`,
      kind: "known",
      of: [index],
      headline: `The readings contradict the ${o.label}.`,
      text: "Check this value.",
      direction: [{ index, by: 1 }],
      usual: o.wrongBy ?? KNOWN_WRONG_BY * o.u,
    },
  ];
}

/** The words that choose the sign: of one reading, and of all readings at a point. */
function reversed(point: readonly Read[]): Hypothesis[] {
  const signed = point.filter(({ r }) => r.signedByWords && r.typed !== 0);
  const [first] = signed;
  if (!first) return [];
  const text = REVERSED_TEXT;
  const one = signed.map((read): Hypothesis => {
    const what = atBeginning(read.o.label);
    return {
      id: `sign ${read.o.id}`,
      kind: "sign",
      of: [read.index],
      headline: `${what} has the opposite sign of the others.`,
      text,
      change: turned([read]),
      spread: 1,
    };
  });
  if (signed.length < 2) return one;
  return [
    ...one,
    {
      id: `sign ${first.r.point}`,
      kind: "sign",
      of: signed.map((s) => s.index),
      headline: `${atBeginning(first.r.pointLabel)} has the opposite sign of the other points.`,
      text,
      change: turned(signed),
      spread: 1,
    },
  ];
}

/** Ten times too large or small; inches for mm. What was added is the typed value less the true one. */
function multiplied({ index, o, r }: Read): Hypothesis[] {
  if (r.typed === 0) return [];
  const what = atBeginning(o.label);
  const by = (factor: number, kind: SlipKind, headline: string): Hypothesis => ({
    id: `${factor} ${o.id}`,
    kind,
    of: [index],
    headline,
    text: "Check the reading and its unit. Enter it again.",
    change: [{ index, by: r.typed * r.per * (1 - factor) }],
    spread: factor,
  });
  return [
    by(0.1, "tenfold", `${what} looks 10 times too large.`),
    by(10, "tenfold", `${what} looks 10 times too small.`),
    by(MM_PER_INCH, "inch", `${what} looks like inches entered as mm.`),
    by(1 / MM_PER_INCH, "inch", `${what} looks like mm entered as inches.`),
  ];
}

function allInches(read: readonly Read[]): Hypothesis[] {
  if (read.length < 2) return [];
  const by = (factor: number, headline: string): Hypothesis => ({
    id: `all ${factor}`,
    kind: "all inches",
    of: read.map((r) => r.index),
    headline,
    text: "Check the unit of the gauge and of the drawing. Change no setting before that.",
    change: read.map(({ index, r }) => ({ index, by: r.typed * r.per * (1 - factor) })),
    // Readings made smaller scatter less too: that is no evidence.
    spread: Math.min(1, factor ** read.length),
  });
  return [
    by(MM_PER_INCH, "All readings look like inches entered as mm."),
    by(1 / MM_PER_INCH, "All readings look 25.4 times too large."),
  ];
}

function swappedPoints(points: readonly (readonly Read[])[]): Hypothesis[] {
  return points.flatMap((a, i) =>
    points.slice(i + 1).flatMap((b): Hypothesis[] => {
      const [x, y] = [a[0] as Read, b[0] as Read];
      const [ma, mb] = [typedMean(a), typedMean(b)];
      if (ma === mb) return [];
      return [
        {
          id: `swapped ${x.r.point} ${y.r.point}`,
          kind: "swapped points",
          of: [...a, ...b].map((r) => r.index),
          headline: `${atBeginning(x.r.pointLabel)} and ${y.r.pointLabel} look swapped.`,
          text: "Read both points again.",
          change: [...movedTo(a, mb), ...movedTo(b, ma)],
          spread: 1,
        },
      ];
    }),
  );
}

/** Two sets of points whose readings changed places, point by point in their order. */
function swappedSets(
  read: readonly Read[],
  kind: "swapped axes" | "swapped objects",
  of: (r: Read) => string | undefined,
): Hypothesis[] {
  const sets = grouped(
    read.filter((r) => of(r) !== undefined),
    (r) => of(r) as string,
  );
  const [a, b] = sets;
  if (sets.length !== 2 || !a || !b) return [];
  const pointsA = grouped(a, ({ r }) => r.point);
  const pointsB = grouped(b, ({ r }) => r.point);
  if (pointsA.length !== pointsB.length) return [];
  const [nameA, nameB] = [of(a[0] as Read) as string, of(b[0] as Read) as string];
  const isAxis = kind === "swapped axes";
  return [
    {
      id: kind,
      kind,
      of: [...a, ...b].map((r) => r.index),
      headline: isAxis ? "X and Y look swapped." : `${atBeginning(nameA)} and ${nameB} look swapped.`,
      text: isAxis
        ? "Check how the piece lay when it was read. Then read it again."
        : "Check which of the two was measured. Then read both again.",
      change: pointsA.flatMap((p, k) => {
        const other = pointsB[k] as Read[];
        return [...movedTo(p, typedMean(other)), ...movedTo(other, typedMean(p))];
      }),
      spread: 1,
    },
  ];
}

function shiftedSets(
  read: readonly Read[],
  kind: "axis" | "session",
  of: (r: Read) => string | undefined,
): Hypothesis[] {
  const sets = grouped(
    read.filter((r) => of(r) !== undefined),
    (r) => of(r) as string,
  );
  if (sets.length < 2) return [];
  return sets.map((set): Hypothesis => {
    const name = of(set[0] as Read) as string;
    return {
      id: `${kind} ${name}`,
      kind,
      of: set.map((r) => r.index),
      headline:
        kind === "axis"
          ? `All readings of ${name.toUpperCase()} contradict the others.`
          : `The readings with the ${(set[0] as Read).r.gaugeLabel} contradict the others.`,
      text:
        kind === "axis"
          ? "Check the piece and the edge that was measured from. Then read this axis again."
          : "Close the jaws and check the zero. Then read one point of each session again.",
      direction: set.map(({ index, r }) => ({ index, by: r.sizeSign * r.per })),
      usual: USUAL_MM[kind],
    };
  });
}

/** What a set of readings gained when it was read in place of one with this mean. */
function movedTo(point: readonly Read[], mean: number): { index: number; by: number }[] {
  const own = typedMean(point);
  return point.map(({ index, r }) => ({ index, by: (own - mean) * r.per }));
}

function typedMean(point: readonly Read[]): number {
  return point.reduce((sum, { r }) => sum + r.typed, 0) / point.length;
}

function grouped<T>(items: readonly T[], key: (item: T) => string): T[][] {
  const groups = new Map<string, T[]>();
  for (const item of items) groups.set(key(item), [...(groups.get(key(item)) ?? []), item]);
  return [...groups.values()];
}
