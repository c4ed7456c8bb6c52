/** The burn of an array: dots and labels with safe settings, then cell by cell. Also the points to read. */
import { lengthAsk } from "../../coupon/ask";
import { letterStrokes } from "../../coupon/lettering";
import { contoursIn, placedIn } from "../../coupon/own-drawing";
import { type CouponPath, lineSettings, type MarkingSettings, type Piece } from "../../coupon/piece";
import type { Op } from "../../coupon/program";
import type { RoundSpec } from "../../coupon/round-spec";
import { rowsInside } from "../../coupon/scan-rows";
import type { Site } from "../../coupon/site";
import { elementAt } from "../../fitting/element-at";
import type { CouponPoint } from "../../geometry/frames";
import { corners, type Rect } from "../../geometry/rect";
import type { MachineSpec } from "../../machine/machine-spec";
import { eyewearLine } from "../../machine/not-known";
import { along, type CellSetting } from "../../marking/cell-settings";
import { runUpMm } from "../../marking/run-up";
import { plain } from "../../metrology/quantity-text";
import { stockText } from "../../stock/stock-at-hand";
import type { PlanContext } from "../../trial/plan-form";
import { layStock } from "../../trial/stock-words";
import { type ArrayCell, arrayCells, edgesOf, inOrder, variedText } from "./cells";
import { areaOf, dotsOf, LAYOUT_MM, labelsOf, placeText } from "./layout";
import { isFilled, isPictured, type Pictured, SCORES, type TestArrayPlan } from "./plan";

export const PIECE = "array";
const LABELS = "labels";
const DOTS = "dots";
/** Lines of a dot lie so close, mm. */
const DOT_PITCH_MM = 0.1;
/** Deeper marks are asked about once, mm. */
const PLAUSIBLE_DEPTH_MM = 10;

export const SCAN_SITE = "scan";
/** The three numbers of a colour, each a point of its own. */
export const COLOUR_PARTS = ["L*", "a*", "b*"] as const;
export type ColourPart = (typeof COLOUR_PARTS)[number];
export const colourSiteId = (of: ColourPart) => `scan ${of}`;
export const BEST_SITE = "best";
export const GOOD_SITE = "as good";
export const COMPARISON_SITE = "comparison";
export const PASSED_SITE = "passed";
export const CHARRED_SITE = "charred";
export const depthSite = ({ id }: Pick<ArrayCell, "id">) => `depth ${id}`;

export function testArrayRound(plan: TestArrayPlan, context: PlanContext): RoundSpec {
  const { machine } = context;
  const cells = arrayCells(plan, machine);
  return {
    pieces: [pieceOf(plan, cells, context)],
    placement: { xMm: plan.stockAtXMm, yMm: plan.stockAtYMm },
    program: programOf(plan, cells, machine),
    sites: sitesOf(plan, cells),
    delivery: machine.kind === "galvo" ? "One group of the drawing for each cell" : "G-code, cell by cell",
    checklist: checklistOf(plan, machine),
  };
}

