/**
 * A block that holds the lens at its focus: two sheets that stand crosswise, each slotted half way into the other, so that they stand
 * square and cannot tip. The gap is their height.
 *
 *   drawn height = gap + kerf      what is cut around comes out smaller by the kerf
 *   drawn slot = thickness - kerf  what is cut out comes out larger by it
 */

import type { CouponPath, Piece } from "../../coupon/piece";
import type { CouponPoint } from "../../geometry/frames";
import type { Rect } from "../../geometry/rect";
import { plain, shownNumber } from "../../metrology/quantity-text";
import { parseReading } from "../../metrology/reading-text";
import { typed, yesOrNo } from "../../trial/decision";
import { lengthUnitOf } from "../../trial/decisions";
import type { History } from "../../trial/history";
import type { Artefact, Wish } from "../../trial/outcome";
import type { Way } from "./found";
import type { FocusPlan } from "./plan";

const KERF = typed("spacer kerf");
const SHEET = typed("spacer sheet");
const FOOT = yesOrNo("spacer foot");
const NAME = "spacer";
/** How wide a sheet is, beside its height, within limits, mm. */
const WIDTH = { share: 0.6, least: 30, most: 90 };
/** A foot stands on parts this small, over this height, mm. */
const FOOT_MM = { width: 8, height: 12 };
const [APART_MM, EDGE_MM, LETTERS_MM, LETTERS_OFF_MM] = [6, 4, 3, 1.5];
const MOST = { kerfMm: 3, sheetMm: 20 };

export type SpacerSize = { gapMm: number; kerfMm: number; sheetMm: number; foot: boolean };

/** What is asked for a spacer and, once it is answered, the drawing. Only where the gap itself was read. */
export function spacerOf(history: History, plan: FocusPlan, { found }: Way): { wishes: Wish[]; artefacts: Artefact[] } {
  if (plan.readAt !== "rule") return { wishes: [], artefacts: [] };
  const { decisions } = history;
  const unit = lengthUnitOf(history);
  const texts = { kerf: KERF.of(decisions), sheet: SHEET.of(decisions) };
  const wish: Wish = {
    id: NAME,
    title: "A spacer of this gap",
    fault: null,
    lines: [],
    files: [],
    why: "Two sheets stand crosswise between lens and work. Cut them once and use them to set this height.",
    fields: [
      { decision: SHEET.key, label: "Thickness of the sheet", text: texts.sheet },
      { decision: KERF.key, label: "Kerf, or 0", text: texts.kerf },
    ],
    checks: [{ decision: FOOT.key, label: "With a foot for small parts", on: FOOT.of(decisions) }],
  };
  if (texts.kerf.trim() === "" || texts.sheet.trim() === "") return { wishes: [wish], artefacts: [] };
  const [kerf, sheet] = [parseReading(texts.kerf, "length", unit), parseReading(texts.sheet, "length", unit)];
  const fail = (fault: string) => ({ wishes: [{ ...wish, fault }], artefacts: [] });
  if (!sheet.ok) return fail(`Thickness: ${sheet.message}`);
  if (!kerf.ok) return fail(`Kerf: ${kerf.message}`);
  const gapMm = found.quantity.value + plan.allowanceMm;
  const size = { gapMm, kerfMm: kerf.value, sheetMm: sheet.value, foot: FOOT.of(decisions) };
  const fault = spacerFault(size);
  if (fault) return fail(fault);
  const mm = (value: number, digits = 2) => shownNumber(value, unit, digits);
  return {
    wishes: [
      {
        ...wish,
        lines: [
          `height: ${mm(gapMm)} + ${mm(size.kerfMm)} = ${mm(gapMm + size.kerfMm)} ${unit} drawn`,
          `slots: ${mm(size.sheetMm)} − ${mm(size.kerfMm)} = ${mm(size.sheetMm - size.kerfMm)} ${unit} drawn`,
        ],
        files: [
          { file: "made.svg", of: NAME, label: "Spacer, SVG" },
          { file: "made.dxf", of: NAME, label: "Spacer, DXF" },
        ],
      },
    ],
    artefacts: [{ kind: "drawing", name: NAME, ...spacerDrawing(size) }],
  };
}

