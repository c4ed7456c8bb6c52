/** The answers of a ramp beside one another, as far as they are read. */
import { expandedUncertainty } from "../../../metrology/measured";
import { plain, shownNumber } from "../../../metrology/quantity-text";
import type { RoundRecord } from "../../../trial/history";
import type { ResultTable } from "../../../trial/outcome";
import type { Way } from "../found";
import type { RampPlan } from "../plan";
import { FIRST_SITE, LAST_SITE, THINNEST_SITE } from "./coupon";
import type { RampReadings } from "./read-ramp";

export function rampTable(
  { first, last, looks, widths }: RampReadings,
  ways: readonly Way[],
  { spec }: RoundRecord<RampPlan>,
): ResultTable {
  const row = (id: string, label: string, sites: string[], cell: string): ResultTable["rows"][number] => {
    const found = ways.find((w) => w.id === id)?.found.quantity;
    return {
      label,
      sites,
      cells: [cell || "…"],
      result: found
        ? `${shownNumber(found.value, "mm", 2)} ± ${shownNumber(expandedUncertainty(found), "mm", 2)}`
        : "–",
      state: found ? "read" : cell ? "part" : "none",
    };
  };
  const stations = spec.sites.filter((s) => s.measurand.kind === "width").map((s) => s.id);
  const read = widths.filter((w) => w.status === "marked").length;
  const ends = [first, last].map((h) => (h === null ? "…" : plain(h, 2)));
  return {
    title: "Focus height",
    columns: ["By", "heights"],
    resultLabel: "height, mm",
    rows: [
      row(
        "marked",
        "first and last",
        [FIRST_SITE, LAST_SITE],
        first === null && last === null ? "" : ends.join(" to "),
      ),
      row("sharpest", "the sharpest", [THINNEST_SITE], looks.map((l) => plain(l, 2)).join("; ")),
      ...(stations.length > 0 ? [row("widths", "widths", stations, read > 0 ? `${read} read` : "")] : []),
    ],
  };
}
