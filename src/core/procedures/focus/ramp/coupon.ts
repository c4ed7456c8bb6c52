/** The ramp: one straight line up a propped plate, and beside it a scale that is engraved in heights. */

import { lengthAsk, readoutAsk } from "../../../coupon/ask";
import { letterStrokes } from "../../../coupon/lettering";
import type { CouponPath, MarkingSettings, Piece } from "../../../coupon/piece";
import type { Op } from "../../../coupon/program";
import type { RoundSpec } from "../../../coupon/round-spec";
import type { Site } from "../../../coupon/site";
import { eyewearLine } from "../../../machine/not-known";
import { plain } from "../../../metrology/quantity-text";
import type { Purpose } from "../../../trial/history";
import type { PlanContext } from "../../../trial/plan-form";
import { cornerText, lensLine } from "../../../trial/stock-words";
import { apartSense, pulsesOf, type RampPlan } from "../plan";
import { heightAt, liftMm, lineLength, OF_STEP, RAMP_SPACING, type Slope, slopeOf, type Tick, ticksOf } from "./slope";

const PIECE = "ramp";
export const FIRST_SITE = "first";
export const LAST_SITE = "last";
export const THINNEST_SITE = "thinnest";
export const LIFT_SITE = "lift";
export const stationSite = (heightMm: number) => `width-${plain(heightMm)}`;
const [LINE, SCALE] = ["line", "scale"];
/** The scale is marked so much more strongly that it can be read further from focus. */
const SCALE_STRONGER = { power: 3, slower: 2 };
/** Widths are read within so far either side of a tick, mm of the plate. */
const STATION_MM = 0.8;
const PLAUSIBLE_WIDTH_MM = 3;
const SITE_RADIUS_MM = 6;

export function rampRound(plan: RampPlan, context: PlanContext, purpose: Purpose): RoundSpec {
  const slope = slopeOf(plan);
  if (!slope) throw new RangeError("plan: rise and run make no angle");
  const { ticks } = ticksOf(plan);
  const piece = pieceOf(plan, slope, ticks, context);
  return {
    pieces: [piece],
    placement: { xMm: plan.stockAtXMm, yMm: plan.stockAtYMm },
    program: programOf(plan, slope, context),
    sites: sitesOf(plan, slope, ticks),
    delivery: "One line up a propped plate",
    checklist: checklistOf(plan, context, purpose),
  };
}

function pieceOf(plan: RampPlan, slope: Slope, ticks: readonly Tick[], { machine, couponCode }: PlanContext): Piece {
  const common = { use: "line", runUpMm: 0, scan: null } as const;
  const pulses = pulsesOf(plan, machine);
  const settings: MarkingSettings[] = [
    {
      ...common,
      ...pulses,
      id: SCALE,
      label: "Scale and letters, stronger",
      speedMmPerS: plan.speedMmPerS / SCALE_STRONGER.slower,
      powerPct: Math.min(100, plan.powerPct * SCALE_STRONGER.power),
    },
    {
      ...common,
      ...pulses,
      id: LINE,
      label: "The line",
      speedMmPerS: plan.speedMmPerS,
      powerPct: plan.powerPct,
    },
  ];
  const { edge, line: y, tick, tickLength, letters } = RAMP_SPACING;
  const length = lineLength(plan, slope);
  const level = [
    { x: edge, y: edge + y },
    { x: edge + length, y: edge + y },
  ];
  const from = edge + y + tick;
  const marks = ticks.flatMap(({ jobMm, heightMm }) => [
    [
      { x: edge + jobMm, y: from },
      { x: edge + jobMm, y: from + tickLength },
    ],
    ...letterStrokes(plain(heightMm), { x: edge + jobMm, y: from + tickLength + 1 }, letters, "middle"),
  ]);
  const above = from + tickLength + letters + 1;
  const name = [
    ...letterStrokes("LOW END", { x: edge, y: above + 2 }, letters),
    ...letterStrokes(`${couponCode} ${machine.name.toUpperCase()}`, { x: edge + length * 0.5, y: above + 2 }, letters),
  ];
  const path = (points: CouponPath["points"], id: string): CouponPath => ({ points, closed: false, settings: id });
  return {
    id: PIECE,
    label: `Focus height, coupon ${couponCode}`,
    stock: `plate ${plain(plan.stockWidthMm)} × ${plain(plan.stockHeightMm)}`,
    widthMm: plan.stockWidthMm,
    heightMm: plan.stockHeightMm,
    settings,
    paths: [...[...marks, ...name].map((points) => path(points, SCALE)), path(level, LINE)],
    seen: { fromXMm: edge, stretchX: 1 / slope.cosine },
  };
}

