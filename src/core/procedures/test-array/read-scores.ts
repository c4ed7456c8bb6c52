/** The score of every burned cell of one burn, as it was read. */
import { colourDifference } from "../../colour/difference";
import { type Lab, labOfHex } from "../../colour/lab";
import { mean } from "../../fitting/repeats";
import { quantitiesAt } from "../../trial/answer";
import type { History, RoundRecord } from "../../trial/history";
import { type ArrayCell, arrayCells } from "./cells";
import {
  BEST_SITE,
  CHARRED_SITE,
  COLOUR_PARTS,
  COMPARISON_SITE,
  colourSiteId,
  depthSite,
  GOOD_SITE,
  PASSED_SITE,
  SCAN_SITE,
} from "./coupon";
import { isPictured, type TestArrayPlan } from "./plan";

export type CellRead = {
  cell: ArrayCell;
  score: number | null;
  noGood: boolean;
  /** Left out: its colour was not read. */
  colour?: Lab;
};

/** Scores of a cell that was tapped as the best, as good, or not at all. */
export const TAPPED = { best: 1, good: 0.9, other: 0 };

type Round = Pick<RoundRecord<TestArrayPlan>, "plan" | "spec" | "answers">;

/** Whether the scores of a burn are from a picture. */
export function isFromPicture({ answers }: Pick<Round, "answers">): boolean {
  const [l] = COLOUR_PARTS;
  return answers.findLast((a) => a.site === SCAN_SITE || a.site === colourSiteId(l))?.from === "picture";
}

/** Cells in the order of the array. Those that were left out have no score. */
export function readScores({ machine }: Pick<History, "machine">, round: Round): CellRead[] {
  const cells = arrayCells(round.plan, machine);
  const burned = cells.filter((c) => c.leftOut === null);
  const scores = scoresByCell(round, burned);
  const colours = coloursByCell(round, burned);
  const bad = new Set(tapped(round, CHARRED_SITE) ?? []);
  return cells.map((cell) => {
    const colour = colours.get(cell.id);
    return { cell, score: scores.get(cell.id) ?? null, noGood: bad.has(cell.id), ...(colour ? { colour } : {}) };
  });
}

function scoresByCell(round: Round, burned: readonly ArrayCell[]): ReadonlyMap<string, number> {
  const { score, wanted } = round.plan;
  if (isPictured(score)) return scanned(round, burned, SCAN_SITE);
  if (score === "depth")
    return new Map(
      burned.flatMap((c) => {
        const read = quantitiesAt(round.answers, depthSite(c));
        return read.length > 0 ? [[c.id, mean(read)] as const] : [];
      }),
    );
  if (score === "colour") {
    const aim = labOfHex(wanted);
    return new Map(aim ? [...coloursByCell(round, burned)].map(([id, c]) => [id, -colourDifference(c, aim)]) : []);
  }
  if (score === "comparisons") return winShares(round);
  if (score === "yes or no") {
    const passed = tapped(round, PASSED_SITE);
    return new Map(passed ? burned.map((c) => [c.id, passed.includes(c.id) ? 1 : 0]) : []);
  }
  const best = tapped(round, BEST_SITE);
  const good = tapped(round, GOOD_SITE);
  if (!best && !good) return new Map();
  return new Map(
    burned.map((c) => [c.id, best?.includes(c.id) ? TAPPED.best : good?.includes(c.id) ? TAPPED.good : TAPPED.other]),
  );
}

/** All comparisons, by the ids of their cells. */
export function comparisonsIn({
  answers,
}: Pick<Round, "answers">): { better: string; worse: string; alike: boolean }[] {
  return answers.flatMap(({ site, content }) =>
    site === COMPARISON_SITE && content.status === "read" && content.value.kind === "comparison" ? [content.value] : [],
  );
}

/** Share of its comparisons that a cell won. Alike counts half. */
function winShares(round: Round): ReadonlyMap<string, number> {
  const looks = new Map<string, { won: number; count: number }>();
  const look = (id: string, won: number) => {
    const before = looks.get(id) ?? { won: 0, count: 0 };
    looks.set(id, { won: before.won + won, count: before.count + 1 });
  };
  for (const { better, worse, alike } of comparisonsIn(round)) {
    look(better, alike ? 0.5 : 1);
    look(worse, alike ? 0.5 : 0);
  }
  return new Map([...looks].map(([id, { won, count }]) => [id, won / count]));
}

/** Colours of cells whose three numbers are read. */
function coloursByCell(round: Round, burned: readonly ArrayCell[]): ReadonlyMap<string, Lab> {
  if (round.plan.score !== "colour") return new Map();
  const [l, a, b] = COLOUR_PARTS.map((of) => scanned(round, burned, colourSiteId(of)));
  return new Map(
    burned.flatMap(({ id }) => {
      const lab = { l: l?.get(id), a: a?.get(id), b: b?.get(id) };
      return lab.l === undefined || lab.a === undefined || lab.b === undefined
        ? []
        : [[id, { l: lab.l, a: lab.a, b: lab.b }] as const];
    }),
  );
}

/** The newest picture counts. */
function scanned({ answers }: Round, burned: readonly ArrayCell[], site: string): ReadonlyMap<string, number> {
  const content = answers.findLast((a) => a.site === site)?.content;
  if (content?.status !== "read" || content.value.kind !== "scores") return new Map();
  const { scores } = content.value;
  return new Map(
    burned.flatMap((c, i) => {
      const score = scores[i];
      return score === null || score === undefined ? [] : [[c.id, score] as const];
    }),
  );
}

/** Ids of the cells that were chosen at a point; `null` without a reading. */
function tapped({ answers }: Round, site: string): string[] | null {
  const content = answers.findLast((a) => a.site === site)?.content;
  return content?.status === "read" && content.value.kind === "cells" ? content.value.cells : null;
}
