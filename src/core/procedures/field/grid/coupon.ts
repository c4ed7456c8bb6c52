/** A grid of dots with an L of larger ones, caliper marks between them, and what is asked of it. */
import { lengthAsk } from "../../../coupon/ask";
import { fittingLetters, letterStrokes } from "../../../coupon/lettering";
import { type CouponPath, lineSettings } from "../../../coupon/piece";
import type { RoundSpec } from "../../../coupon/round-spec";
import type { Site } from "../../../coupon/site";
import { knownLengthSites } from "../../../measuring/known-length";
import { withinSentence } from "../../../metrology/sentence-case";
import type { Purpose } from "../../../trial/history";
import type { PlanContext } from "../../../trial/plan-form";
import { fieldBurn, onCoupon, signatureText } from "../field-burn";
import type { Vector } from "../map";
import type { FieldPlan } from "../plan";
import {
  dotsOf,
  GRID_LENGTHS,
  type GridDot,
  type GridLengthId,
  gridEndsOf,
  gridLengthsOf,
  gridNominalMm,
  pitchMm,
} from "./lengths";

const PIECE = "grid";
const LINES = "lines";
/** Rows with which a dot is filled, mm, and corners of its outline. */
const [ROW_MM, CORNERS] = [0.05, 20];
/** Arms of a caliper mark, and letters beside it, shares of the distance between dots. */
const [ARM, LETTERS] = [0.22, 0.3];
/** Ticks around the dot in the middle, from and to, shares of the distance between dots. */
const CENTRE = { from: 0.32, to: 0.5 } as const;
const RADIUS = 0.07;
const PLAUSIBLE_SHARE = 1.12;
const FIRST = "dots";
const TURNED = "dots turned";
const PART = "dots part ";

/** Points at which the dots are read, one for each scan. */
export function scansOf({ pictures, parts }: Pick<FieldPlan, "pictures" | "parts">): readonly string[] {
  if (pictures === "parts") return Array.from({ length: Number(parts) }, (_, i) => `${PART}${i + 1}`);
  return pictures === "two" ? [FIRST, TURNED] : [FIRST];
}

export function gridRound(plan: FieldPlan, context: PlanContext, purpose: Purpose): RoundSpec {
  const lengths = gridLengthsOf(plan).map((id) => lengthSite(plan, id));
  return fieldBurn(plan, context, purpose, {
    id: PIECE,
    settings: lineSettings(LINES, "Dots, marks and words", plan.speedMmPerS, plan.powerPct),
    paths: pathsOf(plan, context),
    sites: [...lengths, ...knownLengthSites(plan, lengths), ...scansOf(plan).map((id) => dotsSite(plan, id))],
    delivery: "A grid of dots in the middle of the field",
    checks: ["Use smooth stock with a strong contrast between dots and stock."],
  });
}

function pathsOf(plan: FieldPlan, context: PlanContext): CouponPath[] {
  const strokes = (points: readonly (readonly Vector[])[]): CouponPath[] =>
    points.map((line) => ({ points: line.map((p) => onCoupon(p, plan)), closed: false, settings: LINES }));
  return [
    ...dotsOf(plan).flatMap((dot) => dotPaths(dot, plan)),
    ...strokes(marksOf(plan)),
    ...strokes(centreTicks(plan)),
    ...gridLengthsOf(plan).flatMap((id) => nameOf(id, plan)),
    ...signatureOf(plan, signatureText(context)),
  ];
}

/** Its outline, filled with rows: a controller need not know how to fill. */
function dotPaths(dot: GridDot, plan: FieldPlan): CouponPath[] {
  const r = dot.diameterMm / 2;
  const at = (dx: number, dy: number) => onCoupon({ x: dot.x + dx, y: dot.y + dy }, plan);
  const outline = Array.from({ length: CORNERS }, (_, i) => {
    const angle = (2 * Math.PI * i) / CORNERS;
    return at(r * Math.cos(angle), r * Math.sin(angle));
  });
  const rows: CouponPath[] = [];
  for (let y = -r + ROW_MM; y < r - ROW_MM / 2; y += ROW_MM) {
    const half = Math.sqrt(r * r - y * y);
    rows.push({ points: [at(-half, y), at(half, y)], closed: false, settings: LINES });
  }
  return [{ points: outline, closed: true, settings: LINES }, ...rows];
}

/** A cross at either end of each length, once. */
function marksOf(plan: FieldPlan): Vector[][] {
  const arm = ARM * pitchMm(plan);
  const ends = gridLengthsOf(plan).flatMap((id) => Object.values(gridEndsOf(id, plan)));
  const places = new Map(ends.map((p) => [`${p.x} ${p.y}`, p]));
  return [...places.values()].flatMap(({ x, y }) => [
    [
      { x: x - arm, y },
      { x: x + arm, y },
    ],
    [
      { x, y: y - arm },
      { x, y: y + arm },
    ],
  ]);
}

