/** The burn of a ramp: scale and values with safe settings, then the strip from its weak end. Also the points to read. */
import { readoutAsk } from "../../coupon/ask";
import { letterStrokes } from "../../coupon/lettering";
import { type CouponPath, lineSettings, type MarkingSettings, type Piece } from "../../coupon/piece";
import type { Op } from "../../coupon/program";
import type { RoundSpec } from "../../coupon/round-spec";
import type { Site, StripPoint } from "../../coupon/site";
import type { CouponPoint } from "../../geometry/frames";
import { corners } from "../../geometry/rect";
import type { MachineSpec } from "../../machine/machine-spec";
import { eyewearLine } from "../../machine/not-known";
import { CELL_SETTINGS, settingText } from "../../marking/cell-settings";
import { runUpMm } from "../../marking/run-up";
import { plain } from "../../metrology/quantity-text";
import { stockText } from "../../stock/stock-at-hand";
import type { PlanContext } from "../../trial/plan-form";
import { layStock } from "../../trial/stock-words";
import { type RampPlan, rangeOf, type Varied } from "./plan";
import {
  areaOf,
  axisOf,
  EDGE_MM,
  LETTERS_MM,
  placeAt,
  type Segment,
  segmentsOf,
  settingsAt,
  ticksOf,
  valueLabels,
  weakEnd,
} from "./strip";

const PIECE = "ramp";
const LABELS = "labels";
/** A place between two ticks is read to this, mm. (common practice, no source) */
export const READ_STEP_MM = 0.5;

export const BEST_SITE = "best";
export const START_SITE = "start of good";
export const END_SITE = "end of good";

export function rampRound(plan: RampPlan, context: PlanContext): RoundSpec {
  const { machine } = context;
  const segments = segmentsOf(plan);
  return {
    pieces: [pieceOf(plan, segments, context)],
    placement: { xMm: plan.stockAtXMm, yMm: plan.stockAtYMm },
    program: programOf(plan, segments, machine),
    sites: sitesOf(plan),
    delivery: machine.kind === "galvo" ? "One group of the drawing for each segment" : "G-code, segment by segment",
    checklist: [
      eyewearLine(machine),
      "Stay at the machine. The strong end can ignite the stock.",
      ...(plan.varied === "aboveFocusMm" ? [] : ["Set the focus to the surface of the stock."]),
      "Switch on the extraction.",
    ],
  };
}

const idOf = (index: number) => `s${index + 1}`;

function pieceOf(plan: RampPlan, segments: readonly Segment[], { machine, couponCode }: PlanContext): Piece {
  const pulses = machine.kind === "galvo" ? { pulseKHz: plan.labelKHz } : {};
  const head = `${couponCode} ${machine.name.toUpperCase()}${plan.from ? ` ${plan.from.name.toUpperCase()}` : ""}`;
  const headAt = { x: EDGE_MM, y: plan.stockHeightMm - EDGE_MM - LETTERS_MM };
  const words = [
    ...letterStrokes(head, headAt, LETTERS_MM),
    ...ticksOf(plan).flatMap(({ from, to, number }) => [[from, to], ...(number ? scaleNumber(plan, number) : [])]),
    ...valueLabels(plan).flatMap(({ value, at }) =>
      letterStrokes(
        plain(value, CELL_SETTINGS[plan.varied].decimals).replace("-", "−"),
        at,
        LETTERS_MM,
        anchorOf(plan, "start"),
      ),
    ),
  ];
  return {
    id: PIECE,
    label: `Ramp, coupon ${couponCode}`,
    stock: [plan.from ? stockText(plan.from) : "", `${plain(plan.stockWidthMm)} × ${plain(plan.stockHeightMm)}`]
      .filter(Boolean)
      .join(", "),
    widthMm: plan.stockWidthMm,
    heightMm: plan.stockHeightMm,
    stockKey: plan.stock,
    settings: [
      { ...lineSettings(LABELS, "Scale and values", plan.labelSpeedMmPerS, plan.labelPowerPct), ...pulses },
      ...segments.map((segment, i) => segmentSettings(plan, segment, i, machine)),
    ],
    paths: [
      ...words.map((points): CouponPath => ({ points, closed: false, settings: LABELS })),
      ...segments.map(
        (segment, i): CouponPath => ({ points: corners(areaOf(plan, segment)), closed: true, settings: idOf(i) }),
      ),
    ],
  };
}

