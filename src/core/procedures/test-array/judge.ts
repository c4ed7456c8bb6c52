/** Verdict on the chosen cell: what it may lack against the best, once it was burned again with its neighbours. */
import { elementAt } from "../../fitting/element-at";
import { judgeErrors, oneError } from "../../measuring/judge-errors";
import { expandedUncertainty, type Measured } from "../../metrology/measured";
import { plain } from "../../metrology/quantity-text";
import type { History, RoundRecord } from "../../trial/history";
import { foundIn } from "./found";
import type { TestArrayPlan } from "./plan";
import { shortBudget } from "./short";

export const judgeTestArray = judgeErrors<TestArrayPlan, "">({
  unit: "percent",
  errors: oneError("Chosen cell short of the best", shortIn),
  text: ({ error }) =>
    `The chosen cell is ${plain(100 * error.value, 1)} ± ${plain(100 * expandedUncertainty(error), 1)} % short of the best`,
  advice: {
    proved: "Keep these settings.",
    "not proved": "Another cell is better. Keep that one, then burn another proof.",
    "cannot tell": "The uncertainty is too large for the tolerance. Burn another array around the chosen cell.",
  },
  asFound: "short of the best",
  ways: () => [],
});

/** Of the cell that was chosen before this burn, by all that was read since; of the one chosen now where none was before. */
function shortIn(history: History<TestArrayPlan>, round: RoundRecord<TestArrayPlan>): Measured | null {
  const now = foundIn(history, round);
  if (!now.ok) return null;
  const { answer, reads } = now.found;
  const before = history.rounds.findLast((r) => r.n < round.n && r.answers.length > 0);
  const earlier = before ? foundIn(history, before) : null;
  const at = earlier?.ok ? sameCell(reads, earlier.found.chosen.settings) : answer.chosen;
  return shortBudget(answer.shortOf(at >= 0 ? at : answer.chosen)).quantity;
}

type Reads = Extract<ReturnType<typeof foundIn>, { ok: true }>["found"]["reads"];

function sameCell(reads: Reads, settings: Reads[number]["cell"]["settings"]): number {
  return reads.findIndex((_, i) => {
    const own = elementAt(reads, i).cell.settings;
    return (
      own.speedMmPerS === settings.speedMmPerS &&
      own.powerPct === settings.powerPct &&
      own.rowPitchMm === settings.rowPitchMm &&
      own.passes === settings.passes &&
      own.pulseKHz === settings.pulseKHz &&
      own.pulseNs === settings.pulseNs &&
      own.aboveFocusMm === settings.aboveFocusMm &&
      own.dwellMs === settings.dwellMs
    );
  });
}
