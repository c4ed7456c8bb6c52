/** The live table beside the reading field: each distance with its nominal. */
import type { Site } from "../../coupon/site";
import { shownNumber } from "../../metrology/quantity-text";
import type { LengthUnit } from "../../metrology/units";
import type { ResultTable } from "../../trial/outcome";
import type { EdgesRead } from "./read-edges";
import { distanceOf, type EdgeTerms, ofEdge } from "./terms";

/** One row per point. @param unit in which lengths are shown */
export function edgeTable(
  terms: EdgeTerms,
  sites: readonly Site[],
  read: EdgesRead | null,
  unit: LengthUnit,
): ResultTable {
  return {
    title: "From the edges",
    columns: ["Place", "drawn", "read"],
    resultLabel: `off by, ${unit}`,
    rows: sites.map((site) => {
      const found = read?.read.find((r) => r.site === site.id);
      const nominal = distanceOf(terms, ofEdge(site.id).axis);
      return {
        label: site.label,
        sites: [site.id],
        cells: [shownNumber(nominal, unit, 2), found ? shownNumber(found.mean, unit, 2) : "–"],
        result: found ? shownNumber(found.mean - nominal, unit, 2) : "–",
        state: found ? (found.values.length >= site.repeats ? "read" : "part") : "none",
      };
    }),
  };
}
