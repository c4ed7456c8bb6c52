/** What may be chosen before an axis is measured, and what is refused by name. */
import { z } from "zod";
import type { MachineSpec } from "../../machine/machine-spec";
import { AXES, type Axis } from "../../machine/machine-spec";
import { topSpeedText } from "../../machine/not-known";
import { knownLengthField, knownLengthShape, usualKnownMm } from "../../measuring/known-length";
import { GAUGE_SHAPE, gaugeFields, gaugeIn, lengthGauges, USUAL_REACHES } from "../../measuring/length-gauges";
import type { FieldSpec, PlanContext, PlanForm } from "../../trial/plan-form";
import { choice, oneOf, positive } from "../../trial/plan-form";
import { besideSpan, sheetOf } from "./layout";
import { bedFault, spanFault, ticksFault } from "./plan-faults";
import { APPROACHES, AXES_CHOSEN, type AxisScalePlan, axesOf, isCut, WAYS } from "./plan-type";

const ROUND_MM = 10;
const MOST_TICKS = 40;
const CUT_DEFAULTS = { kerfMm: 0.2, cutSpeedMmPerS: 10, cutPowerPct: 60 };

const length = { kind: "quantity", dimension: "length", unit: "mm" } as const;
const speed = { kind: "quantity", dimension: "speed", unit: "mmPerS" } as const;
const CUT = ["part", "part and hole"] as const;

export function planForm(context: PlanContext): PlanForm<AxisScalePlan> {
  return { schema: schemaFor(context), defaults: defaultsFor(context), fields: fieldsFor(context) };
}

function defaultsFor(context: PlanContext): AxisScalePlan {
  const { machine } = context;
  const [gauge] = lengthGauges(context);
  const rest = {
    ...({
      way: "ladder",
      axes: "X and Y",
      gauge: gauge?.id ?? "",
      intervals: 5,
      approach: "one side",
    } as const),
    rows: 1,
    repeats: 2,
    knownMm: usualKnownMm(context),
    readoutStepMm: 0.1,
    ...CUT_DEFAULTS,
    ...USUAL_REACHES,
    speedMmPerS: Math.min(100, machine.topSpeedMmPerS / 4),
    powerPct: 14,
    stockAtXMm: 0,
    stockAtYMm: 0,
    spanXMm: 0,
    spanYMm: 0,
  };
  return { ...rest, ...longestSpans(rest, context) };
}

/** The longest that fit bed and gauge, in the middle of the bed; the two axes differ, so that a mix-up of them shows. */
export function longestSpans(plan: AxisScalePlan, context: PlanContext): Partial<AxisScalePlan> {
  const of = (axis: Axis) => Math.max(ROUND_MM, Math.floor(roomFor(context, plan, axis) / ROUND_MM) * ROUND_MM);
  const [spanXMm, spanYMm] = [of("x"), of("y")];
  const spans = { spanXMm, spanYMm: spanXMm === spanYMm ? spanYMm - ROUND_MM : spanYMm };
  return { ...spans, ...centred({ ...plan, ...spans }, context.machine) };
}

/** Of bed and gauge, mm. */
function roomFor(context: PlanContext, plan: AxisScalePlan, axis: Axis): number {
  const { machine } = context;
  const room = (axis === "x" ? machine.widthMm : machine.depthMm) - besideSpan(plan, axis);
  return Math.min(gaugeIn(plan, context).reachMm, room);
}

function centred(plan: Omit<AxisScalePlan, "stockAtXMm" | "stockAtYMm">, { widthMm, depthMm }: MachineSpec) {
  return {
    stockAtXMm: Math.max(0, Math.floor((widthMm - sheetOf(plan, "x")) / 2)),
    stockAtYMm: Math.max(0, Math.floor((depthMm - sheetOf(plan, "y")) / 2)),
  };
}

