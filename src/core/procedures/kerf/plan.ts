/** What may be chosen before a kerf is measured, and what is refused by name. */
import { z } from "zod";
import { plain } from "../../metrology/quantity-text";
import type { FieldSpec, PlanContext, PlanForm, PlanWarning } from "../contract";
import {
  choice,
  LENGTH,
  oneOf,
  POWER_SHAPE,
  positive,
  REPEATS_SHAPE,
  SPEED,
  speedShape,
  wholeNumber,
} from "../field-shapes";
import { GAUGE_SHAPE, gaugeFields, gaugeIn, lengthGauges, USUAL_REACHES } from "../length-gauges";
import { type StockAtHand, stockText } from "../stock-at-hand";
import { cellSize, columnsOf, cutSideMm, EDGE_MM, matesNeed, sheetOf } from "./layout";
import { FACES, GASES, isMateWay, isSquareWay, type KerfPlan, MATE_WAYS, OFFSETS, WAYS, type Way } from "./plan-type";

/** Largest error of the offset per side that is still good, mm. (common practice, no source) */
export const DEFAULT_TOLERANCE_MM = 0.02;
/** Inside jaws go into holes from here on, mm. (common practice, no source) */
const NARROWEST_HOLE_MM = 10;
/** A strip that is narrower bends or burns, mm. (common practice, no source) */
const NARROWEST_STRIP_MM = 3;
const NO_CARD = "Make a card of the stock first: the kerf is kept on it.";
const SQUARES: Way[] = ["part and hole", "part", "hole"];
const MATES: Way[] = [...MATE_WAYS];

export function planForm(context: PlanContext): PlanForm<KerfPlan> {
  return { schema: schemaFor(context), defaults: defaultsFor(context), fields: fieldsFor(context) };
}

function defaultsFor(context: PlanContext): KerfPlan {
  const { machine, stocks = [] } = context;
  const [gauge] = lengthGauges(context);
  return {
    ...{ way: "part and hole", stock: stocks[0]?.key ?? "", ...fromOf(stocks, stocks[0]?.key) },
    ...{ sideMm: 40, grownMm: 0, scaleWithin: 0.001, faces: "top" },
    ...{ cuts: 10, stripMm: 4 },
    ...{ jointMm: 10, offsetOn: "both", firstMm: 0, stepMm: 0.02, mates: 10, snugGapMm: 0.02, snugWithinMm: 0.02 },
    ...{ sheetWidthMm: Math.min(300, machine.widthMm), sheetHeightMm: Math.min(200, machine.depthMm) },
    ...{ gauge: gauge?.id ?? "", repeats: 2, ...USUAL_REACHES },
    ...{ speedMmPerS: 10, powerPct: 60, passes: 1, gas: "air", focusBelowMm: 0 },
    ...{ markSpeedMmPerS: Math.min(100, machine.topSpeedMmPerS / 2), markPowerPct: 15 },
    ...{ stockAtXMm: 10, stockAtYMm: 10 },
  };
}

