/** Verdict on the chosen cell: what it may lack against the best, once it was burned again with its neighbours. */
import { judgeErrors, oneError } from "../../measuring/judge-errors";
import { expandedUncertainty, type Measured } from "../../metrology/measured";
import { plain } from "../../metrology/quantity-text";
import type { History, RoundRecord } from "../../trial/history";
import { foundIn, sameSettings } from "./found";
import type { TestArrayPlan } from "./plan";
import { shortOf } from "./short";

export const judgeTestArray = judgeErrors<TestArrayPlan, "">({
  unit: "percent",
  errors: oneError("Chosen cell short of the best", shortIn),
  text: ({ error }, { rounds }) => {
    const size = `${plain(100 * error.value, 1)} ± ${plain(100 * expandedUncertainty(error), 1)} %`;
    switch (rounds.at(-1)?.plan.score) {
      case "yes or no":
        return `The chosen cell fails with a chance of ${size}`;
      case "colour":
        return `The chosen cell is ${size.replace(" %", " ΔE")} beyond the nearest colour`;
      default:
        return `The chosen cell is ${size} short of the best`;
    }
  },
  advice: {
    proved: "Use these settings.",
    "not proved": "Another cell is better. Store the settings of that cell, then burn another proof.",
    "cannot tell": "The uncertainty is too large for the tolerance. Burn the chosen cell and its neighbours again.",
  },
  asFound: "short of the best",
  ways: () => [],
});

/** Loss of the cell that was chosen before this burn, by all readings since. If no cell was chosen before, of the cell chosen now. */
function shortIn(history: History<TestArrayPlan>, round: RoundRecord<TestArrayPlan>): Measured | null {
  const now = foundIn(history, round);
  if (!now.ok) return null;
  const { answer, reads } = now.found;
  const before = history.rounds.findLast((r) => r.n < round.n && r.answers.length > 0);
  const earlier = before ? foundIn(history, before) : null;
  if (!earlier?.ok) return shortOf(now.found, answer.chosen).quantity;
  const { settings } = earlier.found.chosen.cell;
  // A proof counts only if the chosen cell was burned again.
  const at = reads.findIndex(
    (r) => r.round === round.n && r.score !== null && !r.noGood && sameSettings(r.cell.settings, settings),
  );
  return at < 0 ? null : shortOf(now.found, at).quantity;
}
