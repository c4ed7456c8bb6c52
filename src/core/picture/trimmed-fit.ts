/** A linear fit that leaves out what lies far off: specks and lost marks are no part of it. */
import { leastSquares } from "../fitting/least-squares";
import { median } from "../fitting/median";

export type TrimmedFit = {
  x: number[];
  /** n by n, from the scatter of what was kept. */
  covariance: number[][];
  /** Scatter of what was kept, sd. */
  sd: number;
  kept: boolean[];
  degreesOfFreedom: number;
};

/** So many robust standard deviations away is left out. */
const OUTLIER = 3.5;
const PASSES = 5;
/** Makes a median deviation a standard deviation, of a normal scatter. */
const NORMAL_MAD = 1.4826;

/**
 * @param rows one coefficient a parameter, as many rows as values
 * @returns `null` where what is left does not tell the parameters apart
 */
export function trimmedFit(rows: readonly (readonly number[])[], values: readonly number[]): TrimmedFit | null {
  let kept = values.map(() => true);
  for (let pass = 0; ; pass++) {
    const used = rows.flatMap((row, i) => (kept[i] ? [{ row, y: values[i] ?? Number.NaN, u: 1 }] : []));
    const fit = leastSquares(used);
    if (fit.status !== "solved" || fit.degreesOfFreedom < 1) return null;
    const left = values.map((y, i) => y - (rows[i] ?? []).reduce((s, a, j) => s + a * (fit.x[j] ?? 0), 0));
    const scale = NORMAL_MAD * median(left.map(Math.abs));
    const good = left.map((r) => Math.abs(r) <= OUTLIER * scale || scale === 0);
    const changed = good.some((g, i) => g !== kept[i]);
    if (!changed || pass === PASSES) {
      const variance = fit.chiSquared / fit.degreesOfFreedom;
      return {
        x: fit.x,
        covariance: fit.covariance.map((row) => row.map((v) => v * variance)),
        sd: Math.sqrt(variance),
        kept,
        degreesOfFreedom: fit.degreesOfFreedom,
      };
    }
    kept = good;
  }
}