/** Four slanted ticks around the dot in the middle. */
function centreTicks(plan: FieldPlan): Vector[][] {
  const pitch = pitchMm(plan);
  return [-1, 1].flatMap((a) =>
    [-1, 1].map((b) => [CENTRE.from, CENTRE.to].map((share) => ({ x: a * share * pitch, y: b * share * pitch }))),
  );
}

/** Beside the first mark of a length, in the middle of the next four dots inward. */
function nameOf(id: GridLengthId, plan: FieldPlan): CouponPath[] {
  const pitch = pitchMm(plan);
  const { from } = gridEndsOf(id, plan);
  const inward = (v: number) => (Math.abs(v) > pitch ? v - Math.sign(v) * pitch : v);
  const letters = LETTERS * pitch;
  const at = onCoupon({ x: inward(from.x), y: inward(from.y) - letters / 2 }, plan);
  return letterStrokes(GRID_LENGTHS[id].mark, at, letters, "middle").map(
    (points): CouponPath => ({ points, closed: false, settings: LINES }),
  );
}

/** Between the third and the fourth row of dots from the front: names of lengths stand before. */
function signatureOf(plan: FieldPlan, text: string): CouponPath[] {
  const pitch = pitchMm(plan);
  const letters = fittingLetters(text, 4 * pitch, LETTERS * pitch);
  const y = -((plan.across - 1) / 2 - 2.5) * pitch - letters / 2;
  return letterStrokes(text, onCoupon({ x: 0, y }, plan), letters, "middle").map(
    (points): CouponPath => ({ points, closed: false, settings: LINES }),
  );
}

function lengthSite(plan: FieldPlan, id: GridLengthId): Site {
  const { label } = GRID_LENGTHS[id];
  const { from, to } = gridEndsOf(id, plan);
  const [a, b] = [onCoupon(from, plan), onCoupon(to, plan)];
  return {
    id,
    label,
    question: `Measure the ${withinSentence(label)} from cross to cross. What do the calipers read?`,
    ask: lengthAsk({ plausibleUpTo: PLAUSIBLE_SHARE * gridNominalMm(id, plan) }),
    measurand: { kind: "span", from: { kind: "cross", near: a }, to: { kind: "cross", near: b } },
    place: { piece: PIECE, at: a, radiusMm: RADIUS * plan.fieldMm },
    repeats: plan.lengthRepeats,
    openEnded: false,
  };
}

const SCANS: Readonly<Record<string, { label: string; question: string }>> = {
  [FIRST]: {
    label: "Dots in the first scan",
    question: "Lay the stock on the scanner with the marks down. Scan at 600 dots per inch and add the picture.",
  },
  [TURNED]: {
    label: "Dots in the second scan",
    question: "Turn the stock by 90° on the glass. Scan again with the same settings and add the picture.",
  },
};

/** Where the parts of an overlapping scan lie. */
const PART_WORDS = {
  "2": ["left half", "right half"],
  "4": ["front left corner", "front right corner", "back left corner", "back right corner"],
} as const;

function dotsSite(plan: FieldPlan, id: string): Site {
  const dots = dotsOf(plan);
  const n = id.startsWith(PART) ? Number(id.slice(PART.length)) : null;
  const isPhoto = plan.pictures === "photo";
  const where = n === null ? "" : (PART_WORDS[plan.parts][n - 1] ?? "");
  return {
    id,
    label: isPhoto ? "Dots in the photo" : n === null ? (SCANS[id]?.label ?? id) : `Dots in the scan of the ${where}`,
    question: isPhoto
      ? "Take a photo of the whole stock from some distance, and add it."
      : n === null
        ? (SCANS[id]?.question ?? "")
        : `Scan the ${where} with the larger dots in the middle, without turning the stock. Add the picture.`,
    ask: { kind: "points", nominal: dots.map((d) => onCoupon(d, plan)) },
    measurand: {
      kind: "dots",
      across: plan.across,
      turnedDeg: id === TURNED ? 90 : 0,
      ...(isPhoto ? { photo: true as const } : {}),
      ...(n === null ? {} : { part: { n, of: plan.parts === "2" ? 2 : 4 } }),
    },
    place: { piece: PIECE, at: onCoupon({ x: 0, y: 0 }, plan), radiusMm: RADIUS * plan.fieldMm },
    repeats: 1,
    openEnded: false,
  };
}
