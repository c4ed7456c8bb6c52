/** What comes next: a second array where the first leaves too much open, then the proof around the chosen cell. */
import { LEAST_CELLS, nextArray } from "../../marking/array-answer";
import type { Span } from "../../marking/array-given";
import { CELL_SETTINGS, type CellSetting, spaced } from "../../marking/cell-settings";
import { type ProofPlan, plainNext } from "../../measuring/plain-course";
import { expandedUncertainty } from "../../metrology/measured";
import { sitesLeft } from "../../trial/answer";
import type { History, Next, RoundRecord } from "../../trial/history";
import type { Outcome } from "../../trial/outcome";
import type { Verdict } from "../../trial/verdict";
import { edgesIn } from "./best-at-edge";
import { edgesOf, limitOf } from "./cells";
import { type Found, foundIn } from "./found";
import { NO_BLOCKS, type TestArrayPlan } from "./plan";
import { shortOf } from "./short";
import { usedBefore } from "./used-before";
import { WAYS, type Way, wayOf } from "./ways";

/** More arrays than this do not help: the stock differs from place to place. */
const MOST_ARRAYS = 3;
/** Comparisons of the nine cells of a proof. */
const PROOF_COMPARISONS = 12;
/** A neighbour in a proof differs by this factor where the array has no value beyond. */
const NEIGHBOUR = 1.15;

const READ = "Score the cells first.";

function wordsOf(way: Way) {
  const { prove, proved } = WAYS[way];
  return { read: READ, prove, proved, holding: "Still valid. Change nothing." };
}

export function nextTestArray(
  history: History<TestArrayPlan>,
  outcome: Outcome,
  verdict: Verdict | null,
): Next<TestArrayPlan> {
  const last = history.rounds.at(-1);
  if (!last) return plainNext(history, outcome, verdict, wordsOf("scores"), { why: READ });
  const proof = proofOf(history, last);
  const isRead = sitesLeft(last.spec.sites, last.answers).length === 0;
  if (verdict?.result === "cannot tell" && isRead && "plan" in proof)
    return { do: "round", purpose: "proof", ...proof, why: AGAIN };
  const more = isRead ? anotherArray(history, last) : null;
  return more ?? plainNext(history, outcome, verdict, wordsOf(wayOf(last.plan)), proof);
}

const AGAIN = "Undecided. Burn the chosen cell and its neighbours again. All burns count together.";

function anotherArray(history: History<TestArrayPlan>, last: RoundRecord<TestArrayPlan>): Next<TestArrayPlan> | null {
  if (last.purpose === "proof" || last.purpose === "check") return null;
  const finding = foundIn(history, last);
  const arrays = history.rounds.filter((r) => r.answers.length > 0).length;
  if (!finding.ok || arrays >= MOST_ARRAYS) return null;
  const why = whyAnother(finding.found, last.plan, history);
  if (why === null) return null;
  const plan = around(last.plan, finding.found, history);
  return plan && { do: "round", purpose: "refine", set: [], plan, why };
}

function whyAnother(
  found: Found,
  plan: TestArrayPlan,
  { machine, tolerance }: Pick<History, "machine" | "tolerance">,
): string | null {
  const words = WAYS[found.by];
  if (edgesIn(found, plan, machine).some((e) => !e.isLimit))
    return `The ${words.chosen} is at the edge of this array. The next array continues beyond this edge.`;
  if (found.answer.second) return "Two groups of settings may be the best. The next array covers both.";
  const { quantity } = shortOf(found, found.answer.chosen);
  const most = quantity.value + expandedUncertainty(quantity);
  switch (found.by) {
    case "yes or no":
      return found.answer.asGood.length === 0 ? words.finer("") : null;
    case "scores":
    case "colour":
      return most > tolerance ? words.finer(words.size(most)) : null;
    // A finer array does not improve the eye.
    case "taps":
    case "comparisons":
      return null;
  }
}

/** @returns `null` where the machine leaves no room for another array */
function around(plan: TestArrayPlan, found: Found, { machine }: Pick<History, "machine">): TestArrayPlan | null {
  const next = nextArray(found.answer);
  const edges = edgesOf(plan);
  const across = valuesIn(plan.across, next.x, edges.across.length, limitOf(plan.across, machine));
  const up = valuesIn(plan.up, next.y, edges.up.length, limitOf(plan.up, machine));
  return across.length * up.length < LEAST_CELLS ? null : withValues(plan, found, across, up);
}

/** Only the block with the best cell, with these values on its edges. */
function withValues(plan: TestArrayPlan, { chosen }: Found, across: number[], up: number[]): TestArrayPlan {
  const values = { ...plan, [plan.across]: across, [plan.up]: up };
  if (plan.blocks === NO_BLOCKS) return values;
  return { ...values, [plan.blocks]: [chosen.cell.settings[plan.blocks]], blocks: NO_BLOCKS };
}

/** Values that are typed as they are: rounded, each once, within what the machine does. */
function valuesIn(key: CellSetting, { low, high }: Span, count: number, most: number): number[] {
  const { byRatio, decimals } = CELL_SETTINGS[key];
  const least = byRatio ? 10 ** -decimals : Number.NEGATIVE_INFINITY;
  const value = (v: number) => Math.max(least, Math.min(most, roundedTo(byRatio ? Math.exp(v) : v, key)));
  const all = spaced(key, value(low), value(high), count, byRatio ? "ratio" : "even");
  return [...new Set(all.map((v) => roundedTo(v, key)))];
}

function roundedTo(value: number, key: CellSetting): number {
  return Number(value.toFixed(CELL_SETTINGS[key].decimals));
}

function proofOf(history: History<TestArrayPlan>, last: RoundRecord<TestArrayPlan>): ProofPlan<TestArrayPlan> {
  const finding = foundIn(history, last);
  if (!finding.ok) return { why: READ };
  const { plan } = last;
  const { settings } = finding.found.chosen.cell;
  const edges = edgesOf(plan);
  const beside = (key: CellSetting, values: readonly number[]) =>
    neighbours(key, settings[key], values, limitOf(key, history.machine));
  const across = beside(plan.across, edges.across);
  const up = beside(plan.up, edges.up);
  const before = usedBefore(plan, settings, history);
  const withBefore = (key: CellSetting, values: number[]) =>
    before ? [...new Set([...values, before[key]])].sort((a, b) => a - b) : values;
  const proof = withValues(plan, finding.found, withBefore(plan.across, across), withBefore(plan.up, up));
  return { plan: { ...proof, comparisons: Math.min(plan.comparisons, PROOF_COMPARISONS) }, set: [] };
}

/** The value with its two neighbours in the array. At an edge of the array a neighbour beyond it is added, unless the machine cannot go there. */
function neighbours(key: CellSetting, value: number, values: readonly number[], most: number): number[] {
  const { byRatio, decimals } = CELL_SETTINGS[key];
  const step = 10 ** -decimals;
  const further = (v: number, way: 1 | -1) => {
    const known = way > 0 ? values.find((k) => k > v) : values.findLast((k) => k < v);
    if (known !== undefined) return known;
    const beyond = byRatio ? v * NEIGHBOUR ** way : v + way;
    // Whole numbers and small ones: at least one step.
    return roundedTo(way > 0 ? Math.max(v + step, beyond) : Math.min(v - step, beyond), key);
  };
  const isPossible = (v: number) => v <= most && (!byRatio || v >= step);
  const low = further(value, -1);
  const high = further(value, 1);
  if (!isPossible(high)) return [further(low, -1), low, value];
  return isPossible(low) ? [low, value, high] : [value, high, further(high, 1)];
}
