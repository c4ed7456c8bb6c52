/** What an array shows beside its best cell, and what to do about it. */
import { elementAt } from "../../fitting/element-at";
import { CELL_SETTINGS, valueText } from "../../marking/cell-settings";
import type { EnergyVerdict } from "../../marking/energy-alone";
import { plain } from "../../metrology/quantity-text";
import type { History, RoundRecord } from "../../trial/history";
import type { Finding } from "../../trial/outcome";
import { edgesIn } from "./best-at-edge";
import { settingsOnEdges } from "./cells";
import { type Found, fastestOf } from "./found";
import type { TestArrayPlan } from "./plan";

export function findingsOf(
  { machine }: History<TestArrayPlan>,
  { plan }: RoundRecord<TestArrayPlan>,
  found: Found,
): Finding[] {
  const note = (id: string, tone: Finding["tone"], headline: string, text: string): Finding => ({
    id,
    tone,
    site: null,
    headline,
    text,
  });
  const { answer, reads } = found;
  const findings = edgesIn(found, plan, machine).map(({ side, key, last, isLimit }) => {
    const value = `${CELL_SETTINGS[key].label.toLowerCase()} ${valueText(key, last)}`;
    return isLimit
      ? note(
          `edge ${side}`,
          "needs you",
          `The best lies at the limit of the machine: ${value}.`,
          "Vary another setting instead, for example passes or row pitch.",
        )
      : note(
          `edge ${side}`,
          "needs you",
          `The best lies at the edge: ${value}.`,
          `Burn the next array. Its range continues beyond ${valueText(key, last)}.`,
        );
  });
  if (answer.second)
    findings.push(
      note(
        "two peaks",
        "needs you",
        "Two groups of settings may be the best.",
        "Burn the next array. Its range covers both groups.",
      ),
    );
  if (answer.odd.length > 0) {
    const names = answer.odd.map((i) => elementAt(reads, i).name).join(", ");
    findings.push(
      note(
        "odd",
        "note",
        answer.odd.length === 1
          ? `One cell contradicts the cells around: ${names}.`
          : `${answer.odd.length} cells contradict the cells around: ${names}.`,
        "Look for dirt or a flaw of the stock there. The answer does not use these cells.",
      ),
    );
  }
  const fastest = fastestOf(found);
  if (fastest)
    findings.push(
      note(
        "fastest",
        "good",
        `A faster cell is as good: ${settingsOnEdges(plan, fastest.cell.settings)}.`,
        `Cell ${fastest.name} is within 2 % of the best with 95 % certainty.`,
      ),
    );
  const energy = answer.energy && energyText(plan, answer.energy);
  if (energy) findings.push(note("energy", "note", energy.headline, energy.text));
  if (found.by === "taps")
    findings.push(
      note(
        "by eye",
        "note",
        "An eye cannot tell apart cells that differ by less than about 10 %.",
        "Score the array from a scan for a smaller uncertainty.",
      ),
    );
  return findings;
}

/** Whether energy alone decides how a cell is marked. */
function energyText(plan: TestArrayPlan, verdict: EnergyVerdict): { headline: string; text: string } {
  const names = `${CELL_SETTINGS[plan.across].label} and ${CELL_SETTINGS[plan.up].label.toLowerCase()}`;
  const off = `${plain(100 * verdict.off, 1)} % of the range`;
  switch (verdict.explains) {
    case "yes":
      return {
        headline: "Energy alone explains these marks.",
        text: `${names} can be exchanged at the same energy. The rest is ${off}.`,
      };
    case "no":
      return {
        headline: "Energy alone does not explain these marks.",
        text: `Marks with the same energy differ by ${off}. Keep both settings as they are.`,
      };
    case "cannot tell":
      return {
        headline: "These cells do not show whether energy alone decides.",
        text: `Marks with the same energy differ by about ${off}. Burn more cells to decide it.`,
      };
  }
}
