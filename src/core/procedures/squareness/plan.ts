/** What may be chosen before squareness is measured, and what is refused by name. */
import { z } from "zod";
import { topSpeedText } from "../../machine/not-known";
import { expandedMm } from "../../measuring/baseline";
import {
  endingOf,
  GAUGE_SHAPE,
  gaugeFields,
  gaugeIn,
  lengthGauges,
  type Reaches,
  USUAL_REACHES,
} from "../../measuring/length-gauges";
import { plain } from "../../metrology/quantity-text";
import type { FieldSpec, PlanContext, PlanForm } from "../../trial/plan-form";
import { choice, oneOf, positive } from "../../trial/plan-form";
import { EDGE_MM } from "./layout";

export const WAYS = {
  diagonals: "Both diagonals of a rectangle",
  triangle: "One diagonal: a triangle",
} as const;
export const ENDS = { right: "Its right end", left: "Its left end" } as const;

export type SquarenessPlan = Reaches & {
  way: keyof typeof WAYS;
  /** Sides of the rectangle, mm. */
  widthMm: number;
  heightMm: number;
  /** Id of the gauge that is read with. */
  gauge: string;
  repeats: number;
  /** Between the two sides on which the beam of the gantry runs, mm. */
  railsMm: number;
  /** Which end of the beam can be shifted. */
  end: keyof typeof ENDS;
  speedMmPerS: number;
  powerPct: number;
  stockAtXMm: number;
  stockAtYMm: number;
};

/** As large as bed and gauge allow, in steps of this, mm. */
const ROUND_MM = 10;
/** Share: a millimetre a metre. (common practice, no source) */
export const DEFAULT_TOLERANCE = 0.001;
/** Thinner rectangles tell little. */
const NARROWEST = 4;

export function planForm(context: PlanContext): PlanForm<SquarenessPlan> {
  return { schema: schemaFor(context), defaults: defaultsFor(context), fields: fieldsFor(context) };
}

function defaultsFor(context: PlanContext): SquarenessPlan {
  const { machine } = context;
  const [gauge] = lengthGauges(context);
  const read = { gauge: gauge?.id ?? "", ...USUAL_REACHES };
  return {
    way: "diagonals",
    repeats: 2,
    ...read,
    railsMm: machine.widthMm,
    end: "right",
    speedMmPerS: Math.min(100, machine.topSpeedMmPerS / 4),
    powerPct: 14,
    ...largestRectangle(read, context),
  };
}

/** The largest rectangle that bed and gauge allow, in the middle of the bed. */
export function largestRectangle(plan: Reaches & { gauge: string }, context: PlanContext) {
  const { machine } = context;
  const { reachMm } = gaugeIn(plan, context);
  const [widthMm, heightMm] = largest(reachMm, machine.widthMm - 2 * EDGE_MM, machine.depthMm - 2 * EDGE_MM);
  return {
    widthMm,
    heightMm,
    stockAtXMm: Math.max(0, Math.floor((machine.widthMm - widthMm) / 2 - EDGE_MM)),
    stockAtYMm: Math.max(0, Math.floor((machine.depthMm - heightMm) / 2 - EDGE_MM)),
  };
}

/** Sides in the proportion of the bed whose diagonal the gauge reaches, with something to spare. */
function largest(reachMm: number, width: number, height: number): [number, number] {
  const share = Math.min(1, (0.97 * reachMm) / Math.hypot(width, height));
  const down = (mm: number) => Math.max(ROUND_MM, Math.floor((share * mm) / ROUND_MM) * ROUND_MM);
  return [down(width), down(height)];
}

const length = { kind: "quantity", dimension: "length", unit: "mm" } as const;

