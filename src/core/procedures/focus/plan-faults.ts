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
    ["stockWidthMm", columnsOf(plan) > 0 ? null : "Not even one cell fits on so narrow a piece."],
    ["stockHeightMm", heightFault(plan)],
  ];
}

const STEEPEST = 0.5;
const SHORTEST_RAMP_MM = 40;

function rampFaults(plan: RampPlan): Fault[] {
  const slope = slopeOf(plan);
  if (!slope) return [["runMm", "Along the plate the run is longer than the rise: measure both again."]];
  const { low, high } = numbersAlong(plan, slope);
  return [
    ["lowMm", belowZeroFault(plan, plan.lowMm)],
    [
      "riseMm",
      slope.tangent > STEEPEST
        ? "So steep a plate slips, and marks are drawn out: rise half of the run at most."
        : null,
    ],
    [
      "lowMm",
      low < plan.lowestMm || high > plan.highestMm
        ? `Along the line heights go from ${plain(low, 1)} to ${plain(high, 1)} mm, outside ${plain(plan.lowestMm)} to ${plain(plan.highestMm)} mm.`
        : null,
    ],
    ["headReachMm", clearanceFault(plan)],
    ["doses", plan.doses === "beam" ? "A ramp is marked: choose what marks." : null],
    [
      "stockWidthMm",
      plan.stockWidthMm < SHORTEST_RAMP_MM ? `A ramp needs ${SHORTEST_RAMP_MM} mm of length at least.` : null,
    ],
    [
      "stockHeightMm",
      plan.stockHeightMm < usedRampMm() ? `Line, scale and letters need ${plain(usedRampMm())} mm.` : null,
    ],
  ];
}

/** Over the uphill end of the plate the head must still clear it. */
function clearanceFault(plan: RampPlan): string | null {
  const gap = clearanceOver(plan);
  return gap < 0
    ? `Over the high end the head would touch the plate (it reaches ${plain(plan.headReachMm)} mm uphill and is ${plain(-gap, 1)} mm too low there): raise the low height, or take less rise.`
    : null;
}

function sweepFaults(plan: SweepPlan): Fault[] {
  const room = Math.min(plan.stockWidthMm, plan.stockHeightMm) - 2;
  return [["squareMm", plan.squareMm > room ? `It must fit the stock: ${plain(room)} mm at most.` : null]];
}

const NO_MARKS = "Widths of the beam itself are read, not judged by eye: choose by widths, or what marks.";

function belowZeroFault({ readAt }: HeightTerms, mm: number): string | null {
  return readAt === "rule" && mm < 0 ? "A rule does not read below 0. Is it a readout?" : null;
}

/** A stored number is learned by a change that is larger than heights are good to. */
function storedFaults({ setIn, sense, triedHomedMm = 0, homedMm = 0, settableMm }: FocusPlan): Fault[] {
  const moved = Math.abs(triedHomedMm - homedMm);
  if (setIn !== "stored" || sense !== "not known" || moved > settableMm) return [];
  return [
    [
      "triedHomedMm",
      `It moved by ${plain(moved, 3)} mm: heights are good to ${plain(settableMm)} mm. Try a larger change.`,
    ],
  ];
}

const NO_LINES = "Widths are read at single lines: let the cells hold them, or judge by eye.";

function stepFault({ stepMm, settableMm }: LadderPlan): string | null {
  return stepMm < settableMm
    ? `Heights can be set to ${plain(settableMm)} mm: a smaller step cannot be told apart.`
    : null;
}

function reachFault(plan: LadderPlan): string | null {
  const out = cellsOf(plan).find((c) => c.heightMm < plan.lowestMm || c.heightMm > plan.highestMm);
  return out
    ? `Cell ${out.number} would be at ${plain(out.heightMm)} mm, outside ${plain(plan.lowestMm)} to ${plain(plan.highestMm)} mm. Take fewer cells, a smaller step or another first height.`
    : null;
}

function heightFault(plan: LadderPlan): string | null {
  const needed = usedHeightMm(plan);
  return Number.isFinite(needed) && needed > plan.stockHeightMm
    ? `${plan.count} cells need ${plain(needed)} mm; the stock is ${plain(plan.stockHeightMm)} mm high. Use a larger piece or fewer cells.`
    : null;
}
