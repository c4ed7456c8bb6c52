/** A box at nominal distances from two edges of a stock that lies against the stops of the bed. */
import { fittingLetters, letterStrokes } from "../../coupon/lettering";
import type { CouponPath, MarkingSettings } from "../../coupon/piece";
import type { RoundSpec } from "../../coupon/round-spec";
import { eyewearLine } from "../../machine/not-known";
import { distanceWords, edgeSites, linePaths, onStock } from "../../measuring/edge-distance/marks";
import { plain } from "../../metrology/quantity-text";
import type { Purpose } from "../../trial/history";
import type { PlanContext } from "../../trial/plan-form";
import { linesOf, type OriginPlan } from "./plan";

const PIECE = "origin";
const LINES = "lines";
const LETTERS_MM = 3;
/** Words take no more than this share of the box. */
const BOX_SHARE = 0.8;

export function originRound(plan: OriginPlan, context: PlanContext, purpose: Purpose): RoundSpec {
  const { machine, couponCode } = context;
  const stock = { widthMm: plan.stockWidthMm, heightMm: plan.stockHeightMm };
  const lines = linesOf(plan);
  const settings: MarkingSettings = {
    id: LINES,
    label: "Box and words",
    use: "line",
    runUpMm: 0,
    scan: null,
    speedMmPerS: plan.speedMmPerS,
    powerPct: plan.powerPct,
  };
  const corner = `${plan.sideY} ${plan.sideX}`;
  return {
    pieces: [
      {
        id: PIECE,
        label: `Origin, coupon ${couponCode}`,
        ...stock,
        stock: `offcut ${plain(stock.widthMm)} × ${plain(stock.heightMm)} with a square ${corner} corner`,
        settings: [settings],
        paths: [...linePaths(plan, lines, stock, LINES), ...restOf(plan, stock), ...wordsOf(plan, context)],
      },
    ],
    placement: {
      xMm: plan.sideX === "left" ? 0 : machine.widthMm - stock.widthMm,
      yMm: plan.sideY === "front" ? 0 : machine.depthMm - stock.heightMm,
    },
    program: [
      { kind: "tell", text: `Home the machine, and push the stock against both stops in the ${corner} corner.` },
      { kind: "mark", piece: PIECE, settings: LINES },
    ],
    sites: edgeSites(plan, lines, stock, { piece: PIECE, against: "bed", edgeWord: "edge" }),
    delivery: "A box, by the machine's own origin",
    checklist: [
      eyewearLine(machine),
      "No origin is set by hand: the file goes by where the machine homes.",
      purpose === "proof"
        ? "Check that the new offset is in the controller, then home the machine again."
        : "Leave the offset as in daily work.",
    ],
  };
}

/** The two sides of the box that nothing is measured from. */
function restOf(plan: OriginPlan, stock: { widthMm: number; heightMm: number }): CouponPath[] {
  const at = (u: number, v: number) => onStock({ u, v }, plan, stock);
  const [u0, v0] = [plan.distanceXMm, plan.distanceYMm];
  const [u1, v1] = [u0 + plan.boxMm, v0 + plan.boxMm];
  return [
    { points: [at(u1, v0), at(u1, v1)], closed: false, settings: LINES },
    { points: [at(u0, v1), at(u1, v1)], closed: false, settings: LINES },
  ];
}

/** Inside the box, where no line is measured. */
function wordsOf(plan: OriginPlan, { couponCode, day }: PlanContext): CouponPath[] {
  const stock = { widthMm: plan.stockWidthMm, heightMm: plan.stockHeightMm };
  const middle = onStock({ u: plan.distanceXMm + plan.boxMm / 2, v: plan.distanceYMm + plan.boxMm / 2 }, plan, stock);
  const lines = [couponCode, ...(day ? [day] : []), distanceWords(plan)];
  const letters = Math.min(...lines.map((text) => fittingLetters(text, plan.boxMm * BOX_SHARE, LETTERS_MM)));
  return lines
    .flatMap((text, i) => {
      const y = middle.y + (lines.length / 2 - 1 - i) * 1.7 * letters;
      return letterStrokes(text, { x: middle.x, y }, letters, "middle");
    })
    .map((points) => ({ points, closed: false, settings: LINES }));
}
