/** Test arrays: loss of the chosen cell on random stocks, and times of layout, files, scores and response. */

import { USUAL_DIALECT } from "../../src/core/machine/gcode-dialect";
import { answerOf } from "../../src/core/marking/array-answer";
import type { ScoredCell } from "../../src/core/marking/array-given";
import { spaced } from "../../src/core/marking/cell-settings";
import { type ArrayLook, readArray } from "../../src/core/picture/array/read-array";
import type { GreyPicture } from "../../src/core/picture/grey-picture";
import { arrayCells } from "../../src/core/procedures/test-array/cells";
import { testArrayRound } from "../../src/core/procedures/test-array/coupon";
import type { TestArrayPlan } from "../../src/core/procedures/test-array/plan";
import { testArrayPlan } from "../../src/core/procedures/test-array/plan-faults";
import { gcodeOf } from "../../src/formats/gcode-writer";
import { svgOf } from "../../src/formats/svg-writer";
import { seeded } from "../../src/practice/random";
import { stockResponse } from "../../src/practice/stock-response";
import { type ArrayTrial, arrayTrial } from "../../src/testing/rehearsal/array-accuracy";
import { colourTrial } from "../../src/testing/rehearsal/coloured-array";
import {
  comparisonTrial,
  energyTrial,
  eyeTrial,
  type PassTrial,
  passTrial,
} from "../../src/testing/rehearsal/judged-array";
import { SAMPLE_MACHINE, SAMPLE_STOCK } from "../../src/testing/sample-machine";
import { typedPlan } from "../../src/testing/typed-plan";
import { above, below, type Line } from "./line";
import { median } from "./timing";

const SEEDS = Array.from({ length: 300 }, (_, i) => i);
const STOCKS =
  "300 stocks of six kinds; surface 4 % of the best mark (SD), half of it a texture over 1.6 cells; second array on another batch, 4 % off in power and speed, 5 % in darkness";

type Goals = {
  side: number;
  /** Shares of stocks, %. */
  chosen: number;
  second: { five: number; two: number };
  /** The bound that is said holds in this share, and is on average this much, %. */
  holds: number;
  mean: number;
  yes: number;
  no: number;
};
const GOALS: readonly Goals[] = [
  { side: 10, chosen: 95, second: { five: 97, two: 94 }, holds: 92, mean: 4, yes: 80, no: 90 },
  { side: 7, chosen: 90, second: { five: 97, two: 93 }, holds: 92, mean: 6, yes: 70, no: 90 },
  { side: 5, chosen: 88, second: { five: 95, two: 85 }, holds: 88, mean: 8, yes: 45, no: 85 },
];

export function array(): Line[] {
  return [...GOALS.flatMap(accuracyOf), ...byEye(), ...byComparisons(), ...byYesOrNo(), ...byColour()];
}

/** Times come first, while nothing else was worked out yet. */
export function energyAndTimes(): Line[] {
  return [...times(), ...GOALS.flatMap(energyOf)];
}

function accuracyOf({ side, chosen, second, holds, mean }: Goals): Line[] {
  const trials = SEEDS.map((seed) => arrayTrial(seed, side, true));
  const share = (is: (t: ArrayTrial) => boolean, of: readonly ArrayTrial[] = trials) =>
    (100 * of.filter(is).length) / of.length;
  const name = `${side} × ${side}`;
  const called = trials.reduce((sum, t) => sum + t.asGood.called, 0);
  const inside = trials.filter((t) => t.edge.is === false);
  return [
    {
      what: `${name}: the chosen cell loses at most 5 % of the best burned one (${STOCKS})`,
      ...above(
        share((t) => t.lacks.burned <= 0.05),
        chosen,
        "%",
      ),
    },
    {
      what: `${name}: the stated bound of its loss holds`,
      ...above(
        share((t) => t.lacks.array <= t.short),
        holds,
        "%",
      ),
    },
    {
      what: `${name}: the stated bound of its loss, mean`,
      ...below((100 * trials.reduce((s, t) => s + t.short, 0)) / trials.length, mean, "%"),
    },
    {
      what: `${name}: share of the cells called as good that are within 2 % (${called} cells)`,
      ...above((100 * trials.reduce((s, t) => s + t.asGood.right, 0)) / Math.max(1, called), 95, "%"),
    },
    {
      what: `${name}: best at the edge found`,
      ...above(
        share(
          (t) => t.edge.said,
          trials.filter((t) => t.edge.is === true),
        ),
        93,
        "%",
      ),
    },
    {
      what: `${name}: best said to be at the edge where it is inside`,
      ...below(
        share((t) => t.edge.said, inside),
        8,
        "%",
      ),
    },
    {
      what: `${name}: after the second array the fitted point loses at most 5 % of the best of the machine`,
      ...above(
        share((t) => (t.second ?? 1) <= 0.05),
        second.five,
        "%",
      ),
    },
    {
      what: `${name}: at most 2 %`,
      ...above(
        share((t) => (t.second ?? 1) <= 0.02),
        second.two,
        "%",
      ),
    },
  ];
}

