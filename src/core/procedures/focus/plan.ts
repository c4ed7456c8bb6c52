/** What may be chosen before the focus is looked for. */
import { z } from "zod";
import type { MachineSpec } from "../../machine/machine-spec";
import { topSpeedText } from "../../machine/not-known";
import type { PlanContext, PlanForm } from "../../trial/plan-form";
import { oneOf } from "../../trial/plan-form";
import { faultsOf } from "./plan-faults";
import { fieldsFor } from "./plan-fields";
import {
  CELL_MARKS,
  DOSES,
  type Doses,
  FOCUS_HEIGHT,
  type FocusPlan,
  JUDGED,
  type LadderPlan,
  MOVES,
  RAMP_READ,
  READ_AT,
  RUN_ALONG,
  SENSES,
  SET_IN,
} from "./plan-type";

const [FEWEST_CELLS, MOST_CELLS] = [5, 60];
const DEFAULT = { count: 17, stepMm: 1, heightMm: 10 };
/** Between lens housing and work, under the flat-field lenses that are met most. (common practice, no source) */
const GALVO_HEIGHT_MM = 181;
/** Short lenses have a shallow focus. */
const GALVO_LADDER = { count: 25, stepMm: 0.5 };
const GALVO_BURN = { powerPct: 40, pulseKHz: 30 };
/** Shorter waves mark metal pulse by pulse; longer ones are taken up where they add up. */
const LONG_WAVE_NM = 3000;
const STOCK = { width: 110, height: 70 };
const GALVO_STOCK = { width: 100, height: 90 };
/** Slow, so that thin lines come out even. */
const SPEED_SHARE = 0.1;

/** A plate of this length, propped by so much. (common practice, no source) */
const RAMP = { riseMm: 14, runMm: 120, slopeGoodMm: 0.5 };
/** Of a gantry's head beyond its nozzle, where nothing is known of it, mm. */
const USUAL_REACH_MM = 15;
const SWEEP = { passes: 3, squareMm: 8 };

export function planForm(context: PlanContext): PlanForm<FocusPlan> {
  return { schema: schemaFor(context.machine), defaults: usualPlan(context), fields: fieldsFor(context.machine) };
}

/** Around the height of daily work, where the ledger knows it, or the one that the maker of the lens gives; all three ways at once. */
export function usualPlan({ machine, inForce, optic }: PlanContext): LadderPlan {
  const held = inForce[FOCUS_HEIGHT];
  const isGalvo = machine.kind === "galvo";
  const nominal = (isGalvo ? optic?.workingDistanceMm : null) ?? (isGalvo ? GALVO_HEIGHT_MM : DEFAULT.heightMm);
  const middle = Math.round(held?.shape === "scalar" ? held.value : nominal);
  const { count, stepMm } = isGalvo ? GALVO_LADDER : DEFAULT;
  const half = ((count - 1) / 2) * stepMm;
  const firstMm = Math.max(0, middle - half);
  const stock = isGalvo ? GALVO_STOCK : STOCK;
  // Focus in the middle of the ramp, as far as nothing touches over its high end.
  const rise = (stock.width * RAMP.riseMm) / RAMP.runMm;
  const lowMm = Math.max(middle + Math.round(rise / 2 - 1), Math.ceil(firstMm + rise));
  const others = {
    ...RAMP,
    lowMm,
    runAlong: "bed",
    thicknessMm: 0,
    rampRead: "scale",
    headReachMm: isGalvo ? 0 : USUAL_REACH_MM,
    ...SWEEP,
  };
  return {
    ...others,
    way: "ladder",
    moves: "by hand",
    readAt: "rule",
    allowanceMm: 0,
    settableMm: 0.5,
    firstMm,
    stepMm,
    count,
    lowestMm: firstMm,
    highestMm: firstMm + 2 * half,
    setIn: "height",
    marks: "both",
    judged: "by eye",
    doses: usualDoses(machine),
    looks: 2,
    speedMmPerS: Math.round(machine.topSpeedMmPerS * SPEED_SHARE),
    ...(isGalvo ? GALVO_BURN : { powerPct: 14 }),
    stockWidthMm: stock.width,
    stockHeightMm: stock.height,
    stockAtXMm: Math.round(Math.max(0, (machine.widthMm - stock.width) / 2)),
    stockAtYMm: Math.round(Math.max(0, (machine.depthMm - stock.height) / 2)),
  };
}

