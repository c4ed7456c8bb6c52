/** Verdict on the chosen cell: what it may lack against the best, once it was burned again with its neighbours. */
import { judgeErrors, oneError } from "../../measuring/judge-errors";
import { expandedUncertainty, type Measured } from "../../metrology/measured";
import type { History, RoundRecord } from "../../trial/history";
import type { Verdict } from "../../trial/verdict";
import { foundIn, sameSettings } from "./found";
import type { TestArrayPlan } from "./plan";
import { shortOf } from "./short";
import { WAYS, type Way, wayOf } from "./ways";

/** The verdict speaks of what was judged. */
export function judgeTestArray(history: History<TestArrayPlan>): Verdict | null {
  const plan = history.rounds.at(-1)?.plan;
  return plan ? JUDGES[wayOf(plan)](history) : null;
}

const JUDGES = {
  scores: judgeOf("scores"),
  taps: judgeOf("taps"),
  comparisons: judgeOf("comparisons"),
  "yes or no": judgeOf("yes or no"),
  colour: judgeOf("colour"),
} as const satisfies Record<Way, unknown>;

function judgeOf(way: Way) {
  const { unit, result, card, verdict, size, notProved } = WAYS[way];
  return judgeErrors<TestArrayPlan, "">({
    unit,
    errors: oneError(result, shortIn),
    text: ({ error }) => verdict(size(error.value, expandedUncertainty(error))),
    advice: {
      proved: "Use these settings.",
      "not proved": notProved,
      "cannot tell": "The uncertainty is too large for the tolerance. Burn the chosen cell and its neighbours again.",
    },
    asFound: card.toLowerCase(),
    ways: () => [],
  });
}

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
