/** What comes next: a second array where the first leaves too much open, then the proof around the chosen cell. */
import { elementAt } from "../../fitting/element-at";
import { nextArray, type Span } from "../../marking/array-answer";
import { CELL_SETTINGS, type CellSetting, spaced } from "../../marking/cell-settings";
import { type ProofPlan, plainNext } from "../../measuring/plain-course";
import { expandedUncertainty } from "../../metrology/measured";
import { plain } from "../../metrology/quantity-text";
import { sitesLeft } from "../../trial/answer";
import type { History, Next, RoundRecord } from "../../trial/history";
import type { Outcome } from "../../trial/outcome";
import type { Verdict } from "../../trial/verdict";
import { edgesOf } from "./cells";
import { type Found, foundIn } from "./found";
import { NO_BLOCKS, PASSES_LIMIT, type TestArrayPlan } from "./plan";
import { shortBudget } from "./short";

/** More arrays than this do not help: the stock differs from place to place. */
const MOST_ARRAYS = 3;
/** A proof has so many values along each edge. */
const PROOF_SIDE = 3;
/** A neighbour in a proof differs by this share where the array has only two values. */
const NEIGHBOUR = 1.15;

const WORDS = {
  read: "Score the cells first.",
  prove: "Burn the chosen cell with its neighbours. It should be as good as the best of them.",
  proved: "Proved: no neighbour is better than the chosen settings.",
  holding: "Still valid. Change nothing.",
};

export function nextTestArray(
  history: History<TestArrayPlan>,
  outcome: Outcome,
  verdict: Verdict | null,
): Next<TestArrayPlan> {
  const last = history.rounds.at(-1);
  const more = last ? anotherArray(history, last) : null;
  return more ?? plainNext(history, outcome, verdict, WORDS, last ? proofOf(history, last) : { why: WORDS.read });
}

function anotherArray(history: History<TestArrayPlan>, last: RoundRecord<TestArrayPlan>): Next<TestArrayPlan> | null {
  if (last.purpose === "proof" || last.purpose === "check") return null;
  if (sitesLeft(last.spec.sites, last.answers).length > 0) return null;
  const finding = foundIn(history, last);
  if (!finding.ok) return null;
  const { answer } = finding.found;
  const short = shortBudget(answer.shortOf(answer.chosen)).quantity;
  const most = short.value + expandedUncertainty(short);
  const arrays = history.rounds.filter((r) => r.answers.length > 0).length;
  const why =
    answer.edges.length > 0
      ? "The best lies at the edge of this array. The next array continues beyond this edge."
      : answer.second
        ? "Two groups of settings may be the best. The next array covers both."
        : most > history.tolerance
          ? `The chosen cell may be ${plain(100 * most, 1)} % short of the best. The next array is finer.`
          : null;
  if (why === null || arrays >= MOST_ARRAYS) return null;
  const plan = around(last.plan, finding.found, history);
  return plan && { do: "round", purpose: "refine", set: [], plan, why };
}

/** @returns `null` where the machine leaves no room for another array */
function around(
  plan: TestArrayPlan,
  { answer, chosen }: Found,
  { machine }: Pick<History, "machine">,
): TestArrayPlan | null {
  const next = nextArray(answer);
  const edges = edgesOf(plan);
  const limits: Partial<Record<CellSetting, number>> = {
    powerPct: 100,
    speedMmPerS: machine.topSpeedMmPerS,
    passes: PASSES_LIMIT,
  };
  const across = valuesIn(plan.across, next.x, edges.across.length, limits[plan.across]);
  const up = valuesIn(plan.up, next.y, edges.up.length, limits[plan.up]);
  if (across.length < 2 || up.length < 2) return null;
  const blocks = plan.blocks === NO_BLOCKS ? {} : { [plan.blocks]: [chosen.settings[plan.blocks]] };
  return { ...plan, [plan.across]: across, [plan.up]: up, ...blocks, blocks: NO_BLOCKS };
}

/** Values that are typed as they are: rounded, each once, within what the machine does. */
function valuesIn(key: CellSetting, { low, high }: Span, count: number, most = Number.POSITIVE_INFINITY): number[] {
  const { byRatio, decimals } = CELL_SETTINGS[key];
  const step = 10 ** -decimals;
  const value = (v: number) => {
    const least = byRatio ? step : Number.NEGATIVE_INFINITY;
    return Math.max(least, Math.min(most, Math.round((byRatio ? Math.exp(v) : v) / step) * step));
  };
  const rounded = (v: number) => Number(v.toFixed(decimals));
  const all = spaced(key, value(low), value(high), count, byRatio ? "ratio" : "even").map(rounded);
  return [...new Set(all)];
}

function proofOf(history: History<TestArrayPlan>, last: RoundRecord<TestArrayPlan>): ProofPlan<TestArrayPlan> {
  const finding = foundIn(history, last);
  if (!finding.ok) return { why: WORDS.read };
  const { plan } = last;
  const { chosen } = finding.found;
  const edges = edgesOf(plan);
  const neighbours = (key: CellSetting, values: readonly number[]) => {
    const at = values.indexOf(chosen.settings[key]);
    const middle = chosen.settings[key];
    const { byRatio, decimals } = CELL_SETTINGS[key];
    const low = at > 0 ? elementAt(values, at - 1) : byRatio ? middle / NEIGHBOUR : middle - 10 ** -decimals;
    const high = at >= 0 && at < values.length - 1 ? elementAt(values, at + 1) : middle * NEIGHBOUR;
    const top =
      key === "powerPct" ? 100 : key === "speedMmPerS" ? history.machine.topSpeedMmPerS : Number.POSITIVE_INFINITY;
    const all = [low, middle, Math.min(top, high)].map((v) => Number(v.toFixed(decimals)));
    return [...new Set(all)].slice(0, PROOF_SIDE);
  };
  const blocks = plan.blocks === NO_BLOCKS ? {} : { [plan.blocks]: [chosen.settings[plan.blocks]] };
  const across = neighbours(plan.across, edges.across);
  const up = neighbours(plan.up, edges.up);
  return {
    plan: { ...plan, [plan.across]: across, [plan.up]: up, ...blocks, blocks: NO_BLOCKS },
    set: [],
  };
}
