/** Loss of a cell against the best, with its uncertainty: from the response, or from the repeatability of the eye. */
import { elementAt } from "../../fitting/element-at";
import { EYE_SD } from "../../marking/array-fit";
import { type Budgeted, joined } from "../../metrology/budget";
import { type Found, sameSettings } from "./found";
import { WAYS } from "./ways";

/** Half width of the middle 95 of 100, in SD of a normal distribution. */
export const HALF_95 = 1.96;
/** Smaller losses are not visible. */
const LEAST_SD = 1e-4;

/** @param index of a cell of the answer */
export function shortOf(found: Found, index: number): Budgeted {
  return found.by === "taps" ? shortByEye(found, index) : shortByResponse(found, index);
}

/** The expanded uncertainty reaches to the loss, or to the chance of failing, that holds in 95 of 100 responses. */
function shortByResponse({ answer, by }: Found, index: number): Budgeted {
  const { mean, most } = elementAt(answer.short, index);
  return joined(mean, [
    {
      id: "response",
      label: WAYS[by].scatter,
      kind: "A",
      standardUncertainty: Math.max(LEAST_SD, (most - mean) / HALF_95),
      degreesOfFreedom: "infinite",
    },
  ]);
}

/**
 * A tap has no size. A tapped cell counts as 0 short, any other cell as 2 SD of the eye. The eye judges two cells, the best one and this one, so the SD
 * is that of a difference. Taps of several burns are independent.
 */
function shortByEye({ reads }: Found, index: number): Budgeted {
  const { settings } = elementAt(reads, index).cell;
  const judged = reads.filter((r) => r.score !== null && sameSettings(r.cell.settings, settings));
  const isGood = (judged.at(-1)?.score ?? 0) > 0;
  const tapped = Math.max(1, judged.filter((r) => (r.score ?? 0) > 0).length);
  return joined(isGood ? 0 : 2 * EYE_SD, [
    {
      id: "eye",
      label: WAYS.taps.scatter,
      kind: "B",
      standardUncertainty: (Math.SQRT2 * EYE_SD) / Math.sqrt(tapped),
      degreesOfFreedom: "infinite",
    },
  ]);
}
