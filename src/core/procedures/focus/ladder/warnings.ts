/** What is worth saying about a ladder that can be burned. */
import { plain } from "../../../metrology/quantity-text";
import type { PlanContext, PlanWarning } from "../../../trial/plan-form";
import { opticWarnings } from "../optic-warnings";
import { cellsOf, FOCUS_HEIGHT, type LadderPlan } from "../plan";

export function ladderWarnings(plan: LadderPlan, { inForce, machine, optic }: PlanContext): PlanWarning[] {
  const held = inForce[FOCUS_HEIGHT];
  const heights = cellsOf(plan).map((c) => c.heightMm);
  const [low, high] = [Math.min(...heights), Math.max(...heights)];
  const warnings: PlanWarning[] = opticWarnings({ plan, low, high, field: "firstMm" }, machine, optic);
  if (held?.shape === "scalar" && (held.value < low || held.value > high))
    warnings.push({
      field: "firstMm",
      message: `The ladder does not include the height of daily work, ${plain(held.value)} mm. Change the lowest number or the step.`,
    });
  if (plan.moves === "by motor")
    warnings.push({
      field: "moves",
      message:
        "The file moves the head. Check that the head can reach the lowest and the highest number without touching anything.",
    });
  if (plan.judged === "by widths" && plan.count < 9)
    warnings.push({
      field: "count",
      message: "The focus by widths needs at least six marked cells. Use more cells.",
    });
  return warnings;
}
