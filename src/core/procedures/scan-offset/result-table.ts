/** The live table beside the reading field: what was read at both ends and the offset it gives. */
import { expandedUncertainty } from "../../fitting/student-t";
import type { Measured } from "../../metrology/measured";
import { plain, shownNumber } from "../../metrology/quantity-text";
import type { LengthUnit } from "../../metrology/units";
import type { RoundRecord } from "../contract";
import type { ResultTable } from "../outcome";
import { type Analysis, offsetUsed } from "./analysis";
import { siteId } from "./coupon";
import type { ScanOffsetPlan } from "./plan-type";

/** As many as controllers take, so that the rows of the table can be compared. */
const OFFSET_DECIMALS = 3;

export function resultTable(round: RoundRecord<ScanOffsetPlan>, analysis: Analysis, unit: LengthUnit): ResultTable {
  const speeds = [...round.plan.speedsMmPerS].sort((a, b) => a - b);
  return {
    title: "Offset per direction",
    columns: ["Block", "left", "right"],
    resultLabel: `offset, ${unit}`,
    rows: speeds.map((speedMmPerS) => {
      const found = analysis.speeds.find((s) => s.speedMmPerS === speedMmPerS);
      const sites = [siteId(speedMmPerS, "left"), siteId(speedMmPerS, "right")];
      const label = `${plain(speedMmPerS)} mm/s`;
      if (found) {
        const both = found.left !== null && found.right !== null;
        return {
          label,
          sites,
          cells: [cell(found.left, unit), cell(found.right, unit)],
          result: offsetText(offsetUsed(analysis, found).quantity, unit),
          state: both ? "read" : "part",
        };
      }
      const predicted = analysis.lineAt?.(speedMmPerS).quantity ?? null;
      return {
        label,
        sites,
        cells: ["–", "–"],
        result: predicted ? `${shownNumber(predicted.value / 2, unit, OFFSET_DECIMALS)} by the line` : "–",
        state: predicted ? "from the fit" : "none",
      };
    }),
  };
}

function cell(value: number | null, unit: LengthUnit): string {
  return value === null ? "…" : shownNumber(value, unit, 2);
}

function offsetText(m: Measured, unit: LengthUnit): string {
  return `${shownNumber(m.value, unit, OFFSET_DECIMALS)} ± ${shownNumber(expandedUncertainty(m), unit, OFFSET_DECIMALS)}`;
}
