/**
 * The slot to draw for a part that goes in: as wide as the part is thick, with the gap that is wanted, less what the cut takes away.
 *
 *   drawn = T + gap - k,  u^2 = u_T^2 + u_k^2        another program that makes up for the kerf too: drawn = T + gap
 *   snug, where slots for this very sheet were tried: drawn = T - 2 o        o the snug offset per side: no gap is supposed
 *   the part at one place: gap + e, e of sd hypot(u, s_T); it will not go where that is less than the most that presses in
 *
 * Gaps are common practice, no source.
 */
import { normalCdf } from "../fitting/normal";
import { type Measured, measured } from "../metrology/measured";
import { shownNumber } from "../metrology/quantity-text";
import { type LengthUnit, UNITS } from "../metrology/units";
import type { Thickness } from "../stock/stock-at-hand";

/** Gap across both sides that each fit wants, mm; a press fit has the interference that is said. */
export const FIT_GAPS_MM = { loose: 0.2, sliding: 0.08, snug: 0.02, press: null } as const;
export type FitKind = keyof typeof FIT_GAPS_MM;

/** More than this is not pressed into wood, board or plastic by hand, mm. (common practice, no source) */
const MOST_PRESSED_MM = 0.08;

export type FitWish = {
  fit: FitKind;
  /** Of a press fit, mm. */
  interferenceMm: number;
  /** How thick the part is, squeezed. */
  thickness: Pick<Thickness, "meanMm" | "sdMm" | "uMm">;
  /** How wide it is, mm; `null` = no length of the slot is wanted. */
  widthMm: number | null;
  kerf: Measured;
  /** Where slots for the sheet itself were tried. */
  snugSlotOffset: Measured | null;
  /** Another program on the way makes up for the kerf itself. */
  compensated: boolean;
};

export type Fit = {
  /** Width of the slot as it is drawn, mm. */
  drawn: Measured;
  /** Length of the slot as it is drawn, mm; `null` where no width of the part is given. */
  drawnLengthMm: number | null;
  /** Gap as it is expected, at one place of the part, mm. */
  gap: Measured;
  /** That a part will not go in, 0 to 1. */
  chanceNot: number;
  arithmetic: string[];
};

/** The width to draw, mm, with its sum, and the chance that a part does not go in. @param unit of the words of the sum */
export function slotFor(wish: FitWish, unit: LengthUnit): Fit {
  const { thickness: t, kerf, compensated, snugSlotOffset: snug } = wish;
  const shown = (mm: number) => shownNumber(mm, unit, 3);
  const symbol = UNITS[unit].symbol;
  const isTried = wish.fit === "snug" && snug !== null && !compensated;
  const gapMm = FIT_GAPS_MM[wish.fit] ?? -wish.interferenceMm;
  const takenMm = compensated ? 0 : kerf.value;
  const kerfWords = compensated ? "" : ` − ${shown(kerf.value)} kerf`;
  const value = isTried ? t.meanMm - 2 * snug.value : t.meanMm + gapMm - takenMm;
  const uCut = isTried ? 2 * snug.standardUncertainty : kerf.standardUncertainty;
  const u = Math.hypot(t.uMm, uCut);
  const sd = Math.hypot(u, t.sdMm);
  const gapWords =
    gapMm === 0 ? "" : ` ${gapMm > 0 ? "+" : "−"} ${shown(Math.abs(gapMm))} ${gapMm > 0 ? "gap" : "interference"}`;
  const sum = isTried
    ? `${shown(t.meanMm)} − 2 × ${shown(snug.value)} snug offset = ${shown(value)} ${symbol}`
    : `${shown(t.meanMm)}${gapWords}${kerfWords} = ${shown(value)} ${symbol}`;
  const endsMm = Math.max(gapMm, FIT_GAPS_MM.snug);
  const long = wish.widthMm === null ? null : { mm: wish.widthMm, drawnMm: wish.widthMm + endsMm - takenMm };
  return {
    drawn: measured(value, u, Infinity),
    drawnLengthMm: long?.drawnMm ?? null,
    gap: measured(gapMm, sd, Infinity),
    chanceNot: sd > 0 ? normalCdf((-MOST_PRESSED_MM - gapMm) / sd) : gapMm < -MOST_PRESSED_MM ? 1 : 0,
    arithmetic: [
      sum,
      ...(compensated ? ["the other program takes the kerf off: here it is not taken off again"] : []),
      ...(long
        ? [`long: ${shown(long.mm)} + ${shown(endsMm)} gap${kerfWords} = ${shown(long.drawnMm)} ${symbol}`]
        : []),
    ],
  };
}
