/** Findings beside the best cell, each with its action. */
import { elementAt } from "../../fitting/element-at";
import { CELL_SETTINGS, valueText } from "../../marking/cell-settings";
import type { EnergyVerdict } from "../../marking/energy-alone";
import { expandedUncertainty } from "../../metrology/measured";
import { plain } from "../../metrology/quantity-text";
import type { History, RoundRecord } from "../../trial/history";
import type { Finding } from "../../trial/outcome";
import { type EdgeOfBest, edgesIn } from "./best-at-edge";
import { settingsOnEdges } from "./cells";
import { type Found, fastestOf, sameSettings } from "./found";
import type { TestArrayPlan } from "./plan";
import { sensitivitiesOf } from "./sensitivity";
import { shortOf } from "./short";
import { usedBefore } from "./used-before";
import { WAYS } from "./ways";

/** Colours that differ by more are clearly different. (common practice, no source) */
const FAR = 5;

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
  const words = WAYS[found.by];
  // A cut needs full power as a rule.
  const isTold = ({ isLimit }: EdgeOfBest) => !isLimit || found.by !== "yes or no";
  const findings = edgesIn(found, plan, machine)
    .filter(isTold)
    .map(({ side, key, last, isLimit }) => {
      const value = `${CELL_SETTINGS[key].label.toLowerCase()} ${valueText(key, last)}`;
      return isLimit
        ? note(
            `edge ${side}`,
            "needs you",
            `The ${words.chosen} is at the limit of the machine: ${value}.`,
            "Vary another setting instead, for example passes or row pitch.",
          )
        : note(
            `edge ${side}`,
            "needs you",
            `The ${words.chosen} is at the edge of the array: ${value}.`,
            `Burn the next array. The range continues beyond ${valueText(key, last)}.`,
          );
    });
  if (answer.second)
    findings.push(
      note(
        "two peaks",
        "needs you",
        "Two groups of settings may be the best.",
        "Burn the next array. The range covers both groups.",
      ),
    );
  if (answer.odd.length > 0) {
    const names = answer.odd.map((i) => elementAt(reads, i).name).join(", ");
    findings.push(
      note(
        "odd",
        "note",
        answer.odd.length === 1
          ? `Cell ${names} contradicts the cells around it.`
          : `Cells ${names} contradict the cells around them.`,
        found.by === "yes or no"
          ? "Look at the stock again. Read these cells again if a tap was wrong."
          : "Look for dirt or a flaw in the stock. These cells are not used.",
      ),
    );
  }
  if (found.by === "yes or no" && answer.asGood.length === 0)
    findings.push(
      note(
        "not sure",
        "needs you",
        "No cell passes with certainty.",
        "Burn another array around the chosen cell. All burns count together.",
      ),
    );
  const nearest = found.by === "colour" ? -elementAt(answer.expected, answer.chosen) : 0;
  if (nearest > FAR)
    findings.push(
      note(
        "far",
        "needs you",
        `The nearest colour differs by ΔE ${plain(nearest, 1)} from the wanted colour.`,
        "Vary another setting, for example pulse frequency or passes, or choose a colour of this palette.",
      ),
    );
  const fastest = fastestOf(found, plan);
  if (fastest)
    findings.push(
      note(
        "fastest",
        "good",
        `A faster cell is as good: ${settingsOnEdges(plan, fastest.cell.settings)}.`,
        `Cell ${fastest.name} is within 2 % of the best with 95 % certainty.`,
      ),
    );
  if (found.by === "scores") {
    const costs = sensitivitiesOf(found, plan).map(
      ({ key, costs: share }) => `${CELL_SETTINGS[key].label} 10 % off costs about ${plain(100 * share, 1)} %`,
    );
    if (costs.length > 0)
      findings.push(note("sensitivity", "note", `${costs.join(". ")}.`, "In percent of the best mark."));
  }
  const energy = answer.energy && energyText(plan, answer.energy);
  if (energy) findings.push(note("energy", "note", energy.headline, energy.text));
  const before = usedBefore(plan, found.chosen.cell.settings, { machine });
  const old = before
    ? reads.findIndex((r) => r.score !== null && !r.noGood && sameSettings(r.cell.settings, before))
    : -1;
  if (before && old >= 0 && !sameSettings(before, found.chosen.cell.settings)) {
    const { quantity } = shortOf(found, old);
    const short = words.size(quantity.value, expandedUncertainty(quantity));
    findings.push(
      note(
        "before",
        "note",
        `The settings used before are ${short} short of the best: ${settingsOnEdges(plan, before)}.`,
        "Compare the two cells on the stock.",
      ),
    );
  }
  if (found.by === "taps")
    findings.push(
      note(
        "by eye",
        "note",
        "Differences below about 10 % are not visible by eye.",
        "Score the array from a scan for a smaller uncertainty.",
      ),
    );
  return findings;
}

/** The verdict on energy in words. */
function energyText(plan: TestArrayPlan, verdict: EnergyVerdict): { headline: string; text: string } {
  const names = `${CELL_SETTINGS[plan.across].label.toLowerCase()} and ${CELL_SETTINGS[plan.up].label.toLowerCase()}`;
  const off = `${plain(100 * verdict.off, 1)} % of the range`;
  switch (verdict.explains) {
    case "yes":
      return {
        headline: "Energy alone explains these marks.",
        text: `Any ${names} with the same energy gives the same mark, within ${off}.`,
      };
    case "no":
      return {
        headline: "Energy alone does not explain these marks.",
        text: `Marks with the same energy differ by ${off}. Use both settings of the chosen cell.`,
      };
    case "cannot tell":
      return {
        headline: "Undecided whether energy alone explains these marks.",
        text: `Marks with the same energy differ by about ${off}. Burn more cells to decide it.`,
      };
  }
}
