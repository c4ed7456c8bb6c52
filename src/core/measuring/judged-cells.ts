/**
 * Focus from what is seen of the cells: the first and the last that marked, or the sharpest.
 *
 * First and last: each edge of the marked range lies somewhere within a step, and an eye misjudges one edge in seven by a cell: the
 * middle is known to step sqrt((1/12 + 0.15)/2). Only where a cell beyond each did not mark: a ladder that ends inside the range says
 * nothing of its middle.
 * Sharpest: somewhere within half a step of the cell that was chosen, of all that were called equally sharp; and the eye scatters,
 * by 0.3 to 0.6 of a step where the focus is deep (common practice, no source), so judging again makes it better.
 */
import { mean, pooled } from "../fitting/repeats";
import { effectiveFreedom } from "../fitting/student-t";
import { type Measured, measured } from "../metrology/measured";

/** Scatter of choosing, in steps, before anybody chose twice, and how many judgements that is worth. */
const EYE = { steps: 0.45, freedom: 2 };

/** Share of edges that an eye misjudges by a cell. (common practice, no source) */
const MISJUDGED = 0.15;

export type MarkedRange =
  | { status: "solved"; z0: Measured }
  /** Go on there: the cell at that end marked. */
  | { status: "too short"; side: "before the first" | "beyond the last" | "both sides" };

/**
 * @param heights of all cells, rising, mm
 * @param first,last indices of the first and the last cell that marked
 * @throws RangeError when they are no cells, or last lies before first
 */
export function middleOfMarked(heights: readonly number[], first: number, last: number): MarkedRange {
  const [low, high] = [heights[first], heights[last]];
  if (low === undefined || high === undefined || last < first) throw new RangeError("first, last: no such cells");
  const [isOpenLow, isOpenHigh] = [first === 0, last === heights.length - 1];
  if (isOpenLow && isOpenHigh) return { status: "too short", side: "both sides" };
  if (isOpenLow) return { status: "too short", side: "before the first" };
  if (isOpenHigh) return { status: "too short", side: "beyond the last" };
  const u = stepOf(heights) * Math.sqrt((1 / 12 + MISJUDGED) / 2);
  return { status: "solved", z0: measured((low + high) / 2, u, Infinity) };
}

/**
 * @param runs one a judgement: first and last index of the cells that were called equally sharp, the same for one cell
 * @throws RangeError when there is no judgement, or no such cell
 */
export function middleOfSharpest(heights: readonly number[], runs: readonly (readonly [number, number])[]): Measured {
  if (runs.length === 0) throw new RangeError("runs: there must be at least one");
  const step = stepOf(heights);
  const brackets = runs.map(([first, last]) => {
    const [low, high] = [heights[first], heights[last]];
    if (low === undefined || high === undefined || last < first) throw new RangeError("runs: no such cells");
    return { middle: (low + high) / 2, width: high - low + step };
  });
  const count = brackets.length;
  const middles = brackets.map((b) => b.middle);
  const { sd, freedom } = pooled([middles], { sd: EYE.steps * step, freedom: EYE.freedom });
  const eye = sd / Math.sqrt(count);
  // The cells stand where they stand, however often they are judged.
  const bracket = mean(brackets.map((b) => b.width)) / Math.sqrt(12);
  return measured(
    mean(middles),
    Math.hypot(bracket, eye),
    effectiveFreedom([
      { u: bracket, degreesOfFreedom: Infinity },
      { u: eye, degreesOfFreedom: freedom },
    ]),
  );
}

/**
 * The end of the ladder at which the sharpest cell is. A sharper cell may follow beyond this end, so the cell does not give the focus.
 *
 * @param runs as for {@link middleOfSharpest} @returns `null` if the sharpest cell is inside the ladder
 */
export function endOfSharpest(
  heights: readonly number[],
  runs: readonly (readonly [number, number])[],
): "before the first" | "beyond the last" | null {
  const [low, high] = [heights[0], heights[heights.length - 1]];
  if (runs.length === 0 || low === undefined || high === undefined) return null;
  const middle = middleOfSharpest(heights, runs).value;
  const atEnd = (end: number) => runs.filter(([first, last]) => first === end || last === end).length * 2 > runs.length;
  if (middle < low + stepOf(heights) / 2 || atEnd(0)) return "before the first";
  return middle > high - stepOf(heights) / 2 || atEnd(heights.length - 1) ? "beyond the last" : null;
}

/** Between neighbouring cells, mm. */
function stepOf(heights: readonly number[]): number {
  const [first = 0, last = 0] = [heights[0], heights[heights.length - 1]];
  return (last - first) / (heights.length - 1);
}
