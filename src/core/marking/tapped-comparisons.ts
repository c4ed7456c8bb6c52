/** Taps as comparisons: the best cell is better than every cell without a tap, and like every other cell with one. */
import type { Comparison } from "../fitting/preference-surface";

/** @param count of cells @param good indices of cells that look as good as the best one */
export function tappedComparisons(count: number, best: number, good: readonly number[]): Comparison[] {
  return Array.from({ length: count }, (_, other) => other).flatMap((other) =>
    other === best ? [] : [{ better: best, worse: other, alike: good.includes(other) }],
  );
}
