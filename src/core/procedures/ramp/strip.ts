/**
 * Values along a strip. At s mm of its length L, from a value a to a value b:
 *
 *   power and speed by ratio   v = a (b/a)^(s/L)        heights evenly   v = a + (b - a) s/L
 *
 * Power and speed change from segment to segment, so the strip lies along Y and its rows across it. A height changes along the rows themselves: the
 * stock is propped along X, and so the strip lies along X.
 */
import type { CouponPoint } from "../../geometry/frames";
import type { Rect } from "../../geometry/rect";
import { CELL_SETTINGS, type CellSettings } from "../../marking/cell-settings";
import { isByRatio, type RampPlan, rangeOf } from "./plan";

/** Length of a segment with one value, mm. */
const SEGMENT_MM = 1;

/** mm. From the edge of the stock across: numbers of the scale, its ticks, the strip, and the values. */
const SPACING = { edge: 4, letters: 2, numbers: 7, tick: 1.4, longTick: 2.4, gap: 0.8, values: 13, head: 6 } as const;

export const SCALE_STEP_MM = 1;
const NUMBERED_MM = 10;

/** The scale on which values are evenly spaced: logarithms for settings that count by ratio. */
export function along(plan: Pick<RampPlan, "varied">, value: number): number {
  return isByRatio(plan) ? Math.log(value) : value;
}

export function valueAt(plan: RampPlan, s: number): number {
  const { from, to } = rangeOf(plan);
  const share = s / plan.lengthMm;
  return isByRatio(plan) ? from * (to / from) ** share : from + (to - from) * share;
}

/** Inverse of `valueAt`: mm along the strip. */
export function placeOf(plan: RampPlan, value: number): number {
  const { from, to } = rangeOf(plan);
  const at = (v: number) => along(plan, v);
  return (plan.lengthMm * (at(value) - at(from))) / (at(to) - at(from));
}

/** Length of the range in the units of `along`, above 0. */
export function spanOf(plan: RampPlan): number {
  const { from, to } = rangeOf(plan);
  return Math.abs(along(plan, to) - along(plan, from));
}

export function settingsAt(plan: RampPlan, value: number): CellSettings {
  const { speedMmPerS, powerPct, rowPitchMm, passes, pulseKHz, pulseNs, varied } = plan;
  const fixed = { speedMmPerS, powerPct, rowPitchMm, passes, pulseKHz, pulseNs, aboveFocusMm: 0, dwellMs: 0 };
  return { ...fixed, [varied]: value };
}

export type Segment = { s0: number; s1: number; value: number };

/** Heights change along the rows, so they need only one segment. */
export function segmentsOf(plan: RampPlan): Segment[] {
  if (plan.varied === "aboveFocusMm") return [{ s0: 0, s1: plan.lengthMm, value: 0 }];
  const count = Math.max(2, Math.round(plan.lengthMm / SEGMENT_MM));
  const at = (i: number) => Number(((plan.lengthMm * i) / count).toFixed(4));
  // One decimal more than typed values have.
  const decimals = CELL_SETTINGS[plan.varied].decimals + 1;
  return Array.from({ length: count }, (_, i) => ({
    s0: at(i),
    s1: at(i + 1),
    value: Number(valueAt(plan, (at(i) + at(i + 1)) / 2).toFixed(decimals)),
  }));
}

export function axisOf({ varied }: Pick<RampPlan, "varied">): "x" | "y" {
  return varied === "aboveFocusMm" ? "x" : "y";
}

/** Distance of the strip from the edges of the stock, along and across, mm. */
const BEGIN = SPACING.edge + SPACING.letters;
const ACROSS = SPACING.edge + SPACING.numbers + SPACING.longTick + SPACING.gap;

/** A place of the coupon, by mm along the strip and across it from its left or front edge. */
export function placeAt(plan: RampPlan, s: number, across: number): CouponPoint {
  const [a, c] = [BEGIN + s, ACROSS + across];
  return axisOf(plan) === "y" ? { x: c, y: a } : { x: a, y: c };
}

export function areaOf(plan: RampPlan, { s0, s1 }: Pick<Segment, "s0" | "s1">): Rect {
  const [a, b] = [placeAt(plan, s0, 0), placeAt(plan, s1, plan.widthMm)];
  return { x0: a.x, y0: a.y, x1: b.x, y1: b.y };
}

/** Size of stock for strip, scale, values and head, mm. */
export function needOf(plan: RampPlan): { widthMm: number; heightMm: number } {
  const long = BEGIN + plan.lengthMm + SPACING.letters + SPACING.edge;
  const wide = ACROSS + plan.widthMm + SPACING.gap + SPACING.values + SPACING.edge;
  return axisOf(plan) === "y"
    ? { widthMm: wide, heightMm: long + SPACING.head }
    : { widthMm: long, heightMm: wide + SPACING.head };
}

export const LETTERS_MM = SPACING.letters;
export const EDGE_MM = SPACING.edge;

export type Tick = { s: number; from: CouponPoint; to: CouponPoint; number: { text: string; at: CouponPoint } | null };

/** A tick each mm, a longer one with its number each 10 mm. */
export function ticksOf(plan: RampPlan): Tick[] {
  const isUp = axisOf(plan) === "y";
  return Array.from({ length: Math.floor(plan.lengthMm / SCALE_STEP_MM) + 1 }, (_, i) => {
    const s = i * SCALE_STEP_MM;
    const isLong = s % NUMBERED_MM === 0;
    const out = -SPACING.gap - (isLong ? SPACING.longTick : SPACING.tick);
    const half = SPACING.letters / 2;
    const beside = -SPACING.gap - SPACING.longTick - 1;
    const number = isUp ? placeAt(plan, s - half, beside) : placeAt(plan, s, beside - SPACING.letters);
    return {
      s,
      from: placeAt(plan, s, -SPACING.gap),
      to: placeAt(plan, s, out),
      number: isLong ? { text: String(s), at: number } : null,
    };
  });
}

/** Along X the numbers need more room, so every second value is left out. */
const VALUES_EACH_MM = { y: 10, x: 20 } as const;

/** Values of the setting on the other side of the strip. */
export function valueLabels(plan: RampPlan): { value: number; at: CouponPoint }[] {
  const axis = axisOf(plan);
  const each = VALUES_EACH_MM[axis];
  const beside = plan.widthMm + SPACING.gap + 1;
  return Array.from({ length: Math.floor(plan.lengthMm / each) + 1 }, (_, i) => {
    const s = i * each;
    const at = axis === "y" ? placeAt(plan, s - SPACING.letters / 2, beside) : placeAt(plan, s, beside);
    return { value: valueAt(plan, s), at };
  });
}

/** The end with less power or more speed. For heights the start is used. */
export function weakEnd(plan: RampPlan): "start" | "end" {
  const { from, to } = rangeOf(plan);
  const rises = to > from;
  if (plan.varied === "aboveFocusMm") return "start";
  return (plan.varied === "powerPct") === rises ? "start" : "end";
}