function fieldsFor(context: PlanContext): FieldSpec[] {
  const { stocks = [] } = context;
  const square = { field: "way", is: SQUARES };
  const comb = { field: "way", is: ["comb"] };
  const mates = { field: "way", is: MATES };
  const cutWays = { field: "way", is: [...SQUARES, "comb"] };
  return [
    {
      ...{ key: "stock", label: "Stock", group: "Stock", kind: "choice" },
      why: "A kerf belongs to one batch of it.",
      options: stocks.map((s) => ({ value: s.key, label: stockText(s), why: "" })),
      elsewhere: {
        href: "/stock",
        label: stocks.length === 0 ? "Make a card of the stock first" : "Cards of the stock",
      },
    },
    {
      ...{ key: "way", label: "What is cut", group: "Cut", ...choice(WAYS) },
      why: "Part and hole tell kerf and scale apart.",
    },
    {
      ...{ key: "sideMm", label: "Side of the square", group: "Cut", ...LENGTH },
      why: "As it is drawn.",
      when: square,
    },
    {
      ...{ key: "grownMm", label: "Grown on each side by", group: "Cut", ...LENGTH },
      why: "0 to measure; the offset per side to prove it. A hole alone is shrunk.",
      when: square,
    },
    {
      ...{
        key: "scaleWithin",
        label: "Lengths are right within",
        group: "Cut",
        kind: "quantity",
        dimension: "ratio",
        unit: "percent",
      },
      why: "What the scale may add to the kerf; 0.1 % is 0.04 mm in 40.",
      when: { field: "way", is: ["part", "hole"] },
    },
    {
      ...{ key: "faces", label: "Read on", group: "Cut", ...choice(FACES) },
      why: "The bottom face tells the taper.",
      when: square,
    },
    {
      ...{ key: "cuts", label: "Cuts across", group: "Cut", kind: "count" },
      why: "All of them, the frame counted in.",
      when: comb,
    },
    { ...{ key: "stripMm", label: "From cut to cut", group: "Cut", ...LENGTH }, why: "", when: comb },
    {
      ...{ key: "jointMm", label: "Width of the joint", group: "Mates", ...LENGTH },
      why: "Drawn alike on both; of a plug its diameter.",
      when: { field: "way", is: ["tongue and slot", "plug and ring"] },
    },
    {
      ...{ key: "offsetOn", label: "The offset is on", group: "Mates", ...choice(OFFSETS) },
      why: "On both it counts twice as much.",
      when: { field: "way", is: ["tongue and slot", "plug and ring"] },
    },
    {
      ...{ key: "firstMm", label: "First offset per side", group: "Mates", ...LENGTH, signed: true },
      why: "",
      when: mates,
    },
    { ...{ key: "stepMm", label: "Step", group: "Mates", ...LENGTH }, why: "From mate to mate.", when: mates },
    {
      ...{ key: "mates", label: "Mates", group: "Mates", kind: "count" },
      why: "From loose to will not go.",
      when: mates,
    },
    {
      ...{ key: "snugGapMm", label: "Snug is a gap of", group: "Mates", ...LENGTH, signed: true },
      why: "Across both sides. For the kerf alone: the snug offset supposes nothing.",
      when: mates,
    },
    { ...{ key: "snugWithinMm", label: "give or take", group: "Mates", ...LENGTH }, why: "", when: mates },
    {
      ...{ key: "sheetWidthMm", label: "Piece of stock, along X", group: "Mates", ...LENGTH },
      why: "Mates are laid out on it.",
      when: mates,
    },
    { ...{ key: "sheetHeightMm", label: "along Y", group: "Mates", ...LENGTH }, why: "", when: mates },
    { ...{ key: "speedMmPerS", label: "Cutting speed", group: "Settings", ...SPEED }, why: "" },
    { ...{ key: "powerPct", label: "Power, %", group: "Settings", kind: "count" }, why: "" },
    { ...{ key: "passes", label: "Passes", group: "Settings", kind: "count" }, why: "" },
    { ...{ key: "gas", label: "Gas", group: "Settings", ...choice(GASES) }, why: "" },
    {
      ...{ key: "focusBelowMm", label: "Focus below the top face", group: "Settings", ...LENGTH, signed: true },
      why: "0 = on it.",
    },
    { ...{ key: "markSpeedMmPerS", label: "Speed of the letters", group: "Settings", ...SPEED }, why: "" },
    { ...{ key: "markPowerPct", label: "Power of the letters, %", group: "Settings", kind: "count" }, why: "" },
    ...gaugeFields(context, "The side must be within it.").map((f) => (f.when ? f : { ...f, when: cutWays })),
    { ...{ key: "repeats", label: "Readings a site", group: "Reading", kind: "count" }, why: "Set anew each time." },
    { ...{ key: "stockAtXMm", label: "Lies at X", group: "Place", ...LENGTH }, why: "Lower left corner of the stock." },
    { ...{ key: "stockAtYMm", label: "Lies at Y", group: "Place", ...LENGTH }, why: "" },
  ];
}

