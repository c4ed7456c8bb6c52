/** What an eye says by tapping the best cell and all that are as good, as comparisons: the best one beats every cell that was not tapped. */
import type { Comparison } from "../fitting/preference-surface";

/** @param count of cells @param good indices of cells that look as good as the best one */
export function tappedPairs(count: number, best: number, good: readonly number[]): Comparison[] {
  return Array.from({ length: count }, (_, other) => other).flatMap((other) =>
    other === best ? [] : [{ better: best, worse: other, alike: good.includes(other) }],
  );
}
