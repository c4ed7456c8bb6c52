/** What may be chosen before the stops of a fixture are measured, and what is refused by name. */
import { z } from "zod";
import type { Axis } from "../../machine/machine-spec";
import { edgeFields, edgeShape } from "../../measuring/edge-distance/fields";
import type { EdgeTerms, LinesLaid } from "../../measuring/edge-distance/terms";
import { usualKnownMm } from "../../measuring/known-length";
import { plain } from "../../metrology/quantity-text";
import type { FieldSpec, PlanContext, PlanForm, PlanWarning } from "../../trial/plan-form";
import { choice, oneOf, positive } from "../../trial/plan-form";
import { FIXTURE_STOP } from "./setting";

export const WAYS = {
  burned: "A cross, burned on a piece at the stops",
  traced: "A cross, traced by the aiming dot",
} as const;

export type FixturePlan = EdgeTerms & {
  way: keyof typeof WAYS;
  /** Half the length of an arm of the cross, mm. */
  armMm: number;
  /** Where the stops are taken to stand, from the two sides of the working area, mm: the cross goes by it. */
  aboutXMm: number;
  aboutYMm: number;
};

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

export function planForm(context: PlanContext): PlanForm<FixturePlan> {
  const { machine, inForce } = context;
  const held = (axis: Axis) => {
    const value = inForce[FIXTURE_STOP[axis]];
    return value?.shape === "scalar" ? value.value : ABOUT_MM;
  };
  const defaults: FixturePlan = {
    way: "burned",
    axes: "X and Y",
    sideX: "left",
    sideY: "front",
    distanceXMm: 40,
    distanceYMm: 35,
    armMm: 20,
    measuredTo: "centre",
    lineWidthMm: 0.2,
    repeats: 2,
    aboutXMm: held("x"),
    aboutYMm: held("y"),
    knownMm: usualKnownMm(context),
    speedMmPerS: Math.min(100, machine.topSpeedMmPerS / 4),
    powerPct: 14,
  };
  return { schema: schemaFor(context), defaults, fields: FIELDS };
}

const length = { kind: "quantity", dimension: "length", unit: "mm" } as const;

const FIELDS: FieldSpec[] = [
  { key: "way", label: "The cross is", group: "Lines", ...choice(WAYS), why: "" },
  ...edgeFields("stop"),
  {
    key: "armMm",
    label: "Arm of the cross",
    group: "Lines",
    ...length,
    why: "Half its length: read near both ends, a turned fixture shows.",
  },
  {
    key: "aboutXMm",
    label: "Stop of X stands at about",
    group: "Stops",
    ...length,
    why: "From that side of the working area. The cross is placed by it.",
  },
  {
    key: "aboutYMm",
    label: "Stop of Y stands at about",
    group: "Stops",
    ...length,
    why: "From that side of the working area.",
  },
];

function schemaFor(context: PlanContext): z.ZodType<FixturePlan> {
  const { machine } = context;
  const about = z
    .number({ error: "Give about where the stop stands, for example 30 mm." })
    .min(0, "The stops must lie inside the working area.");
  return z
    .object({
      ...edgeShape(context),
      way: oneOf(WAYS),
      armMm: positive("the arm of the cross, for example 20 mm").min(5, "Less than 5 mm does not show a turn."),
      aboutXMm: about,
      aboutYMm: about,
    })
    .superRefine((plan, issues) => {
      const say = (field: keyof FixturePlan, message: string) =>
        issues.addIssue({ code: "custom", path: [field], message });
      const ends = [
        ["distanceXMm", "aboutXMm", machine.widthMm],
        ["distanceYMm", "aboutYMm", machine.depthMm],
      ] as const;
      for (const [distance, place, size] of ends) {
        if (plan.armMm > plan[distance])
          say(distance, `The cross would reach over the stop: no less than ${plain(plan.armMm)} mm.`);
        const end = plan[place] + plan[distance] + plan.armMm;
        if (end > size)
          say(place, `The cross would reach ${plain(end)} mm; the working area ends at ${plain(size)} mm.`);
      }
    })
    .transform(({ lineWidthMm, ...plan }) => ({ ...plan, ...(plan.measuredTo === "near" ? { lineWidthMm } : {}) }));
}

export function planWarnings(plan: FixturePlan): PlanWarning[] {
  if (plan.axes !== "X and Y" || plan.distanceXMm !== plan.distanceYMm) return [];
  return [{ field: "distanceYMm", message: "As far as along X: if the two are mixed up, nobody will notice." }];
}