function programOf(plan: RampPlan, slope: Slope, { machine }: PlanContext): Op[] {
  const { edge } = RAMP_SPACING;
  const run = plan.runAlong === "plate" ? "of its own length" : "along the bed";
  return [
    {
      kind: "tell",
      text: `Lay the plate with its lower left corner at ${cornerText(plan, machine)}, its low end at the left.`,
    },
    {
      kind: "prop",
      text: `Prop its right end: it rises ${plain(plan.riseMm)} mm over ${plain(plan.runMm)} mm ${run}. Hold it so that it cannot slip.`,
      fromXMm: edge,
      tangent: slope.tangent,
    },
    {
      kind: "set height",
      // The number that the work itself has there, with the sheet on the plate.
      zMm: heightAt(plan, slope, 0),
      by: "hand",
      text: `Set ${plain(plan.lowMm)} mm over the low end of the line, ${plain(edge)} mm from the left edge${plan.thicknessMm > 0 ? ", down to the bare plate" : ""}`,
    },
    { kind: "mark", piece: PIECE, settings: SCALE },
    { kind: "mark", piece: PIECE, settings: LINE },
  ];
}

function sitesOf(plan: RampPlan, slope: Slope, ticks: readonly Tick[]): Site[] {
  const { edge, line } = RAMP_SPACING;
  const y = edge + line;
  const length = lineLength(plan, slope) / slope.cosine;
  const within = { x0: edge, y0: y - 1, x1: edge + length, y1: y + 1 };
  const isRule = plan.rampRead === "rule";
  // How a place along the plate is read.
  const along = isRule
    ? { fromXMm: edge, at0: 0, perMm: 1 }
    : { fromXMm: edge, at0: heightAt(plan, slope, 0), perMm: -apartSense(plan) * slope.sine };
  const where = isRule ? "How far up the plate from the low end of the line" : "At which height of the scale";
  const place = (
    id: string,
    label: string,
    what: string,
    which: "first" | "last" | "sharpest",
    repeats: number,
  ): Site => ({
    id,
    label,
    question: `${where} ${what}?`,
    ask: isRule
      ? lengthAsk({ plausibleUpTo: length + 5 })
      : readoutAsk({
          plausibleUpTo: Math.max(...ticks.map((t) => Math.abs(t.heightMm)), 1) + 5,
          stepMm: OF_STEP * ticksOf(plan).stepMm,
        }),
    measurand: { kind: "place on ramp", which, within, along },
    place: null,
    repeats,
    openEnded: false,
  });
  return [
    place(FIRST_SITE, "Where the line begins", "is the line first seen, coming from the low end", "first", 1),
    place(LAST_SITE, "Where the line ends", "is the line last seen", "last", 1),
    place(THINNEST_SITE, "Where it is sharpest", "is the line thinnest with clean edges", "sharpest", plan.looks),
    liftSite(plan, slope),
    ...(plan.judged === "by widths" ? ticks.flatMap((t) => station(t, slope)) : []),
  ];
}

/** It checks rise and run together: nothing else on the plate shows a wrong slope. */
function liftSite(plan: RampPlan, slope: Slope): Site {
  const mm = liftMm(plan, slope);
  return {
    id: LIFT_SITE,
    label: "Lift of the line",
    question: "How much higher is the high end of the line than its low end? Measure both from the bed.",
    ask: readoutAsk({ plausibleUpTo: 3 * mm, stepMm: LIFT_STEP_MM }),
    measurand: { kind: "known length", mm },
    place: null,
    repeats: 1,
    openEnded: false,
  };
}

/** A rule at the bed is read to this, mm. (common practice, no source) */
const LIFT_STEP_MM = 0.1;

function station({ heightMm, jobMm }: Tick, slope: Slope): Site[] {
  const { edge, line } = RAMP_SPACING;
  const [x, y] = [edge + jobMm / slope.cosine, edge + line];
  return [
    {
      id: stationSite(heightMm),
      label: `Height ${plain(heightMm)} mm`,
      question: "How wide is the line beside this tick?",
      ask: lengthAsk({ plausibleUpTo: PLAUSIBLE_WIDTH_MM }),
      measurand: {
        kind: "width",
        of: { kind: "line", within: { x0: x - STATION_MM, y0: y - 1, x1: x + STATION_MM, y1: y + 1 } },
      },
      place: { piece: PIECE, at: { x: edge + jobMm, y }, radiusMm: SITE_RADIUS_MM },
      repeats: 1,
      openEnded: false,
    },
  ];
}

function checklistOf(plan: RampPlan, { machine, optic }: PlanContext, purpose: Purpose): string[] {
  const isGalvo = machine.kind === "galvo";
  return [
    eyewearLine(machine),
    ...(optic ? [lensLine(optic)] : []),
    isGalvo
      ? "Put the plate near the middle of the field. The beam is slanted at the edge."
      : `Check that the head clears the high end of the plate, also ${plain(plan.headReachMm)} mm beyond the beam.`,
    "Do not change the height during the burn.",
    ...(purpose === "measure" ? [] : ["Set the height for the plate. It is not the new height of daily work."]),
  ];
}
