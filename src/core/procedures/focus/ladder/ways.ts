/** The ways in which a ladder tells its focus, each with its uncertainty budget. */

import { type BeamFit, fitBeam } from "../../../beam/beam-widths";
import { dosePower } from "../../../beam/mark-width-law";
import { fitWidths, type WidthFit } from "../../../beam/width-fit";
import { elementAt } from "../../../fitting/element-at";
import { endOfSharpest, type MarkedRange, middleOfMarked, middleOfSharpest } from "../../../measuring/judged-cells";
import { plain } from "../../../metrology/quantity-text";
import type { History, RoundRecord } from "../../../trial/history";
import { GO_BY, ranked, type Way, withSetting } from "../found";
import { type LadderPlan, settingUncertainty } from "../plan";
import { type LadderReadings, ladderRounds, readLadder } from "./read-ladder";

export type Ladder = {
  readings: LadderReadings;
  range: MarkedRange | null;
  /** Of the widths of marks. */
  fit: WidthFit | null;
  /** Of the widths of the beam itself. */
  beam: BeamFit | null;
  /** The end beyond which a sharper cell may follow. */
  sharpestAtEnd: "before the first" | "beyond the last" | null;
  ways: Way[];
  chosen: Way | null;
};

export function ladderOf(history: History<LadderPlan>, round: RoundRecord<LadderPlan>): Ladder {
  const readings = readLadder(history, ladderRounds(history, round));
  const { cells, marked, looks, widths } = readings;
  const heights = cells.map((c) => c.heightMm);
  const range = marked ? markedRange(readings, marked) : null;
  const { fit, beam } = fitsOf(widths, round.plan, history.machine.wavelengthNm);
  const ways: Way[] = [];
  const fitted = fit?.status === "solved" ? fit : beam?.status === "solved" ? beam : null;
  const waists = fit?.status === "solved" ? fit.waists : null;
  if (fitted)
    ways.push({
      id: "widths",
      label: waists ? "By the widths, middle of both directions" : "By the widths",
      found: withSetting(fitted.z0, "A", "Widths and how they scatter", round.plan),
      helps: null,
      sum: `fitted to ${widths.filter((w) => w.status === "marked").length} widths: ${plain(fitted.z0.value, 2)}`,
    });
  for (const run of waists ? (["x", "y"] as const) : []) {
    const waist = waists?.[run];
    if (waist)
      ways.push({
        id: `widths ${run}`,
        label: `By the widths of lines along ${run.toUpperCase()}`,
        helps: null,
        onRequest: true,
        found: withSetting(waist, "A", "Widths and how they scatter", round.plan),
        sum: `fitted to lines along ${run.toUpperCase()}: ${plain(waist.value, 2)}`,
      });
  }
  if (marked && range?.status === "solved")
    ways.push({
      id: "marked",
      label: "By first and last",
      found: withSetting(range.z0, "B", "Edges of the marked range, within a step", round.plan),
      helps: "Burn a ladder with a smaller step, as in the proof.",
      sum: `(${plain(elementAt(heights, marked.first))} + ${plain(elementAt(heights, marked.last))}) ÷ 2 = ${plain(range.z0.value, 3)}`,
    });
  const sharpestAtEnd = endOfSharpest(heights, looks);
  if (looks.length > 0 && !sharpestAtEnd) {
    const sharpest = middleOfSharpest(heights, looks);
    const middles = looks.map(([a, b]) => plain((elementAt(heights, a) + elementAt(heights, b)) / 2, 2));
    ways.push({
      id: "sharpest",
      label: "By the sharpest",
      found: withSetting(sharpest, "A", "Width of a step, and the eye", round.plan),
      helps: "Choose again on another day, or ask another person.",
      sum: `middle of ${middles.join(", ")}: ${plain(sharpest.value, 3)}`,
    });
  }
  return { readings, range, fit, beam, sharpestAtEnd, ...ranked(ways, GO_BY.of(history.decisions)) };
}

/** Only cells of which it is said whether they marked are evidence of where the range ends. */
function markedRange({ cells, marks }: LadderReadings, { first, last }: { first: number; last: number }): MarkedRange {
  const judged = cells.filter((_, i) => marks[i] !== null);
  const at = (i: number) => judged.indexOf(elementAt(cells, i));
  return middleOfMarked(
    judged.map((c) => c.heightMm),
    at(first),
    at(last),
  );
}

function fitsOf(
  widths: LadderReadings["widths"],
  plan: LadderPlan,
  wavelengthNm: number,
): Pick<Ladder, "fit" | "beam"> {
  const read = widths.flatMap((w) => (w.status === "marked" ? [w] : []));
  if (read.length === 0) return { fit: null, beam: null };
  if (plan.doses === "beam") return { fit: null, beam: fitBeam(read, wavelengthNm * 1e-6) };
  return { fit: fitWidths(widths, dosePower(plan), settingUncertainty(plan)), beam: null };
}

/** On which side the ladder ended too early; `null` where it did not, or that cannot be told. */
export function shortSide({
  range,
  fit,
  beam,
  sharpestAtEnd,
}: Ladder): "before the first" | "beyond the last" | "both sides" | null {
  if (range?.status === "too short") return range.side;
  const widths = fit ?? beam;
  if (sharpestAtEnd && widths?.status !== "solved" && range?.status !== "solved") return sharpestAtEnd;
  if (widths?.status !== "cannot tell") return null;
  if (widths.reason === "focus beyond the first") return "before the first";
  return widths.reason === "focus beyond the last" ? "beyond the last" : null;
}
