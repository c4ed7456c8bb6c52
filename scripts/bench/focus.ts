/** What is promised of the focus by widths, on practice beams drawn by chance. The errors that were simulated stand beside it. */
import { FEWEST_CELLS, fitWidths } from "../../src/core/beam/width-fit";
import {
  burnedLadder,
  focusSweep,
  type HeadResult,
  headFromSeed,
  LADDER_ERRORS,
} from "../../src/testing/rehearsal/focus-accuracy";
import { ladderCoverage } from "../../src/testing/rehearsal/focus-ladder";
import { above, below, between, type Line } from "./line";
import { median } from "./timing";

const HEADS = 300;
const SEEDS = [1000, 5001];
const PRACTICE = { first: 140_000, count: 400 };
const TIMED_HEADS = 20;

export function focusAccuracy(): Line[] {
  const { share, floorMm, astigmatism } = LADDER_ERRORS;
  const errors = `widths ${100 * share} % + ${floorMm} mm, axes apart ${100 * astigmatism} % of the focal depth, strength 1.6 to 25`;
  const sweeps = SEEDS.map((from) => focusSweep(Array.from({ length: HEADS }, (_, i) => from + i)));
  const all = sweeps.flatMap(answered);
  const held = (100 * all.filter((h) => h.covered).length) / all.length;
  const marked = sweeps.flat().filter((h) => h.marked >= FEWEST_CELLS).length;
  return [
    ...sweeps.flatMap((sweep, i) =>
      errorsOf(answered(sweep), i === 0 ? ` (${HEADS} heads; ${errors})` : ", second seeds"),
    ),
    {
      what: "the same, both, on stock without any texture: 95 % intervals that hold the truth",
      ...above(held, 93, "%"),
    },
    onPractice(),
    {
      what: `the same, both: heads with an answer, of those on which ${FEWEST_CELLS} cells or more marked`,
      ...above((100 * all.length) / marked, 95, "%"),
    },
    ...firstAndLast(sweeps.flat()),
    fitTime(),
  ];
}

/** With the texture of the stock, which limits what widths tell. */
function onPractice(): Line {
  const { told, held } = ladderCoverage(PRACTICE.first, PRACTICE.count);
  return {
    what: `focus by widths on ${told} practice gantries (texture, height set by hand, backlash of the screw, scatter and common error of the widths): 95 % intervals that hold the truth`,
    ...between((100 * held) / told, 93, 97, "%"),
  };
}

/** In steps: its edges lie somewhere within one each. */
function firstAndLast(heads: readonly HeadResult[]): Line[] {
  const errors = heads.flatMap((h) => (h.byRange === null ? [] : [h.byRange]));
  const rms = Math.sqrt(errors.reduce((sum, e) => sum + e * e, 0) / errors.length);
  return [{ what: `focus by first and last, both: rms (${errors.length} heads)`, ...below(rms, 0.25, "step") }];
}

function answered(heads: readonly HeadResult[]): HeadResult[] {
  return heads.filter((h) => h.error !== null && h.marked >= FEWEST_CELLS);
}

function errorsOf(heads: readonly HeadResult[], words: string): Line[] {
  const sizes = heads.map((h) => Math.abs(h.error ?? Number.NaN)).sort((a, b) => a - b);
  const rms = Math.sqrt(sizes.reduce((sum, e) => sum + e * e, 0) / sizes.length);
  return [
    { what: `focus by widths, median error${words}`, ...below(sizes[sizes.length >> 1] ?? Number.NaN, 0.03, "mm") },
    { what: "the same, rms", ...below(rms, 0.08, "mm") },
  ];
}

function fitTime(): Line {
  const ladders = Array.from({ length: TIMED_HEADS }, (_, i) => {
    const { head, random } = headFromSeed(i + 1);
    return { cells: burnedLadder(head, random), p: head.stock.addsUp ? (1 as const) : (2 as const) };
  });
  const all = () => {
    for (const { cells, p } of ladders) fitWidths(cells, p);
  };
  median(5, all);
  return {
    what: "fit the widths of 33 cells, from twelve starts, warm",
    ...below(median(9, all) / TIMED_HEADS, 5, "ms"),
  };
}