function fieldsFor(context: PlanContext): FieldSpec[] {
  return [
    {
      key: "way",
      label: "What is measured",
      group: "Rectangle",
      ...choice(WAYS),
      why: "Two diagonals need no sides.",
    },
    { key: "widthMm", label: "Along X", group: "Rectangle", ...length, why: "As large as bed and gauge allow." },
    { key: "heightMm", label: "Along Y", group: "Rectangle", ...length, why: "" },
    ...gaugeFields(context, "The diagonal must be within it."),
    { key: "repeats", label: "Readings a site", group: "Reading", kind: "count", why: "Set anew each time." },
    {
      key: "railsMm",
      label: "Between the rails",
      group: "Gantry",
      ...length,
      why: "From one end of the beam to the other, where it is driven or clamped.",
    },
    { key: "end", label: "What can be shifted", group: "Gantry", ...choice(ENDS), why: "" },
    {
      key: "speedMmPerS",
      label: "Speed",
      group: "Burn",
      kind: "quantity",
      dimension: "speed",
      unit: "mmPerS",
      why: "Slow and thin.",
    },
    { key: "powerPct", label: "Power, %", group: "Burn", kind: "count", why: "" },
    {
      key: "stockAtXMm",
      label: "Lies at X",
      group: "Stock",
      ...length,
      why: "Lower left corner, from the left edge of the working area.",
    },
    { key: "stockAtYMm", label: "Lies at Y", group: "Stock", ...length, why: "From its front edge." },
  ];
}

function schemaFor(context: PlanContext): z.ZodType<SquarenessPlan> {
  const { machine } = context;
  const place = z.number({ error: "Give where the stock lies." }).min(0, "The stock must lie inside the working area.");
  return z
    .object({
      way: oneOf(WAYS),
      widthMm: positive("the length along X, for example 300 mm"),
      heightMm: positive("the length along Y, for example 200 mm"),
      ...GAUGE_SHAPE,
      repeats: z
        .number({ error: "Give how often each site is read." })
        .int("A whole number.")
        .min(1, "At least 1.")
        .max(20, "20 at most."),
      railsMm: positive("the distance between the rails, for example 700 mm"),
      end: oneOf(ENDS),
      speedMmPerS: positive("the speed").max(machine.topSpeedMmPerS, topSpeedText(machine)),
      powerPct: positive("the power").max(100, "Power goes up to 100 %."),
      stockAtXMm: place,
      stockAtYMm: place,
    })
    .superRefine((plan, issues) => {
      const say = (field: keyof SquarenessPlan, message: string | undefined) => {
        if (message) issues.addIssue({ code: "custom", path: [field], message });
      };
      say("widthMm", sizeFault(plan, context));
      say("stockAtXMm", bedFault(plan.stockAtXMm + plan.widthMm + 2 * EDGE_MM, machine.widthMm));
      say("stockAtYMm", bedFault(plan.stockAtYMm + plan.heightMm + 2 * EDGE_MM, machine.depthMm));
    });
}

function sizeFault(plan: SquarenessPlan, context: PlanContext): string | undefined {
  const { widthMm, heightMm } = plan;
  const diagonal = Math.hypot(widthMm, heightMm);
  const { gauge, reachMm } = gaugeIn(plan, context);
  // The other fields report a size or a count of 0.
  if (!(widthMm > 0 && heightMm > 0 && plan.repeats > 0)) return undefined;
  if (diagonal > reachMm)
    return `The diagonal is ${plain(diagonal, 0)} mm; ${gauge.name} ${endingOf(gauge, "reach", "es")} ${plain(reachMm)} mm, as said below. Take a smaller rectangle or a longer gauge.`;
  if (Math.max(widthMm, heightMm) > NARROWEST * Math.min(widthMm, heightMm))
    return `So narrow, its diagonals hardly tell: the longer side at most ${NARROWEST} times the shorter.`;
  const tolerance = context.tolerance ?? DEFAULT_TOLERANCE;
  const told = leanDoubt(plan, expandedMm({ ...gauge, limitMm: 0 }, plan.repeats));
  if (told <= tolerance) return undefined;
  const needed = Math.ceil((diagonal * told) / tolerance);
  return `${gauge.name} ${endingOf(gauge, "tell", "s")} it to ± ${plain(1000 * told, 1)} mm a metre, and ${plain(1000 * tolerance, 2)} is wanted: the diagonal must be ${needed} mm or more, or each be read more often.`;
}

/** Expanded uncertainty of the lean, from that of a length. */
function leanDoubt({ way, widthMm, heightMm }: SquarenessPlan, lengthMm: number): number {
  const diagonal = Math.hypot(widthMm, heightMm);
  const each = (diagonal * lengthMm) / (2 * widthMm * heightMm);
  return way === "diagonals" ? each * Math.SQRT2 : 2 * each * Math.SQRT2;
}

function bedFault(end: number, size: number): string | undefined {
  return end > size ? `The stock would reach ${plain(end)} mm; the working area ends at ${plain(size)} mm.` : undefined;
}