function schemaFor(context: PlanContext): z.ZodType<KerfPlan> {
  const { machine, stocks = [] } = context;
  const usual = defaultsFor(context);
  const place = z.number({ error: "Give where the stock lies." }).min(0, "The stock must lie inside the working area.");
  const size = (what: string, fallback: number) => positive(what).default(fallback);
  return z
    .object({
      way: oneOf(WAYS),
      stock: z.string({ error: stocks.length === 0 ? NO_CARD : "Choose what it is cut from." }),
      sideMm: size("the side, for example 40 mm", usual.sideMm),
      grownMm: z
        .number({ error: "Give by how much, or 0." })
        .min(0, "0 or more.")
        .max(2, "No kerf is so wide: half of it is meant, for example 0.1 mm.")
        .default(0),
      scaleWithin: z
        .number({ error: "Give a share, for example 0.1 %." })
        .min(0, "0 or more.")
        .max(0.05, "Then correct the scale of the axes first.")
        .default(usual.scaleWithin),
      faces: oneOf(FACES).default("top"),
      cuts: wholeNumber("how many cuts", 3, 60).default(usual.cuts),
      stripMm: positive("the distance, for example 4 mm")
        .min(NARROWEST_STRIP_MM, `Strips of less than ${NARROWEST_STRIP_MM} mm bend or burn.`)
        .default(usual.stripMm),
      jointMm: positive("the width, for example 10 mm")
        .min(2, "2 mm at least: narrower ones break.")
        .max(80, "80 mm at most.")
        .default(usual.jointMm),
      offsetOn: oneOf(OFFSETS).default("both"),
      firstMm: z
        .number({ error: "Give an offset, for example 0 mm." })
        .min(-0.5, "−0.5 mm at least.")
        .max(1, "1 mm at most.")
        .default(0),
      stepMm: positive("a step, for example 0.02 mm")
        .min(0.001, "0.001 mm at least: nobody feels less.")
        .max(0.5, "0.5 mm at most.")
        .default(usual.stepMm),
      mates: wholeNumber("how many mates", 4, 60).default(usual.mates),
      snugGapMm: z
        .number({ error: "Give the gap, or 0." })
        .min(-0.2, "−0.2 mm at least.")
        .max(0.3, "0.3 mm at most.")
        .default(usual.snugGapMm),
      snugWithinMm: z
        .number({ error: "Give or take how much?" })
        .min(0, "0 or more.")
        .max(0.3, "0.3 mm at most.")
        .default(usual.snugWithinMm),
      sheetWidthMm: size("how long the piece is", usual.sheetWidthMm),
      sheetHeightMm: size("how deep the piece is", usual.sheetHeightMm),
      ...GAUGE_SHAPE,
      gauge: z.string().default(usual.gauge),
      repeats: REPEATS_SHAPE,
      speedMmPerS: speedShape(machine, "the cutting speed"),
      powerPct: POWER_SHAPE,
      passes: wholeNumber("how many passes", 1, 20),
      gas: oneOf(GASES),
      focusBelowMm: z
        .number({ error: "Give it, or 0." })
        .min(-20, "20 mm above at most.")
        .max(20, "20 mm below at most."),
      markSpeedMmPerS: speedShape(machine, "the speed of the letters"),
      markPowerPct: POWER_SHAPE,
      stockAtXMm: place,
      stockAtYMm: place,
    })
    .transform((typed): KerfPlan => asCut(typed, context))
    .superRefine((plan, issues) => {
      const say = (field: keyof KerfPlan, message: string | undefined) => {
        if (message) issues.addIssue({ code: "custom", path: [field], message });
      };
      say("stock", stockFault(plan, stocks));
      if (isSquareWay(plan.way)) say("sideMm", sideFault(plan, context));
      if (isMateWay(plan.way)) say("mates", matesFault(plan));
      const { widthMm, heightMm } = sheetOf(plan);
      say("stockAtXMm", bedFault(plan.stockAtXMm + widthMm, machine.widthMm));
      say("stockAtYMm", bedFault(plan.stockAtYMm + heightMm, machine.depthMm));
    });
}

