/** Plan of a ramp: one strip along which one setting changes. */
import type { MachineSpec } from "../../machine/machine-spec";
import { CELL_SETTINGS } from "../../marking/cell-settings";
import type { StockAtHand } from "../../stock/stock-at-hand";
import { energyFields, labelFields, NO_CARD, PURPOSES, usualRowPitchMm } from "../../trial/marking-fields";
import { field } from "../../trial/plan-field";
import type { PlanContext } from "../../trial/plan-form";
import type { PlanOf } from "../../trial/plan-table";
import { placeFields, powerField, stockField, stockSizeFields, topSpeed } from "../../trial/shared-fields";

export const VARIED = {
  powerPct: "Power",
  speedMmPerS: "Speed",
  aboveFocusMm: "Height above focus, on a propped stock",
} as const;
export type Varied = keyof typeof VARIED;

/** (common practice, no source) */
const USUAL = {
  pct: [5, 80],
  fixedPct: 30,
  fixedSpeedShare: 0.13,
  heightMm: 6,
  stockMm: 130,
  lengthMm: 100,
  widthMm: 8,
  kHz: 30,
  ns: 200,
};

export function planFields(context: PlanContext) {
  const { machine } = context;
  const side = Math.min(USUAL.stockMm, machine.widthMm, machine.depthMm);
  const beside = Math.min(10, machine.widthMm - side, machine.depthMm - side);
  return {
    /** Key of the batch. */
    stock: stockField(context, { why: "Find the marking settings of each batch.", noCard: NO_CARD }),
    ...stockSizeFields({ widthMm: side, heightMm: side, most: machine }),
    ...rangeFields(machine),
    ...fixedFields(machine),
    ...stripFields(side),
    ...labelFields(machine),
    ...energyFields(machine),
    purpose: field.choice(PURPOSES, { label: "Purpose", group: "Reading", usual: "engrave dark" }),
    bestReadings: field.count({
      label: "Readings of the best point",
      group: "Reading",
      why: "Start from the other end of the strip each time.",
      usual: 3,
      max: 20,
    }),
    ...placeFields({ xMm: beside, yMm: beside }, "Place"),
  };
}

/** Length of stock for edges, letters and head, mm. */
const AROUND_MM = 20;

const is = (key: Varied) => ({ field: "varied", is: [key] });
const isNot = (key: Varied) => ({ field: "varied", is: Object.keys(VARIED).filter((k) => k !== key) });

function rangeFields(machine: MachineSpec) {
  const group = "Ramp";
  const [low, high] = USUAL.pct;
  const top = machine.topSpeedMmPerS;
  const both = (label: string) => [`${label} at the beginning`, `${label} at the end`] as const;
  const [fromPower, toPower] = both("Power");
  const [fromSpeed, toSpeed] = both("Speed");
  const [fromHeight, toHeight] = both("Height above focus");
  return {
    varied: field.choice(VARIED, { label: "Varied along the strip", group, usual: "powerPct" }),
    fromPct: powerField({ label: `${fromPower}, %`, group, usual: low ?? 5, when: is("powerPct") }),
    toPct: powerField({ label: `${toPower}, %`, group, usual: high ?? 80, when: is("powerPct") }),
    fromMmPerS: field.speed({
      label: fromSpeed,
      group,
      usual: Math.round(top / 30),
      max: topSpeed(machine),
      when: is("speedMmPerS"),
    }),
    toMmPerS: field.speed({
      label: toSpeed,
      group,
      usual: Math.round(top / 3),
      max: topSpeed(machine),
      when: is("speedMmPerS"),
    }),
    fromHeightMm: field.signedLength({
      label: fromHeight,
      group,
      why: "Set this height by hand. Negative values are below focus.",
      usual: USUAL.heightMm,
      when: is("aboveFocusMm"),
    }),
    toHeightMm: field.signedLength({
      label: toHeight,
      group,
      why: "Enter a lower value. The stock is propped at this end.",
      usual: -USUAL.heightMm,
      when: is("aboveFocusMm"),
    }),
  };
}

function fixedFields(machine: MachineSpec) {
  const group = "Values";
  const only = machine.kind === "galvo" ? undefined : (false as const);
  return {
    speedMmPerS: field.speed({
      label: "Speed",
      group,
      usual: Math.round(USUAL.fixedSpeedShare * machine.topSpeedMmPerS),
      max: topSpeed(machine),
      when: isNot("speedMmPerS"),
    }),
    powerPct: powerField({ group, usual: USUAL.fixedPct, when: isNot("powerPct") }),
    rowPitchMm: field.length({ label: "Row pitch", group, usual: usualRowPitchMm(machine), max: 5 }),
    passes: field.count({ label: "Passes", group, usual: 1, max: 50 }),
    pulseKHz: field.number({ label: "Pulse frequency, kHz", group, usual: USUAL.kHz, when: only }),
    pulseNs: field.number({ label: "Pulse width, ns", group, usual: USUAL.ns, when: only }),
  };
}

function stripFields(stockMm: number) {
  const group = "Strip";
  return {
    lengthMm: field.length({
      label: "Length of the strip",
      group,
      usual: Math.min(USUAL.lengthMm, 10 * Math.floor((stockMm - AROUND_MM) / 10)),
      min: [20, "The scale needs room for its numbers."],
      max: 200,
    }),
    widthMm: field.length({
      label: "Width of the strip",
      group,
      usual: USUAL.widthMm,
      min: [2, "Narrower strips cannot be judged."],
      max: 50,
    }),
  };
}

type Asked = PlanOf<ReturnType<typeof planFields>>;
export type RampPlan = Asked & {
  /** The stock as its card was when it was laid out. */
  from: StockAtHand | null;
  /** Name of the lens that is fitted. */
  lens: string;
};

export function asLaidOut(asked: Asked, { stocks = [], optic }: PlanContext): RampPlan {
  return {
    ...asked,
    from: stocks.find((s) => s.key === asked.stock) ?? null,
    lens: optic?.label ?? "not entered",
  };
}

/** Values of the varied setting at both ends of the strip. */
export type Range = { from: number; to: number };

export function rangeOf(plan: RampPlan): Range {
  switch (plan.varied) {
    case "powerPct":
      return { from: plan.fromPct, to: plan.toPct };
    case "speedMmPerS":
      return { from: plan.fromMmPerS, to: plan.toMmPerS };
    case "aboveFocusMm":
      return { from: plan.fromHeightMm, to: plan.toHeightMm };
  }
}

/** The same ramp over another range. */
export function withRange(plan: RampPlan, { from, to }: Range): RampPlan {
  switch (plan.varied) {
    case "powerPct":
      return { ...plan, fromPct: from, toPct: to };
    case "speedMmPerS":
      return { ...plan, fromMmPerS: from, toMmPerS: to };
    case "aboveFocusMm":
      return { ...plan, fromHeightMm: from, toHeightMm: to };
  }
}

export const isByRatio = ({ varied }: Pick<RampPlan, "varied">) => CELL_SETTINGS[varied].byRatio;
