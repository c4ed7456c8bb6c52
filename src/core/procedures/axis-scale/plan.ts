/** What is chosen before an axis is measured. */
import type { Axis } from "../../machine/machine-kind";
import { axesField, WITH_X, WITH_Y } from "../../measuring/axes-field";
import { knownLengthField } from "../../measuring/known-length";
import { gaugeFields } from "../../measuring/length-gauges";
import { field, type When } from "../../trial/plan-field";
import type { PlanContext } from "../../trial/plan-form";
import type { PlanOf } from "../../trial/plan-table";
import { lineFields, placeFields, powerField, repeatsField, topSpeed } from "../../trial/shared-fields";

export const WAYS = {
  ladder: "A ladder of ticks",
  pair: "Two marks far apart",
  "by hand": "Two marks, moved by hand, readout noted",
  part: "A cut rectangle",
  "part and hole": "A cut rectangle and its hole",
} as const;
const APPROACHES = {
  "one side": "From one side",
  "both sides": "From both sides: shows backlash",
} as const;

const only = (...is: (keyof typeof WAYS)[]): When => ({ field: "way", is });
const CUT = only("part", "part and hole");
const MARKED = only("ladder", "pair", "part", "part and hole");

const MOST_TICKS = 40;

/** Lengths along the two axes, and where the stock lies, mm. */
export type Spans = Record<"spanXMm" | "spanYMm" | "stockAtXMm" | "stockAtYMm", number>;

export function planFields(context: PlanContext, usual: Spans) {
  const { machine } = context;
  return {
    way: field.choice(WAYS, {
      label: "What is measured",
      group: "Marks",
      why: "A ladder also shows positional deviations along the axis.",
      usual: "ladder",
    }),
    axes: axesField("Marks"),
    /** From the first to the last mark, or the side of the part. */
    spanXMm: field.length({
      label: "Length along X",
      group: "Marks",
      why: "Use as much of the bed as the gauge can measure.",
      usual: usual.spanXMm,
      when: WITH_X,
    }),
    spanYMm: field.length({
      label: "Length along Y",
      group: "Marks",
      why: "Use another length than along X, to notice a mix-up.",
      usual: usual.spanYMm,
      when: WITH_Y,
    }),
    intervals: field.count({
      label: "Ticks after the first",
      group: "Marks",
      usual: 5,
      max: MOST_TICKS,
      when: only("ladder"),
    }),
    approach: field.choice(APPROACHES, {
      label: "Approach to the ticks",
      group: "Marks",
      usual: "one side",
      when: only("ladder"),
    }),
    /** Rows of ticks from each side; each is an approach of its own. */
    rows: field.count({
      label: "Rows from each side",
      group: "Marks",
      why: "Use two or more rows to measure the repeatability.",
      usual: 1,
      max: 5,
      when: { field: "approach", is: ["both sides"] },
    }),
    /** Width of the cut as far as it is known. */
    kerfMm: field.length({
      label: "Kerf, about",
      group: "Marks",
      why: "Enter an estimate. Half of the value is used as the uncertainty.",
      usual: 0.2,
      min: 0,
      max: [2, "A kerf is usually 0.1 to 0.4 mm."],
      when: only("part"),
    }),
    ...gaugeFields(context, "Longest length that the gauge can measure."),
    repeats: repeatsField(2),
    knownMm: knownLengthField(context, only("pair", "by hand", "part", "part and hole")),
    readoutStepMm: field.length({
      label: "Step of the readout",
      group: "Reading",
      why: "Smallest change that the controller shows.",
      usual: 0.1,
      when: only("by hand"),
    }),
    ...lineFields(machine, MARKED),
    cutSpeedMmPerS: field.speed({
      label: "Speed of the cut",
      group: "Burn",
      usual: 10,
      max: topSpeed(machine),
      when: CUT,
    }),
    cutPowerPct: powerField({ label: "Power of the cut, %", usual: 60, when: CUT }),
    ...placeFields({ xMm: usual.stockAtXMm, yMm: usual.stockAtYMm }),
  };
}

export type AxisScalePlan = PlanOf<ReturnType<typeof planFields>>;

export function spanOf({ spanXMm, spanYMm }: Pick<AxisScalePlan, "spanXMm" | "spanYMm">, axis: Axis): number {
  return axis === "x" ? spanXMm : spanYMm;
}

export function isCut({ way }: Pick<AxisScalePlan, "way">): boolean {
  return CUT.is.includes(way);
}

export function isLadder({ way }: Pick<AxisScalePlan, "way">): boolean {
  return way === "ladder";
}
