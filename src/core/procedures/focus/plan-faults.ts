/** What does not go together in a plan: each refused at its field, with what to do. */

import type { MachineSpec } from "../../machine/machine-spec";
import { plain } from "../../metrology/quantity-text";
import { columnsOf, usedHeightMm } from "./ladder/layout";
import { cellsOf, type FocusPlan, type HeightTerms, type LadderPlan, type RampPlan, type SweepPlan } from "./plan-type";
import { clearanceOver, numbersAlong, slopeOf, usedRampMm } from "./ramp/slope";

type Fault = [field: string, message: string | null];

/** @returns field and message of each */
export function faultsOf(plan: FocusPlan, machine: MachineSpec): [string, string][] {
  const own = plan.way === "ladder" ? ladderFaults(plan) : plan.way === "ramp" ? rampFaults(plan) : sweepFaults(plan);
  const faults: Fault[] = [
    ["allowanceMm", plan.readAt === "rule" && plan.allowanceMm === undefined ? NO_ALLOWANCE : null],
    ...storedFaults(plan),
    ["highestMm", plan.highestMm > plan.lowestMm ? null : "The highest number must be larger than the lowest."],
    ["pulseKHz", machine.kind === "galvo" && plan.pulseKHz === undefined ? NO_PULSES : null],
    ...own,
    ["stockAtXMm", edgeFault(plan.stockAtXMm + plan.stockWidthMm, machine.widthMm)],
    ["stockAtYMm", edgeFault(plan.stockAtYMm + plan.stockHeightMm, machine.depthMm)],
  ];
  return faults.flatMap(([field, message]) => (message ? [[field, message] as [string, string]] : []));
}

const NO_PULSES = "Give how many thousand pulses a second.";

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

const NO_ALLOWANCE = "Give what the rule leaves out below its zero, for example 6 mm, or 0.";
const NO_HOMED = "Let it find its height by itself, and give what you read then.";
const NO_TRY = "Give the number that you tried, and the height that it led to.";
const NO_MARKS = "Widths of the beam itself are read, not judged by eye: choose by widths, or what marks.";

function belowZeroFault({ readAt }: HeightTerms, mm: number): string | null {
  return readAt === "rule" && mm < 0 ? "A rule does not read below 0. Is it a readout?" : null;
}

function storedFaults(plan: HeightTerms): Fault[] {
  if (plan.setIn !== "stored") return [];
  const learns = plan.sense === "not known";
  const moved = Math.abs((plan.triedHomedMm ?? 0) - (plan.homedMm ?? 0));
  const tooSmall = `It moved by ${plain(moved, 3)} mm: heights are good to ${plain(plan.settableMm)} mm. Try a larger change.`;
  return [
    ["homedMm", plan.homedMm === undefined ? NO_HOMED : null],
    ["sense", plan.sense === undefined ? "Say what a larger number does, or learn it by a small change." : null],
    ["triedNumberMm", learns && plan.triedNumberMm === undefined ? NO_TRY : null],
    ["triedHomedMm", learns && plan.triedHomedMm === undefined ? NO_TRY : null],
    ["triedHomedMm", learns && plan.triedHomedMm !== undefined && moved <= plan.settableMm ? tooSmall : null],
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

function edgeFault(reached: number, end: number): string | null {
  return reached > end
    ? `The stock would reach ${plain(reached)} mm; the working area ends at ${plain(end)} mm.`
    : null;
}
