/** The outlines of one pair of mates, and where their sides are that touch. */
import type { Feature } from "../../coupon/site";
import type { CouponPoint } from "../../geometry/frames";
import { BAND_MM, BETWEEN_MM, type Cell, CHEEK_MM, LETTERS_MM, SLOT_MM, TONGUE_MM } from "./layout";
import { type KerfPlan, shrunkMm } from "./plan";

/** Flat sides of a circle: its chords stay within 0.002 mm of it up to 20 mm across, and one lies at each of its four sides. */
const FLATS = 144;
/** From the edge of a mate to the baseline of its value: the letters stand in the middle of their band. */
const BASELINE_MM = (BAND_MM - LETTERS_MM) / 2;

type Outline = readonly CouponPoint[];
/** Two sides that face each other, along an axis. */
export type Sides = { from: Feature; to: Feature; along: "x" | "y" };

export type MateShape = {
  /** Closed, inner ones first. */
  outlines: Outline[];
  /** Where the value stands on each, middle of its baseline. */
  words: CouponPoint[];
  /** Sides of tongue or plug, and those of slot or ring that they meet; the first are left out where the sheet goes in. */
  touching: { inner?: Sides; outer: Sides }[];
  /** Where to look. */
  middle: CouponPoint;
};

export function mateShape(plan: KerfPlan, cell: Cell): MateShape {
  if (plan.way === "sheet slot") return sheetSlot(plan, cell);
  return plan.way === "plug and ring" ? plugAndRing(plan, cell) : tongueAndSlot(plan, cell);
}

/** The slot below, open at its back; the tongue above, toward it. */
function tongueAndSlot(plan: KerfPlan, { x, y, offsetMm: o }: Cell): MateShape {
  const half = plan.jointMm / 2;
  const [grown, shrunk] = [o, shrunkMm(plan, o)];
  const middle = x + half + CHEEK_MM;
  const [left, right] = [middle - half - CHEEK_MM, middle + half + CHEEK_MM];
  const slotTop = y + BAND_MM + TONGUE_MM;
  const tipY = slotTop + BETWEEN_MM;
  const shoulder = tipY + TONGUE_MM;
  const slot: Outline = [
    { x: left - shrunk, y: y - shrunk },
    { x: left - shrunk, y: slotTop + shrunk },
    { x: middle - half + shrunk, y: slotTop + shrunk },
    { x: middle - half + shrunk, y: y + BAND_MM + shrunk },
    { x: middle + half - shrunk, y: y + BAND_MM + shrunk },
    { x: middle + half - shrunk, y: slotTop + shrunk },
    { x: right + shrunk, y: slotTop + shrunk },
    { x: right + shrunk, y: y - shrunk },
  ];
  const tongue: Outline = [
    { x: left - grown, y: shoulder - grown },
    { x: left - grown, y: shoulder + BAND_MM + grown },
    { x: right + grown, y: shoulder + BAND_MM + grown },
    { x: right + grown, y: shoulder - grown },
    { x: middle + half + grown, y: shoulder - grown },
    { x: middle + half + grown, y: tipY - grown },
    { x: middle - half - grown, y: tipY - grown },
    { x: middle - half - grown, y: shoulder - grown },
  ];
  const sides = (halfWidth: number, low: number, high: number): Sides => ({
    along: "x",
    from: side(middle - halfWidth, (low + high) / 2),
    to: side(middle + halfWidth, (low + high) / 2),
  });
  return {
    outlines: [slot, tongue],
    words: [
      { x: middle, y: y + BASELINE_MM },
      { x: middle, y: shoulder + BASELINE_MM },
    ],
    touching: [
      {
        inner: sides(half + grown, tipY - grown, shoulder - grown),
        outer: sides(half - shrunk, y + BAND_MM + shrunk, slotTop + shrunk),
      },
    ],
    middle: { x: middle, y: slotTop },
  };
}

/** The ring below with its value under the hole, the plug above. */
function plugAndRing(plan: KerfPlan, { x, y, offsetMm: o }: Cell): MateShape {
  const radius = plan.jointMm / 2;
  const shrunk = shrunkMm(plan, o);
  const middle = x + radius + CHEEK_MM;
  const ring = { x: middle, y: y + BAND_MM + CHEEK_MM + radius };
  const top = ring.y + radius + CHEEK_MM;
  const plug = { x: middle, y: top + BETWEEN_MM + radius };
  const [hole, disc] = [radius - shrunk, radius + o];
  const body: Outline = [
    { x: middle - radius - CHEEK_MM - shrunk, y: y - shrunk },
    { x: middle - radius - CHEEK_MM - shrunk, y: top + shrunk },
    { x: middle + radius + CHEEK_MM + shrunk, y: top + shrunk },
    { x: middle + radius + CHEEK_MM + shrunk, y: y - shrunk },
  ];
  const across = (at: CouponPoint, r: number, along: "x" | "y"): Sides =>
    along === "x"
      ? { along, from: side(at.x - r, at.y), to: side(at.x + r, at.y) }
      : { along, from: side(at.x, at.y - r), to: side(at.x, at.y + r) };
  return {
    outlines: [circle(ring, hole), body, circle(plug, disc)],
    words: [
      { x: middle, y: y + BASELINE_MM },
      { x: middle, y: plug.y - LETTERS_MM / 2 },
    ],
    touching: (["x", "y"] as const).map((along) => ({
      inner: across(plug, disc, along),
      outer: across(ring, hole, along),
    })),
    middle: { x: middle, y: top },
  };
}

/** A slot as long as it is deep elsewhere; what goes in is the sheet that it is cut from, on edge. */
function sheetSlot(plan: KerfPlan, { x, y, widthMm, offsetMm }: Cell): MateShape {
  const half = plan.jointMm / 2 - shrunkMm(plan, offsetMm);
  const middle = x + (widthMm - BETWEEN_MM) / 2;
  const [low, high] = [y + BAND_MM, y + BAND_MM + SLOT_MM];
  return {
    outlines: [
      [
        { x: middle - half, y: low },
        { x: middle - half, y: high },
        { x: middle + half, y: high },
        { x: middle + half, y: low },
      ],
    ],
    words: [{ x: middle, y: y + BASELINE_MM }],
    touching: [
      { outer: { along: "x", from: side(middle - half, (low + high) / 2), to: side(middle + half, (low + high) / 2) } },
    ],
    middle: { x: middle, y: (low + high) / 2 },
  };
}

/** With a flat side straight to the right, left, back and front. */
function circle(at: CouponPoint, radius: number): Outline {
  // Corners between the flats: they touch the circle in their middles.
  const corner = radius / Math.cos(Math.PI / FLATS);
  return Array.from({ length: FLATS }, (_, i) => {
    const angle = ((i + 0.5) * 2 * Math.PI) / FLATS;
    return { x: at.x + corner * Math.cos(angle), y: at.y + corner * Math.sin(angle) };
  });
}

/** Half of the square in which the middle of a cut is looked for: less than from one flat of a plug to the next, mm. */
const AROUND_MM = 0.1;

/** The cut whose middle lies at a place. */
function side(x: number, y: number): Feature {
  return { kind: "line", within: { x0: x - AROUND_MM, y0: y - AROUND_MM, x1: x + AROUND_MM, y1: y + AROUND_MM } };
}
