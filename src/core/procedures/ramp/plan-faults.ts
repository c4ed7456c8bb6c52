/** Refusals of a ramp, each with its remedy. */
import type { MachineSpec } from "../../machine/machine-spec";
import { valueText } from "../../marking/cell-settings";
import { doseOf, energyText } from "../../marking/dose";
import { fastestRow } from "../../marking/run-up";
import { plain } from "../../metrology/quantity-text";
import type { PlanContext, PlanForm } from "../../trial/plan-form";
import { completedPlanForm } from "../../trial/plan-table";
import { placeFaults } from "../../trial/shared-fields";
import { asLaidOut, isByRatio, planFields, type RampPlan, rangeOf } from "./plan";
import { needOf, segmentsOf, settingsAt } from "./strip";

/** Least factor or height between both ends. On a flatter ramp an eye sees no best point. */
const LEAST = { factor: 1.3, mm: 1 };
const STEEPEST = 0.3;

export function rampPlan(context: PlanContext): PlanForm<RampPlan> {
  const { machine } = context;
  return completedPlanForm(planFields(context), {
    complete: (asked) => asLaidOut(asked, context),
    faults: (plan) => [
      ["stock", plan.from ? null : "Choose the stock."],
      [END_FIELD[plan.varied], rangeFault(plan) ?? limitFault(plan)],
      [plan.varied === "speedMmPerS" ? "toMmPerS" : "speedMmPerS", speedFault(plan, machine)],
      ["rowPitchMm", rowFault(plan)],
      ["lengthMm", roomFault(plan)],
      ...placeFaults(plan, { widthMm: plan.stockWidthMm, heightMm: plan.stockHeightMm }, machine),
    ],
  });
}

const END_FIELD = { powerPct: "toPct", speedMmPerS: "toMmPerS", aboveFocusMm: "toHeightMm" } as const;

function rangeFault(plan: RampPlan): string | null {
  const { from, to } = rangeOf(plan);
  const [low, high] = [Math.min(from, to), Math.max(from, to)];
  if (isByRatio(plan))
    return high < LEAST.factor * low
      ? `The ramp goes from ${valueText(plan.varied, from)} to ${valueText(plan.varied, to)}. The factor between both must be at least ${LEAST.factor}. Enter a wider range.`
      : null;
  if (from - to < LEAST.mm)
    return `Heights go from ${plain(from)} to ${plain(to)} mm, but the propped stock needs falling heights. Enter at most ${plain(from - LEAST.mm)} mm.`;
  return (from - to) / plan.lengthMm > STEEPEST
    ? `The stock would rise ${plain(from - to)} mm over ${plain(plan.lengthMm)} mm. Enter heights at most ${plain(Math.floor(STEEPEST * plan.lengthMm))} mm apart.`
    : null;
}

/** Compares the strongest segment with the charring limit on the stock card. */
function limitFault(plan: RampPlan): string | null {
  const most = plan.from?.mostJPerMm2;
  if (most === undefined) return null;
  const { wattsAtFull, lineMm } = plan;
  const energy = (value: number) =>
    doseOf(settingsAt(plan, value), { wattsAtFull, lineMm, isPulsed: false, isFilled: true });
  const strongest = segmentsOf(plan)
    .map((s) => energy(s.value))
    .reduce((a, b) => (b.energy > a.energy ? b : a));
  return strongest.energy > most
    ? `The strong end has ${energyText(strongest)}. More than ${plain(most)} J/mm² chars this stock. Enter a weaker end.`
    : null;
}

function speedFault(plan: RampPlan, machine: MachineSpec): string | null {
  const fastest = Math.max(...segmentsOf(plan).map((s) => settingsAt(plan, s.value).speedMmPerS));
  const reached = fastestRow(plan, machine);
  return fastest > reached
    ? `Speed ${plain(Math.round(fastest))} mm/s is not reached beside this stock. Enter at most ${plain(Math.floor(reached))} mm/s, or move the stock away from the edge.`
    : null;
}

function rowFault({ rowPitchMm, varied, widthMm }: RampPlan): string | null {
  const most = varied === "aboveFocusMm" ? widthMm / 3 : 1;
  return rowPitchMm > most
    ? `Rows ${plain(rowPitchMm)} mm apart leave a segment without a row. Enter at most ${plain(most)} mm.`
    : null;
}

function roomFault(plan: RampPlan): string | null {
  const need = needOf(plan);
  return need.widthMm > plan.stockWidthMm || need.heightMm > plan.stockHeightMm
    ? `The ramp needs ${plain(Math.ceil(need.widthMm))} × ${plain(Math.ceil(need.heightMm))} mm. The stock is ${plain(plan.stockWidthMm)} × ${plain(plan.stockHeightMm)} mm. Enter a shorter strip or a larger stock.`
    : null;
}
