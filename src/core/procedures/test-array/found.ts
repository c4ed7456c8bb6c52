/** What all arrays of a trial that vary the same two settings say together. */
import { elementAt } from "../../fitting/element-at";
import {
  type ArrayAnswer,
  type ArrayGiven,
  answerOf,
  type NoAnswer,
  type ScoredCell,
} from "../../marking/array-answer";
import { along, type CellSetting } from "../../marking/cell-settings";
import { remembering } from "../../measuring/remembering";
import type { History, RoundRecord } from "../../trial/history";
import { type ArrayCell, edgesOf } from "./cells";
import type { TestArrayPlan } from "./plan";
import { type CellRead, readScores } from "./read-scores";

export type Found = {
  /** Of the block with the best cell. */
  answer: ArrayAnswer;
  /** Cells of the answer, in its order. */
  reads: readonly (CellRead & { round: number })[];
  chosen: ArrayCell;
  /** Index of the block; 0 where there is one alone. */
  block: number;
};

export type Finding = { ok: true; found: Found } | { ok: false; reason: NoAnswer | "nothing read" };

/** @param round the newest that counts */
export const foundIn: (history: History<TestArrayPlan>, round: RoundRecord<TestArrayPlan>) => Finding = remembering(
  (history: Pick<History<TestArrayPlan>, "decisions" | "gauges" | "machine" | "rounds">, round) => {
    const rounds = history.rounds.filter((r) => r.n <= round.n && r.answers.length > 0 && isAlike(r.plan, round.plan));
    const reads = rounds.flatMap((r, burn) => readScores(history, r).map((read) => ({ ...read, burn, round: r.n })));
    if (!reads.some((r) => r.score !== null)) return { ok: false, reason: "nothing read" };
    const blocks = [...new Set(reads.map((r) => r.cell.block))];
    const answers = blocks.map((block) => {
      const inBlock = reads.filter((r) => r.cell.block === block);
      const answer = remembered({
        cells: inBlock.map((r) => scored(r, round.plan)),
        step: stepOf(round.plan),
        blank: 0,
      });
      return { block, inBlock, answer };
    });
    let best: Found | null = null;
    for (const { block, inBlock, answer } of answers) {
      if (typeof answer === "string") continue;
      const expected = elementAt(answer.expected, answer.chosen);
      if (best && expected <= elementAt(best.answer.expected, best.answer.chosen)) continue;
      best = { answer, reads: inBlock, chosen: elementAt(inBlock, answer.chosen).cell, block };
    }
    if (best) return { ok: true, found: best };
    const [first] = answers;
    return { ok: false, reason: typeof first?.answer === "string" ? first.answer : "few" };
  },
);

/** Answers to the newest arrays: pages ask again and again for the same, and a fit takes long. */
const recent: { key: string; answer: ArrayAnswer | NoAnswer }[] = [];
const MOST_RECENT = 12;

function remembered(given: ArrayGiven): ArrayAnswer | NoAnswer {
  const key = JSON.stringify(given);
  const known = recent.find((r) => r.key === key);
  if (known) return known.answer;
  const answer = answerOf(given);
  recent.unshift({ key, answer });
  recent.length = Math.min(recent.length, MOST_RECENT);
  return answer;
}

/** Arrays of the same settings, scored in the same way, are one. */
function isAlike(a: TestArrayPlan, b: TestArrayPlan): boolean {
  return a.across === b.across && a.up === b.up && a.blocks === b.blocks && a.score === b.score && a.stock === b.stock;
}

function scored({ cell, score, noGood, burn }: CellRead & { burn: number }, { across, up }: TestArrayPlan): ScoredCell {
  return {
    x: along(across, cell.settings[across]),
    y: along(up, cell.settings[up]),
    place: { x: cell.place.column, y: cell.place.row },
    burn,
    score,
    noGood,
  };
}

/** From one value to the next along each edge, on average. */
function stepOf(plan: TestArrayPlan): { x: number; y: number } {
  const edges = edgesOf(plan);
  const step = (key: CellSetting, values: readonly number[]) =>
    (along(key, elementAt(values, values.length - 1)) - along(key, elementAt(values, 0))) / (values.length - 1);
  return { x: step(plan.across, edges.across), y: step(plan.up, edges.up) };
}

/** Of the cells that are as good as the best, the one that takes least time for an area. */
export function fastestOf({ answer, reads, chosen }: Found): ArrayCell | null {
  const good = answer.asGood.map((i) => elementAt(reads, i).cell);
  const time = ({ settings }: ArrayCell) =>
    settings.dwellMs > 0
      ? (settings.passes * settings.dwellMs) / settings.rowPitchMm ** 2
      : settings.passes / (settings.speedMmPerS * settings.rowPitchMm);
  return good.reduce<ArrayCell | null>((fast, cell) => (time(cell) < time(fast ?? chosen) ? cell : fast), null);
}