function pieceOf(plan: TestArrayPlan, cells: readonly ArrayCell[], { machine, couponCode }: PlanContext): Piece {
  const burned = inOrder(cells);
  const pulses = machine.kind === "galvo" ? { pulseKHz: plan.labelKHz } : {};
  const safe = { ...lineSettings(LABELS, "Labels", plan.labelSpeedMmPerS, plan.labelPowerPct), ...pulses };
  return {
    id: PIECE,
    label: `Test array, coupon ${couponCode}`,
    stock: [plan.from ? stockText(plan.from) : "", `${plain(plan.stockWidthMm)} × ${plain(plan.stockHeightMm)}`]
      .filter(Boolean)
      .join(", "),
    widthMm: plan.stockWidthMm,
    heightMm: plan.stockHeightMm,
    stockKey: plan.stock,
    ...(plan.fill === "cut" && plan.from
      ? {
          cutFrom: {
            stock: plan.stock,
            thicknessMm: plan.from.thickness?.meanMm ?? plan.from.nominalMm,
            focusBelowMm: 0,
          },
        }
      : {}),
    settings: [
      safe,
      {
        ...safe,
        id: DOTS,
        label: "Dots by which the reader finds the cells",
        use: "rows",
        runUpMm: runUpMm(plan.labelSpeedMmPerS, machine),
        scan: { rowPitchMm: Math.min(DOT_PITCH_MM, plan.lineMm), direction: "both" },
      },
      ...burned.map((cell) => cellSettings(plan, cell, blocksOf(cells), machine)),
    ],
    paths: [
      ...wordsOf(plan, couponCode, machine).map((points): CouponPath => ({ points, closed: false, settings: LABELS })),
      ...dotsOf(plan).map((at): CouponPath => ({ points: disc(at), closed: true, settings: DOTS })),
      ...burned.flatMap((c) => marksOf(plan, c)),
    ],
  };
}

function cellSettings(plan: TestArrayPlan, cell: ArrayCell, blocks: number, machine: MachineSpec): MarkingSettings {
  const { speedMmPerS, powerPct, rowPitchMm, pulseKHz, pulseNs, aboveFocusMm, dwellMs, passes } = cell.settings;
  const fills = isFilled(plan);
  // A drawing of one's own comes with its rows.
  const hasOwnRows = plan.fill === "own filled";
  return {
    id: cell.id,
    label: `${placeText(cell, blocks)}: ${variedText(plan, cell)}`,
    use: fills ? "rows" : "line",
    speedMmPerS,
    powerPct,
    runUpMm: fills ? runUpMm(speedMmPerS, machine) : 0,
    scan: fills && !hasOwnRows ? { rowPitchMm, direction: "both" } : null,
    ...(passes === 1 ? {} : { passes }),
    ...(aboveFocusMm === 0 ? {} : { aboveFocusMm }),
    ...(machine.kind === "galvo" ? { pulseKHz, pulseNs } : {}),
    ...(dwellMs > 0 ? { dwellMs } : {}),
  };
}

/** What is burned in a cell. */
function marksOf(plan: TestArrayPlan, { id, place, settings }: ArrayCell): CouponPath[] {
  const area = areaOf(plan, place);
  const own = contoursIn(plan.drawing);
  if (!own || (plan.fill !== "own filled" && plan.fill !== "own lines"))
    return [{ points: corners(area), closed: true, settings: id }];
  const placed = placedIn(own, area);
  if (plan.fill === "own lines") return placed.map((contour) => ({ ...contour, settings: id }));
  const rows = rowsInside(
    placed.map((c) => c.points),
    settings.rowPitchMm,
  );
  return rows.map(({ y, x0, x1 }, i) => {
    const ends = [
      { x: x0, y },
      { x: x1, y },
    ];
    return { points: i % 2 === 0 ? ends : ends.reverse(), closed: false, settings: id };
  });
}

function blocksOf(cells: readonly ArrayCell[]): number {
  return 1 + Math.max(...cells.map((c) => c.block));
}

function wordsOf(plan: TestArrayPlan, couponCode: string, machine: MachineSpec): CouponPoint[][] {
  const head = `${couponCode} ${machine.name.toUpperCase()}${plan.from ? ` ${plan.from.name.toUpperCase()}` : ""}`;
  const at = { x: LAYOUT_MM.edge, y: plan.stockHeightMm - LAYOUT_MM.edge - LAYOUT_MM.letters };
  return [
    ...letterStrokes(head, at, LAYOUT_MM.letters),
    ...labelsOf(plan).flatMap(({ text, at: place, anchor }) => letterStrokes(text, place, LAYOUT_MM.letters, anchor)),
  ];
}

