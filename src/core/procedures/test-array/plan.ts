/** What is chosen before an array of cells is burned. */

import type { MachineSpec } from "../../machine/machine-spec";
import { LEAST_COMPARISONS } from "../../marking/array-answer";
import { CELL_SETTING_KEYS, CELL_SETTINGS, type CellSetting, settingsOn, spaced } from "../../marking/cell-settings";
import type { StockAtHand } from "../../stock/stock-at-hand";
import { energyFields, labelFields, NO_CARD, PURPOSES, usualRowPitchMm } from "../../trial/marking-fields";
import { field, keysOf } from "../../trial/plan-field";
import type { PlanContext } from "../../trial/plan-form";
import type { PlanOf } from "../../trial/plan-table";
import { placeFields, stockField, stockSizeFields } from "../../trial/shared-fields";

export const FILLS = {
  filled: "Filled squares",
  outlined: "Outlined squares",
  cut: "Squares to be cut through",
  "own filled": "A drawing of your own, filled",
  "own lines": "A drawing of your own, as lines",
} as const;

/** Whether rows fill the cells; else lines are burned as drawn. */
export const isFilled = ({ fill }: Pick<TestArrayPlan, "fill">): boolean => fill === "filled" || fill === "own filled";

export const ORDERS = {
  "weak first": "By their values, weak cells first",
  mixed: "Places mixed",
} as const;

export const SCORES = {
  darkness: "Darkness, from a scan or photo",
  contrast: "Contrast, from a scan or photo",
  evenness: "Evenness, from a scan or photo",
  sharpness: "Sharpness of the edges, from a scan or photo",
  eye: "By eye, the best cell and all cells as good",
  comparisons: "By eye, two cells at a time",
  "yes or no": "By eye, each cell yes or no: marked, or cut through",
  depth: "Depth, with a gauge",
  colour: "Colour, from a scan with a white and a grey card",
} as const;
export type Score = keyof typeof SCORES;

/** What a scan or photo shows of every cell. */
export const PICTURED = ["darkness", "contrast", "evenness", "sharpness"] as const satisfies readonly Score[];
export type Pictured = (typeof PICTURED)[number];
export const isPictured = (score: Score): score is Pictured => PICTURED.some((s) => s === score);

export const isByEye = (score: Score): boolean => score === "eye" || score === "comparisons" || score === "yes or no";

/** What the marks are for, as the card says it. */
export function purposeOf({ fill, score, purpose }: Pick<TestArrayPlan, "fill" | "score" | "purpose">): string {
  if (score === "colour") return "Mark in colour";
  return fill === "cut" ? PURPOSES["cut through"] : PURPOSES[purpose];
}

export const NO_BLOCKS = "none";

/** Power from which a new array is laid out. (common practice, no source) */
const USUAL_PCT = { gantry: [10, 80], galvo: [20, 100] } as const;
const USUAL_CELLS = 7;
const USUAL_COMPARISONS = 20;

export function planFields(context: PlanContext) {
  const { machine } = context;
  return {
    /** Key of the batch. */
    stock: stockField(context, { why: "Find the marking settings of each batch.", noCard: NO_CARD }),
    ...stockSizeFields({ widthMm: 90, heightMm: 90, most: machine }),
    ...edgeFields(machine),
    ...valueFields(machine),
    ...cellFields(),
    ...labelFields(machine),
    ...energyFields(machine),
    purpose: field.choice(PURPOSES, {
      label: "Purpose",
      group: "Score",
      usual: "engrave dark",
      // Cells that are cut through, or coloured, have their purpose.
      when: [
        { field: "fill", is: keysOf(FILLS).filter((f) => f !== "cut") },
        { field: "score", is: keysOf(SCORES).filter((s) => s !== "colour") },
      ],
    }),
    score: field.choice(SCORES, {
      label: "Scored by",
      group: "Score",
      whys: { "yes or no": "The fastest cell that passes with certainty is chosen." },
      usual: "darkness",
    }),
    ...colourFields(),
    comparisons: field.count({
      label: "Comparisons",
      group: "Score",
      why: "20 comparisons are enough for 100 cells.",
      usual: USUAL_COMPARISONS,
      min: [LEAST_COMPARISONS, "Fewer comparisons do not show the best cell."],
      max: 200,
      when: { field: "score", is: ["comparisons"] },
    }),
    ...placeFields({ xMm: 10, yMm: 10 }, "Place"),
  };
}

function colourFields() {
  const group = "Score";
  const when = { field: "score", is: ["colour"] };
  return {
    wanted: field.colour({
      label: "Wanted colour",
      group,
      why: "The best cell is nearest to this colour.",
      usual: "#23408f",
      when,
    }),
    whiteCard: field.number({
      label: "White card, L*",
      group,
      why: "White paper has about 95.",
      usual: 95,
      min: [70, "A darker card is not white."],
      max: [100, "No surface is lighter than 100."],
      when,
    }),
    greyCard: field.number({
      label: "Grey card, L*",
      group,
      why: "A grey card of 18 % has 49.5.",
      usual: 49.5,
      min: [20, "A darker card is nearly black in a scan."],
      max: [65, "A lighter card is too near to white."],
      when,
    }),
  };
}