function byEye(): Line[] {
  const trials = SEEDS.map((seed) => eyeTrial(seed, 10));
  const share = (of: (t: (typeof trials)[number]) => number) =>
    (100 * trials.filter((t) => of(t) <= 0.1).length) / trials.length;
  const eye = "10 × 10 by an eye with a repeatability of 4 %: at most 10 % lost";
  return [
    {
      what: `${eye} by the picked cell`,
      ...above(
        share((t) => t.picked),
        82,
        "%",
      ),
    },
    {
      what: `${eye} by the tapped range`,
      ...above(
        share((t) => t.tapped),
        86,
        "%",
      ),
    },
  ];
}

function byComparisons(): Line[] {
  const trials = SEEDS.slice(0, 120).map((seed) => comparisonTrial(seed, 10, 20));
  const share = (is: (t: (typeof trials)[number]) => boolean) => (100 * trials.filter(is).length) / trials.length;
  const compared = "10 × 10 by 20 comparisons of the same eye (120 stocks)";
  return [
    {
      what: `${compared}: at most 10 % lost`,
      ...above(
        share((t) => t.lacks <= 0.1),
        85,
        "%",
      ),
    },
    {
      what: `${compared}: the stated bound holds`,
      ...above(
        share((t) => t.lacks <= t.most),
        88,
        "%",
      ),
    },
  ];
}

function byYesOrNo(): Line[] {
  const trials = SEEDS.slice(0, 120).flatMap((seed) => {
    const of = passTrial(seed, 7);
    return of.length > 0 ? [of] : [];
  });
  const last = trials.flatMap((t) => t.slice(-1));
  const sure = last.filter((t) => t.isSure);
  const share = (of: readonly PassTrial[], is: (t: PassTrial) => boolean) => (100 * of.filter(is).length) / of.length;
  const name = `7 × 7, yes or no by the same eye (${trials.length} stocks)`;
  return [
    {
      what: `${name}: passes in 95 of 100 where a cell is called sure (${sure.length})`,
      ...above(
        share(sure, (t) => t.fails <= 0.05),
        88,
        "%",
      ),
    },
    {
      what: `${name}: the stated chance of failing holds`,
      ...above(
        share(last, (t) => t.fails <= t.most),
        86,
        "%",
      ),
    },
  ];
}

function byColour(): Line[] {
  const trials = SEEDS.slice(0, 120).map((seed) => colourTrial(seed, 7));
  const name = "7 × 7 of coloured steel (120 arrays)";
  const mean = trials.reduce((sum, t) => sum + t.beyond, 0) / trials.length;
  const holds = (100 * trials.filter((t) => t.beyond <= t.most).length) / trials.length;
  return [
    { what: `${name}: chosen cell beyond the nearest colour, mean`, ...below(mean, 5, "ΔE") },
    { what: `${name}: the stated bound holds`, ...above(holds, 90, "%") },
  ];
}

/** Truly explained: cells of equal energy differ by less than 3 % of the best (rms). */
const LIMIT = 0.03;

function energyOf({ side, yes, no }: Goals): Line[] {
  const trials = SEEDS.map((seed) => energyTrial(seed, side));
  const explained = trials.filter((t) => t.differ < LIMIT);
  const others = trials.filter((t) => t.differ >= LIMIT);
  const far = trials.filter((t) => t.differ >= 2 * LIMIT);
  const share = (of: typeof trials, said: "yes" | "no") => (100 * of.filter((t) => t.said === said).length) / of.length;
  const name = `${side} × ${side}: energy verdict`;
  return [
    {
      what: `${name}: “yes” on ${explained.length} stocks where energy explains the marks within 3 %`,
      ...above(share(explained, "yes"), yes, "%"),
    },
    { what: `${name}: “no” on these stocks`, ...below(share(explained, "no"), 2, "%") },
    { what: `${name}: “no” on the other ${others.length} stocks`, ...above(share(others, "no"), no, "%") },
    { what: `${name}: “yes” on these stocks`, ...below(share(others, "yes"), 3, "%") },
    {
      what: `${name}: “no” on the ${far.length} stocks where cells of one energy differ by 6 % or more`,
      ...above(share(far, "no"), 95, "%"),
    },
  ];
}

const CONTEXT = { machine: SAMPLE_MACHINE, couponCode: "T-1", inForce: {}, stocks: [SAMPLE_STOCK] };

