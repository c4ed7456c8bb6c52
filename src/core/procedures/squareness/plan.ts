/** What may be chosen before squareness is measured, and what is refused by name. */
import { expandedMm } from "../../measuring/baseline";
import { type GaugeChosen, gaugeFields, gaugeIn, usualGaugeChosen } from "../../measuring/length-gauges";
import { plain } from "../../metrology/quantity-text";
import { field } from "../../trial/plan-field";
import type { PlanContext, PlanForm } from "../../trial/plan-form";
import { type PlanOf, planForm } from "../../trial/plan-table";
import { lineFields, middleOf, placeFaults, placeFields, repeatsField } from "../../trial/shared-fields";
import { EDGE_MM, type Sides } from "./layout";

export const WAYS = {
  diagonals: "Both diagonals of a rectangle",
  triangle: "One diagonal: a triangle",
} as const;
export const ENDS = { right: "Its right end", left: "Its left end" } as const;

/** As large as bed and gauge allow, in steps of this, mm. */
const ROUND_MM = 10;
/** Share: a millimetre a metre. (common practice, no source) */
export const DEFAULT_TOLERANCE = 0.001;
/** Diagonals of narrower rectangles hardly show a lean. */
const NARROWEST = 4;

const NARROW = `The rectangle is too narrow. Make the longer side at most ${NARROWEST} times the shorter side.`;

function planFields(context: PlanContext) {
  const { machine } = context;
  const usual = largestRectangle(usualGaugeChosen(context), context);
  return {
    way: field.choice(WAYS, {
      label: "What is measured",
      group: "Rectangle",
      why: "Two diagonals need no readings of the sides.",
      usual: "diagonals",
    }),
    widthMm: field.length({
      label: "Along X",
      group: "Rectangle",
      why: "Use as much of the bed as the gauge can measure.",
      usual: usual.widthMm,
    }),
    heightMm: field.length({ label: "Along Y", group: "Rectangle", usual: usual.heightMm }),
    ...gaugeFields(context, "The diagonal must not be longer."),
    repeats: repeatsField(2),
    /** Between the two sides on which the beam of the gantry runs. */
    railsMm: field.length({
      label: "Between the rails",
      group: "Gantry",
      why: "Distance between the points where the beam is driven or clamped.",
      usual: machine.widthMm,
    }),
    /** Which end of the beam can be shifted. */
    end: field.choice(ENDS, { label: "End to shift", group: "Gantry", usual: "right" }),
    ...lineFields(machine),
    ...placeFields({ xMm: usual.stockAtXMm, yMm: usual.stockAtYMm }),
  };
}

export type SquarenessPlan = PlanOf<ReturnType<typeof planFields>>;

export function squarenessPlan(context: PlanContext): PlanForm<SquarenessPlan> {
  return planForm(planFields(context), {
    faults: (plan) => [["widthMm", sizeFault(plan, context)], ...placeFaults(plan, stockOf(plan), context.machine)],
  });
}

function stockOf({ widthMm, heightMm }: Sides): Sides {
  return { widthMm: widthMm + 2 * EDGE_MM, heightMm: heightMm + 2 * EDGE_MM };
}

/** The largest rectangle that bed and gauge allow, in the middle of the bed. */
export function largestRectangle(plan: GaugeChosen, context: PlanContext) {
  const { machine } = context;
  const { reachMm } = gaugeIn(plan, context);
  const [widthMm, heightMm] = largest(reachMm, machine.widthMm - 2 * EDGE_MM, machine.depthMm - 2 * EDGE_MM);
  const { xMm, yMm } = middleOf(machine, stockOf({ widthMm, heightMm }));
  return { widthMm, heightMm, stockAtXMm: xMm, stockAtYMm: yMm };
}

/** Sides in the proportion of the bed whose diagonal the gauge reaches, with something to spare. */
function largest(reachMm: number, width: number, height: number): [number, number] {
  const share = Math.min(1, (0.97 * reachMm) / Math.hypot(width, height));
  const down = (mm: number) => Math.max(ROUND_MM, Math.floor((share * mm) / ROUND_MM) * ROUND_MM);
  return [down(width), down(height)];
}

function sizeFault(plan: SquarenessPlan, context: PlanContext): string | null {
  const { widthMm, heightMm } = plan;
  const diagonal = Math.hypot(widthMm, heightMm);
  const { gauge, reachMm } = gaugeIn(plan, context);
  if (diagonal > reachMm)
    return `The diagonal is ${plain(diagonal, 0)} mm. The reach of ${gauge.name} is ${plain(reachMm)} mm. Use a smaller rectangle or a longer gauge.`;
  if (Math.max(widthMm, heightMm) > NARROWEST * Math.min(widthMm, heightMm)) return NARROW;
  const tolerance = context.tolerance ?? DEFAULT_TOLERANCE;
  const told = leanUncertainty(plan, expandedMm({ ...gauge, limitMm: 0 }, plan.repeats));
  if (told <= tolerance) return null;
  const needed = Math.ceil((diagonal * told) / tolerance);
  return `The uncertainty with ${gauge.name} is about ± ${plain(1000 * told, 1)} mm/m. The tolerance is ${plain(1000 * tolerance, 2)} mm/m. Use a diagonal of at least ${needed} mm, or take more readings.`;
}

/** Expanded uncertainty of the lean, from that of a length. */
function leanUncertainty({ way, widthMm, heightMm }: SquarenessPlan, lengthMm: number): number {
  const diagonal = Math.hypot(widthMm, heightMm);
  const each = (diagonal * lengthMm) / (2 * widthMm * heightMm);
  return way === "diagonals" ? each * Math.SQRT2 : 2 * each * Math.SQRT2;
}
