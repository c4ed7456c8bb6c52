/** The height ladder: a numbered cell a height, each a group of its own, with the height to be set before it. */

import type { LineRun } from "../../../beam/width-model";
import { lengthAsk } from "../../../coupon/ask";
import { letterStrokes, textWidthMm } from "../../../coupon/lettering";
import type { CouponPath, MarkingSettings, Piece } from "../../../coupon/piece";
import type { Op } from "../../../coupon/program";
import type { RoundSpec } from "../../../coupon/round-spec";
import type { Site } from "../../../coupon/site";
import type { CouponPoint } from "../../../geometry/frames";
import { across, columns, levels, up } from "../../../geometry/level-lines";
import type { Rect } from "../../../geometry/rect";
import type { MachineSpec } from "../../../machine/machine-spec";
import { eyewearLine } from "../../../machine/not-known";
import { plain } from "../../../metrology/quantity-text";
import type { Purpose } from "../../../trial/history";
import type { PlanContext } from "../../../trial/plan-form";
import { layStock, lensLine } from "../../../trial/stock-words";
import { type LadderPlan, MOVES, pulsesOf } from "../plan";
import { type CellPlace, HATCH_PITCH_MM, LINE_PITCH_MM, placesOf, SPACING_MM } from "./layout";

export const PIECE = "ladder";
export const MARKED_SITE = "marked";
export const SHARPEST_SITE = "sharpest";
const LABELS = "labels";
const SITE_RADIUS_MM = 6;
/** Wider lines are asked about once, mm. */
const PLAUSIBLE_WIDTH_MM = 3;

export const cellId = (number: number) => `c${number}`;
/** @param run direction of the lines whose width is read */
export const widthSite = (number: number, run: LineRun = "x") =>
  run === "x" ? `width-${number}` : `width-y-${number}`;

export function focusRound(plan: LadderPlan, context: PlanContext, purpose: Purpose): RoundSpec {
  const places = placesOf(plan);
  const { machine } = context;
  const marks = plan.doses !== "beam";
  return {
    pieces: marks ? [pieceOf(plan, places, context)] : [],
    placement: { xMm: plan.stockAtXMm, yMm: plan.stockAtYMm },
    program: marks ? programOf(plan, places, machine) : places.map((p) => heightOp(plan, p, "measure the beam")),
    sites: marks ? sitesOf(plan, places, machine) : places.map(beamSite),
    delivery: deliveryOf(plan, machine),
    checklist: checklistOf(plan, context, purpose),
  };
}

function deliveryOf(plan: LadderPlan, { kind }: MachineSpec): string {
  if (plan.doses === "beam") return "Nothing is burned: the beam is measured";
  return kind === "galvo" ? "One group of the drawing for each cell" : MOVES[plan.moves];
}

function pieceOf(plan: LadderPlan, places: readonly CellPlace[], { machine, couponCode }: PlanContext): Piece {
  const settings = (id: string, label: string): MarkingSettings => ({
    id,
    label,
    use: "line",
    speedMmPerS: plan.speedMmPerS,
    powerPct: plan.powerPct,
    runUpMm: 0,
    scan: null,
    ...pulsesOf(plan, machine),
  });
  const at = { x: SPACING_MM.edge, y: plan.stockHeightMm - SPACING_MM.edge - SPACING_MM.letters };
  const labels = [
    ...letterStrokes(`${couponCode} ${machine.name.toUpperCase()}`, at, SPACING_MM.letters),
    ...places.flatMap((place) => numberStrokes(place)),
  ];
  return {
    id: PIECE,
    label: `Focus height, coupon ${couponCode}`,
    stock: `offcut ${plain(plan.stockWidthMm)} × ${plain(plan.stockHeightMm)}`,
    widthMm: plan.stockWidthMm,
    heightMm: plan.stockHeightMm,
    settings: [
      settings(LABELS, "Labels, at the height of daily work"),
      ...places.map((p) => settings(cellId(p.number), `Cell ${p.number}, height ${plain(p.heightMm)} mm`)),
    ],
    paths: [
      ...labels.map((points): CouponPath => ({ points, closed: false, settings: LABELS })),
      ...places.flatMap((place) => cellPaths(place)),
    ],
  };
}

function numberStrokes({ number, area }: CellPlace): CouponPoint[][] {
  const height = SPACING_MM.letters;
  const text = String(number);
  const x = (area.x0 + area.x1) / 2 - textWidthMm(text, height) / 2;
  return letterStrokes(text, { x, y: area.y0 - height - (SPACING_MM.number - height) / 2 }, height);
}

function cellPaths({ number, square, lines, upright }: CellPlace): CouponPath[] {
  const path = (points: CouponPoint[]): CouponPath => ({ points, closed: false, settings: cellId(number) });
  return [
    ...(square ? levels(square, HATCH_PITCH_MM).map((y) => path(across(square, y))) : []),
    ...(lines ? levels(lines, LINE_PITCH_MM).map((y) => path(across(lines, y))) : []),
    ...(upright ? columns(upright, LINE_PITCH_MM).map((x) => path(up(upright, x))) : []),
  ];
}