function fieldsFor(context: PlanContext): FieldSpec[] {
  const ladder = { field: "way", is: ["ladder"] };
  const cut = { field: "way", is: [...CUT] };
  const marked = { field: "way", is: ["ladder", "pair", ...CUT] };
  return [
    {
      key: "way",
      label: "What is measured",
      group: "Marks",
      ...choice(WAYS),
      why: "A ladder shows where an axis strays.",
    },
    { key: "axes", label: "Axes", group: "Marks", ...choice(AXES_CHOSEN), why: "" },
    {
      key: "spanXMm",
      label: "Length along X",
      group: "Marks",
      ...length,
      why: "As long as bed and gauge allow.",
      when: { field: "axes", is: ["X and Y", "X"] },
    },
    {
      key: "spanYMm",
      label: "Length along Y",
      group: "Marks",
      ...length,
      why: "Not the same as along X: a mix-up shows.",
      when: { field: "axes", is: ["X and Y", "Y"] },
    },
    { key: "intervals", label: "Ticks after the first", group: "Marks", kind: "count", why: "", when: ladder },
    {
      key: "approach",
      label: "Ticks are come to",
      group: "Marks",
      ...choice(APPROACHES),
      why: "",
      when: ladder,
    },
    {
      key: "rows",
      label: "Rows from each side",
      group: "Marks",
      kind: "count",
      why: "Two or more show how well a place is come to again.",
      when: { field: "approach", is: ["both sides"] },
    },
    {
      key: "kerfMm",
      label: "Cut is about",
      group: "Marks",
      ...length,
      why: "A part is smaller by it. Half of it is taken as its doubt.",
      when: { field: "way", is: ["part"] },
    },
    ...gaugeFields(context, "The longest that can be measured."),
    { key: "repeats", label: "Readings a site", group: "Reading", kind: "count", why: "Set anew each time." },
    knownLengthField({ field: "way", is: ["pair", "by hand", ...CUT] }),
    {
      key: "readoutStepMm",
      label: "Step of the readout",
      group: "Reading",
      ...length,
      why: "Smallest change of the number that the controller shows.",
      when: { field: "way", is: ["by hand"] },
    },
    {
      key: "speedMmPerS",
      label: "Speed of lines",
      group: "Burn",
      ...speed,
      why: "Slow and thin.",
      when: marked,
    },
    { key: "powerPct", label: "Power of lines, %", group: "Burn", kind: "count", why: "", when: marked },
    { key: "cutSpeedMmPerS", label: "Speed of the cut", group: "Burn", ...speed, why: "", when: cut },
    { key: "cutPowerPct", label: "Power of the cut, %", group: "Burn", kind: "count", why: "", when: cut },
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

function schemaFor(context: PlanContext): z.ZodType<AxisScalePlan> {
  const { machine } = context;
  const power = z
    .number({ error: "Give the power." })
    .positive("It must be larger than 0.")
    .max(100, "Power goes up to 100 %.");
  const pace = positive("the speed").max(machine.topSpeedMmPerS, topSpeedText(machine));
  const count = (what: string, most: number) =>
    z
      .number({ error: `Give ${what}.` })
      .int("A whole number.")
      .min(1, "At least 1.")
      .max(most, `${most} at most.`);
  const place = z.number({ error: "Give where the stock lies." }).min(0, "The stock must lie inside the working area.");
  return z
    .object({
      way: oneOf(WAYS),
      axes: oneOf(AXES_CHOSEN),
      ...GAUGE_SHAPE,
      spanXMm: positive("a length, for example 300 mm").default(0),
      spanYMm: positive("a length, for example 300 mm").default(0),
      intervals: count("the number of ticks", MOST_TICKS).default(1),
      approach: oneOf(APPROACHES).default("one side"),
      rows: count("the number of rows", 5).default(1),
      repeats: count("how often each site is read", 20),
      knownMm: knownLengthShape(context),
      readoutStepMm: positive("the step of the readout, for example 0.1 mm").optional(),
      kerfMm: z
        .number({ error: "Give the width of the cut, for example 0.2 mm." })
        .min(0, "No less than 0.")
        .max(2, "No laser cuts so wide: 0.1 to 0.4 mm is usual.")
        .optional(),
      speedMmPerS: pace.default(1),
      powerPct: power.default(1),
      cutSpeedMmPerS: pace.optional(),
      cutPowerPct: power.optional(),
      stockAtXMm: place,
      stockAtYMm: place,
    })
    .superRefine((plan, issues) => {
      const say = (field: keyof AxisScalePlan, message: string | undefined) => {
        if (message) issues.addIssue({ code: "custom", path: [field], message });
      };
      for (const axis of axesOf(plan)) say(axis === "x" ? "spanXMm" : "spanYMm", spanFault(plan, axis, context));
      for (const axis of AXES) say(axis === "x" ? "stockAtXMm" : "stockAtYMm", bedFault(plan, axis, machine));
      say("intervals", ticksFault(plan));
    })
    .transform(onlyAsked);
}

/** What another way asks for is no part of this plan. */
function onlyAsked({ kerfMm, readoutStepMm, cutSpeedMmPerS, cutPowerPct, ...plan }: AxisScalePlan): AxisScalePlan {
  return {
    ...plan,
    ...(plan.way === "part" ? { kerfMm } : {}),
    ...(plan.way === "by hand" ? { readoutStepMm } : {}),
    ...(isCut(plan) ? { cutSpeedMmPerS, cutPowerPct } : {}),
  };
}
