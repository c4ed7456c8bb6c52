/** What a round amounts to, as a table: results with their uncertainty, and what to enter. */
import type { Site } from "../core/coupon/site";
import { expandedUncertainty, freedomOf } from "../core/metrology/measured";
import { fromInternal, type LengthUnit, UNITS } from "../core/metrology/units";
import { shownUnit } from "../core/trial/decisions";
import type { Outcome } from "../core/trial/outcome";
import { type Cell, csvOf } from "./csv";

const DIGITS = 10;

/** Where to measure, with the place on the coupon. */
export function sitesCsv(sites: readonly Site[]): string {
  return csvOf(
    ["site", "place", "question", "asks for", "readings", "piece", "x (mm)", "y (mm)"],
    sites.map((s) => [
      s.id,
      s.label,
      s.question,
      s.ask.kind,
      s.repeats,
      s.place?.piece ?? "",
      s.place ? tidy(s.place.at.x) : null,
      s.place ? tidy(s.place.at.y) : null,
    ]),
  );
}

export function resultsCsv(outcome: Extract<Outcome, { status: "solved" }>, length: LengthUnit): string {
  const results = outcome.estimates.map((e): Cell[] => {
    const unit = shownUnit(e.unit, length);
    const nu = freedomOf(e.quantity);
    return [
      "result",
      e.label,
      tidy(fromInternal(e.quantity.value, unit)),
      UNITS[unit].symbol,
      tidy(fromInternal(expandedUncertainty(e.quantity), unit)),
      tidy(fromInternal(e.quantity.standardUncertainty, unit)),
      Number.isFinite(nu) ? Math.floor(nu) : "endless",
      "",
    ];
  });
  const entries = outcome.corrections.flatMap((c) =>
    c.rows.map((row): Cell[] => [
      "enter",
      `${c.label}, ${row.label}`,
      row.heldBack ? null : tidy(fromInternal(row.enter, c.unit)),
      UNITS[c.unit].symbol,
      tidy(fromInternal(expandedUncertainty(row.change), c.unit)),
      tidy(fromInternal(row.change.standardUncertainty, c.unit)),
      "",
      row.heldBack ? `held back: ${row.heldBack.why}` : (row.arithmetic[0] ?? ""),
    ]),
  );
  return csvOf(
    ["what", "name", "value", "unit", "± (95 %)", "standard uncertainty", "degrees of freedom", "how it came about"],
    [...results, ...entries],
  );
}

function tidy(value: number): number {
  return Number(value.toPrecision(DIGITS));
}
