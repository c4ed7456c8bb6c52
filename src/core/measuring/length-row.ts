/** A length in the table beside the reading field: as drawn, as read, and whether it has all its readings. */
import { mean } from "../fitting/repeats";
import { shownNumber } from "../metrology/quantity-text";
import type { LengthUnit } from "../metrology/units";
import type { ResultRow } from "../trial/outcome";

/** @param of.values readings of the length, mm; empty before there are any */
export function lengthRow(
  of: { site: string; label: string; drawnMm: number; values: readonly number[]; repeats: number },
  unit: LengthUnit,
): ResultRow {
  const { site, label, drawnMm, values, repeats } = of;
  const isRead = values.length > 0;
  return {
    label,
    sites: [site],
    cells: [shownNumber(drawnMm, unit, 2)],
    result: isRead ? shownNumber(mean(values), unit, 2) : "–",
    state: isRead ? (values.length < repeats ? "part" : "read") : "none",
  };
}