/** A disc as an outline that is filled. */
function disc({ x, y }: CouponPoint): CouponPoint[] {
  const sides = 32;
  return Array.from({ length: sides }, (_, i) => {
    const turn = (2 * Math.PI * i) / sides;
    return { x: x + LAYOUT_MM.dot * Math.cos(turn), y: y + LAYOUT_MM.dot * Math.sin(turn) };
  });
}

/** Labels and dots first: if a cell goes wrong, the stock still says which coupon it was. */
function programOf(plan: TestArrayPlan, cells: readonly ArrayCell[], machine: MachineSpec): Op[] {
  const ops: Op[] = [
    layStock(plan, machine),
    { kind: "mark", piece: PIECE, settings: LABELS },
    { kind: "mark", piece: PIECE, settings: DOTS },
  ];
  let height = 0;
  for (const cell of byHeight(cells)) {
    const { aboveFocusMm, passes } = cell.settings;
    if (aboveFocusMm !== height) {
      height = aboveFocusMm;
      ops.push({ kind: "move by hand", text: heightText(height), aboveFocusMm: height });
    }
    for (let pass = 0; pass < passes; pass++) ops.push({ kind: "mark", piece: PIECE, settings: cell.id });
  }
  if (height !== 0) ops.push({ kind: "move by hand", text: heightText(0), aboveFocusMm: 0 });
  return ops;
}

/** Heights are set by hand, so each comes once, beginning with 0. */
function byHeight(cells: readonly ArrayCell[]): ArrayCell[] {
  const heights = [...new Set(cells.map((c) => c.settings.aboveFocusMm))].sort(
    (a, b) => Math.abs(a) - Math.abs(b) || a - b,
  );
  const ordered = inOrder(cells);
  return heights.flatMap((height) => ordered.filter((c) => c.settings.aboveFocusMm === height));
}

function heightText(mm: number): string {
  if (mm === 0) return "Set the focus to the surface of the stock again.";
  return `Set the focus ${plain(Math.abs(mm))} mm ${mm > 0 ? "above" : "below"} the surface of the stock.`;
}

function sitesOf(plan: TestArrayPlan, cells: readonly ArrayCell[]): Site[] {
  const burned = cells.filter((c) => c.leftOut === null);
  const blocks = blocksOf(cells);
  const named = burned.map((c) => ({ id: c.id, label: placeText(c, blocks) }));
  const areas = burned.map((c) => areaOf(plan, c.place));
  const whole = { place: null, openEnded: false, repeats: 1 };
  if (isPictured(plan.score)) return [scanSite(plan.score, plan, named, areas), charred(named, areas)];
  if (plan.score === "colour")
    return [...COLOUR_PARTS.map((of) => colourSite(of, plan, named, areas)), charred(named, areas)];
  if (plan.score === "comparisons")
    return [
      {
        id: COMPARISON_SITE,
        label: "Two cells",
        question: "Which of these two cells is better?",
        ask: { kind: "comparison", cells: burned.map((c, i) => ({ ...elementAt(named, i), ...halfSpans(plan, c) })) },
        measurand: { kind: "better of two", cells: areas },
        ...whole,
        repeats: plan.comparisons,
      },
    ];
  if (plan.score === "yes or no") return [passed(plan, named, areas), charred(named, areas)];
  if (plan.score === "depth")
    return burned.map((c) => ({
      id: depthSite(c),
      label: `Depth of cell ${placeText(c, blocks)}`,
      question: `How deep is cell ${placeText(c, blocks)}?`,
      ask: lengthAsk({ plausibleUpTo: PLAUSIBLE_DEPTH_MM }),
      measurand: { kind: "depth", within: areaOf(plan, c.place) },
      place: { piece: PIECE, at: middle(areaOf(plan, c.place)), radiusMm: plan.cellMm },
      openEnded: false,
      repeats: 1,
    }));
  return [
    {
      id: BEST_SITE,
      label: "The best cell",
      question: "Which cell is the best?",
      ask: { kind: "cells", mode: "one", cells: named },
      measurand: { kind: "best cells", cells: areas },
      ...whole,
    },
    {
      id: GOOD_SITE,
      label: "All cells as good",
      question: "Which cells are as good as the best?",
      ask: { kind: "cells", mode: "tied", cells: named },
      measurand: { kind: "best cells", cells: areas },
      ...whole,
    },
  ];
}

