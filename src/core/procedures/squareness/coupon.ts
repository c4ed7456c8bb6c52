/** Four lines that cross at the corners, with both diagonals drawn and named. */

import { lengthAsk } from "../../coupon/ask";
import { fittingLetters, letterStrokes } from "../../coupon/lettering";
import { type CouponPath, lineSettings, type Piece } from "../../coupon/piece";
import type { RoundSpec } from "../../coupon/round-spec";
import type { Site } from "../../coupon/site";
import type { CouponPoint } from "../../geometry/frames";
import { eyewearLine } from "../../machine/not-known";
import { plain } from "../../metrology/quantity-text";
import type { Purpose } from "../../trial/history";
import type { PlanContext } from "../../trial/plan-form";
import { layStock } from "../../trial/stock-words";
import { BEYOND_MM, type Corner, cornerAt, EDGE_MM, LENGTHS, type LengthId, nominalMm } from "./layout";
import { type SquarenessPlan, WAYS } from "./plan";

const PIECE = "square";
const [LINES, WORDS] = ["lines", "words"];
const LETTERS_MM = 3;
const RADIUS_MM = 8;
const PLAUSIBLE_SHARE = 1.1;
/** Diagonals are drawn over this share of their length, clear of the corners. */
const DRAWN = { from: 0.15, to: 0.85, named: 0.27 };

export function lengthsOf({ way }: Pick<SquarenessPlan, "way">): LengthId[] {
  return way === "diagonals" ? ["first", "second", "width", "height"] : ["width", "height", "first"];
}

export function squarenessRound(plan: SquarenessPlan, context: PlanContext, purpose: Purpose): RoundSpec {
  return {
    pieces: [pieceOf(plan, context)],
    placement: { xMm: plan.stockAtXMm, yMm: plan.stockAtYMm },
    program: [
      layStock(plan, context.machine),
      { kind: "mark", piece: PIECE, settings: WORDS },
      { kind: "mark", piece: PIECE, settings: LINES },
    ],
    sites: lengthsOf(plan).map((id) => siteOf(plan, id)),
    delivery: WAYS[plan.way],
    checklist: [
      eyewearLine(context.machine),
      "Hold the stock flat. Check that it cannot move between the lines.",
      ...(purpose === "proof" ? ["Shift and clamp the beam, then home the machine."] : []),
    ],
  };
}

function pieceOf(plan: SquarenessPlan, { couponCode, day }: PlanContext): Piece {
  const { widthMm, heightMm } = plan;
  const line = (id: string, label: string) => lineSettings(id, label, plan.speedMmPerS, plan.powerPct);
  const signature = [couponCode, ...(day ? [day] : []), `X ${plain(widthMm)} Y ${plain(heightMm)}`].join(" ");
  const letters = fittingLetters(signature, widthMm - 2 * LETTERS_MM, LETTERS_MM);
  const words = letterStrokes(signature, { x: EDGE_MM + widthMm / 2, y: EDGE_MM + LETTERS_MM }, letters, "middle");
  const [width, height] = [widthMm + 2 * EDGE_MM, heightMm + 2 * EDGE_MM];
  return {
    id: PIECE,
    label: `Squareness, coupon ${couponCode}`,
    stock: `sheet ${plain(width)} × ${plain(height)}`,
    widthMm: width,
    heightMm: height,
    settings: [line(WORDS, "Words and diagonals"), line(LINES, "Sides")],
    paths: [
      ...words.map((points): CouponPath => ({ points, closed: false, settings: WORDS })),
      ...(["first", "second"] as const).flatMap((id) => diagonal(plan, id)),
      ...sides(plan),
    ],
  };
}

/** Across X from the left to the right, along Y from the front to the back: each pair is come to from the same side. */
function sides(plan: SquarenessPlan): CouponPath[] {
  const at = (corner: Corner) => cornerAt(corner, plan);
  const side = (from: CouponPoint, to: CouponPoint): CouponPath => {
    const [x, y] = [Math.sign(to.x - from.x) * BEYOND_MM, Math.sign(to.y - from.y) * BEYOND_MM];
    return {
      closed: false,
      settings: LINES,
      points: [
        { x: from.x - x, y: from.y - y },
        { x: to.x + x, y: to.y + y },
      ],
    };
  };
  return [
    side(at("front left"), at("back left")),
    side(at("front right"), at("back right")),
    side(at("front left"), at("front right")),
    side(at("back left"), at("back right")),
  ];
}

function diagonal(plan: SquarenessPlan, id: "first" | "second"): CouponPath[] {
  const [from, to] = [cornerAt(LENGTHS[id].from, plan), cornerAt(LENGTHS[id].to, plan)];
  const along = (share: number) => ({ x: from.x + share * (to.x - from.x), y: from.y + share * (to.y - from.y) });
  const name = along(DRAWN.named);
  const beside = { x: name.x, y: name.y + 1.5 * LETTERS_MM };
  return [
    { points: [along(DRAWN.from), along(DRAWN.to)], closed: false, settings: WORDS },
    ...letterStrokes(id === "first" ? "1" : "2", beside, LETTERS_MM, "middle").map(
      (points): CouponPath => ({ points, closed: false, settings: WORDS }),
    ),
  ];
}

function siteOf(plan: SquarenessPlan, id: LengthId): Site {
  const { label, from, to } = LENGTHS[id];
  const [a, b] = [cornerAt(from, plan), cornerAt(to, plan)];
  const nominal = nominalMm(id, plan);
  return {
    id,
    label,
    question: `How far is it from the ${from} to the ${to} corner, where the lines cross?`,
    ask: lengthAsk({ plausibleUpTo: PLAUSIBLE_SHARE * nominal }),
    measurand: { kind: "span", from: { kind: "cross", near: a }, to: { kind: "cross", near: b } },
    place: { piece: PIECE, at: b, radiusMm: RADIUS_MM },
    repeats: plan.repeats,
    openEnded: false,
  };
}