function usualDoses({ kind, wavelengthNm }: MachineSpec): Doses {
  return kind === "galvo" && wavelengthNm < LONG_WAVE_NM ? "pulses" : "lines";
}

const number = (message: string) => z.number({ error: message });
const positive = (what: string) => number(`Give ${what}.`).positive("It must be larger than 0.");
const noLess = (what: string) => number(`Give ${what}, or 0.`).min(0, "No less than 0.");

const HEIGHTS = {
  readAt: oneOf(READ_AT),
  allowanceMm: number("Give what the rule leaves out, or 0.").min(0, "It comes on top: no less than 0.").optional(),
  settableMm: positive("how finely a height can be set, for example 0.5 mm with a rule"),
  lowestMm: number("Give the lowest number at which nothing touches."),
  highestMm: number("Give the highest number that can be set."),
  setIn: oneOf(SET_IN).default("height"),
  homedMm: z.number().optional(),
  sense: oneOf(SENSES).optional(),
  triedNumberMm: z.number().optional(),
  triedHomedMm: z.number().optional(),
};

const LOOKS = number("Give how often it is looked for.")
  .int("A whole number.")
  .min(1, "At least once.")
  .max(10, "More than 10 looks do not help.");

function marksOn(machine: MachineSpec) {
  return {
    speedMmPerS: positive("the speed").max(machine.topSpeedMmPerS, topSpeedText(machine)),
    powerPct: positive("the power").max(100, "Power goes up to 100 %."),
    pulseKHz:
      machine.kind === "galvo" ? positive("how many thousand pulses a second").optional() : z.undefined().optional(),
    stockWidthMm: positive("the width of the stock"),
    stockHeightMm: positive("the height of the stock"),
    stockAtXMm: number("Give where the stock lies in X.").min(0, "The stock must lie inside the working area."),
    stockAtYMm: number("Give where the stock lies in Y.").min(0, "The stock must lie inside the working area."),
  };
}

function schemaFor(machine: MachineSpec): z.ZodType<FocusPlan> {
  const common = { ...HEIGHTS, ...marksOn(machine) };
  const isGalvo = machine.kind === "galvo";
  const doses = oneOf(DOSES).default(usualDoses(machine));
  const ladder = z.object({
    ...common,
    way: z.literal("ladder"),
    moves: isGalvo ? z.literal("by hand").default("by hand") : oneOf(MOVES),
    firstMm: number("Give the lowest height, for example 2 mm."),
    stepMm: positive("the step from cell to cell, for example 1 mm"),
    count: number("Give the number of cells, for example 17.")
      .int("Cells are counted in whole numbers.")
      .min(FEWEST_CELLS, `At least ${FEWEST_CELLS} cells, so that some lie beyond the marked ones.`)
      .max(MOST_CELLS, `${MOST_CELLS} cells are more than can be judged.`),
    marks: oneOf(CELL_MARKS),
    judged: oneOf(JUDGED),
    doses,
    looks: LOOKS,
  });
  const ramp = z.object({
    ...common,
    way: z.literal("ramp"),
    lowMm: number("Give the height over the low end of the line."),
    riseMm: positive("how much higher the far end is propped"),
    runMm: positive("over what length it rises"),
    runAlong: oneOf(RUN_ALONG),
    slopeGoodMm: positive("how well rise and run are known, for example 0.5 mm"),
    thicknessMm: noLess("how thick the sheet on the plate is"),
    headReachMm: noLess("how far the head reaches beyond its beam"),
    rampRead: oneOf(RAMP_READ),
    judged: oneOf(JUDGED),
    doses,
    looks: LOOKS,
  });
  const sweep = z.object({
    ...common,
    way: z.literal("sweep"),
    passes: number("Give how many passes each way.")
      .int("A whole number.")
      .min(2, "Two passes each way at least: one alone tells no scatter.")
      .max(20, "More than 20 passes do not help."),
    squareMm: positive("how large the square is").min(2, "Smaller than 2 mm cannot be seen."),
  });
  // Plans of before there were three ways are ladders.
  return z
    .preprocess(
      (plan) => ({ way: "ladder", ...(plan as object) }),
      z.discriminatedUnion("way", [ladder, ramp, sweep], { error: "Choose how the focus is looked for." }),
    )
    .superRefine((plan, issues) => {
      for (const [field, message] of faultsOf(plan as FocusPlan, machine))
        issues.addIssue({ code: "custom", path: [field], message });
    }) as z.ZodType<FocusPlan>;
}
