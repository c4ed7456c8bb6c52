/** A practice technician with a gauge in hand: answers measurands from the marks, with the errors people and gauges have. */
import type { Feature, Measurand, Site } from "../core/coupon/site";
import { onCoupon, type Placement } from "../core/geometry/frames";
import type { Rect } from "../core/geometry/rect";
import type { Mark } from "./gantry";
import type { Random } from "./random";

export type Hand = {
  /** Scatter of placing the jaws, sd, mm. */
  placingMm: number;
  /** What this gauge always reads too much, mm. */
  commonMm: number;
  /** Step of the gauge, mm; 0 = endless digits. */
  resolutionMm: number;
};

export type PracticeReading =
  | {
      ok: true;
      /** What the gauge shows, mm; never negative. */
      shownMm: number;
      /** Which way round it stands, where words choose the sign. */
      positive: boolean;
    }
  | { ok: false; why: string };

/** A row end as it lies on the piece. */
type End = { x: number; y: number };
export type Seen =
  | { ok: true; from: End[]; to: End[] }
  /** Widths of lines that can be measured there, mm. */
  | { ok: true; widths: number[] }
  /** `isBlank`: nothing marked there, which is an answer too. */
  | { ok: false; why: string; isBlank?: boolean };

/** The true value of a measurand on the burned piece, over all its marks; a reason where it cannot be seen. */
export function trueValue(
  measurand: Measurand,
  marks: readonly Mark[],
  placement: Placement,
): { ok: true; value: number } | { ok: false; why: string } {
  const ends = endsOf(measurand, marks, placement);
  if (!ends.ok) return ends;
  if ("widths" in ends) return { ok: true, value: mean(ends.widths) };
  return { ok: true, value: meanX(ends.to) - meanX(ends.from) };
}

/** What can be seen at a site of the burned piece: looked for once, read as often as wanted. */
export function seenAt(site: Site, marks: readonly Mark[], placement: Placement): Seen {
  return endsOf(site.measurand, marks, placement);
}

/** One reading: a hand sets the jaws on one pair of neighbouring marks. */
export function practiceReading(ends: Seen, hand: Hand, random: Random): PracticeReading {
  if (!ends.ok) return ends;
  const seen = sizeBetween(ends, random) + (hand.placingMm > 0 ? hand.placingMm * random.normal() : 0);
  const shown = Math.max(0, Math.abs(seen) + hand.commonMm);
  const step = hand.resolutionMm;
  return {
    ok: true,
    shownMm: step > 0 ? Number((Math.round(shown / step) * step).toFixed(6)) : shown,
    positive: seen >= 0,
  };
}

/** One pair of neighbouring ends, or one line, as the hand happens to choose. */
function sizeBetween(seen: Extract<Seen, { ok: true }>, random: Random): number {
  if ("widths" in seen) return seen.widths[Math.floor(random.even() * seen.widths.length)] as number;
  const from = seen.from[Math.floor(random.even() * seen.from.length)] as End;
  return nearest(seen.to, from.y).x - from.x;
}

function endsOf(measurand: Measurand, marks: readonly Mark[], placement: Placement): Seen {
  if (measurand.kind === "width" && measurand.of.kind === "line") return linesIn(measurand.of.within, marks, placement);
  if (measurand.kind !== "distance" || measurand.along !== "x")
    return { ok: false, why: "The practice machine cannot show this." };
  const from = rowEnds(measurand.from, marks, placement);
  const to = rowEnds(measurand.to, marks, placement);
  if (from.length === 0 || to.length === 0) return { ok: false, why: "There are no such marks on the practice piece." };
  return { ok: true, from, to };
}

function linesIn(within: Rect, marks: readonly Mark[], placement: Placement): Seen {
  const widths = marksWithin(within, marks, placement).map((mark) => mark.widthMm);
  return widths.length > 0 ? { ok: true, widths } : { ok: false, why: "Nothing marked there.", isBlank: true };
}

/** Marks whose middle lies in a rectangle of the coupon. */
export function marksWithin({ x0, y0, x1, y1 }: Rect, marks: readonly Mark[], placement: Placement): Mark[] {
  return marks.filter((mark) => {
    const middle = onCoupon({ x: (mark.x0 + mark.x1) / 2, y: (mark.y0 + mark.y1) / 2 }, placement);
    return middle.x > x0 && middle.x < x1 && middle.y > y0 && middle.y < y1;
  });
}

function rowEnds(feature: Feature, marks: readonly Mark[], placement: Placement): End[] {
  if (feature.kind !== "row ends") return [];
  const { x0, y0, x1, y1 } = feature.within;
  return marks.flatMap((mark) => {
    const a = onCoupon({ x: mark.x0, y: mark.y0 }, placement);
    const b = onCoupon({ x: mark.x1, y: mark.y1 }, placement);
    const middle = { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 };
    const inside = middle.x > x0 && middle.x < x1 && middle.y > y0 && middle.y < y1;
    const going = b.x > a.x ? "right" : "left";
    if (!inside || going !== feature.going) return [];
    return [{ x: feature.end === "right" ? Math.max(a.x, b.x) : Math.min(a.x, b.x), y: middle.y }];
  });
}

function nearest(ends: readonly End[], y: number): End {
  return ends.reduce((best, e) => (Math.abs(e.y - y) < Math.abs(best.y - y) ? e : best));
}

function mean(values: readonly number[]): number {
  return values.reduce((sum, v) => sum + v, 0) / values.length;
}

function meanX(ends: readonly End[]): number {
  return ends.reduce((sum, e) => sum + e.x, 0) / ends.length;
}
