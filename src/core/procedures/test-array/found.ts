/** The common result of all arrays of a trial that vary the same two settings. */
import { labOfHex } from "../../colour/lab";
import { elementAt } from "../../fitting/element-at";
import type { Comparison } from "../../fitting/preference-surface";
import type { ArrayAnswer, ArrayGiven, NoAnswer, ScoredCell } from "../../marking/array-given";
import {
  along,
  CELL_SETTING_KEYS,
  CELL_SETTINGS,
  type CellSetting,
  type CellSettings,
} from "../../marking/cell-settings";
import { knownAnswer } from "../../marking/known-answers";
import { tappedComparisons } from "../../marking/tapped-comparisons";
import { remembering } from "../../measuring/remembering";
import type { History, RoundRecord } from "../../trial/history";
import { type ArrayCell, edgesOf, relativeTime } from "./cells";
import { placeText } from "./layout";
import { NO_BLOCKS, type TestArrayPlan } from "./plan";
import { type CellRead, comparisonsIn, readScores } from "./read-scores";
import { type Way, wayOf } from "./ways";

export type Found = {
  /** Of the block with the best cell. */
  answer: ArrayAnswer;
  /** Cells of the answer, in its order, of all burns. */
  reads: readonly ReadCell[];
  chosen: ReadCell;
  by: Way;
};

export type ReadCell = CellRead & {
  /** `B4`, or `B4 of burn 2` where there are several. */
  name: string;
  /** Number of its round. */
  round: number;
  /** From 0 among the burns that have such cells. */
  burn: number;
};

export type FoundOrWhy = { ok: true; found: Found } | { ok: false; reason: NoAnswer | "nothing read" };

type Known = Pick<History<TestArrayPlan>, "decisions" | "gauges" | "machine" | "rounds">;

/** @param round the newest that counts */
export const foundIn: (history: History<TestArrayPlan>, round: RoundRecord<TestArrayPlan>) => FoundOrWhy = remembering(
  (history: Known, round) => {
    const { plan } = round;
    const groups = readGroups(history, round);
    if (groups.length === 0) return { ok: false, reason: "nothing read" };
    let best: Found | null = null;
    let reason: NoAnswer = "few";
    for (const reads of groups) {
      const answer = knownAnswer(givenOf(history, reads, plan));
      if (typeof answer === "string") {
        reason = answer;
        continue;
      }
      if (best && answer.merit <= best.answer.merit) continue;
      best = { answer, reads, chosen: elementAt(reads, answer.chosen), by: wayOf(plan) };
    }
    return best ? { ok: true, found: best } : { ok: false, reason };
  },
);

/** Input of the response of each round with readings, newest first. */
export function responsesOf(history: History<TestArrayPlan>): ArrayGiven[] {
  const read = history.rounds.filter((r) => r.answers.length > 0).reverse();
  return read.flatMap((round) => readGroups(history, round).map((reads) => givenOf(history, reads, round.plan)));
}

function givenOf({ rounds }: Pick<Known, "rounds">, reads: readonly ReadCell[], plan: TestArrayPlan): ArrayGiven {
  const cells = reads.map((r) => scored(r, plan));
  const given = { cells, step: stepOf(plan), blank: 0 };
  const by = wayOf(plan);
  if (by === "scores") return given;
  const wanted = by === "colour" ? labOfHex(plan.wanted) : null;
  if (wanted) return { ...given, colours: { wanted, of: reads.map((r) => r.colour ?? null) } };
  if (by === "yes or no") return { ...given, passes: { slower: slowerAlong(plan, reads) } };
  const comparisons = rounds.flatMap((round) => {
    const own = reads.flatMap((r, index) => (r.round === round.n && r.cell.leftOut === null ? [{ ...r, index }] : []));
    return by === "comparisons" ? comparedIn(round, own) : tappedIn(own);
  });
  return { ...given, cells: cells.map((c) => ({ ...c, score: null })), comparisons };
}

type Own = ReadCell & { index: number };

function comparedIn(round: RoundRecord<TestArrayPlan>, own: readonly Own[]): Comparison[] {
  const at = (id: string) => own.find((r) => r.cell.id === id)?.index ?? -1;
  return comparisonsIn(round).flatMap(({ better, worse, alike }) => {
    const [a, b] = [at(better), at(worse)];
    return a < 0 || b < 0 || a === b ? [] : [{ better: a, worse: b, alike }];
  });
}

/** The best cell beats every cell that was not tapped; none where it lies in another block. */
function tappedIn(own: readonly Own[]): Comparison[] {
  const tapped = own.filter((r) => (r.score ?? 0) > 0);
  const best = tapped.reduce<Own | null>((a, b) => (a && (a.score ?? 0) >= (b.score ?? 0) ? a : b), null);
  if (!best) return [];
  const comparisons = tappedComparisons(
    own.length,
    own.indexOf(best),
    tapped.map((r) => own.indexOf(r)),
  );
  return comparisons.map(({ better, worse, alike }) => ({
    better: elementAt(own, better).index,
    worse: elementAt(own, worse).index,
    alike,
  }));
}

