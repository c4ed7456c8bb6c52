/** What is cut: a square, a comb in its frame, or mates pair by pair. */

import { fourCuts } from "../../coupon/four-cuts";
import { fittingLetters, letterStrokes } from "../../coupon/lettering";
import { type CouponPath, lineSettings, type Piece } from "../../coupon/piece";
import type { Op } from "../../coupon/program";
import type { RoundSpec } from "../../coupon/round-spec";
import type { CouponPoint } from "../../geometry/frames";
import { eyewearLine } from "../../machine/not-known";
import { plain } from "../../metrology/quantity-text";
import { stockText } from "../../stock/stock-at-hand";
import type { Purpose } from "../../trial/history";
import type { PlanContext } from "../../trial/plan-form";
import { layStock } from "../../trial/stock-words";
import {
  cellsOf,
  combCorner,
  combWidthMm,
  cutSideMm,
  EDGE_MM,
  HEAD_MM,
  LETTERS_MM,
  matesNeed,
  SQUARE_AT,
  STRIP_HEIGHT_MM,
  sheetOf,
} from "./layout";
import { mateShape } from "./mate-shapes";
import { mateText } from "./mate-text";
import { isMateWay, isSquareWay, type KerfPlan, WAYS } from "./plan";
import { PIECE, sitesOf } from "./sites";

const [CUT, WORDS] = ["cut", "words"];
const INSIDE_MM = 4;

export function kerfRound(plan: KerfPlan, context: PlanContext, purpose: Purpose): RoundSpec {
  return {
    pieces: [pieceOf(plan, context)],
    placement: { xMm: plan.stockAtXMm, yMm: plan.stockAtYMm },
    program: [
      layStock(plan, context.machine),
      { kind: "mark", piece: PIECE, settings: WORDS },
      ...Array.from({ length: plan.passes }, (): Op => ({ kind: "mark", piece: PIECE, settings: CUT })),
    ],
    sites: sitesOf(plan),
    delivery: WAYS[plan.way],
    checklist: checklistOf(plan, context, purpose),
  };
}

function pieceOf(plan: KerfPlan, { couponCode }: PlanContext): Piece {
  const { widthMm, heightMm } = sheetOf(plan);
  const passes = plan.passes === 1 ? "Cut" : `Cut, ${plan.passes} passes`;
  const thicknessMm = plan.from?.thickness?.meanMm ?? plan.from?.nominalMm;
  return {
    id: PIECE,
    label: `Kerf, coupon ${couponCode}`,
    widthMm,
    heightMm,
    stock: [plan.from ? stockText(plan.from) : "", `${plain(widthMm, 1)} × ${plain(heightMm, 1)}`]
      .filter(Boolean)
      .join(", "),
    ...(thicknessMm ? { cutFrom: { stock: plan.stock, thicknessMm, focusBelowMm: plan.focusBelowMm } } : {}),
    settings: [
      lineSettings(WORDS, "Words", plan.markSpeedMmPerS, plan.markPowerPct),
      lineSettings(CUT, passes, plan.speedMmPerS, plan.powerPct),
    ],
    paths: [
      ...wordsOf(plan, couponCode).map((points): CouponPath => ({ points, closed: false, settings: WORDS })),
      ...cutsOf(plan),
    ],
  };
}

function cutsOf(plan: KerfPlan): CouponPath[] {
  if (isSquareWay(plan.way)) return fourCuts(SQUARE_AT, cutSideMm(plan), cutSideMm(plan), CUT);
  if (plan.way === "comb") return (["x", "y"] as const).flatMap((axis) => combOf(plan, axis));
  return cellsOf(plan)
    .flatMap((cell) => mateShape(plan, cell).outlines)
    .map((points) => ({ points: [...points], closed: true, settings: CUT }));
}

