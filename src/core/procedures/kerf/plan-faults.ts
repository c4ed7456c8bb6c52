/** What is refused of a kerf's layout, each with what would do, and what is worth saying before the cut. */

import { gaugeIn, lengthGauges } from "../../measuring/length-gauges";
import { plain } from "../../metrology/quantity-text";
import type { PlanContext, PlanForm, PlanWarning } from "../../trial/plan-form";
import { completedPlanForm } from "../../trial/plan-table";
import { placeFaults } from "../../trial/shared-fields";
import { cellSize, columnsOf, cutSideMm, EDGE_MM, matesNeed, sheetOf } from "./layout";
import { asCut, isMateWay, isSquareWay, type KerfPlan, offsetsOf, planFields, shrunkMm } from "./plan";

/** Inside jaws go into holes from here on, mm. (common practice, no source) */
const NARROWEST_HOLE_MM = 10;
/** An offset per side beyond it supposes a kerf that no beam cuts, mm. (common practice, no source) */
const LARGEST_OFFSET_MM = 1;
/** A slot that is drawn narrower is two cuts that run into one, mm. (common practice, no source) */
const NARROWEST_SLOT_MM = 0.3;

/** Largest error of the offset per side that is still good, mm. (common practice, no source) */
export const DEFAULT_TOLERANCE_MM = 0.02;

export function kerfPlan(context: PlanContext): PlanForm<KerfPlan> {
  return completedPlanForm(planFields(context), {
    complete: (typed) => asCut(typed, context),
    faults: (plan) => [
      ["stock", stockFault(plan)],
      ["sideMm", isSquareWay(plan.way) ? sideFault(plan, context) : null],
      ["mates", isMateWay(plan.way) ? (offsetsFault(plan) ?? matesFault(plan)) : null],
      ...placeFaults(plan, sheetOf(plan), context.machine),
    ],
  });
}

function stockFault({ way, from }: KerfPlan): string | null {
  if (!from) return "This stock has no card. Choose another stock, or make a card.";
  if (way === "sheet slot" && !from.thickness)
    return `The thickness of ${from.name} was never measured. Measure it at several points and enter it on the stock card.`;
  return null;
}

function sideFault(plan: KerfPlan, context: PlanContext): string | null {
  const { gauge, reachMm } = gaugeIn(plan, context);
  if (cutSideMm(plan) + 1 > reachMm)
    return `The square is larger than the reach of ${gauge.name}. Enter at most ${plain(Math.floor(reachMm - 1))} mm.`;
  if (plan.way !== "part" && cutSideMm(plan) < NARROWEST_HOLE_MM)
    return `Inside jaws do not fit into this hole. Enter at least ${NARROWEST_HOLE_MM} mm.`;
  return null;
}

/** Where the last of the mates could not be drawn. */
function offsetsFault(plan: KerfPlan): string | null {
  const last = offsetsOf(plan).at(-1) ?? plan.firstMm;
  const mend = "Use a smaller step or fewer mates.";
  if (last > LARGEST_OFFSET_MM)
    return `The last mate would have an offset of ${plain(last, 3)} mm per side. The limit is ${plain(LARGEST_OFFSET_MM)} mm. ${mend}`;
  const slot = plan.jointMm - 2 * shrunkMm(plan, last);
  if (slot >= NARROWEST_SLOT_MM) return null;
  return `The last slot would be drawn ${plain(Math.max(0, slot), 3)} mm wide. The limit is ${NARROWEST_SLOT_MM} mm. ${mend}`;
}

/** Where mates do not fit on the piece of stock, and what would. */
function matesFault(plan: KerfPlan): string | null {
  const cell = cellSize(plan);
  if (columnsOf(plan) === 0)
    return `One mate needs ${plain(cell.widthMm + 2 * EDGE_MM)} mm along X. The piece is ${plain(plan.sheetWidthMm)} mm. Use a narrower joint or a larger piece.`;
  const { widthMm, heightMm } = matesNeed(plan);
  if (heightMm <= plan.sheetHeightMm) return null;
  const rows = Math.floor((plan.sheetHeightMm - matesNeed({ ...plan, mates: 1 }).heightMm) / cell.heightMm) + 1;
  const most = Math.max(0, rows) * columnsOf({ ...plan, mates: 999 });
  return `${plan.mates} mates need ${plain(widthMm)} × ${plain(heightMm)} mm. The piece is ${plain(plan.sheetWidthMm)} × ${plain(plan.sheetHeightMm)} mm. ${most > 3 ? `Enter at most ${most} mates.` : "Use a larger piece."}`;
}

export function planWarnings(plan: KerfPlan, context: PlanContext): PlanWarning[] {
  const warnings: PlanWarning[] = [];
  if (plan.from && !plan.from.thickness)
    warnings.push({
      field: "stock",
      message: `The thickness of ${plan.from.name} was never measured. Measure it at several points and enter it on the stock card.`,
    });
  if (plan.powerPct <= plan.markPowerPct && plan.speedMmPerS >= plan.markSpeedMmPerS)
    warnings.push({
      field: "speedMmPerS",
      message: "The cut is not stronger than the letters. Check that it goes through.",
    });
  if (plan.way === "comb" && lengthGauges(context).every((g) => g.kind === "rule"))
    warnings.push({ field: "cuts", message: "A rule cannot measure a gap of 1 or 2 mm. Use calipers." });
  return warnings;
}
