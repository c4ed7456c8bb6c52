/** What is burned and where it is measured: one bar of a few rows, its length between the ends of the right-going ones. */

import type { CouponPath } from "../../coupon/piece";
import type { RoundSpec } from "../../coupon/round-spec";
import { lengthAsk } from "../../coupon/site";
import type { PlanContext } from "../../trial/plan-form";
import type { SampleBarPlan } from "./plan";

const PIECE = "bar";
const ROWS = "rows";
const [ROW_COUNT, ROW_PITCH_MM] = [5, 0.4];
const FIRST = { x: 10, y: 10 };
const STOCK = { widthMm: 80, heightMm: 30 };

/** Where it is measured. */
export const LENGTH_SITE = "length";

export function roundOf({ lengthMm }: SampleBarPlan, { machine, couponCode }: PlanContext): RoundSpec {
  const last = { x: FIRST.x + lengthMm, y: FIRST.y + (ROW_COUNT - 1) * ROW_PITCH_MM };
  const area = { x0: FIRST.x - 1, y0: FIRST.y - ROW_PITCH_MM, x1: last.x + 1, y1: last.y + ROW_PITCH_MM };
  const end = (side: "left" | "right") => ({ kind: "row ends", within: area, end: side, going: "right" }) as const;
  return {
    pieces: [
      {
        id: PIECE,
        label: `Sample bar ${couponCode}`,
        stock: "offcut 80 × 30",
        ...STOCK,
        settings: [
          {
            id: ROWS,
            label: "Rows",
            use: "rows",
            speedMmPerS: machine.topSpeedMmPerS / 10,
            powerPct: 10,
            runUpMm: 3,
            scan: null,
          },
        ],
        paths: Array.from({ length: ROW_COUNT }, (_, i) => row(FIRST.y + i * ROW_PITCH_MM, FIRST.x, last.x)),
      },
    ],
    placement: { xMm: 20, yMm: 20 },
    program: [{ kind: "mark", piece: PIECE, settings: ROWS }],
    sites: [
      {
        id: LENGTH_SITE,
        label: "The bar",
        question: "How long is the bar, from end to end?",
        ask: lengthAsk({ plausibleUpTo: 2 * lengthMm }),
        measurand: { kind: "distance", from: end("left"), to: end("right"), along: "x" },
        place: { piece: PIECE, at: last, radiusMm: 4 },
        repeats: 3,
        openEnded: false,
      },
    ],
    delivery: "One bar of a few rows",
    checklist: ["Scan offset: leave it as it is."],
  };
}

/** All rows go right, so that how far they lag shifts the bar and does not stretch it. */
function row(y: number, x0: number, x1: number): CouponPath {
  return {
    points: [
      { x: x0, y },
      { x: x1, y },
    ],
    closed: false,
    settings: ROWS,
  };
}
