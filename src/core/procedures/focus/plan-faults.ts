/** What does not go together in a plan: each refused at its field, with what to do. */

import { plain } from "../../metrology/quantity-text";
import type { PlanContext, PlanForm } from "../../trial/plan-form";
import { completedPlanForm } from "../../trial/plan-table";
import { placeFaults } from "../../trial/shared-fields";
import { columnsOf, usedHeightMm } from "./ladder/layout";
import {
  cellsOf,
  type FocusPlan,
  type HeightTerms,
  type LadderPlan,
  planFields,
  type RampPlan,
  type SweepPlan,
} from "./plan";
import { clearanceOver, numbersAlong, slopeOf, usedRampMm } from "./ramp/slope";

type Fault = readonly [field: keyof FocusPlan, message: string | null];

export function focusPlan(context: PlanContext): PlanForm<FocusPlan> {
  return completedPlanForm(planFields(context), {
    complete: (plan): FocusPlan => plan,
    faults: (plan) => [
      ...storedFaults(plan),
      ["highestMm", plan.highestMm > plan.lowestMm ? null : "The highest number must be larger than the lowest."],
      ...ownFaults(plan),
      ...placeFaults(plan, { widthMm: plan.stockWidthMm, heightMm: plan.stockHeightMm }, context.machine),
    ],
  });
}

function ownFaults(plan: FocusPlan): Fault[] {
  if (plan.way === "ladder") return ladderFaults(plan);
  return plan.way === "ramp" ? rampFaults(plan) : sweepFaults(plan);
}

function ladderFaults(plan: LadderPlan): Fault[] {
  return [
    ["firstMm", belowZeroFault(plan, plan.firstMm)],
    ["stepMm", stepFault(plan)],
    ["count", reachFault(plan)],
    ["judged", plan.judged === "by widths" && plan.marks === "squares" && plan.doses !== "beam" ? NO_LINES : null],
    ["doses", plan.judged !== "by widths" && plan.doses === "beam" ? NO_MARKS : null],
    ["stockWidthMm", columnsOf(plan) > 0 ? null : "No cell fits on this width. Use a wider piece."],
    ["stockHeightMm", heightFault(plan)],
  ];
}

const STEEPEST = 0.5;
const SHORTEST_RAMP_MM = 40;

function rampFaults(plan: RampPlan): Fault[] {
  const slope = slopeOf(plan);
  if (!slope) return [["runMm", "The run along the plate must be longer than the rise. Measure both again."]];
  const { low, high } = numbersAlong(plan, slope);
  return [
    ["lowMm", belowZeroFault(plan, plan.lowMm)],
    ["riseMm", slope.tangent > STEEPEST ? "The plate is too steep. Enter a rise of at most half of the run." : null],
    [
      "lowMm",
      low < plan.lowestMm || high > plan.highestMm
        ? `Heights along the line are from ${plain(low, 1)} to ${plain(high, 1)} mm. Choose a height or a rise that keeps them between ${plain(plan.lowestMm)} and ${plain(plan.highestMm)} mm.`
        : null,
    ],
    ["headReachMm", clearanceFault(plan)],
    ["doses", plan.doses === "beam" ? "A ramp needs marks. Choose lines or pulses." : null],
    [
      "stockWidthMm",
      plan.stockWidthMm < SHORTEST_RAMP_MM
        ? `The piece is too short for a ramp. Use at least ${SHORTEST_RAMP_MM} mm.`
        : null,
    ],
    [
      "stockHeightMm",
      plan.stockHeightMm < usedRampMm()
        ? `The line, the scale and the letters do not fit. Use a piece of at least ${plain(usedRampMm())} mm.`
        : null,
    ],
  ];
}

/** Over the uphill end of the plate the head must still clear it. */
function clearanceFault(plan: RampPlan): string | null {
  const gap = clearanceOver(plan);
  return gap < 0
    ? `The head would touch the plate ${plain(plan.headReachMm)} mm uphill. Raise the height by ${plain(-gap, 1)} mm, or use less rise.`
    : null;
}

function sweepFaults(plan: SweepPlan): Fault[] {
  const room = Math.min(plan.stockWidthMm, plan.stockHeightMm) - 2;
  return [
    [
      "squareMm",
      plan.squareMm > room ? `The square does not fit on the stock. Enter at most ${plain(room)} mm.` : null,
    ],
  ];
}

const NO_MARKS = "Widths of the beam are measured, not judged by eye. Choose by the widths, or choose lines or pulses.";

function belowZeroFault({ readAt }: HeightTerms, mm: number): string | null {
  return readAt === "rule" && mm < 0
    ? "A rule does not read below 0. Enter 0 or more, or choose a scale or readout."
    : null;
}

/** A stored number is learned by a change that is larger than heights are good to. */
function storedFaults({ setIn, sense, triedHomedMm = 0, homedMm = 0, settableMm }: FocusPlan): Fault[] {
  const moved = Math.abs(triedHomedMm - homedMm);
  if (setIn !== "stored" || sense !== "not known" || moved > settableMm) return [];
  return [
    [
      "triedHomedMm",
      `The height changed by ${plain(moved, 3)} mm only. Try a change of more than ${plain(settableMm)} mm.`,
    ],
  ];
}

const NO_LINES = "Widths are measured at single lines. Choose cells with single lines, or judge by eye.";

function stepFault({ stepMm, settableMm }: LadderPlan): string | null {
  return stepMm < settableMm
    ? `The step is smaller than the resolution of the height. Enter at least ${plain(settableMm)} mm.`
    : null;
}

function reachFault(plan: LadderPlan): string | null {
  const out = cellsOf(plan).find((c) => c.heightMm < plan.lowestMm || c.heightMm > plan.highestMm);
  return out
    ? `Cell ${out.number} would be at ${plain(out.heightMm)} mm, outside ${plain(plan.lowestMm)} to ${plain(plan.highestMm)} mm. Use fewer cells, a smaller step or another lowest number.`
    : null;
}

function heightFault(plan: LadderPlan): string | null {
  const needed = usedHeightMm(plan);
  return Number.isFinite(needed) && needed > plan.stockHeightMm
    ? `${plan.count} cells need ${plain(needed)} mm; the stock is ${plain(plan.stockHeightMm)} mm high. Use a larger piece or fewer cells.`
    : null;
}
