/** What may be chosen before the stops of a fixture are measured, and what is refused by name. */
import type { Axis } from "../../machine/machine-kind";
import { edgeFields } from "../../measuring/edge-distance/fields";
import type { LinesLaid } from "../../measuring/edge-distance/terms";
import { plain } from "../../metrology/quantity-text";
import { field } from "../../trial/plan-field";
import type { PlanContext, PlanForm, PlanWarning } from "../../trial/plan-form";
import { type PlanOf, planForm } from "../../trial/plan-table";
import { FIXTURE_STOP } from "./setting";

export const WAYS = {
  burned: "A cross, burned on a piece at the stops",
  traced: "A cross, traced by the aiming dot",
} as const;

const ABOUT_MM = 30;
/** The piece reaches so far beyond the cross, mm. */
export const BEYOND_MM = 15;

export function linesOf({
  distanceXMm,
  distanceYMm,
  armMm,
}: Pick<FixturePlan, "distanceXMm" | "distanceYMm" | "armMm">): LinesLaid {
  return {
    x: { from: distanceYMm - armMm, to: distanceYMm + armMm },
    y: { from: distanceXMm - armMm, to: distanceXMm + armMm },
  };
}

export function aboutOf(plan: Pick<FixturePlan, "aboutXMm" | "aboutYMm">, axis: Axis): number {
  return axis === "x" ? plan.aboutXMm : plan.aboutYMm;
}

/** The piece that lies at the stops, mm. */
export function stockOf({ distanceXMm, distanceYMm, armMm }: FixturePlan) {
  return { widthMm: distanceXMm + armMm + BEYOND_MM, heightMm: distanceYMm + armMm + BEYOND_MM };
}

function planFields(context: PlanContext) {
  const usual = { sideX: "left", sideY: "front", distanceXMm: 55, distanceYMm: 30 } as const;
  return {
    way: field.choice(WAYS, { label: "Cross", group: "Lines", usual: "burned" }),
    ...edgeFields(context, "stop", usual),
    /** Half the length of an arm of the cross. */
    armMm: field.length({
      label: "Arm of the cross",
      group: "Lines",
      why: "Enter half the length. Longer arms show a turned fixture better.",
      usual: 20,
      min: [5, "Less than 5 mm does not show a turn."],
    }),
    aboutXMm: aboutField(
      context,
      "x",
      "Distance from that side of the working area. The cross is placed by this value.",
    ),
    aboutYMm: aboutField(context, "y", "Distance from that side of the working area."),
  };
}

/** Where a stop is taken to stand, from its side of the working area: the cross goes by it. */
function aboutField({ inForce }: PlanContext, axis: Axis, why: string) {
  const held = inForce[FIXTURE_STOP[axis]];
  return field.length({
    label: `Stop of ${axis.toUpperCase()} at about`,
    group: "Stops",
    why,
    usual: held?.shape === "scalar" ? held.value : ABOUT_MM,
    min: [0, "The stops must lie inside the working area."],
  });
}

export type FixturePlan = PlanOf<ReturnType<typeof planFields>>;

export function fixturePlan(context: PlanContext): PlanForm<FixturePlan> {
  const { widthMm, depthMm } = context.machine;
  return planForm(planFields(context), {
    faults: (plan) => [
      ["distanceXMm", overStop(plan.distanceXMm, plan.armMm)],
      ["distanceYMm", overStop(plan.distanceYMm, plan.armMm)],
      ["aboutXMm", overBed(plan.aboutXMm + plan.distanceXMm + plan.armMm, widthMm)],
      ["aboutYMm", overBed(plan.aboutYMm + plan.distanceYMm + plan.armMm, depthMm)],
    ],
  });
}

function overStop(distanceMm: number, armMm: number): string | null {
  return armMm > distanceMm ? `The cross would reach over the stop. Enter at least ${plain(armMm)} mm.` : null;
}

function overBed(end: number, size: number): string | null {
  return end > size
    ? `The cross would reach to ${plain(end)} mm, outside the working area of ${plain(size)} mm. Use a smaller distance or a shorter arm.`
    : null;
}

export function planWarnings(plan: FixturePlan): PlanWarning[] {
  if (plan.axes !== "X and Y" || plan.distanceXMm !== plan.distanceYMm) return [];
  return [
    { field: "distanceYMm", message: "X and Y have the same distance. Use different distances, to notice a mix-up." },
  ];
}
