/** What is burned: ticks along a guide line that keeps the rule straight, or a rectangle that is cut out. */

import { fourCuts } from "../../coupon/four-cuts";
import { fittingLetters, letterStrokes } from "../../coupon/lettering";
import { type CouponPath, lineSettings, type Piece } from "../../coupon/piece";
import type { Op } from "../../coupon/program";
import type { RoundSpec } from "../../coupon/round-spec";
import type { CouponPoint } from "../../geometry/frames";
import type { Axis } from "../../machine/machine-kind";
import { eyewearLine } from "../../machine/not-known";
import { axesOf } from "../../measuring/axes-field";
import { plain } from "../../metrology/quantity-text";
import type { Purpose } from "../../trial/history";
import type { PlanContext } from "../../trial/plan-form";
import { layStock } from "../../trial/stock-words";
import { bandMm, pointOn, rowReach, SPACING_MM, sheetOf, sideOfCut } from "./layout";
import { rowsOf, type Side } from "./places";
import { type AxisScalePlan, isCut, isLadder, spanOf, WAYS } from "./plan";
import { sitesOf } from "./sites";

export const PIECE = "scale";
const [TICKS, CUT, LABELS] = ["ticks", "cut", "labels"];
const DASH_MM = 1;
/** Words keep so far from the cuts, mm. */
const INSIDE_MM = 4;

export function axisScaleRound(plan: AxisScalePlan, context: PlanContext, purpose: Purpose): RoundSpec {
  const byHand = plan.way === "by hand";
  return {
    pieces: byHand ? [] : [pieceOf(plan, context)],
    placement: { xMm: plan.stockAtXMm, yMm: plan.stockAtYMm },
    program: byHand ? handProgram(plan) : program(plan, context),
    sites: sitesOf(plan),
    delivery: WAYS[plan.way],
    checklist: checklistOf(plan, context, purpose),
  };
}

function pieceOf(plan: AxisScalePlan, context: PlanContext): Piece {
  const [widthMm, heightMm] = [sheetOf(plan, "x"), sheetOf(plan, "y")];
  const marks = isCut(plan)
    ? lineSettings(CUT, "Cut", plan.cutSpeedMmPerS, plan.cutPowerPct)
    : lineSettings(TICKS, "Ticks, in the order drawn", plan.speedMmPerS, plan.powerPct);
  return {
    id: PIECE,
    label: `Axis scale, coupon ${context.couponCode}`,
    widthMm,
    heightMm,
    stock: `sheet or strips, ${plain(widthMm)} × ${plain(heightMm)}`,
    settings: [lineSettings(LABELS, "Words and guide lines", plan.speedMmPerS, plan.powerPct), marks],
    paths: [
      ...wordsOf(plan, context).map((points) => ({ points, closed: false, settings: LABELS })),
      ...(isCut(plan) ? cutsOf(plan) : axesOf(plan).flatMap((axis) => ladderOf(plan, axis))),
    ],
  };
}

function cutsOf(plan: AxisScalePlan): CouponPath[] {
  const { edge } = SPACING_MM;
  return fourCuts({ x: edge, y: edge }, sideOfCut(plan, "x"), sideOfCut(plan, "y"), CUT);
}

/** The guide line, then the ticks in the order in which they must be come to. */
function ladderOf(plan: AxisScalePlan, axis: Axis): CouponPath[] {
  const span = spanOf(plan, axis);
  const { leadIn } = SPACING_MM;
  const path = (settings: string, from: [number, number], to: [number, number]): CouponPath => ({
    closed: false,
    settings,
    points: [pointOn(plan, axis, ...from), pointOn(plan, axis, ...to)],
  });
  const dash = (at: number, low: number) => path(TICKS, [at, low], [at, low + DASH_MM]);
  const tick = (at: number, low: number, high: number) => path(TICKS, [at, low], [at, high]);
  const first = [dash(-leadIn, 0), tick(0, 0, bandMm(plan))];
  return [
    path(LABELS, [-leadIn, 0], [span + leadIn, 0]),
    ...first,
    ...rowsOf(plan).flatMap((side, row) => {
      const [low, high] = rowReach(row);
      const places = ticksAt(plan, span);
      return side === "up"
        ? [...(row === 0 ? [] : [dash(-leadIn, low)]), ...places.map((at) => tick(at, low, high))]
        : [dash(span + leadIn, low), ...[...places].reverse().map((at) => tick(at, low, high))];
    }),
  ];
}

