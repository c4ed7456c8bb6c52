/** What is burned, and where it is measured: the outline of a bar, from its left side to its right. */

import { lengthAsk } from "../../core/coupon/ask";
import { lineSettings } from "../../core/coupon/piece";
import type { RoundSpec } from "../../core/coupon/round-spec";
import { corners } from "../../core/geometry/rect";
import { eyewearLine } from "../../core/machine/not-known";
import { plain } from "../../core/metrology/quantity-text";
import type { PlanContext } from "../../core/trial/plan-form";
import { layStock } from "../../core/trial/stock-words";
import { BAR_HEIGHT_MM, EDGE_MM, type SampleBarPlan, stockOf } from "./plan";

const PIECE = "bar";
const LINES = "lines";
/** Half of the square in which a line is looked for, mm. */
const AROUND_MM = 3;

/** Where it is measured. */
export const LENGTH_SITE = "length";

export function roundOf(plan: SampleBarPlan, { machine, couponCode }: PlanContext): RoundSpec {
  const stock = stockOf(plan);
  const bar = { x0: EDGE_MM, y0: EDGE_MM, x1: EDGE_MM + plan.lengthMm, y1: EDGE_MM + BAR_HEIGHT_MM };
  const middleY = (bar.y0 + bar.y1) / 2;
  const lineAt = (x: number) => ({
    kind: "line" as const,
    within: { x0: x - AROUND_MM, y0: middleY - AROUND_MM, x1: x + AROUND_MM, y1: middleY + AROUND_MM },
  });
  return {
    pieces: [
      {
        id: PIECE,
        label: `Sample bar ${couponCode}`,
        stock: `offcut ${plain(stock.widthMm)} × ${plain(stock.heightMm)}`,
        ...stock,
        settings: [lineSettings(LINES, "Lines", plan.speedMmPerS, plan.powerPct)],
        paths: [{ points: corners(bar), closed: true, settings: LINES }],
      },
    ],
    placement: { xMm: plan.stockAtXMm, yMm: plan.stockAtYMm },
    program: [layStock(plan, machine), { kind: "mark", piece: PIECE, settings: LINES }],
    sites: [
      {
        id: LENGTH_SITE,
        label: "The bar",
        question: "How long is the bar, from its left to its right line, the same edge of both?",
        ask: lengthAsk({ plausibleUpTo: 2 * plan.lengthMm }),
        measurand: { kind: "distance", from: lineAt(bar.x0), to: lineAt(bar.x1), along: "x" },
        place: { piece: PIECE, at: { x: bar.x1, y: middleY }, radiusMm: 4 },
        repeats: plan.repeats,
        openEnded: false,
      },
    ],
    delivery: "One outline",
    checklist: [eyewearLine(machine), "Hold the stock flat."],
  };
}
