/** The scan-offset coupon: blocks burned both ways, each with a one-way witness strip, and a step of known size. */

import { lengthAsk } from "../../coupon/ask";
import { letterStrokes, textWidthMm } from "../../coupon/lettering";
import { type CouponPath, lineSettings, type MarkingSettings, type Piece } from "../../coupon/piece";
import type { Op } from "../../coupon/program";
import type { RoundSpec } from "../../coupon/round-spec";
import type { Site } from "../../coupon/site";
import { corners, type Rect } from "../../geometry/rect";
import { counted, zeroText } from "../../machine/counted";
import type { MachineSpec } from "../../machine/machine-spec";
import { eyewearLine } from "../../machine/not-known";
import { plain } from "../../metrology/quantity-text";
import type { Purpose } from "../../trial/history";
import type { PlanContext } from "../../trial/plan-form";
import { type BlockPlace, type CouponPlaces, placesOf, SPACING_MM } from "./layout";
import { hasOutline, type ScanOffsetPlan, WAYS } from "./plan";
import { runUpMm } from "./plan-faults";

export const PIECE = "coupon";
export const REFERENCE_SITES = { left: "reference-left", right: "reference-right" } as const;
/** Larger staggers are asked about once before they are taken, mm. */
const PLAUSIBLE_STAGGER_MM = 2;
const SITE_RADIUS_MM = 4;
/** Speed of labels and outlines, as a share of the top speed. */
const SLOW_SHARE = 0.1;
const OUTLINES = "outlines";

export const ENDS = ["left", "right"] as const;
export type RowEnd = (typeof ENDS)[number];

/** `going`: direction of the rows whose gap to the outline is read; `null` where the tips of both directions are compared. */
export type End = { speedMmPerS: number; end: RowEnd; going: RowEnd | null };

/** +1 at the right end and for right-going rows, -1 at the left end and for left-going ones. */
export const signAt = (side: RowEnd) => (side === "right" ? 1 : -1);

export function siteId(speedMmPerS: number, end: RowEnd): string {
  return `v${plain(speedMmPerS)}-${end}`;
}

/** Where the gap between the outline and the tips of the rows of one direction is measured. */
export function gapSiteId(speedMmPerS: number, end: RowEnd, going: RowEnd): string {
  return `gap${plain(speedMmPerS)}-${end}-${going}`;
}

/** Whether a point of the coupon is at its blocks, and not at the reference step. */
export function isAtRows(site: string): boolean {
  return site.startsWith("v") || site.startsWith("gap");
}

/** Everything burned and asked in a round with this plan. */
export function scanOffsetRound(plan: ScanOffsetPlan, context: PlanContext, purpose: Purpose): RoundSpec {
  const places = placesOf(plan);
  const piece = pieceOf(plan, places, context);
  return {
    pieces: [piece],
    placement: { xMm: plan.stockAtXMm, yMm: plan.stockAtYMm },
    program: programOf(plan, piece, context.machine),
    sites: [
      referenceSite(plan, places, "left"),
      referenceSite(plan, places, "right"),
      ...places.blocks.flatMap((block) => [
        ...ENDS.map((end) => staggerSite(plan, block, end)),
        ...(hasOutline(plan) ? ENDS.flatMap((end) => ENDS.map((going) => gapSite(block, end, going))) : []),
      ]),
    ],
    delivery: WAYS[plan.way],
    checklist: checklistOf(plan, context.machine, purpose),
  };
}

