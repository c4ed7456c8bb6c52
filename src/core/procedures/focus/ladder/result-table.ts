/** The ways to the focus beside one another, as far as they are read. */

import type { Measured } from "../../../metrology/measured";
import { expandedUncertainty } from "../../../metrology/measured";
import { plain, shownNumber } from "../../../metrology/quantity-text";
import type { RoundRecord } from "../../../trial/history";
import type { ResultTable } from "../../../trial/outcome";
import { cellsOf, type LadderPlan } from "../plan";
import { MARKED_SITE, SHARPEST_SITE, widthSite } from "./coupon";
import { runsOf } from "./read-ladder";
import type { Ladder } from "./ways";

export function resultTable({ ways, readings }: Ladder, { spec, plan }: RoundRecord<LadderPlan>): ResultTable {
  const found = (id: string) => ways.find((w) => w.id === id)?.found.quantity;
  const text = (m: Measured | undefined) =>
    m ? `${shownNumber(m.value, "mm", 2)} ± ${shownNumber(expandedUncertainty(m), "mm", 2)}` : "–";
  const { marked, looks, cells, widths } = readings;
  // Cells of two burns share their numbers.
  const isOneBurn = new Set(cells.map((c) => c.number)).size === cells.length;
  const name = (i: number) => (isOneBurn ? String(cells[i]?.number ?? "") : `${plain(cells[i]?.heightMm ?? 0)} mm`);
  const numbers = (first: number, last: number) => [...new Set([name(first), name(last)])].join(" to ");
  const row = (id: string, label: string, sites: string[], cell: string) => ({
    label,
    sites,
    cells: [cell],
    result: text(found(id)),
    state: found(id) ? ("read" as const) : cell === "…" ? ("none" as const) : ("part" as const),
  });
  const widthSites = cellsOf(plan)
    .flatMap((c) => runsOf(plan).map((run) => widthSite(c.number, run)))
    .filter((id) => spec.sites.some((s) => s.id === id));
  const read = widths.filter((w) => w.status === "marked").length;
  const byEye = spec.sites.some((s) => s.id === MARKED_SITE);
  return {
    title: "Focus height",
    columns: ["By", "cells"],
    resultLabel: "height, mm",
    rows: [
      ...(byEye
        ? [
            row("marked", "first and last", [MARKED_SITE], marked ? numbers(marked.first, marked.last) : "…"),
            row("sharpest", "the sharpest", [SHARPEST_SITE], looks.map(([a, b]) => numbers(a, b)).join("; ") || "…"),
          ]
        : []),
      ...(widthSites.length > 0 ? [row("widths", "widths", widthSites, read > 0 ? `${read} read` : "…")] : []),
    ],
  };
}
