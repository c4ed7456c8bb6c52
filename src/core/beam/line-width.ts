/** The width of the line at one height, as it was read. */

import { mean } from "../fitting/repeats";
import { type Gauge, readingUncertaintyMm } from "../metrology/gauge";
import { type Answer, quantitiesAt } from "../trial/answer";
import { type LadderCell, WIDTH_SCATTER } from "./width-fit";
import type { LineRun } from "./width-model";

/** Taken for a gauge of which nothing is known, mm. */
const PLACING_MM = 0.02;

/**
 * @param site where the width of that line was asked for
 * @returns `null` = not read yet; nothing between the jaws is no width, but no mark
 */
export function lineWidth(
  zMm: number,
  site: string,
  answers: readonly Answer[],
  gauges: readonly Gauge[],
  run: LineRun = "x",
): LadderCell | null {
  const here = answers.filter((a) => a.site === site && a.content.status === "read" && !a.imagined);
  if (here.length === 0) return null;
  const widthMm = mean(quantitiesAt(here, site));
  if (!(widthMm > 0)) return { zMm, run, status: "unmarked" };
  // What a gauge always reads wrong widens all lines alike and moves no focus. What was read in a picture says its own.
  const squares = here.map(({ u, gauge }) => {
    const known = gauges.find((g) => g.id === gauge);
    return (u ?? (known ? readingUncertaintyMm(known) : PLACING_MM)) ** 2 + (WIDTH_SCATTER * widthMm) ** 2;
  });
  return { zMm, run, status: "marked", widthMm, u: Math.sqrt(mean(squares) / here.length) };
}
