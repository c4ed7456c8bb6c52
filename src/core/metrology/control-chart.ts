/**
 * Individuals and moving-range chart: has a number that is found again and again begun to drift?
 *
 *   centre = mean x,  MR = mean |x_i - x_(i-1)|,  limits = centre +- 2.66 MR,  range limit = 3.267 MR
 *
 * 2.66 = 3/1.128 and 3.267 for ranges of two. [NIST/SEMATECH e-Handbook of Statistical Methods, 6.3.2.2] The mean range is not
 * let below what readings with the stated u scatter by alone, 1.128 u, so that a lucky quiet stretch raises no alarm.
 */
import { elementAt } from "../fitting/element-at";
import { mean } from "../fitting/repeats";

const INDIVIDUALS = 2.66;
const RANGES = 3.267;
/** Expected range of two, in standard deviations. */
const RANGE_OF_TWO = 1.128;
/** Limits from fewer points mean little. */
export const CHART_FROM_POINTS = 10;
/** So many in a row on one side of the centre are no chance. [ibid., 6.3.2, Western Electric rules] */
const RUN_LENGTH = 8;

export type ControlChart = {
  centre: number;
  low: number;
  high: number;
  meanRange: number;
  rangeLimit: number;
  /** |x_i - x_(i-1)|, one fewer than the points. */
  ranges: number[];
  /** Indices of points beyond the limits. */
  beyond: number[];
  /** Whether the newest points lie so long on one side of the centre that this is no chance. */
  run: boolean;
};

/**
 * @param values in the order of their dates
 * @param u standard uncertainty of one value, the floor of its scatter
 * @returns `null` below ten values
 */
export function controlChart(values: readonly number[], u: number): ControlChart | null {
  if (values.length < CHART_FROM_POINTS) return null;
  const ranges = values.slice(1).map((x, i) => Math.abs(x - elementAt(values, i)));
  const centre = mean(values);
  const meanRange = Math.max(mean(ranges), RANGE_OF_TWO * u);
  const low = centre - INDIVIDUALS * meanRange;
  const high = centre + INDIVIDUALS * meanRange;
  const newest = values.slice(-RUN_LENGTH);
  return {
    centre,
    low,
    high,
    meanRange,
    rangeLimit: RANGES * meanRange,
    ranges,
    beyond: values.flatMap((x, i) => (x < low || x > high ? [i] : [])),
    run: newest.every((x) => x > centre) || newest.every((x) => x < centre),
  };
}