/** Labels first, then each cell with its height before it. */
function programOf(plan: LadderPlan, places: readonly CellPlace[], machine: MachineSpec): Op[] {
  const then = machine.kind === "galvo" ? "mark its group" : "";
  return [
    layStock(plan, machine),
    { kind: "mark", piece: PIECE, settings: LABELS },
    ...places.flatMap((p): Op[] => [
      heightOp(plan, p, then),
      { kind: "mark", piece: PIECE, settings: cellId(p.number) },
    ]),
  ];
}

/** @param then what is done at this height, where the file does not do it by itself */
function heightOp({ moves }: LadderPlan, { number, heightMm }: CellPlace, then: string): Op {
  const text = `Cell ${number}: set ${plain(heightMm)} mm${then && `, then ${then}`}`;
  return { kind: "set height", zMm: heightMm, by: moves === "by hand" ? "hand" : "motor", text };
}

function sitesOf(plan: LadderPlan, places: readonly CellPlace[], machine: MachineSpec): Site[] {
  const cells = places.map((p) => ({ id: cellId(p.number), label: String(p.number) }));
  const areas = places.map((p) => p.area);
  const whole = { place: null, openEnded: false };
  const sites: Site[] = [
    {
      id: MARKED_SITE,
      label: "Cells that marked",
      question: "Which are the first and the last cell with any mark?",
      ask: { kind: "cells", mode: "range", cells },
      measurand: { kind: "marked", cells: areas },
      ...whole,
      repeats: 1,
    },
    {
      id: SHARPEST_SITE,
      label: "The sharpest cell",
      question: SHARPEST_QUESTIONS[machine.kind === "galvo" ? "galvo" : "gantry"],
      ask: { kind: "cells", mode: "tied", cells },
      measurand: { kind: "sharpest", cells: areas },
      ...whole,
      repeats: plan.looks,
    },
  ];
  return plan.judged === "by widths" ? [...sites, ...places.flatMap((p) => widthSites(p))] : sites;
}

/** On metal the best cell is the brightest and was the loudest; on card it has the thinnest dark lines. (common practice, no source) */
const SHARPEST_QUESTIONS = {
  gantry: "Which cell is the sharpest, or which are equally sharp?",
  galvo: "Which cell is the sharpest or brightest, or which are equally so?",
} as const;

/** The beam itself, with an instrument of its own. */
function beamSite({ number, heightMm }: CellPlace): Site {
  return {
    id: widthSite(number),
    label: `Height ${plain(heightMm)} mm`,
    question: "How wide is the beam: four times its second moment?",
    ask: lengthAsk({ plausibleUpTo: PLAUSIBLE_WIDTH_MM }),
    measurand: { kind: "beam width", heightMm },
    place: null,
    repeats: 1,
    openEnded: false,
  };
}

function widthSites({ number, heightMm, lines, upright }: CellPlace): Site[] {
  const label = `Cell ${number}, height ${plain(heightMm)} mm`;
  if (!lines) return [];
  if (!upright) return [lineSite(number, label, "How wide is a single line?", lines, "x")];
  return [
    lineSite(number, `${label}, along X`, "How wide is a single line that runs along X?", lines, "x"),
    lineSite(number, `${label}, along Y`, "How wide is a single line that runs along Y?", upright, "y"),
  ];
}

function lineSite(number: number, label: string, question: string, lines: Rect, run: LineRun): Site {
  return {
    id: widthSite(number, run),
    label,
    question,
    ask: lengthAsk({ plausibleUpTo: PLAUSIBLE_WIDTH_MM }),
    measurand: { kind: "width", of: { kind: "line", within: lines, ...(run === "y" ? { along: "y" as const } : {}) } },
    place: {
      piece: PIECE,
      at: { x: (lines.x0 + lines.x1) / 2, y: (lines.y0 + lines.y1) / 2 },
      radiusMm: SITE_RADIUS_MM,
    },
    repeats: 1,
    openEnded: false,
    onlyWithin: { site: MARKED_SITE, cell: cellId(number) },
  };
}

function checklistOf(plan: LadderPlan, { machine, optic }: PlanContext, purpose: Purpose): string[] {
  const reach = `${plain(plan.lowestMm)} to ${plain(plan.highestMm)} mm`;
  return [
    eyewearLine(machine),
    ...(optic ? [lensLine(optic)] : []),
    "Fix the stock flat near the middle of the field.",
    plan.moves === "by motor"
      ? `Check that the head can move from ${reach} without touching anything. The file moves the head.`
      : `Check that the head can move from ${reach} without touching anything. Keep the beam off while you set the height.`,
    purpose === "measure"
      ? "Set the height of daily work. The labels are burned at this height."
      : "Set the new height before you start. The labels are burned at this height.",
  ];
}
