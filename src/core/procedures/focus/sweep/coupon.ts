/** A small hatched square that is marked without stopping, and the two questions of a sweep. */

import { readoutAsk } from "../../../coupon/ask";
import type { Piece } from "../../../coupon/piece";
import type { Op } from "../../../coupon/program";
import type { RoundSpec } from "../../../coupon/round-spec";
import type { Site } from "../../../coupon/site";
import { across, levels } from "../../../geometry/level-lines";
import type { MachineSpec } from "../../../machine/machine-spec";
import { eyewearLineForWatching } from "../../../machine/not-known";
import { plain } from "../../../metrology/quantity-text";
import type { PlanContext } from "../../../trial/plan-form";
import { layStock, lensLine } from "../../../trial/stock-words";
import { pulsesOf, type SweepPlan } from "../plan";

const PIECE = "square";
const HATCH = "hatch";
const HATCH_PITCH_MM = 0.3;
export const RISING_SITE = "rising";
export const FALLING_SITE = "falling";
/** A gantry's file does not repeat by itself: it holds the square so often for each pass. */
const TIMES_A_PASS = 6;

export function sweepRound(plan: SweepPlan, context: PlanContext): RoundSpec {
  const { machine } = context;
  return {
    pieces: [pieceOf(plan, context)],
    placement: { xMm: plan.stockAtXMm, yMm: plan.stockAtYMm },
    program: programOf(plan, machine),
    sites: sitesOf(plan),
    delivery: "A square marked again and again",
    checklist: checklistOf(plan, context),
  };
}

function pieceOf(plan: SweepPlan, { machine, couponCode }: PlanContext): Piece {
  const [x0, y0] = [(plan.stockWidthMm - plan.squareMm) / 2, (plan.stockHeightMm - plan.squareMm) / 2];
  const square = { x0, y0, x1: x0 + plan.squareMm, y1: y0 + plan.squareMm };
  return {
    id: PIECE,
    label: `Focus sweep, coupon ${couponCode}`,
    stock: `offcut ${plain(plan.stockWidthMm)} × ${plain(plan.stockHeightMm)}`,
    widthMm: plan.stockWidthMm,
    heightMm: plan.stockHeightMm,
    settings: [
      {
        id: HATCH,
        label: "Square, again and again",
        use: "line",
        runUpMm: 0,
        scan: null,
        speedMmPerS: plan.speedMmPerS,
        powerPct: plan.powerPct,
        ...pulsesOf(plan, machine),
      },
    ],
    paths: levels(square, HATCH_PITCH_MM).map((y) => ({ points: across(square, y), closed: false, settings: HATCH })),
  };
}

function programOf(plan: SweepPlan, machine: MachineSpec): Op[] {
  const mark: Op = { kind: "mark", piece: PIECE, settings: HATCH };
  const repeats = machine.kind === "galvo" ? 1 : 2 * plan.passes * TIMES_A_PASS;
  return [
    layStock(plan, machine),
    {
      kind: "tell",
      text:
        machine.kind === "galvo"
          ? "Let the square be marked over and over, until you stop it."
          : "The file marks the square over and over.",
    },
    {
      kind: "tell",
      text: `Move the height slowly through the brightest, loudest point: up and down, ${plan.passes} times each way, from ${plain(plan.lowestMm)} to ${plain(plan.highestMm)} mm. Note the number at that point of each pass.`,
    },
    ...Array.from({ length: repeats }, () => mark),
  ];
}

function sitesOf({ passes, highestMm, lowestMm, settableMm }: SweepPlan): Site[] {
  const site = (id: string, label: string, way: string, going: "up" | "down"): Site => ({
    id,
    label,
    question: `Height at the brightest, loudest point, with the number ${way}?`,
    ask: readoutAsk({ plausibleUpTo: Math.max(Math.abs(highestMm), Math.abs(lowestMm)) + 1, stepMm: settableMm }),
    measurand: { kind: "height of peak", going },
    place: null,
    repeats: passes,
    openEnded: true,
  });
  return [site(RISING_SITE, "Rising passes", "rising", "up"), site(FALLING_SITE, "Falling passes", "falling", "down")];
}

function checklistOf(plan: SweepPlan, { machine, optic }: PlanContext): string[] {
  return [
    eyewearLineForWatching(machine),
    "Switch the exhaust on.",
    ...(optic ? [lensLine(optic)] : []),
    "Fix the stock flat. Do not use shiny stock, because it reflects the beam.",
    `Check that the head can move from ${plain(plan.lowestMm)} to ${plain(plan.highestMm)} mm without touching anything.`,
  ];
}
