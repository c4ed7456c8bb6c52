/** Distance of two marking settings: root of the sum of squares of ln(b/a) over all common settings. Heights count by mm. */
import { plain } from "../metrology/quantity-text";
import { CELL_SETTING_KEYS, CELL_SETTINGS, type CellSettings } from "./cell-settings";

export type Apart = {
  /** 0 = the same. */
  distance: number;
  /** `speed × 1.4, power × 0.8`; empty where they are the same. */
  text: string;
};

/** A mm of height counts like this ln of a ratio. (common practice, no source) */
const PER_MM = 0.1;
/** Smaller differences, ln, are not shown. */
const SAME = 0.005;

/** @returns `null` without a common setting */
export function apart(from: Partial<CellSettings>, to: Partial<CellSettings>): Apart | null {
  const parts = CELL_SETTING_KEYS.flatMap((key) => {
    const [a, b] = [from[key], to[key]];
    if (a === undefined || b === undefined) return [];
    const name = CELL_SETTINGS[key].label.toLowerCase();
    if (!CELL_SETTINGS[key].byRatio) {
      const sign = b > a ? "+" : "−";
      return [{ size: PER_MM * (b - a), text: a === b ? "" : `${name} ${sign} ${plain(Math.abs(b - a))} mm` }];
    }
    if (!(a > 0) || !(b > 0)) return [];
    const size = Math.log(b / a);
    return [{ size, text: Math.abs(size) < SAME ? "" : `${name} × ${plain(b / a, 2)}` }];
  });
  if (parts.length === 0) return null;
  return {
    distance: Math.hypot(...parts.map((p) => p.size)),
    text: parts
      .map((p) => p.text)
      .filter(Boolean)
      .join(", "),
  };
}
