/**
 * What became of an error once it was corrected, where it was large enough to tell: each slip of entering a correction leaves a known
 * share of the error.
 *
 *   r = after / before:   1 not in force,   1/2 half of the change,   -1 twice the change,   2 the opposite change,   1 - 25.4 mm taken for inches
 */
import type { Measured } from "../metrology/measured";
import { MM_PER_INCH } from "../metrology/units";
import type { Finding } from "../trial/outcome";

export type Became = "unchanged" | "halved" | "overshot" | "doubled" | "inches";

/** An error this many times its uncertainty tells what became of it. */
const TELLING = 4;
/** As before, or twice as large, give or take this share. */
const NEAR = 0.28;
/** Half of it, give or take this share of the error before. */
const NEAR_HALF = 0.14;
/** So many standard uncertainties may lie between a share and what is found, besides. */
const WITHIN = 3;

/** In the order in which they are believed. */
const SHARES: readonly [Became, share: number, near: number][] = [
  ["unchanged", 1, NEAR],
  ["doubled", 2, NEAR],
  ["overshot", -1, NEAR],
  ["halved", 0.5, NEAR_HALF],
  ["inches", 1 - MM_PER_INCH, (MM_PER_INCH - 1) * NEAR],
];

/** `null`: none of them, or not to be told. */
export function whatBecame(before: Measured | null, after: Measured): Became | null {
  const u = Math.hypot(before?.standardUncertainty ?? 0, after.standardUncertainty);
  if (!before || Math.abs(before.value) < TELLING * u) return null;
  // What is good again became nothing in particular.
  if (Math.abs(after.value) < WITHIN * after.standardUncertainty) return null;
  const found = SHARES.find(([, share, near]) => Math.abs(after.value / before.value - share) < near);
  return found?.[0] ?? null;
}

type Words = { headline: string; text: string };
/** Of what stayed and what doubled: they are each procedure's own. */
export type OwnWords = Record<"unchanged" | "doubled", Words>;

/** The same whatever is corrected. */
const ALIKE: Record<Exclude<Became, "unchanged" | "doubled">, Words> = {
  halved: {
    headline: "Half of the error remains.",
    text: "Check whether half of the change was entered, or whether the controller halves the value again.",
  },
  overshot: {
    headline: "The error is as large as before, with the opposite sign.",
    text: "Twice the change acts. Check whether the change was entered twice, and whether another program corrects the same error.",
  },
  inches: {
    headline: "The error is about 24 times larger, with the opposite sign.",
    text: "Check the unit of the value. The controller seems to take inches where mm were entered.",
  },
};

/**
 * The finding of a proof; none where nothing is to be told.
 */
export function becameFindings(
  before: Measured | null,
  after: Measured,
  own: OwnWords,
  id: (became: Became) => string = (became) => became,
): Finding[] {
  const became = whatBecame(before, after);
  if (!became) return [];
  return [{ id: id(became), tone: "needs you", site: null, ...{ ...ALIKE, ...own }[became] }];
}