function scanSite(of: Pictured, plan: TestArrayPlan, cells: { id: string; label: string }[], areas: Rect[]): Site {
  return {
    id: SCAN_SITE,
    label: SCORES[of],
    question: "Scan or photograph the array and add the picture.",
    ask: { kind: "scores", cells },
    measurand: { kind: "cell look", of, cells: areas, dots: dotsOf(plan), radiusMm: LAYOUT_MM.dot, gapMm: plan.gapMm },
    place: null,
    openEnded: false,
    repeats: 1,
  };
}

const COLOUR_LABELS: Record<ColourPart, string> = {
  "L*": "Lightness L*",
  "a*": "Green to red a*",
  "b*": "Blue to yellow b*",
};

function colourSite(of: ColourPart, plan: TestArrayPlan, cells: { id: string; label: string }[], areas: Rect[]): Site {
  return {
    id: colourSiteId(of),
    label: COLOUR_LABELS[of],
    question: "Scan the array beside a white and a grey card and add the picture.",
    ask: { kind: "scores", cells },
    measurand: {
      kind: "cell colour",
      of,
      cells: areas,
      dots: dotsOf(plan),
      radiusMm: LAYOUT_MM.dot,
      gapMm: plan.gapMm,
      white: plan.whiteCard,
      grey: plan.greyCard,
    },
    place: null,
    openEnded: false,
    repeats: 1,
  };
}

/** Where the values of a cell lie along the edges, from −1 to 1. */
function halfSpans(plan: TestArrayPlan, { settings }: ArrayCell): { u: number; v: number } {
  const edges = edgesOf(plan);
  const at = (key: CellSetting, values: readonly number[]) => {
    const [low, high] = [along(key, elementAt(values, 0)), along(key, elementAt(values, values.length - 1))];
    return Number(((2 * (along(key, settings[key]) - low)) / (high - low) - 1).toFixed(4));
  };
  return { u: at(plan.across, edges.across), v: at(plan.up, edges.up) };
}

function passed({ fill }: TestArrayPlan, cells: { id: string; label: string }[], areas: Rect[]): Site {
  const how = fill === "cut" ? "cut through" : "marked";
  return {
    id: PASSED_SITE,
    label: `Cells that are ${how}`,
    question: fill === "cut" ? "Which cells are cut through?" : "Which cells are marked well enough?",
    ask: { kind: "cells", mode: "tied", cells, noneToo: true },
    measurand: { kind: "passed", how, cells: areas },
    place: null,
    openEnded: false,
    repeats: 1,
  };
}

/** A scan cannot tell char from a dark mark. The technician names the charred cells. */
function charred(cells: { id: string; label: string }[], areas: Rect[]): Site {
  return {
    id: CHARRED_SITE,
    label: "Cells that are no good",
    question: "Which cells are charred or otherwise no good?",
    ask: { kind: "cells", mode: "tied", cells, noneToo: true },
    measurand: { kind: "charred", cells: areas },
    place: null,
    openEnded: false,
    repeats: 1,
  };
}

function middle({ x0, y0, x1, y1 }: Rect): CouponPoint {
  return { x: (x0 + x1) / 2, y: (y0 + y1) / 2 };
}

function checklistOf(plan: TestArrayPlan, machine: MachineSpec): string[] {
  return [
    eyewearLine(machine),
    "Stay at the machine. Strong cells can ignite the stock.",
    "Set the focus to the surface of the stock.",
    ...(isFilled(plan) ? [] : ["Switch off any kerf offset."]),
    "Switch on the extraction.",
  ];
}