/** Why such a spacer cannot be cut; `null` where it can. */
export function spacerFault({ gapMm, kerfMm, sheetMm, foot }: SpacerSize): string | null {
  if (!(sheetMm > 0) || sheetMm > MOST.sheetMm) return `Enter a thickness above 0 mm, at most ${MOST.sheetMm} mm.`;
  if (kerfMm > MOST.kerfMm) return `A kerf of ${plain(kerfMm)} mm is too wide. Enter at most ${MOST.kerfMm} mm.`;
  if (kerfMm >= sheetMm) return "The kerf is as wide as the slot. Enter a smaller kerf or a thicker sheet.";
  if (gapMm < 3 * LETTERS_MM) return `A gap of ${plain(gapMm, 1)} mm is too small for standing sheets. Use a block.`;
  if (foot && gapMm < 2 * FOOT_MM.height)
    return `A foot needs a gap of at least ${2 * FOOT_MM.height} mm. Switch the foot off.`;
  return null;
}

/** Both sheets beside one another, and where they may be signed. @throws RangeError for what cannot be cut */
export function spacerDrawing(size: SpacerSize): Pick<Extract<Artefact, { kind: "drawing" }>, "piece" | "signed"> {
  const fault = spacerFault(size);
  if (fault) throw new RangeError(fault);
  const { gapMm, kerfMm, sheetMm, foot } = size;
  const height = gapMm + kerfMm;
  const width = Math.min(WIDTH.most, Math.max(WIDTH.least, WIDTH.share * gapMm)) + kerfMm;
  const slot = sheetMm - kerfMm;
  const outlines = [fromAbove(width, height, slot, foot), fromBelow(width, height, slot, foot)];
  const shifted = outlines.map((points, i) =>
    points.map((p) => at(p.x + EDGE_MM + i * (width + APART_MM), p.y + EDGE_MM)),
  );
  const piece: Piece = {
    id: NAME,
    label: `Spacer of ${plain(gapMm, 2)} mm`,
    stock: `sheet ${plain(sheetMm)} mm`,
    widthMm: 2 * width + APART_MM + 2 * EDGE_MM,
    heightMm: height + 2 * EDGE_MM,
    settings: [
      { ...MARKED, id: "letters", label: "Engrave", powerPct: 15 },
      { ...MARKED, id: "cut", label: "Cut", powerPct: 60 },
    ],
    paths: shifted.map((points): CouponPath => ({ points, closed: true, settings: "cut" })),
  };
  return { piece, signed: { settings: "letters", areas: freeOf(width, height, slot, foot), heightMm: LETTERS_MM } };
}

/** Of the first sheet, whose slot comes from above: below the slot, and left of it. */
function freeOf(width: number, height: number, slot: number, foot: boolean): Rect[] {
  const from = { x: EDGE_MM + LETTERS_OFF_MM, y: EDGE_MM + LETTERS_OFF_MM + (foot ? FOOT_MM.height : 0) };
  const areas = [
    { x1: EDGE_MM + width - LETTERS_OFF_MM, y1: EDGE_MM + height / 2 - LETTERS_OFF_MM },
    { x1: EDGE_MM + (width - slot) / 2 - LETTERS_OFF_MM, y1: EDGE_MM + height - LETTERS_OFF_MM },
  ].map((to) => ({ x0: from.x, y0: from.y, ...to }));
  return areas.filter((a) => a.x1 > a.x0 && a.y1 > a.y0);
}

/** Speed and power are those of the stock: here they only tell cutting from engraving, and are not written to files. */
const MARKED = { use: "line", speedMmPerS: 10, runUpMm: 0, scan: null } as const;

const at = (x: number, y: number): CouponPoint => ({ x, y });

/** The lower edge from left to right, with a foot in its middle. */
function base(width: number, foot: boolean): CouponPoint[] {
  if (!foot) return [at(0, 0), at(width, 0)];
  const [a, b] = [(width - FOOT_MM.width) / 2, (width + FOOT_MM.width) / 2];
  return [
    at(0, FOOT_MM.height),
    at(a, FOOT_MM.height),
    at(a, 0),
    at(b, 0),
    at(b, FOOT_MM.height),
    at(width, FOOT_MM.height),
  ];
}

/** Its slot comes down to half of the height. */
function fromAbove(width: number, height: number, slot: number, foot: boolean): CouponPoint[] {
  const [a, b] = [(width - slot) / 2, (width + slot) / 2];
  return [
    ...base(width, foot),
    at(width, height),
    at(b, height),
    at(b, height / 2),
    at(a, height / 2),
    at(a, height),
    at(0, height),
  ];
}

/** Its slot comes up to half of the height, through the foot where there is one. */
function fromBelow(width: number, height: number, slot: number, foot: boolean): CouponPoint[] {
  const [a, b] = [(width - slot) / 2, (width + slot) / 2];
  const through = [at(a, 0), at(a, height / 2), at(b, height / 2), at(b, 0)];
  const edge = base(width, foot);
  const half = edge.length / 2;
  return [...edge.slice(0, half), ...through, ...edge.slice(half), at(width, height), at(0, height)];
}
