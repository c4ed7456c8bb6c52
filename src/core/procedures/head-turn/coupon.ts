/** One line along a straight edge that the stock lies against, with two places at which its distance is measured. */
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
import type { TurnPlan } from "./plan";

const PIECE = "turn";
const LINES = "line";
const LETTERS_MM = 3;
const [EDGE_MM, ROOM_MM, TICK_MM] = [4, 10, 2];
const RADIUS_MM = 6;
const PLAUSIBLE_MORE_MM = 20;

export const ENDS = ["first", "second"] as const;
export type End = (typeof ENDS)[number];

/** The two places along the edge, by name. */
export function endName({ fence }: Pick<TurnPlan, "fence">, end: End): string {
  if (fence === "front") return end === "first" ? "left end" : "right end";
  return end === "first" ? "front end" : "back end";
}

export function turnRound(plan: TurnPlan, context: PlanContext, purpose: Purpose): RoundSpec {
  const { machine } = context;
  const piece = pieceOf(plan, context);
  const edge = plan.fence === "front" ? "front" : "left";
  return {
    pieces: [piece],
    placement: { xMm: (machine.widthMm - piece.widthMm) / 2, yMm: (machine.depthMm - piece.heightMm) / 2 },
    program: [
      {
        kind: "tell",
        text: `Push the ${edge} edge of the stock against the straight edge. Do not move it until it is measured.`,
      },
      { kind: "mark", piece: PIECE, settings: LINES },
    ],
    sites: ENDS.map((end) => siteOf(plan, end)),
    delivery: "A line along the straight edge",
    checklist: [
      eyewearLine(machine),
      "Check that the straight edge cannot move.",
      ...(purpose === "proof" ? ["Check that the new turn is in the controller."] : []),
    ],
  };
}

/** The place of the coupon at an end of the base. */
function placeOf({ fence, baseMm, awayMm }: TurnPlan, end: End): CouponPoint {
  const along = EDGE_MM + (end === "first" ? 0 : baseMm);
  return fence === "front" ? { x: along, y: awayMm } : { x: awayMm, y: along };
}

function pieceOf(plan: TurnPlan, { couponCode, day }: PlanContext): Piece {
  const [along, across] = [plan.baseMm + 2 * EDGE_MM, plan.awayMm + ROOM_MM + LETTERS_MM];
  const [widthMm, heightMm] = plan.fence === "front" ? [along, across] : [across, along];
  const path = (...points: CouponPoint[]): CouponPath => ({ points, closed: false, settings: LINES });
  const [a, b] = [placeOf(plan, "first"), placeOf(plan, "second")];
  const isLevel = plan.fence === "front";
  const beyond = (p: CouponPoint, by: number): CouponPoint => (isLevel ? { ...p, x: p.x + by } : { ...p, y: p.y + by });
  const off = (p: CouponPoint, by: number): CouponPoint => (isLevel ? { ...p, y: p.y + by } : { ...p, x: p.x + by });
  // Ticks stand away from the edge: nothing lies where the distance is measured.
  const tick = (p: CouponPoint) => path(off(p, 1), off(p, 1 + TICK_MM));
  const text = [couponCode, ...(day ? [day] : [])].join(" ");
  const letters = fittingLetters(text, 0.6 * widthMm, LETTERS_MM);
  const at = isLevel ? { x: widthMm / 2, y: plan.awayMm + 1.2 * TICK_MM + 1 } : { x: widthMm / 2, y: heightMm / 2 };
  return {
    id: PIECE,
    label: `Turn, coupon ${couponCode}`,
    stock: `offcut ${plain(widthMm)} × ${plain(heightMm)} with one straight edge`,
    widthMm,
    heightMm,
    settings: [lineSettings(LINES, "Line and words", plan.speedMmPerS, plan.powerPct)],
    paths: [
      path(beyond(a, -2), beyond(b, 2)),
      tick(a),
      tick(b),
      ...letterStrokes(text, at, letters, "middle").map((points) => path(...points)),
    ],
  };
}

function siteOf(plan: TurnPlan, end: End): Site {
  const name = endName(plan, end);
  const at = placeOf(plan, end);
  return {
    id: end,
    label: `From the straight edge, ${name}`,
    question: `How far is the line from the straight edge, at the tick of the ${name}? Measure to its middle.`,
    ask: lengthAsk({ plausibleUpTo: plan.awayMm + PLAUSIBLE_MORE_MM }),
    measurand: { kind: "fence distance", side: plan.fence, near: at },
    place: { piece: PIECE, at, radiusMm: RADIUS_MM },
    repeats: plan.repeats,
    openEnded: false,
  };
}