/** Cuts between the strips first, then the frame around them: strips that are free would move. */
function combOf(plan: KerfPlan, axis: "x" | "y"): CouponPath[] {
  const corner = combCorner(plan, axis);
  const width = combWidthMm(plan);
  const at = (along: number, across: number): CouponPoint =>
    axis === "x" ? { x: corner.x + along, y: corner.y + across } : { x: corner.x + across, y: corner.y + along };
  const inner = Array.from(
    { length: plan.cuts - 2 },
    (_, i): CouponPath => ({
      closed: false,
      settings: CUT,
      points: [at((i + 1) * plan.stripMm, 0), at((i + 1) * plan.stripMm, STRIP_HEIGHT_MM)],
    }),
  );
  const frame = [at(0, 0), at(0, STRIP_HEIGHT_MM), at(width, STRIP_HEIGHT_MM), at(width, 0)];
  return [...inner, { points: frame, closed: true, settings: CUT }];
}

/** Code and stock above all, and on each mate its value. */
function wordsOf(plan: KerfPlan, couponCode: string): CouponPoint[][] {
  const { widthMm, heightMm } = sheetOf(plan);
  const head = [couponCode, plan.from?.name.toUpperCase() ?? "", plan.from?.batch ?? ""].filter(Boolean).join(" ");
  const fitted = (text: string, at: CouponPoint, longest: number) =>
    letterStrokes(text, at, fittingLetters(text, longest, LETTERS_MM));
  if (isSquareWay(plan.way)) {
    const inside = { x: EDGE_MM + INSIDE_MM, y: EDGE_MM + INSIDE_MM + 2 * LETTERS_MM };
    const longest = cutSideMm(plan) - 2 * INSIDE_MM;
    const size = `${plain(plan.sideMm)} ${plan.grownMm > 0 ? `+ ${plain(plan.grownMm)}` : ""}`.trim();
    return [...fitted(head, inside, longest), ...fitted(size, { ...inside, y: inside.y - 2 * LETTERS_MM }, longest)];
  }
  const top = isMateWay(plan.way) ? matesNeed(plan).heightMm - EDGE_MM - HEAD_MM / 2 : heightMm - EDGE_MM - HEAD_MM / 2;
  const words = fitted(head, { x: EDGE_MM, y: top }, widthMm - 2 * EDGE_MM);
  if (!isMateWay(plan.way)) return words;
  return [
    ...words,
    ...cellsOf(plan).flatMap((cell) => {
      const text = mateText(plan, cell.offsetMm);
      return mateShape(plan, cell).words.flatMap((at) =>
        letterStrokes(text, at, fittingLetters(text, Math.max(4, plan.jointMm + 4), LETTERS_MM), "middle"),
      );
    }),
  ];
}

function checklistOf(plan: KerfPlan, { machine }: PlanContext, purpose: Purpose): string[] {
  return [
    eyewearLine(machine),
    "Switch the exhaust on, and watch for fire.",
    "Every offset for the kerf is switched off in programs on the way: these lines are to be cut as they are drawn.",
    plan.focusBelowMm === 0
      ? "Focus on the top face."
      : `Focus ${plain(Math.abs(plan.focusBelowMm))} mm ${plan.focusBelowMm > 0 ? "below" : "above"} the top face.`,
    plan.gas === "none" ? "No gas on the cut." : `Gas on the cut: ${GAS_WORDS[plan.gas]}.`,
    ...(isSquareWay(plan.way)
      ? ["Mark the top face of part and sheet before the part falls, and which way X goes."]
      : []),
    ...(plan.way === "comb" ? ["Cut through everywhere; knock burrs off before the strips are pushed together."] : []),
    ...(isMateWay(plan.way) && plan.way !== "sheet slot"
      ? ["Take mates out pair by pair: the same value stands on both. A pair that was mixed up tells a wrong kerf."]
      : []),
    purpose === "proof"
      ? "Same sheet, same settings, same focus as before."
      : "Settings, focus and gas as in daily work.",
  ];
}

const GAS_WORDS = { air: "air", nitrogen: "nitrogen", oxygen: "oxygen" } as const;