function pieceOf(plan: ScanOffsetPlan, places: CouponPlaces, { machine, couponCode }: PlanContext): Piece {
  const letters: MarkingSettings = {
    id: "labels",
    label: "Labels",
    use: "line",
    speedMmPerS: machine.topSpeedMmPerS * SLOW_SHARE,
    powerPct: plan.powerPct,
    runUpMm: 0,
    scan: null,
  };
  const slowest = places.blocks[0]?.speedMmPerS ?? letters.speedMmPerS;
  const oneWay = rowSettings(plan, machine, "reference", "Reference step, one way", slowest, "right-going");
  const outlines = hasOutline(plan)
    ? [lineSettings(OUTLINES, "Outlines, slow", machine.topSpeedMmPerS * SLOW_SHARE, plan.powerPct)]
    : [];
  const blocks = places.blocks.map((place) => ({
    place,
    both: rowSettings(
      plan,
      machine,
      `v${plain(place.speedMmPerS)}`,
      `${plain(place.speedMmPerS)} mm/s, both ways`,
      place.speedMmPerS,
      "both",
    ),
    witness: rowSettings(
      plan,
      machine,
      `v${plain(place.speedMmPerS)}w`,
      `${plain(place.speedMmPerS)} mm/s, one way, right-going`,
      place.speedMmPerS,
      "right-going",
    ),
  }));
  return {
    id: PIECE,
    label: `Scan offset, coupon ${couponCode}`,
    stock: `offcut ${plain(plan.stockWidthMm)} × ${plain(plan.stockHeightMm)}`,
    widthMm: plan.stockWidthMm,
    heightMm: plan.stockHeightMm,
    settings: [letters, ...blocks.flatMap((b) => [b.both, b.witness]), oneWay, ...outlines],
    paths: [
      ...labelPaths(plan, places, couponCode),
      ...blocks.flatMap((b) => [
        ...areaPaths(b.place.block, b.both, plan),
        ...areaPaths(b.place.witness, b.witness, plan),
      ]),
      ...areaPaths(places.reference.short, oneWay, plan),
      ...areaPaths(places.reference.long, oneWay, plan),
      ...outlines.flatMap(({ id }) =>
        places.blocks.map((b): CouponPath => ({ points: corners(b.outline), closed: true, settings: id })),
      ),
    ],
  };
}

function rowSettings(
  plan: ScanOffsetPlan,
  machine: MachineSpec,
  id: string,
  label: string,
  speedMmPerS: number,
  direction: "both" | "right-going",
): MarkingSettings {
  const scanned = plan.way === "closed blocks";
  return {
    id,
    label,
    use: scanned ? "scan" : "rows",
    speedMmPerS,
    powerPct: plan.powerPct,
    runUpMm: scanned ? 0 : runUpMm(speedMmPerS, machine),
    scan: scanned ? { rowPitchMm: plan.rowPitchMm, direction } : null,
  };
}

/** The closed outline where the controller scans; otherwise its rows from the bottom up, the first one right-going. */
function areaPaths(area: Rect, settings: MarkingSettings, plan: ScanOffsetPlan): CouponPath[] {
  if (settings.use === "scan") return [{ points: corners(area), closed: true, settings: settings.id }];
  const oneWay = settings.id.endsWith("w") || settings.id === "reference";
  const rows = Math.round((area.y1 - area.y0) / plan.rowPitchMm);
  return Array.from({ length: rows }, (_, row) => {
    const y = area.y0 + (row + 0.5) * plan.rowPitchMm;
    const ends = [
      { x: area.x0, y },
      { x: area.x1, y },
    ];
    const leftGoing = !oneWay && row % 2 === 1;
    return { points: leftGoing ? ends.reverse() : ends, closed: false, settings: settings.id };
  });
}

function labelPaths(plan: ScanOffsetPlan, places: CouponPlaces, code: string): CouponPath[] {
  const height = SPACING_MM.letters;
  const beside = (area: Rect) => ({
    x: SPACING_MM.labels - SPACING_MM.besideLabel,
    y: (area.y0 + area.y1 - height) / 2,
  });
  const xAxis = { x: SPACING_MM.edge, y: 4 };
  const strokes = [
    ...letterStrokes(`${code} MM/S`, places.title, height),
    ...places.blocks.flatMap((b) => letterStrokes(plain(b.speedMmPerS), beside(b.block), height, "end")),
    ...letterStrokes(
      plain(plan.referenceStepMm),
      {
        x: places.reference.long.x0 - SPACING_MM.besideLabel,
        y: places.reference.short.y0 - height / 2,
      },
      height,
      "end",
    ),
    [xAxis, { x: xAxis.x + 8, y: xAxis.y }],
    [
      { x: xAxis.x + 6.5, y: xAxis.y + 1 },
      { x: xAxis.x + 8, y: xAxis.y },
      { x: xAxis.x + 6.5, y: xAxis.y - 1 },
    ],
    ...letterStrokes("X", { x: xAxis.x + 9 + textWidthMm("X", height) / 2, y: xAxis.y - height / 2 }, height, "middle"),
  ];
  return strokes.map((points) => ({ points, closed: false, settings: "labels" }));
}

function programOf(plan: ScanOffsetPlan, piece: Piece, machine: MachineSpec): Op[] {
  const corner = counted({ x: plan.stockAtXMm, y: plan.stockAtYMm }, machine);
  const zero = zeroText(machine);
  const place = `X ${plain(corner.x)}, Y ${plain(corner.y)} mm${zero && `, as the machine counts (${zero})`}`;
  return [
    { kind: "tell", text: `Lay the stock with its lower left corner at ${place}.` },
    ...piece.settings.map((s): Op => ({ kind: "mark", piece: piece.id, settings: s.id })),
  ];
}

