/** The live table beside the reading field: what was read, and what it says of the kerf. */

import { readLengths } from "../../measuring/read-lengths";
import { shownNumber } from "../../metrology/quantity-text";
import { lengthUnitOf } from "../../trial/decisions";
import type { History, RoundRecord } from "../../trial/history";
import type { ResultTable } from "../../trial/outcome";
import { cutSideMm } from "./layout";
import { mateText } from "./mate-text";
import { isMateWay, type KerfPlan, offsetsOf } from "./plan";
import { mateSite, squareSites } from "./sites";

export function resultTable(history: History<KerfPlan>, round: RoundRecord<KerfPlan>): ResultTable {
  return isMateWay(round.plan.way) ? matesTable(round) : sizesTable(history, round);
}

function matesTable({ plan, answers }: RoundRecord<KerfPlan>): ResultTable {
  return {
    title: "How they went in",
    columns: ["Mate", plan.way === "sheet slot" ? "drawn, mm" : "a side, mm"],
    resultLabel: "fit",
    rows: offsetsOf(plan).map((offset, index) => {
      const site = mateSite(index);
      const said = answers
        .filter((a) => a.site === site)
        .map(({ content }) => {
          if (content.status !== "read") return "lost";
          return content.value.kind === "ordinal" ? content.value.category : "";
        });
      return {
        label: String(index + 1),
        sites: [site],
        cells: [mateText(plan, offset)],
        result: said.length > 0 ? [...new Set(said)].join(", ") : "–",
        state: said.length === 0 ? "none" : said.length < plan.repeats && !said.includes("lost") ? "part" : "read",
      };
    }),
  };
}

function sizesTable(history: History<KerfPlan>, { plan, spec, answers }: RoundRecord<KerfPlan>): ResultTable {
  const unit = lengthUnitOf(history);
  const side = cutSideMm(plan);
  const squares = squareSites(plan);
  const read = readLengths(
    answers,
    spec.sites.map((s) => s.id),
    history.gauges,
  );
  return {
    title: plan.way === "comb" ? "Gaps" : "Sizes",
    columns: ["Where", "read"],
    resultLabel: `kerf, ${unit}`,
    rows: spec.sites.map((site) => {
      const found = read.find((r) => r.site === site.id);
      const square = squares.find((s) => s.id === site.id);
      const kerf =
        found &&
        (plan.way === "comb" ? found.mean / plan.cuts : square?.of === "part" ? side - found.mean : found.mean - side);
      return {
        label: site.label,
        sites: [site.id],
        cells: [found ? shownNumber(found.mean, unit, 2) : answers.some((a) => a.site === site.id) ? "…" : "–"],
        result: kerf === undefined ? "–" : shownNumber(kerf, unit, 3),
        state: found ? (found.values.length >= site.repeats ? "read" : "part") : "none",
      };
    }),
  };
}
