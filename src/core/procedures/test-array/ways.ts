/** The ways in which cells are judged, and what is said of each. */
import { plain } from "../../metrology/quantity-text";
import type { UnitId } from "../../metrology/units";
import type { TestArrayPlan } from "./plan";

/** Taps, comparisons and yes or no have no size. */
export type Way = "scores" | "taps" | "comparisons" | "yes or no" | "colour";

export function wayOf({ score }: Pick<TestArrayPlan, "score">): Way {
  if (score === "eye") return "taps";
  return score === "comparisons" || score === "yes or no" || score === "colour" ? score : "scores";
}

type Words = {
  /** Unit of the loss of a cell, and the loss in a sentence, ± its uncertainty. */
  unit: UnitId;
  size(value: number, uncertainty?: number): string;
  /** The loss of the chosen cell: as a result, on the card, and in a verdict. */
  result: string;
  card: string;
  verdict(size: string): string;
  /** @param most the loss that holds in 95 of 100 */
  expect(most: string): string;
  arithmetic(most: string): string;
  scatter: string;
  helps: string;
  /** Before the name of a setting. */
  best: string;
  /** The chosen cell, and how it was chosen. */
  chosen: string;
  chosenBy: string;
  table: string;
  figure: { title: string; framed: string; asGood: string };
  /** Why another array, a finer one, comes next. @param most as above */
  finer(most: string): string;
  prove: string;
  proved: string;
  notProved: string;
};

const percent = (value: number, uncertainty?: number) => `${sizeText(value, uncertainty)} %`;

function sizeText(value: number, uncertainty?: number): string {
  const size = plain(100 * value, 1);
  return uncertainty === undefined ? size : `${size} ± ${plain(100 * uncertainty, 1)}`;
}

const SCORES: Words = {
  unit: "percent",
  size: percent,
  result: "Chosen cell short of the best",
  card: "Short of the best",
  verdict: (size) => `The chosen cell is ${size} short of the best`,
  expect: (most) => `Expect at most ${most} less than the best of these settings.`,
  arithmetic: (most) => `In 95 of 100 responses that fit the scores, the best is at most ${most} above this cell.`,
  scatter: "Scatter of the scores about the response",
  helps: "Burn a second array around the best cell.",
  best: "Best",
  chosen: "best cell",
  chosenBy: "has the largest expected score",
  table: "of the best, %",
  figure: { title: "Expected score, share of the best", framed: "best point", asGood: "as good as the best" },
  finer: (most) => `The chosen cell may be ${most} short of the best. The next array is finer.`,
  prove: "Burn the chosen cell with its neighbours. The chosen cell should be as good as its best neighbour.",
  proved: "Proved: no neighbour is better than the chosen settings.",
  notProved: "Another cell is better. Store the settings of that cell, then burn another proof.",
};

export const WAYS: Readonly<Record<Way, Words>> = {
  scores: SCORES,
  taps: {
    ...SCORES,
    arithmetic: (most) =>
      `The eye judges one cell with a repeatability of 4 %. The chosen cell is at most ${most} short of the best.`,
    scatter: "Repeatability of the eye, 4 % for one cell",
    helps: "Score the array from a scan.",
  },
  comparisons: {
    ...SCORES,
    arithmetic: (most) =>
      `In 95 of 100 responses that fit the comparisons, the best compared cell is at most ${most} above this cell.`,
    scatter: "Scatter of the comparisons",
    helps: "Make more comparisons.",
  },
  "yes or no": {
    ...SCORES,
    result: "Chance that the chosen cell fails",
    card: "Chance of failing",
    verdict: (size) => `The chosen cell fails with a chance of ${size}`,
    expect: (most) => `Expect at most ${most} of the marks to fail.`,
    arithmetic: (most) =>
      `In 95 of 100 responses that fit the outcomes, this cell fails with a chance of at most ${most}.`,
    scatter: "Cells near the limit that pass or fail",
    helps: "Burn the chosen cell and its neighbours again.",
    best: "Fastest that passes:",
    chosen: "fastest cell that passes",
    chosenBy: "is the fastest that passes with certainty, or the surest if none does",
    table: "passes, %",
    figure: {
      title: "Chance that a cell passes",
      framed: "fastest point that passes",
      asGood: "passes with certainty",
    },
    finer: () => "No cell passes with certainty yet. The next array is finer.",
    prove: "Burn the chosen cell with its neighbours. The chosen cell should pass, and all stronger ones.",
    proved: "Proved: the chosen settings pass.",
    notProved: "The chosen cell fails too often. Choose a slower or stronger cell, then burn another proof.",
  },
  colour: {
    ...SCORES,
    unit: "colourDifference",
    size: (value, uncertainty) => `ΔE ${sizeText(value, uncertainty)}`,
    result: "Chosen cell beyond the nearest colour",
    card: "Beyond the nearest colour",
    verdict: (size) => `The chosen cell is ${size} beyond the nearest colour`,
    expect: (most) => `Expect a colour at most ${most} beyond the nearest to the wanted one.`,
    arithmetic: (most) =>
      `In 95 of 100 responses that fit the colours, the nearest colour is at most ${most} nearer than this cell.`,
    scatter: "Scatter of the colours about the response",
    best: "Nearest colour:",
    chosen: "nearest colour",
    chosenBy: "has the smallest expected difference from the wanted colour",
    table: "expected, ΔE",
    figure: { title: "Nearness to the wanted colour", framed: "nearest colour", asGood: "within ΔE 2 of the nearest" },
    finer: (most) => `The chosen cell may be ${most} beyond the nearest colour. The next array is finer.`,
    prove: "Burn the chosen cell with its neighbours. No neighbour should be nearer to the wanted colour.",
    proved: "Proved: no neighbour is nearer to the wanted colour.",
    notProved: "Another cell is nearer. Store the settings of that cell, then burn another proof.",
  },
};
