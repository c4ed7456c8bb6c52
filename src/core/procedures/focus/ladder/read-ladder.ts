/** What was read of a ladder, with the cells in the order of their heights; one that was burned on at its ends is one ladder. */

import { lineWidth } from "../../../beam/line-width";
import type { LadderCell } from "../../../beam/width-fit";
import type { LineRun } from "../../../beam/width-model";
import { withoutLeftOut } from "../../../measuring/length-readings";
import type { History, RoundRecord } from "../../../trial/history";
import { type Cell, cellsOf, type LadderPlan, runsBothWays } from "../plan";
import { cellId, MARKED_SITE, SHARPEST_SITE, widthSite } from "./coupon";

/** Cells of two burns this near are at one height, mm. */
const SAME_MM = 1e-6;

export type LadderReadings = {
  /** By rising height. */
  cells: Cell[];
  /** Whether each marked; `null` = not said yet. */
  marks: (boolean | null)[];
  /** Indices in `cells` of the first and the last that marked; `null` = not said yet. */
  marked: { first: number; last: number } | null;
  /** One a look: first and last index of those that were called equally sharp. */
  looks: [number, number][];
  /** Those whose width was read, and those that are known not to have marked. */
  widths: LadderCell[];
};

/** The rounds that are one ladder with this one: what was burned to measure, and on at its ends. */
export function ladderRounds(history: History<LadderPlan>, round: RoundRecord<LadderPlan>): RoundRecord<LadderPlan>[] {
  const isLadder = ({ purpose }: RoundRecord<LadderPlan>) => purpose === "measure" || purpose === "refine";
  return isLadder(round) ? history.rounds.filter((r) => isLadder(r) && r.n <= round.n) : [round];
}

export function readLadder(history: History<LadderPlan>, rounds: readonly RoundRecord<LadderPlan>[]): LadderReadings {
  const parts = rounds.map((round) => ({ round, ...judgedIn(history, round) }));
  const cells: Cell[] = [];
  const marks: (boolean | null)[] = [];
  const all = parts.flatMap((p) => p.cells.map((cell, i) => ({ cell, marks: p.marks[i] ?? null })));
  for (const { cell, marks: here } of all.sort((a, b) => a.cell.heightMm - b.cell.heightMm)) {
    const before = cells.at(-1);
    if (!before || cell.heightMm - before.heightMm > SAME_MM) {
      cells.push(cell);
      marks.push(here);
    } else marks[marks.length - 1] = here === null ? (marks.at(-1) ?? null) : here || marks.at(-1) === true;
  }
  const indexOf = (mm: number) => cells.findIndex((c) => Math.abs(c.heightMm - mm) <= SAME_MM);
  const [first, last] = [marks.indexOf(true), marks.lastIndexOf(true)];
  return {
    cells,
    marks,
    marked: first < 0 ? null : { first, last },
    looks: parts.flatMap((p) => p.looks.map(([low, high]): [number, number] => [indexOf(low), indexOf(high)])),
    widths: parts.flatMap((p) => widthsOf(history, p.round, p.cells, p.marks)),
  };
}

/** What one round says of its own cells; looks as heights. */
function judgedIn({ decisions }: History<LadderPlan>, { plan, answers: all }: RoundRecord<LadderPlan>) {
  const answers = withoutLeftOut(all, decisions);
  const cells = cellsOf(plan);
  const runs = (site: string) =>
    answers.flatMap((a): [number, number][] => {
      if (a.site !== site || a.content.status !== "read" || a.content.value.kind !== "cells") return [];
      const at = a.content.value.cells
        .map((id) => cells.findIndex((c) => cellId(c.number) === id))
        .filter((i) => i >= 0);
      return at.length > 0 ? [[Math.min(...at), Math.max(...at)]] : [];
    });
  const range = runs(MARKED_SITE).at(-1);
  return {
    cells,
    marks: cells.map((_, i) => (range ? i >= range[0] && i <= range[1] : null)),
    looks: runs(SHARPEST_SITE).map(([a, b]): [number, number] => [
      cells[a]?.heightMm ?? Number.NaN,
      cells[b]?.heightMm ?? Number.NaN,
    ]),
  };
}

/** In which directions lines run whose widths are read. */
export function runsOf(plan: LadderPlan): readonly LineRun[] {
  return runsBothWays(plan) ? ["x", "y"] : ["x"];
}

function widthsOf(
  { gauges, decisions }: History<LadderPlan>,
  { answers, plan }: RoundRecord<LadderPlan>,
  cells: readonly Cell[],
  marks: readonly (boolean | null)[],
): LadderCell[] {
  const kept = withoutLeftOut(answers, decisions);
  return cells.flatMap(({ number, heightMm }, i) =>
    runsOf(plan).flatMap((run): LadderCell[] => {
      const read = lineWidth(heightMm, widthSite(number, run), kept, gauges, run);
      if (read) return [read];
      return marks[i] === false ? [{ zMm: heightMm, run, status: "unmarked" }] : [];
    }),
  );
}