function staggerSite(plan: ScanOffsetPlan, place: BlockPlace, end: RowEnd): Site {
  const x = end === "left" ? place.block.x0 : place.block.x1;
  const rightGoing = "right-going stand out";
  const leftGoing = "left-going stand out";
  const feature = (going: "right" | "left") => ({
    kind: "row ends" as const,
    within: place.block,
    end,
    going,
  });
  return {
    id: siteId(place.speedMmPerS, end),
    label: `${plain(place.speedMmPerS)} mm/s, ${end} end`,
    question: "How far apart are the tips of neighbouring rows?",
    ask: lengthAsk({
      signedBy: {
        question: "Which rows stand out? Right-going rows line up with the witness strip above.",
        positive: end === "right" ? rightGoing : leftGoing,
        negative: end === "right" ? leftGoing : rightGoing,
      },
      plausibleUpTo: PLAUSIBLE_STAGGER_MM,
    }),
    measurand: { kind: "distance", from: feature("left"), to: feature("right"), along: "x" },
    place: {
      piece: PIECE,
      at: { x, y: (place.block.y0 + place.block.y1) / 2 },
      radiusMm: SITE_RADIUS_MM,
    },
    repeats: plan.repeats,
    openEnded: false,
  };
}

function gapSite({ speedMmPerS, block, outline }: BlockPlace, end: RowEnd, going: RowEnd): Site {
  const middle = (block.y0 + block.y1) / 2;
  const quarter = (block.y1 - block.y0) / 4;
  const side = outline[end === "left" ? "x0" : "x1"];
  return {
    id: gapSiteId(speedMmPerS, end, going),
    label: `${plain(speedMmPerS)} mm/s, ${end} gap of ${going}-going rows`,
    question: `How wide is the gap between the outline and the tips of the ${going}-going rows at the ${end} end?`,
    ask: lengthAsk({ plausibleUpTo: SPACING_MM.outline + PLAUSIBLE_STAGGER_MM }),
    measurand: {
      kind: "row gap",
      rows: { kind: "row ends", within: block, end, going },
      line: {
        kind: "line",
        within: {
          x0: side - SPACING_MM.outline / 2,
          y0: outline.y0,
          x1: side + SPACING_MM.outline / 2,
          y1: outline.y1,
        },
      },
    },
    place: {
      piece: PIECE,
      at: { x: block[end === "left" ? "x0" : "x1"], y: middle + (going === "right" ? quarter : -quarter) },
      radiusMm: SITE_RADIUS_MM,
    },
    repeats: 1,
    openEnded: false,
  };
}

function referenceSite(plan: ScanOffsetPlan, { reference }: CouponPlaces, end: RowEnd): Site {
  const feature = (within: Rect) => ({ kind: "row ends" as const, within, end, going: "right" as const });
  const [inner, outer] = [feature(reference.short), feature(reference.long)];
  return {
    id: REFERENCE_SITES[end],
    label: `Reference step of ${plain(plan.referenceStepMm)} mm, ${end} end`,
    question: "How far do the lower rows reach beyond the upper ones?",
    ask: lengthAsk({ plausibleUpTo: PLAUSIBLE_STAGGER_MM }),
    measurand: {
      kind: "distance",
      from: end === "right" ? inner : outer,
      to: end === "right" ? outer : inner,
      along: "x",
    },
    place: {
      piece: PIECE,
      at: { x: end === "right" ? reference.short.x1 : reference.short.x0, y: reference.short.y0 },
      radiusMm: SITE_RADIUS_MM,
    },
    repeats: plan.repeats,
    openEnded: false,
  };
}

function checklistOf(plan: ScanOffsetPlan, machine: MachineSpec, purpose: Purpose): string[] {
  const lines = [eyewearLine(machine), "Stock flat and held, focus as in daily work."];
  if (plan.way === "closed blocks") {
    lines.push(
      "Blocks: scan both ways, one hatch angle, no cross hatch. Witness strips and reference step: one way, to the right.",
    );
    lines.push(
      purpose === "proof"
        ? "Check that the new entries are in the controller and that its correction is switched on."
        : "Leave the controller's correction as in daily work: switched on, with the old entries.",
    );
  }
  if (hasOutline(plan)) lines.push("Draw the outlines as lines, slowly. Do not fill them.");
  if (plan.way === "own strokes")
    lines.push(
      "Use the G-code file: rows are shifted in it by the entries in force. Switch off any other compensation.",
    );
  if (plan.way === "bare strokes") lines.push("Rows are single strokes: no program may reorder or join them.");
  return lines;
}