/** With what the card of its stock says, and the optic that is fitted. A slot for the sheet is as wide as the sheet, before its offset. */
function asCut(typed: Omit<KerfPlan, "from" | "optic">, { stocks = [], optic }: PlanContext): KerfPlan {
  const from = fromOf(stocks, typed.stock);
  const thickness = from.from?.thickness;
  const jointMm = typed.way === "sheet slot" && thickness ? Math.round(100 * thickness.meanMm) / 100 : typed.jointMm;
  return { ...typed, jointMm, ...from, ...(optic ? { optic: optic.label } : {}) };
}

function fromOf(stocks: readonly StockAtHand[], key: string | undefined): Pick<KerfPlan, "from"> {
  const found = stocks.find((s) => s.key === key);
  if (!found) return {};
  const { name, batch, nominalMm, thickness } = found;
  return { from: { name, batch, nominalMm, thickness } };
}

function stockFault({ way, stock, from }: KerfPlan, stocks: readonly StockAtHand[]): string | undefined {
  if (stocks.length === 0) return NO_CARD;
  if (!from)
    return stock === "" ? "Choose what it is cut from." : "This stock has no card here: choose another, or make one.";
  if (way === "sheet slot" && !from.thickness)
    return `${from.name} is ${plain(from.nominalMm)} mm by name alone. A slot for the sheet needs its thickness as it is: squeeze it at several places and write it on its card.`;
  return undefined;
}

function sideFault(plan: KerfPlan, context: PlanContext): string | undefined {
  const { gauge, reachMm } = gaugeIn(plan, context);
  if (cutSideMm(plan) + 1 > reachMm)
    return `${gauge.name} reach ${plain(reachMm)} mm, as said below: a smaller square.`;
  if (plan.way !== "part" && cutSideMm(plan) < NARROWEST_HOLE_MM)
    return `Inside jaws do not go into less than ${NARROWEST_HOLE_MM} mm.`;
  return undefined;
}

/** Where mates do not fit on the piece of stock, and what would. */
function matesFault(plan: KerfPlan): string | undefined {
  const cell = cellSize(plan);
  if (columnsOf(plan) === 0)
    return `One mate takes ${plain(cell.widthMm + 2 * EDGE_MM)} mm along X; the piece has ${plain(plan.sheetWidthMm)}. A narrower joint or a larger piece.`;
  const { widthMm, heightMm } = matesNeed(plan);
  if (heightMm <= plan.sheetHeightMm) return undefined;
  const rows = Math.floor((plan.sheetHeightMm - matesNeed({ ...plan, mates: 1 }).heightMm) / cell.heightMm) + 1;
  const most = Math.max(0, rows) * columnsOf({ ...plan, mates: 999 });
  return `${plan.mates} mates need ${plain(widthMm)} × ${plain(heightMm)} mm; the piece is ${plain(plan.sheetWidthMm)} × ${plain(plan.sheetHeightMm)}. ${most > 3 ? `${most} mates go on it.` : "Take a larger piece."}`;
}

function bedFault(end: number, size: number): string | undefined {
  return end > size ? `The stock would reach ${plain(end)} mm; the working area ends at ${plain(size)} mm.` : undefined;
}

export function planWarnings(plan: KerfPlan, context: PlanContext): PlanWarning[] {
  const warnings: PlanWarning[] = [];
  if (plan.from && !plan.from.thickness)
    warnings.push({
      field: "stock",
      message: `Its thickness was never measured: ${plain(plan.from.nominalMm)} mm by name alone. Squeeze it at several places and write it on its card.`,
    });
  if (plan.powerPct <= plan.markPowerPct && plan.speedMmPerS >= plan.markSpeedMmPerS)
    warnings.push({
      field: "speedMmPerS",
      message: "The letters are burned as strongly as the cut: will it go through?",
    });
  if (plan.way === "comb" && lengthGauges(context).every((g) => g.kind === "rule"))
    warnings.push({ field: "cuts", message: "A rule cannot read a gap of a mm or two: take calipers." });
  return warnings;
}