/** Groups with a score. */
function readGroups(history: Known, round: RoundRecord<TestArrayPlan>): ReadCell[][] {
  return groupsOf(history, round).filter((reads) => reads.some((r) => r.score !== null));
}

/** The cells of each block of a round, with the cells of earlier rounds that differ from them in the two settings on the edges alone. */
function groupsOf({ machine, rounds }: Known, round: RoundRecord<TestArrayPlan>): ReadCell[][] {
  const { plan } = round;
  const alike = rounds.filter((r) => r.n <= round.n && r.answers.length > 0 && isAlike(r.plan, plan));
  const all = alike.map((r) => ({ n: r.n, plan: r.plan, cells: readScores({ machine }, r) }));
  const own = all.at(-1)?.cells ?? [];
  const beside = CELL_SETTING_KEYS.filter((key) => key !== plan.across && key !== plan.up);
  const isBeside = (a: ArrayCell, b: ArrayCell) => beside.every((key) => a.settings[key] === b.settings[key]);
  const firsts = own.filter((r, i) => own.findIndex((other) => isBeside(other.cell, r.cell)) === i);
  return firsts.map(({ cell }) => {
    const burns = all
      .map((of) => ({ ...of, cells: of.cells.filter((r) => isBeside(r.cell, cell)) }))
      .filter((of) => of.cells.length > 0);
    return burns.flatMap(({ n, plan: of, cells }, burn) =>
      cells.map((read) => {
        const place = placeText(read.cell, of.blocks === NO_BLOCKS ? 1 : edgesOf(of).blocks.length);
        return { ...read, burn, round: n, name: burns.length > 1 ? `${place} of burn ${n}` : place };
      }),
    );
  });
}

/** Arrays over the same settings, scored in the same way on the same stock. */
function isAlike(a: TestArrayPlan, b: TestArrayPlan): boolean {
  return (
    a.across === b.across &&
    a.up === b.up &&
    a.score === b.score &&
    a.stock === b.stock &&
    a.fill === b.fill &&
    (a.score !== "colour" || a.wanted === b.wanted)
  );
}

export function sameSettings(a: CellSettings, b: CellSettings): boolean {
  return CELL_SETTING_KEYS.every((key) => a[key] === b[key]);
}

function scored({ cell, score, noGood, burn }: ReadCell, { across, up }: TestArrayPlan): ScoredCell {
  return {
    x: along(across, cell.settings[across]),
    y: along(up, cell.settings[up]),
    place: { x: cell.place.column, y: cell.place.row },
    burn,
    score,
    // The machine or the stock excludes cells that are left out, and what is next to them.
    noGood: noGood || cell.leftOut !== null,
    ...(CELL_SETTINGS[across].byRatio && CELL_SETTINGS[up].byRatio ? { energy: Math.log(cell.dose.energy) } : {}),
  };
}

/** By how much ln(time) grows along each axis: from one end of the newest edges to the other. */
function slowerAlong(plan: TestArrayPlan, reads: readonly ReadCell[]): { x: number; y: number } {
  const { settings } = elementAt(reads, reads.length - 1).cell;
  const slope = (key: CellSetting, values: readonly number[]) => {
    const [low, high] = [elementAt(values, 0), elementAt(values, values.length - 1)];
    const time = (value: number) => Math.log(relativeTime(plan, { ...settings, [key]: value }));
    return (time(high) - time(low)) / (along(key, high) - along(key, low));
  };
  const { across, up } = edgesOf(plan);
  return { x: slope(plan.across, across), y: slope(plan.up, up) };
}

/** From one value to the next along each edge, on average. */
function stepOf(plan: TestArrayPlan): { x: number; y: number } {
  const edges = edgesOf(plan);
  const step = (key: CellSetting, values: readonly number[]) =>
    (along(key, elementAt(values, values.length - 1)) - along(key, elementAt(values, 0))) / (values.length - 1);
  return { x: step(plan.across, edges.across), y: step(plan.up, edges.up) };
}

/** Of the cells that are as good as the best, the one that takes least time for an area; `null` where none is faster than the chosen one. */
export function fastestOf({ answer, reads, chosen, by }: Found, plan: TestArrayPlan): ReadCell | null {
  // A tap has no size, so its certainty is unknown. Of cells that pass, the fastest is the chosen one.
  const good = by === "taps" || by === "yes or no" ? [] : answer.asGood.map((i) => elementAt(reads, i));
  const time = ({ cell }: ReadCell) => relativeTime(plan, cell.settings);
  return good.reduce<ReadCell | null>((fast, read) => (time(read) < time(fast ?? chosen) ? read : fast), null);
}
