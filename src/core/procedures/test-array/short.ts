/** What a cell lacks against the best, as a quantity with its uncertainty: by the response, or by what an eye can tell apart. */
import { elementAt } from "../../fitting/element-at";
import { EYE_SD } from "../../marking/array-answer";
import { type Budgeted, joined } from "../../metrology/budget";
import { type Found, sameSettings } from "./found";

/** Half width of the middle 95 of 100, in SD of a normal distribution. */
export const HALF_95 = 1.96;
/** Nobody can see less. */
const LEAST_SD = 1e-4;

/** @param index of a cell of the answer */
export function shortOf(found: Found, index: number): Budgeted {
  return found.by === "taps" ? shortByEye(found, index) : shortByResponse(found, index);
}

/** The uncertainty reaches to what the cell lacks at most in 95 of 100 responses. */
function shortByResponse({ answer, by }: Found, index: number): Budgeted {
  const { mean, most } = elementAt(answer.short, index);
  return joined(mean, [
    {
      id: "response",
      label: by === "pairs" ? "What the pairs leave possible" : "Scatter of the scores about the response",
      kind: "A",
      standardUncertainty: Math.max(LEAST_SD, (most - mean) / HALF_95),
      degreesOfFreedom: "infinite",
    },
  ]);
}

/**
 * Taps have no size: a cell that was tapped lacks nothing that the eye could tell, one that was not lacks what it can. The best and the cell
 * beside it are both judged, so that the SD is that of a difference. Each burn is judged anew.
 */
function shortByEye({ reads }: Found, index: number): Budgeted {
  const { settings } = elementAt(reads, index).cell;
  const judged = reads.filter((r) => r.score !== null && sameSettings(r.cell.settings, settings));
  const isGood = (judged.at(-1)?.score ?? 0) > 0;
  const tapped = Math.max(1, judged.filter((r) => (r.score ?? 0) > 0).length);
  return joined(isGood ? 0 : 2 * EYE_SD, [
    {
      id: "eye",
      label: "Repeatability of the eye, 4 % for one cell",
      kind: "B",
      standardUncertainty: (Math.SQRT2 * EYE_SD) / Math.sqrt(tapped),
      degreesOfFreedom: "infinite",
    },
  ]);
}
