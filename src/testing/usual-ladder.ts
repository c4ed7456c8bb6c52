import type { LadderPlan } from "../core/procedures/focus/plan";
import { focusPlan } from "../core/procedures/focus/plan-faults";
import type { PlanContext } from "../core/trial/plan-form";

/** The focus as it is usually looked for: a ladder of heights. */
export function usualLadder(context: PlanContext): LadderPlan {
  return { ...focusPlan(context).defaults, way: "ladder" };
}