function edgeFields({ kind }: MachineSpec) {
  const options = settingsOn(kind).map((key) => ({ value: key, label: CELL_SETTINGS[key].label }));
  return {
    across: field.oneOfThese(options, { label: "Varied from left to right", group: "Edges", usual: "speedMmPerS" }),
    up: field.oneOfThese(options, { label: "Varied from front to back", group: "Edges", usual: "powerPct" }),
    blocks: field.oneOfThese([{ value: NO_BLOCKS, label: "One block" }, ...options], {
      label: "Varied from block to block",
      group: "Edges",
      usual: NO_BLOCKS,
    }),
  };
}

const ONE = "One value for all cells.";

function valueFields(machine: MachineSpec) {
  const isGalvo = machine.kind === "galvo";
  const top = machine.topSpeedMmPerS;
  const [least, most] = USUAL_PCT[isGalvo ? "galvo" : "gantry"];
  const only = isGalvo ? undefined : (false as const);
  const group = "Values";
  return {
    speedMmPerS: field.speeds({
      label: "Speed",
      group,
      why: ONE,
      usual: spaced("speedMmPerS", Math.round(top / 20), Math.round(top / 3), USUAL_CELLS, "ratio"),
    }),
    powerPct: field.numbers({
      label: "Power, %",
      group,
      why: ONE,
      unit: "%",
      usual: spaced("powerPct", least, most, USUAL_CELLS, "ratio"),
    }),
    rowPitchMm: field.lengths({ label: "Row pitch", group, why: ONE, usual: [usualRowPitchMm(machine)] }),
    passes: field.numbers({ label: "Passes", group, why: ONE, unit: "", usual: [1] }),
    pulseKHz: field.numbers({ label: "Pulse frequency, kHz", group, why: ONE, unit: "kHz", usual: [30], when: only }),
    pulseNs: field.numbers({ label: "Pulse width, ns", group, why: ONE, unit: "ns", usual: [200], when: only }),
    aboveFocusMm: field.numbers({
      label: "Height above focus, mm",
      group,
      why: "Set each height by hand. Negative values are below focus.",
      unit: "mm",
      usual: [0],
      signed: true,
    }),
    dwellMs: field.numbers({
      label: "Dwell per dot, ms",
      group,
      why: "Enter 0 for lines, or the time for each dot of a row.",
      unit: "ms",
      usual: [0],
      when: only,
    }),
  };
}

function cellFields() {
  return {
    fill: field.choice(FILLS, { label: "Cells", group: "Cells", usual: "filled" }),
    drawing: field.drawing({
      label: "Drawing",
      group: "Cells",
      missing: "Choose an SVG file.",
      when: { field: "fill", is: ["own filled", "own lines"] },
    }),
    cellMm: field.length({
      label: "Side of a cell",
      group: "Cells",
      usual: 6,
      min: [1, "Smaller cells cannot be judged."],
      max: 100,
    }),
    gapMm: field.length({
      label: "Blank stock between cells",
      group: "Cells",
      why: "The reader compares each cell with the stock beside it.",
      usual: 2.5,
      min: [0.5, "The reader needs blank stock between cells."],
      max: 50,
    }),
    order: field.choice(ORDERS, {
      label: "Order of the cells",
      group: "Cells",
      usual: "weak first",
      whys: { mixed: "The texture of the stock and the warm machine then do not look like a setting." },
    }),
  };
}

/** Passes of a cell, at most. */
export const PASSES_LIMIT = 50;

type Asked = PlanOf<ReturnType<typeof planFields>>;
export type TestArrayPlan = Omit<Asked, "across" | "up" | "blocks"> & {
  across: CellSetting;
  up: CellSetting;
  blocks: CellSetting | typeof NO_BLOCKS;
  /** The stock as its card was when it was laid out. */
  from: StockAtHand | null;
  /** Name of the lens that is fitted. */
  lens: string;
  /** Of the coupon: mixed places are drawn from it. */
  code: string;
};

export function asLaidOut(asked: Asked, { stocks = [], optic, couponCode }: PlanContext): TestArrayPlan {
  const { across, up, blocks, ...rest } = asked;
  return {
    ...rest,
    across: cellSettingOf(across) ?? "speedMmPerS",
    up: cellSettingOf(up) ?? "powerPct",
    blocks: cellSettingOf(blocks) ?? NO_BLOCKS,
    from: stocks.find((s) => s.key === asked.stock) ?? null,
    lens: optic?.label ?? "not entered",
    code: couponCode,
  };
}

function cellSettingOf(key: string): CellSetting | null {
  return CELL_SETTING_KEYS.find((k) => k === key) ?? null;
}
