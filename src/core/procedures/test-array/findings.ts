/** What an array shows beside its best cell, and what to do about it. */
import { elementAt } from "../../fitting/element-at";
import { CELL_SETTINGS, valueText } from "../../marking/cell-settings";
import { energyAlone } from "../../marking/energy-alone";
import { countText } from "../../metrology/count-text";
import { plain } from "../../metrology/quantity-text";
import type { History, RoundRecord } from "../../trial/history";
import type { Finding } from "../../trial/outcome";
import { settingText } from "./cells";
import { type Found, fastestOf } from "./found";
import { placeText } from "./layout";
import type { TestArrayPlan } from "./plan";

const SIDES = { left: ["across", "low"], right: ["across", "high"], low: ["up", "low"], high: ["up", "high"] } as const;

export function findingsOf(
  history: History<TestArrayPlan>,
  { plan }: RoundRecord<TestArrayPlan>,
  found: Found,
): Finding[] {
  const { answer, reads } = found;
  const findings: Finding[] = [];
  for (const edge of answer.edges) {
    const [of, end] = SIDES[edge];
    const key = plan[of];
    const values = reads.map((r) => r.cell.settings[key]);
    const last = end === "low" ? Math.min(...values) : Math.max(...values);
    findings.push({
      id: `edge ${edge}`,
      tone: "needs you",
      site: null,
      headline: `The best lies at the edge: ${CELL_SETTINGS[key].label.toLowerCase()} ${valueText(key, last)}.`,
      text: `Burn the next array. Its range continues beyond ${valueText(key, last)}.`,
    });
  }
  if (answer.second)
    findings.push({
      id: "two peaks",
      tone: "needs you",
      site: null,
      headline: "Two groups of settings may be the best.",
      text: "Burn the next array. Its range covers both groups.",
    });
  if (answer.odd.length > 0) {
    const names = answer.odd.map((i) => placeText(elementAt(reads, i).cell, 1)).join(", ");
    findings.push({
      id: "odd",
      tone: "note",
      site: null,
      headline: `${countText(answer.odd.length, "cell")} contradict${answer.odd.length === 1 ? "s" : ""} the cells around: ${names}.`,
      text: "Look for dirt or a flaw of the stock there. The answer does not use these cells.",
    });
  }
  const fastest = fastestOf(found);
  if (fastest && fastest.id !== found.chosen.id)
    findings.push({
      id: "fastest",
      tone: "good",
      site: null,
      headline: `A faster cell is as good: ${[plan.across, plan.up].map((key) => settingText(key, fastest.settings[key])).join(", ")}.`,
      text: `Cell ${placeText(fastest, 1)} is within 2 % of the best with 95 % certainty.`,
    });
  const energy = energyOf(history, plan, found);
  if (energy) findings.push(energy);
  if (plan.score === "eye")
    findings.push({
      id: "by eye",
      tone: "note",
      site: null,
      headline: "One eye judged all cells at once.",
      text: "The stated uncertainty holds for this eye. Score the array from a scan for a tighter answer.",
    });
  return findings;
}

/** Whether energy per area alone decides how dark a cell is. */
function energyOf(_: History<TestArrayPlan>, plan: TestArrayPlan, { reads, answer }: Found): Finding | null {
  const first = reads.filter((r) => r.round === reads[0]?.round);
  const verdict = energyAlone(
    first.map((r) => ({
      column: r.cell.column,
      row: r.cell.row,
      energy: Math.log(r.cell.dose.arealJPerMm2),
      score: r.score,
    })),
    answer.peak.value,
  );
  if (verdict === null) return null;
  const names = `${CELL_SETTINGS[plan.across].label} and ${CELL_SETTINGS[plan.up].label.toLowerCase()}`;
  const off = `${plain(100 * verdict.off, 1)} % of the range`;
  switch (verdict.explains) {
    case "yes":
      return {
        id: "energy",
        tone: "note",
        site: null,
        headline: "Energy per area alone explains these marks.",
        text: `${names} can be exchanged at the same energy. The rest is ${off}.`,
      };
    case "no":
      return {
        id: "energy",
        tone: "note",
        site: null,
        headline: "Energy per area alone does not explain these marks.",
        text: `Marks with the same energy differ by ${off}. Keep both settings as they are.`,
      };
    case "cannot tell":
      return {
        id: "energy",
        tone: "note",
        site: null,
        headline: "These cells do not show whether energy alone decides.",
        text: `Marks with the same energy differ by about ${off}. Burn more cells to decide it.`,
      };
  }
}
