/** What is wanted of a drawing, as typed, and the order that it makes. */
import type { AdaptOrder } from "../../artwork/adapt";
import type { SvgUnit } from "../../artwork/read-drawing";
import { FIT_GAPS_MM, type FitKind } from "../../core/fits/slot";
import { parseReading } from "../../core/metrology/reading-text";
import type { LengthUnit } from "../../core/metrology/units";
import type { Thickness } from "../../core/stock/stock-at-hand";

/** A drawing, with what it does not say of itself. */
export type Drawing = { name: string; text: string; unit: SvgUnit | null; uncut: string[] };
export type SlotFit = Exclude<FitKind, "press">;
export type ArtworkWish = {
  offset: string;
  chord: string;
  /** Whether slots of this width are made to fit, and how. */
  wantsSlots: boolean;
  slotFrom: string;
  fit: SlotFit;
};

export type WishFaults = Record<"offset" | "chord" | "slotFrom" | "thickness", string>;

/** @param offsetMm as kept; `null` where nothing is */
export function orderFor(
  drawing: Drawing | null,
  wish: ArtworkWish,
  { offsetMm, thickness, unit }: { offsetMm: number | null; thickness: Thickness | null; unit: LengthUnit },
): { order: AdaptOrder | null; faults: WishFaults } {
  const isEmpty = wish.offset.trim() === "";
  const offset =
    isEmpty && offsetMm !== null ? { ok: true as const, value: offsetMm } : parseReading(wish.offset, "length", unit);
  const chord = parseReading(wish.chord, "length", "mm");
  const slotFrom = parseReading(wish.slotFrom, "length", "mm");
  const faults: WishFaults = {
    offset: offset.ok ? "" : isEmpty ? "Nothing is kept of this stock yet: give its offset per side." : offset.message,
    chord: !chord.ok ? chord.message : chord.value > 0 ? "" : "It must be larger than 0: a curve is drawn by chords.",
    slotFrom: wish.wantsSlots && !slotFrom.ok ? slotFrom.message : "",
    thickness: wish.wantsSlots && !thickness ? "Measure the thickness of this batch first: its name says little." : "",
  };
  const isReady = Object.values(faults).every((f) => f === "");
  if (!drawing || !isReady || !offset.ok || !chord.ok) return { order: null, faults };
  const slots =
    wish.wantsSlots && thickness && slotFrom.ok
      ? { fromMm: slotFrom.value, toMm: thickness.meanMm + FIT_GAPS_MM[wish.fit] }
      : null;
  const { text, unit: svgUnit, uncut } = drawing;
  return {
    order: { text, offsetMm: offset.value, chordErrorMm: chord.value, unit: svgUnit, slots, uncut },
    faults,
  };
}