function ticksAt(plan: AxisScalePlan, span: number): number[] {
  const count = isLadder(plan) ? plan.intervals : 1;
  return Array.from({ length: count }, (_, i) => (span * (i + 1)) / count);
}

/** Code, day, axis and length; the numbers of the ticks. */
function wordsOf(plan: AxisScalePlan, { couponCode, day, machine }: PlanContext): CouponPoint[][] {
  const { letters, toWords, toNumbers, numbers, edge, wordsAcross } = SPACING_MM;
  const signature = [couponCode, ...(day ? [day] : [])].join(" ");
  if (isCut(plan)) {
    const sides = axesOf(plan).map((axis) => `${axis.toUpperCase()} ${plain(spanOf(plan, axis))}`);
    return wordLines(
      [`${signature} ${machine.name.toUpperCase()}`, sides.join("  ")],
      { x: edge + INSIDE_MM, y: edge + INSIDE_MM + 2 * letters },
      sideOfCut(plan, "x") - 2 * INSIDE_MM,
    );
  }
  return axesOf(plan).flatMap((axis) => {
    const length = `${axis.toUpperCase()} ${plain(spanOf(plan, axis))}`;
    const beyond = bandMm(plan);
    const isAcross = axis === "x";
    const at = pointOn(plan, axis, isAcross ? 0 : 3 * letters, beyond + toWords);
    const words = isAcross
      ? wordLines([`${length} ${signature}`], at, Math.max(spanOf(plan, axis), wordsAcross))
      : wordLines([length, signature], at, wordsAcross);
    const numbered = [0, ...ticksAt(plan, spanOf(plan, axis))].flatMap((place, i) => {
      const across = beyond + toNumbers;
      if (isAcross) return letterStrokes(String(i), pointOn(plan, axis, place, across), numbers, "middle");
      return letterStrokes(String(i), pointOn(plan, axis, place - numbers / 2, across), numbers);
    });
    return [...words, ...numbered];
  });
}

/** One below the other, each no longer than there is room. */
function wordLines(lines: readonly string[], at: CouponPoint, longestMm: number): CouponPoint[][] {
  const { letters } = SPACING_MM;
  return lines.flatMap((text, i) =>
    letterStrokes(text, { x: at.x, y: at.y - 2 * i * letters }, fittingLetters(text, longestMm, letters)),
  );
}

function program(plan: AxisScalePlan, { machine }: PlanContext): Op[] {
  return [
    layStock(plan, machine),
    { kind: "mark", piece: PIECE, settings: LABELS },
    { kind: "mark", piece: PIECE, settings: isCut(plan) ? CUT : TICKS },
  ];
}

/** Each mark is come to from the same side, so that play does not count. */
function handProgram(plan: AxisScalePlan): Op[] {
  return axesOf(plan).flatMap((axis): Op[] => {
    const name = axis.toUpperCase();
    const [from, to] = [pointOn(plan, axis, 0, 0), pointOn(plan, axis, spanOf(plan, axis), 0)];
    const pulse = (at: CouponPoint): Op => ({ kind: "pulse", at, durationS: 0.1, powerPct: plan.powerPct });
    const low = axis === "x" ? "left" : "front";
    return [
      {
        kind: "move by hand",
        text: `${name}: come to about ${plain(plan[`stockAt${name as "X" | "Y"}Mm`] + SPACING_MM.edge)} mm from the ${low} end, note the readout, pulse once.`,
      },
      pulse(from),
      {
        kind: "move by hand",
        text: `${name}: move on ${plain(spanOf(plan, axis))} mm the same way, without going back. Note the readout, pulse once.`,
      },
      pulse(to),
    ];
  });
}

const SIDE_ORDER: Record<Side, string> = { up: "from the first up", down: "from the last down" };

function checklistOf(plan: AxisScalePlan, { machine }: PlanContext, purpose: Purpose): string[] {
  const rows = rowsOf(plan);
  return [
    eyewearLine(machine),
    "Stock flat and held, focus as in daily work.",
    ...(plan.way === "ladder" && rows.length > 1
      ? [
          `Keep the order in which lines are drawn: rows are burned ${rows
            .slice(0, 2)
            .map((side) => SIDE_ORDER[side])
            .join(", then ")}. A program that sorts them takes away what shows the play.`,
        ]
      : []),
    ...(isCut(plan) ? ["Cut through, and mark the top face of part and sheet before the part falls."] : []),
    purpose === "proof" ? "Check that the new value is in the controller." : "Leave the scale as in daily work.",
  ];
}