function times(): Line[] {
  const plan = large();
  const spec = testArrayRound(plan, CONTEXT);
  const [piece] = spec.pieces;
  if (!piece) throw new Error("the array has no piece");
  const options = { couponCode: "T-1", machineName: "T", dialect: USUAL_DIALECT };
  const cells = arrayCells(plan, SAMPLE_MACHINE).length;
  if (cells !== 400) throw new Error(`${cells} cells`);
  return [
    {
      what: "400 cells laid out",
      ...below(
        median(9, () => testArrayRound(plan, CONTEXT)),
        50,
        "ms",
      ),
    },
    {
      what: "400 cells as SVG",
      ...below(
        median(9, () => svgOf(piece)),
        200,
        "ms",
      ),
    },
    {
      what: "400 cells as G-code",
      ...below(
        median(3, () => gcodeOf(spec, options)),
        200,
        "ms",
      ),
    },
    { what: "400 cells scored from a picture of 35 megapixels", ...below(scoring() / 1000, 2, "s") },
    { what: "response of 100 cells", ...below(median(3, () => fitted(10)) / 1000, 2, "s") },
    { what: "response of 400 cells", ...below(median(1, () => fitted(20)) / 1000, 10, "s") },
  ];
}

function large(): TestArrayPlan {
  const values = (key: "speedMmPerS" | "powerPct", low: number, high: number) =>
    spaced(key, low, high, 20, "ratio").join(" ");
  const texts = {
    speedMmPerS: values("speedMmPerS", 30, 250),
    powerPct: values("powerPct", 8, 90),
    cellMm: "6",
    gapMm: "2.5",
    stockWidthMm: "220",
    stockHeightMm: "220",
  };
  return typedPlan(testArrayPlan(CONTEXT), texts);
}

function fitted(side: number): unknown {
  const random = seeded(3);
  const stock = stockResponse("ridge", random, 0.04);
  const at = (i: number) => (2 * i) / (side - 1) - 1;
  const cells = Array.from({ length: side * side }, (_, i): ScoredCell => {
    const place = { x: i % side, y: Math.floor(i / side) };
    const [x, y] = [at(place.x), at(place.y)];
    return { x, y, place, burn: 0, score: stock.quality({ power: x, speed: y }) + stock.surface(place, random) };
  });
  return answerOf({ cells, step: { x: at(1) - at(0), y: at(1) - at(0) }, blank: 0 });
}

const PX_PER_MM = 27;

/** Time to find and score 20 by 20 cells, ms. */
function scoring(): number {
  const [pitch, edge, cell] = [10.5, 4, 7];
  const side = 20 * pitch + 2 * edge;
  const cells = Array.from({ length: 400 }, (_, i) => {
    const [x0, y0] = [edge + (i % 20) * pitch + 2, edge + Math.floor(i / 20) * pitch + 2];
    return { x0, y0, x1: x0 + cell, y1: y0 + cell };
  });
  const [low, high] = [edge - 1, side - edge + 1];
  const dots = [
    { x: low, y: low },
    { x: high, y: low },
    { x: high, y: high },
    { x: low, y: high },
    { x: low + (high - low) / 4, y: low },
  ];
  const look: ArrayLook = { of: "darkness", cells, dots, radiusMm: 1.2, gapMm: pitch - cell };
  const picture = drawn(look, side);
  return median(3, () => {
    const read = readArray(picture, look);
    if (!read.ok || read.scores.some((s, i) => Math.abs((s ?? 9) - darkness(i)) > 0.02))
      throw new Error(read.ok ? "cells were misread" : read.why);
  });
}

const BLANK = 200;
const darkness = (i: number) => 0.05 + (0.8 * i) / 400;

function drawn({ cells, dots, radiusMm }: ArrayLook, sideMm: number): GreyPicture {
  const side = Math.round(sideMm * PX_PER_MM);
  const grey = new Uint8Array(side * side).fill(BLANK);
  const fill = (x0: number, y0: number, x1: number, y1: number, level: (x: number, y: number) => number) => {
    for (let y = Math.round(side - y1 * PX_PER_MM); y < Math.round(side - y0 * PX_PER_MM); y++)
      for (let x = Math.round(x0 * PX_PER_MM); x < Math.round(x1 * PX_PER_MM); x++)
        grey[y * side + x] = level(x / PX_PER_MM, (side - y) / PX_PER_MM);
  };
  for (const [i, c] of cells.entries()) fill(c.x0, c.y0, c.x1, c.y1, () => Math.round(BLANK * (1 - darkness(i))));
  for (const { x, y } of dots)
    fill(x - radiusMm, y - radiusMm, x + radiusMm, y + radiusMm, (px, py) =>
      Math.hypot(px - x, py - y) <= radiusMm ? 30 : BLANK,
    );
  return { width: side, height: side, grey };
}
