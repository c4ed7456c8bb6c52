/** The live table beside the reading field: what was read at each place, and how far off its nominal it is. */
import { plain, shownNumber } from "../../metrology/quantity-text";
import type { LengthUnit } from "../../metrology/units";
import type { RoundRecord } from "../../trial/history";
import type { ResultTable } from "../../trial/outcome";
import type { AxisRead } from "./observe";
import { placesOf } from "./places";
import type { AxisScalePlan } from "./plan";

export function resultTable(
  round: RoundRecord<AxisScalePlan>,
  axes: readonly AxisRead[],
  unit: LengthUnit,
): ResultTable {
  return {
    title: "Measured and nominal",
    columns: ["Place", "nominal", "read"],
    resultLabel: `off by, ${unit}`,
    rows: placesOf(round.plan)
      .filter((place) => place.kind !== "readout")
      .map((place) => {
        const found = axes.flatMap((a) => a.read).find((r) => r.place.site === place.site);
        const site = round.spec.sites.find((s) => s.id === place.site);
        const wanted = round.answers.some((a) => a.site === place.site);
        return {
          label: site?.label.replace(/ at [\d.]+ mm/, "") ?? place.site,
          sites: [place.site],
          cells: [
            plain(found?.nominalMm ?? place.nominalMm, 2),
            found ? shownNumber(found.mean, unit, 2) : wanted ? "…" : "–",
          ],
          result: found ? shownNumber(found.mean - found.nominalMm, unit, 2) : "–",
          state: found ? (found.values.length >= (site?.repeats ?? 1) ? "read" : "part") : "none",
        };
      }),
  };
}