function anchorOf(plan: RampPlan, upright: "start" | "end"): "start" | "middle" | "end" {
  return axisOf(plan) === "y" ? upright : "middle";
}

function scaleNumber(plan: RampPlan, { text, at }: { text: string; at: CouponPoint }): CouponPoint[][] {
  return letterStrokes(text, at, LETTERS_MM, anchorOf(plan, "end"));
}

function segmentSettings(plan: RampPlan, { value }: Segment, index: number, machine: MachineSpec): MarkingSettings {
  const { speedMmPerS, powerPct, rowPitchMm, pulseKHz, pulseNs, passes } = settingsAt(plan, value);
  const isHeight = plan.varied === "aboveFocusMm";
  return {
    id: idOf(index),
    label: isHeight ? "The strip" : `Segment ${index + 1}: ${settingText(plan.varied, value)}`,
    use: "rows",
    speedMmPerS,
    powerPct,
    runUpMm: runUpMm(speedMmPerS, machine),
    scan: { rowPitchMm, direction: "both" },
    ...(passes === 1 ? {} : { passes }),
    ...(machine.kind === "galvo" ? { pulseKHz, pulseNs } : {}),
  };
}

function programOf(plan: RampPlan, segments: readonly Segment[], machine: MachineSpec): Op[] {
  const order = segments.map((_, i) => i);
  if (weakEnd(plan) === "end") order.reverse();
  return [
    layStock(plan, machine),
    ...propped(plan),
    { kind: "mark", piece: PIECE, settings: LABELS },
    ...order.flatMap((i) =>
      Array.from({ length: plan.passes }, (): Op => ({ kind: "mark", piece: PIECE, settings: idOf(i) })),
    ),
  ];
}

function propped(plan: RampPlan): Op[] {
  if (plan.varied !== "aboveFocusMm") return [];
  const { from, to } = rangeOf(plan);
  const start = placeAt(plan, 0, 0).x;
  const side = from >= 0 ? "above" : "below";
  return [
    {
      kind: "prop",
      fromXMm: start,
      tangent: (from - to) / plan.lengthMm,
      text: `Prop the right end until the stock rises ${plain(from - to)} mm over ${plain(plan.lengthMm)} mm. Secure the stock against slipping.`,
    },
    {
      kind: "move by hand",
      text: `Set the focus ${plain(Math.abs(from))} mm ${side} the stock at the beginning of the strip, ${plain(start)} mm from its left edge.`,
      aboveFocusMm: from,
    },
  ];
}

/** What ends the good range: on a ramp of power or speed too much energy, on a ramp of heights too little. */
const END_QUESTION = {
  powerPct: "At which number of the scale does the strip become charred, melted or blurred?",
  speedMmPerS: "At which number of the scale does the strip become charred, melted or blurred?",
  aboveFocusMm: "At which number of the scale does the good range end?",
} as const satisfies Record<Varied, string>;

function sitesOf(plan: RampPlan): Site[] {
  const within = areaOf(plan, { s0: 0, s1: plan.lengthMm });
  const site = (
    id: string,
    { label, question, which, repeats }: Pick<Site, "label" | "question" | "repeats"> & { which: StripPoint },
  ): Site => ({
    id,
    label,
    question,
    ask: readoutAsk({ plausibleUpTo: plan.lengthMm, stepMm: READ_STEP_MM }),
    measurand: { kind: "place on strip", which, within, along: axisOf(plan), weak: weakEnd(plan) },
    place: null,
    repeats,
    openEnded: false,
  });
  return [
    site(BEST_SITE, {
      label: "Best point of the strip",
      question: "At which number of the scale is the strip best?",
      which: "best",
      repeats: plan.bestReadings,
    }),
    site(START_SITE, {
      label: "Start of the good range",
      question: `At which number of the scale does the good range start? ${IF_NONE}`,
      which: "start of good",
      repeats: 1,
    }),
    site(END_SITE, {
      label: "End of the good range",
      question: `${END_QUESTION[plan.varied]} ${IF_NONE}`,
      which: "end of good",
      repeats: 1,
    }),
  ];
}

const IF_NONE = "Choose “cannot read” if the strip has no such point.";
