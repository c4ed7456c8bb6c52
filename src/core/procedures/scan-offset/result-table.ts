/** The live table beside the reading field: what was read at both ends and the offset it gives. */

import type { Measured } from "../../metrology/measured";
import { expandedUncertainty } from "../../metrology/measured";
import { plain, shownNumber } from "../../metrology/quantity-text";
import type { LengthUnit } from "../../metrology/units";
import type { RoundRecord } from "../../trial/history";
import type { ResultRow, ResultTable } from "../../trial/outcome";
import { type Analysis, meanAt, offsetUsed } from "./analysis";
import { ENDS, gapSiteId, type RowEnd, siteId } from "./coupon";
import { hasOutline, type ScanOffsetPlan } from "./plan";

/** As many as controllers take, so that the rows of the table can be compared. */
const OFFSET_DECIMALS = 3;
/** In the order in which the table lists them. */
const GOING = ["right", "left"] as const;

export function resultTable(round: RoundRecord<ScanOffsetPlan>, analysis: Analysis, unit: LengthUnit): ResultTable {
  const speeds = [...round.plan.speedsMmPerS].sort((a, b) => a - b);
  const outlined = hasOutline(round.plan);
  return {
    title: "Offset per direction",
    columns: ["Block", "left", "right"],
    resultLabel: outlined ? `offset or shift, ${unit}` : `offset, ${unit}`,
    rows: speeds.flatMap((v) => [
      staggerRow(v, analysis, unit),
      ...(outlined ? GOING.map((going) => gapRow(round, v, going, analysis, unit)) : []),
    ]),
  };
}

function staggerRow(speedMmPerS: number, analysis: Analysis, unit: LengthUnit): ResultRow {
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
}

/** Gaps of the rows of one direction; the shift at this speed beside the first. */
function gapRow(
  round: RoundRecord<ScanOffsetPlan>,
  speedMmPerS: number,
  going: RowEnd,
  { shiftAt }: Analysis,
  unit: LengthUnit,
): ResultRow {
  const sites = ENDS.map((end) => gapSiteId(speedMmPerS, end, going));
  const gaps = sites.map((site) => meanAt(round, site));
  const read = gaps.filter((gap) => gap !== null).length;
  const shift = going === "right" ? shiftAt(speedMmPerS) : null;
  return {
    label: `${plain(speedMmPerS)} gaps ${going === "right" ? "→" : "←"}`,
    sites,
    cells: gaps.map((gap) => (read === 0 ? "–" : cell(gap, unit))),
    result: shift ? offsetText(shift.quantity, unit) : "",
    state: read === sites.length ? "read" : read > 0 ? "part" : "none",
  };
}

function cell(value: number | null, unit: LengthUnit): string {
  return value === null ? "…" : shownNumber(value, unit, 2);
}

function offsetText(m: Measured, unit: LengthUnit): string {
  return `${shownNumber(m.value, unit, OFFSET_DECIMALS)} ± ${shownNumber(expandedUncertainty(m), unit, OFFSET_DECIMALS)}`;
}
