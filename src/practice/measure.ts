/** A practice technician with a gauge in hand: answers measurands from the marks, with the errors people and gauges have. */
import type { Feature, Measurand } from "../core/coupon/site";
import { onCoupon, type Placement } from "../core/geometry/frames";
import type { Rect } from "../core/geometry/rect";
import type { Mark } from "./gantry";
import { distanceSeen, marksOf } from "./measure-places";
import type { Random } from "./random";
import type { Seen } from "./seen";

export type Hand = {
  /** Scatter of placing the jaws, sd, mm. */
  placingMm: number;
  /** What this gauge always reads too much, mm. */
  commonMm: number;
  /** Step of the gauge, mm; 0 = endless digits. */
  resolutionMm: number;
  /** How far the zero of each pair of jaws is off what closed jaws showed, mm; left out where it is not. */
  zeroMm?: { outside: number; inside: number };
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

/**
 * What can be seen of a measurand on the burned piece: looked for once, read as often as wanted.
 *
 * @param corner where the corner of the stock truly lies
 * @param placement where it was said to lie; places of single marks are known by where they were sent
 */
export function seenOf(measurand: Measurand, marks: readonly Mark[], corner: Placement, placement = corner): Seen {
  if (measurand.kind === "width" && measurand.of.kind === "line") return linesIn(measurand.of.within, marks, corner);
  if (measurand.kind === "distance" && measurand.from.kind === "row ends")
    return rowsSeen(measurand.from, measurand.to, marks, corner);
  if (measurand.kind === "known length") return { ok: true, look: () => measurand.mm, mean: measurand.mm };
  if (measurand.kind === "row gap") return gapSeen(measurand, marks, corner, placement);
  return distanceSeen(measurand, marks, placement);
}

/** From one of the tips to the line beside it, between the edges that face each other: each is half a mark nearer than its middle. */
function gapSeen(
  { rows, line }: Extract<Measurand, { kind: "row gap" }>,
  marks: readonly Mark[],
  corner: Placement,
  placement: Placement,
): Seen {
  const tips = rowEnds(rows, marks, corner);
  const [side] = marksOf(line, marks, placement);
  const [row] = rows.kind === "row ends" ? marksWithin(rows.within, marks, corner) : [];
  if (tips.length === 0 || !side || !row) return { ok: false, why: "There are no such marks on the practice piece." };
  const lineAt = onCoupon({ x: (side.x0 + side.x1) / 2, y: (side.y0 + side.y1) / 2 }, corner).x;
  const gapAt = (x: number) => Math.abs(lineAt - x) - (side.widthMm + row.widthMm) / 2;
  return {
    ok: true,
    look: (random) => gapAt((tips[Math.floor(random.even() * tips.length)] as End).x),
    mean: mean(tips.map((tip) => gapAt(tip.x))),
  };
}

/** The true value of a measurand on the burned piece, over all its marks; a reason where it cannot be seen. */
export function trueValue(
  measurand: Measurand,
  marks: readonly Mark[],
  corner: Placement,
): { ok: true; value: number } | { ok: false; why: string } {
  const seen = seenOf(measurand, marks, corner);
  return seen.ok ? { ok: true, value: seen.mean } : seen;
}

/** One reading: a hand sets the jaws on one pair of neighbouring marks. */
export function practiceReading(found: Seen, hand: Hand, random: Random): PracticeReading {
  if (!found.ok) return found;
  const seen = found.look(random) + (hand.placingMm > 0 ? hand.placingMm * random.normal() : 0);
  const shown = Math.max(0, Math.abs(seen) + hand.commonMm);
  const step = hand.resolutionMm;
  return {
    ok: true,
    shownMm: step > 0 ? Number((Math.round(shown / step) * step).toFixed(6)) : shown,
    positive: seen >= 0,
  };
}

/** One pair of neighbouring ends, as the hand happens to choose. */
function rowsSeen(fromEnds: Feature, toEnds: Feature, marks: readonly Mark[], corner: Placement): Seen {
  const from = rowEnds(fromEnds, marks, corner);
  const to = rowEnds(toEnds, marks, corner);
  if (from.length === 0 || to.length === 0) return { ok: false, why: "There are no such marks on the practice piece." };
  return {
    ok: true,
    look: (random) => {
      const chosen = from[Math.floor(random.even() * from.length)] as End;
      return nearest(to, chosen.y).x - chosen.x;
    },
    mean: meanX(to) - meanX(from),
  };
}

function linesIn(within: Rect, marks: readonly Mark[], corner: Placement): Seen {
  const widths = marksWithin(within, marks, corner).map((mark) => mark.widthMm);
  if (widths.length === 0) return { ok: false, why: "Nothing marked there.", isBlank: true };
  return {
    ok: true,
    look: (random) => random.oneOf(widths),
    mean: mean(widths),
  };
}

/** Marks whose middle lies in a rectangle of the coupon. */
export function marksWithin({ x0, y0, x1, y1 }: Rect, marks: readonly Mark[], placement: Placement): Mark[] {
  return marks.filter((mark) => {
    const middle = mark.drawn ?? onCoupon({ x: (mark.x0 + mark.x1) / 2, y: (mark.y0 + mark.y1) / 2 }, placement);
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
