import { expandedUncertainty, measured } from "../../core/metrology/measured";
import { shownLength, shownNumber } from "../../core/metrology/quantity-text";
import type { LengthUnit } from "../../core/metrology/units";
import type { Thickness } from "../../core/stock/stock-at-hand";

/** `2.98 ± 0.03 mm, 2.95 to 3.01`. */
export function thicknessText(t: Thickness, unit: LengthUnit): string {
  const uncertainty = expandedUncertainty(measured(t.meanMm, t.uMm, Infinity));
  const range = t.count > 1 ? `, ${shownNumber(t.leastMm, unit, 2)} to ${shownNumber(t.mostMm, unit, 2)}` : "";
  return `${shownNumber(t.meanMm, unit, 2)} ± ${shownLength(uncertainty, unit, 2)}${range}`;
}
