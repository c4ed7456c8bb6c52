/** What may be chosen before the origin is measured, and what is refused by name. */
import { z } from "zod";
import type { MachineSpec } from "../../machine/machine-spec";
import { AXES, type Axis } from "../../machine/machine-spec";
import { edgeFields, edgeShape } from "../../measuring/edge-distance/fields";
import type { EdgeTerms, LinesLaid } from "../../measuring/edge-distance/terms";
import { usualKnownMm } from "../../measuring/known-length";
import { plain } from "../../metrology/quantity-text";
import { MM_PER_INCH, UNITS } from "../../metrology/units";
import type { FieldSpec, PlanContext, PlanForm, PlanWarning } from "../../trial/plan-form";
import { choice, oneOf, positive } from "../../trial/plan-form";
import { HOME_OFFSET } from "./setting";

export const SENSES = {
  "not known": "Not known: this burn and the next tell it",
  away: "moves marks away from that edge",
  toward: "moves marks toward that edge",
} as const;

export type OriginPlan = EdgeTerms & {
  /** Side of the box, mm. */
  boxMm: number;
  /** What a larger number does. */
  senseX: keyof typeof SENSES;
  senseY: keyof typeof SENSES;
  /** What one count moves, mm; where the offset counts. */
  countMm?: number;
  stockWidthMm: number;
  stockHeightMm: number;
};

/** A thousandth of an inch is usual. (common practice, no source) */
const USUAL_COUNT_MM = MM_PER_INCH / 1000;
const SPARE_MM = 10;

/** Whether the offset of an axis counts instead of being a length. */
export function isCount(held: MachineSpec["held"], axis: Axis): boolean {
  return UNITS[held[HOME_OFFSET[axis]]?.unit ?? "mm"].dimension === "count";
}

function isCounted({ held }: Pick<MachineSpec, "held">): boolean {
  return AXES.some((axis) => isCount(held, axis));
}

export function linesOf({
  distanceXMm,
  distanceYMm,
  boxMm,
}: Pick<OriginPlan, "distanceXMm" | "distanceYMm" | "boxMm">): LinesLaid {
  return { x: { from: distanceYMm, to: distanceYMm + boxMm }, y: { from: distanceXMm, to: distanceXMm + boxMm } };
}

export function planForm(context: PlanContext): PlanForm<OriginPlan> {
  const { machine } = context;
  const { home } = machine.axes;
  const [stockWidthMm, stockHeightMm] = [Math.min(100, machine.widthMm), Math.min(80, machine.depthMm)];
  const defaults: OriginPlan = {
    axes: "X and Y",
    sideX: home.endsWith("right") ? "right" : "left",
    sideY: home.startsWith("front") ? "front" : "back",
    distanceXMm: 20,
    distanceYMm: 15,
    boxMm: 40,
    measuredTo: "centre",
    lineWidthMm: 0.2,
    repeats: 2,
    knownMm: usualKnownMm(context),
    senseX: "not known",
    senseY: "not known",
    countMm: USUAL_COUNT_MM,
    stockWidthMm,
    stockHeightMm,
    speedMmPerS: Math.min(100, machine.topSpeedMmPerS / 4),
    powerPct: 14,
  };
  return { schema: schemaFor(context), defaults, fields: fieldsFor(machine) };
}

const length = { kind: "quantity", dimension: "length", unit: "mm" } as const;

function fieldsFor(machine: MachineSpec): FieldSpec[] {
  const group = "Home offset";
  return [
    ...edgeFields("edge of the stock"),
    {
      key: "boxMm",
      label: "Side of the box",
      group: "Lines",
      ...length,
      why: "Read near both ends of its lines, a turned stock shows.",
    },
    {
      key: "senseX",
      label: "A larger offset of X",
      group,
      ...choice(SENSES),
      why: "",
      when: { field: "axes", is: ["X and Y", "X"] },
    },
    {
      key: "senseY",
      label: "A larger offset of Y",
      group,
      ...choice(SENSES),
      why: "",
      when: { field: "axes", is: ["X and Y", "Y"] },
    },
    ...(isCounted(machine)
      ? [
          {
            key: "countMm",
            label: "One count moves",
            group,
            ...length,
            unit: "thou" as const,
            why: "A thousandth of an inch is usual: 0.001 in.",
          },
        ]
      : []),
    {
      key: "stockWidthMm",
      label: "Stock width",
      group: "Stock",
      ...length,
      why: "Pushed against the stops of the bed in the corner of the two edges.",
    },
    { key: "stockHeightMm", label: "Stock height", group: "Stock", ...length, why: "" },
  ];
}

function schemaFor(context: PlanContext): z.ZodType<OriginPlan> {
  const { machine } = context;
  return z
    .object({
      ...edgeShape(context),
      boxMm: positive("the side of the box, for example 40 mm").min(10, "Less than 10 mm does not show a turn."),
      senseX: oneOf(SENSES).default("not known"),
      senseY: oneOf(SENSES).default("not known"),
      countMm: positive("what one count moves, for example 0.001 in").max(1, "A count of more than 1 mm?").optional(),
      stockWidthMm: positive("the width of the stock").max(
        machine.widthMm,
        `The working area is ${plain(machine.widthMm)} mm wide.`,
      ),
      stockHeightMm: positive("the height of the stock").max(
        machine.depthMm,
        `The working area is ${plain(machine.depthMm)} mm deep.`,
      ),
    })
    .superRefine((plan, issues) => {
      const say = (field: keyof OriginPlan, message: string) =>
        issues.addIssue({ code: "custom", path: [field], message });
      const [u, v] = [plan.distanceXMm + plan.boxMm, plan.distanceYMm + plan.boxMm];
      if (u > plan.stockWidthMm)
        say(
          "stockWidthMm",
          `The box would end ${plain(u - plan.stockWidthMm)} mm outside the stock: it reaches ${plain(u)} mm from its edge.`,
        );
      if (v > plan.stockHeightMm)
        say(
          "stockHeightMm",
          `The box would end ${plain(v - plan.stockHeightMm)} mm outside the stock: it reaches ${plain(v)} mm from its edge.`,
        );
    })
    .transform(({ countMm, lineWidthMm, ...plan }) => ({
      ...plan,
      ...(isCounted(machine) ? { countMm } : {}),
      ...(plan.measuredTo === "near" ? { lineWidthMm } : {}),
    }));
}

export function planWarnings(plan: OriginPlan): PlanWarning[] {
  const warnings: PlanWarning[] = [];
  if (Math.min(plan.distanceXMm, plan.distanceYMm) < SPARE_MM)
    warnings.push({
      field: plan.distanceXMm < SPARE_MM ? "distanceXMm" : "distanceYMm",
      message: `Nearer than ${SPARE_MM} mm, a wrong origin may put the line beside the stock.`,
    });
  if (plan.axes === "X and Y" && plan.distanceXMm === plan.distanceYMm)
    warnings.push({ field: "distanceYMm", message: "As far as along X: if the two are mixed up, nobody will notice." });
  return warnings;
}
