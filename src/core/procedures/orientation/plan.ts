/** What may be chosen before the orientation is looked at. */
import { field } from "../../trial/plan-field";
import type { PlanContext, PlanForm } from "../../trial/plan-form";
import { type PlanOf, planForm } from "../../trial/plan-table";
import { lineFields } from "../../trial/shared-fields";
import type { Order } from "./eight";
import { SWAP } from "./setting";

export const ORDER_WORDS = {
  "not known": "Not known: the burns show it",
  "swap first": "Swaps X and Y first, then inverts",
  "invert first": "Inverts first, then swaps X and Y",
} as const;

const SMALLEST_MM = 15;

function planFields({ machine }: PlanContext) {
  const side = Math.min(machine.widthMm, machine.depthMm);
  return {
    sizeMm: field.length({
      label: "Side of the coupon",
      group: "Coupon",
      why: "Use any flat offcut with four straight edges.",
      usual: Math.min(40, Math.floor(side)),
      min: [SMALLEST_MM, "Smaller arrows are hard to see."],
      max: [side, "The field is no larger."],
    }),
    order: field.choice(ORDER_WORDS, {
      label: "Order in the controller",
      group: "Controller",
      why: "The order matters only in some of the eight cases.",
      usual: orderHeld(machine.held[SWAP]) ?? "not known",
    }),
    ...lineFields(machine),
  };
}

function orderHeld(held: PlanContext["machine"]["held"][string] | undefined): Order | null {
  if (!held || held.senseAssumed) return null;
  return held.sense === 1 ? "swap first" : "invert first";
}

export type OrientationPlan = PlanOf<ReturnType<typeof planFields>>;

export function orientationPlan(context: PlanContext): PlanForm<OrientationPlan> {
  return planForm(planFields(context));
}
