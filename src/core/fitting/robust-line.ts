/**
 * A line that one bad point does not pull away, and the points that stand far off it.
 *
 * Slope = median of all pairwise slopes, intercept = median of y - slope x [Sen, JASA 63 (1968) 1379]. A point is flagged
 * beyond 3.5 times max(1.4826 MAD, u of a reading): the u keeps a clean small set from flagging its own noise.
 */
export const FLAG_FROM_POINTS = 5;
const FLAG_BEYOND = 3.5;
const MAD_TO_SD = 1.4826;

export type RobustLine = {
  intercept: number;
  slope: number;
  /** Indices of points that stand off the line; empty below five points. */
  flagged: number[];
};

/**
 * @param points at least two with different x; u = standard uncertainty of y
 * @throws RangeError when all x are equal
 */
export function robustLine(points: readonly { x: number; y: number; u: number }[]): RobustLine {
  const slopes = points.flatMap((p, i) =>
    points
      .slice(i + 1)
      .filter((q) => q.x !== p.x)
      .map((q) => (q.y - p.y) / (q.x - p.x)),
  );
  if (slopes.length === 0) throw new RangeError("points: two different x are needed");
  const slope = median(slopes);
  const intercept = median(points.map((p) => p.y - slope * p.x));
  const off = points.map((p) => Math.abs(p.y - intercept - slope * p.x));
  const spread = MAD_TO_SD * median(off);
  const flagged =
    points.length < FLAG_FROM_POINTS
      ? []
      : points.flatMap((p, i) => ((off[i] ?? Number.NaN) > FLAG_BEYOND * Math.max(spread, p.u) ? [i] : []));
  return { intercept, slope, flagged };
}

/** Middle value; mean of the two middle ones when their number is even. */
export function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  const middle = sorted.length >> 1;
  return sorted.length % 2 === 1
    ? (sorted[middle] ?? Number.NaN)
    : ((sorted[middle - 1] ?? Number.NaN) + (sorted[middle] ?? Number.NaN)) / 2;
}
