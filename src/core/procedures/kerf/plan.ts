/** What may be chosen before a kerf is measured. */
import { z } from "zod";
import { knownLengthShape, usualKnownMm } from "../../measuring/known-length";
import { GAUGE_SHAPE, lengthGauges, USUAL_REACHES } from "../../measuring/length-gauges";
import type { StockAtHand } from "../../stock/stock-at-hand";
import type { PlanContext, PlanForm } from "../../trial/plan-form";
import { oneOf, POWER_SHAPE, positive, REPEATS_SHAPE, speedShape, wholeNumber } from "../../trial/plan-form";
import { sheetOf } from "./layout";
import { bedFault, matesFault, NO_CARD, offsetsFault, sideFault, stockFault } from "./plan-faults";
import { fieldsFor } from "./plan-fields";
import { FACES, GASES, isMateWay, isSquareWay, type KerfPlan, OFFSETS, WAYS } from "./plan-type";

/** Largest error of the offset per side that is still good, mm. (common practice, no source) */
export const DEFAULT_TOLERANCE_MM = 0.02;
/** A strip that is narrower bends or burns, mm. (common practice, no source) */
const NARROWEST_STRIP_MM = 3;

export function planForm(context: PlanContext): PlanForm<KerfPlan> {
  return { schema: schemaFor(context), defaults: defaultsFor(context), fields: fieldsFor(context) };
}

function defaultsFor(context: PlanContext): KerfPlan {
  const { machine, stocks = [] } = context;
  const [gauge] = lengthGauges(context);
  return {
    way: "part and hole",
    stock: stocks[0]?.key ?? "",
    ...fromOf(stocks, stocks[0]?.key),
    sideMm: 40,
    grownMm: 0,
    scaleWithin: 0.001,
    faces: "top",
    cuts: 10,
    stripMm: 4,
    jointMm: 10,
    offsetOn: "both",
    firstMm: 0,
    stepMm: 0.02,
    mates: 10,
    snugGapMm: 0.02,
    snugWithinMm: 0.02,
    sheetWidthMm: Math.min(300, machine.widthMm),
    sheetHeightMm: Math.min(200, machine.depthMm),
    gauge: gauge?.id ?? "",
    repeats: 2,
    knownMm: usualKnownMm(context),
    ...USUAL_REACHES,
    speedMmPerS: 10,
    powerPct: 60,
    passes: 1,
    gas: "air",
    focusBelowMm: 0,
    markSpeedMmPerS: Math.min(100, machine.topSpeedMmPerS / 2),
    markPowerPct: 15,
    stockAtXMm: 10,
    stockAtYMm: 10,
  };
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
      knownMm: knownLengthShape(context),
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
      if (isMateWay(plan.way)) say("mates", offsetsFault(plan) ?? matesFault(plan));
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
