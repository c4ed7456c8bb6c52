/**
 * The two cells of the next comparison: the best cell so far, and the cell with the largest expected gain.
 *
 * Gain of a cell: mean of max(0, cell - best) over responses that are possible with the comparisons so far. [expected improvement: Jones, Schonlau and
 * Welch, J. Global Optim. 13 (1998) 455, from memory]
 */
import { elementAt } from "../fitting/element-at";
import type { SurfacePoint } from "../fitting/kernel";
import { type Comparison, FEW_KERNELS, fitPreferences } from "../fitting/preference-surface";
import type { AnswerValue } from "../trial/answer";

/** The comparisons among the answers of a point, by the indices of the cells. */
export function comparisonsOf(cells: readonly { id: string }[], answers: readonly AnswerValue[]): Comparison[] {
  const at = (id: string) => cells.findIndex((c) => c.id === id);
  return answers.flatMap((value) =>
    value.kind === "comparison" && at(value.better) >= 0 && at(value.worse) >= 0
      ? [{ better: at(value.better), worse: at(value.worse), alike: value.alike }]
      : [],
  );
}

const DRAWS = 120;
/** Comparisons of the same two cells, at most. */
const MOST_TOGETHER = 2;

/** @param cells at least 2, along both edges @returns indices; the best so far first, except every second time */
export function nextComparison(cells: readonly SurfacePoint[], comparisons: readonly Comparison[]): [number, number] {
  const { mean, draws } = fitPreferences(comparisons, cells, { count: DRAWS, kernels: FEW_KERNELS });
  const best = comparisons.length === 0 ? middleOf(cells) : bestOf(mean);
  const together = (i: number) =>
    comparisons.filter((c) => (c.better === best && c.worse === i) || (c.better === i && c.worse === best)).length;
  const gains = cells.map((_, i) =>
    i === best
      ? Number.NEGATIVE_INFINITY
      : together(i) >= MOST_TOGETHER
        ? -1 - together(i)
        : draws.reduce((sum, d) => sum + Math.max(0, elementAt(d, i) - elementAt(d, best)), 0),
  );
  const other = bestOf(gains);
  // People prefer the first of two, so the best cell is first only every second time.
  return comparisons.length % 2 === 0 ? [best, other] : [other, best];
}

function bestOf(values: ArrayLike<number>): number {
  let at = 0;
  for (let i = 1; i < values.length; i++)
    if ((values[i] ?? Number.NEGATIVE_INFINITY) > (values[at] ?? Number.NEGATIVE_INFINITY)) at = i;
  return at;
}

function middleOf(cells: readonly SurfacePoint[]): number {
  return bestOf(cells.map(({ u, v }) => -(u * u + v * v)));
}
