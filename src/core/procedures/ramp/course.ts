/** What follows a ramp: the next ramp if the best point is at an end, then a ramp over half the range as the proof. */
import { judgeErrors, oneError } from "../../measuring/judge-errors";
import { type ProofPlan, plainNext } from "../../measuring/plain-course";
import { expandedUncertainty, type Measured, measured } from "../../metrology/measured";
import { plain } from "../../metrology/quantity-text";
import { sitesLeft } from "../../trial/answer";
import type { History, Next, RoundRecord } from "../../trial/history";
import type { Outcome } from "../../trial/outcome";
import type { Verdict } from "../../trial/verdict";
import { BEST_SITE } from "./coupon";
import { type Found, foundIn, READ_FIRST } from "./found";
import { beyond, possible } from "./next-range";
import { type RampPlan, rangeOf, withRange } from "./plan";
import { along, spanOf } from "./strip";

/** The proof is shorter, with its best point away from the middle. An eye that prefers the middle is noticed. */
const PROOF = { span: 0.5, bestAt: 0.62 };
/** Readings that an undecided proof asks for. */
const MORE = 3;

const WORDS = {
  read: READ_FIRST,
  prove: "Burn a narrower ramp in the other direction. The best value should be the same.",
  proved: "Proved: both ramps have the same best value.",
  holding: "Still valid. Change nothing.",
};

export function nextRamp(history: History<RampPlan>, outcome: Outcome, verdict: Verdict | null): Next<RampPlan> {
  const last = history.rounds.at(-1);
  const finding = last ? foundIn(history, last) : null;
  if (!last || !finding?.ok) return plainNext(history, outcome, verdict, WORDS, { why: WORDS.read });
  const { found } = finding;
  const isRead = sitesLeft(last.spec.sites, last.answers).length === 0;
  const further =
    isRead && last.purpose !== "proof" && last.purpose !== "check" ? beyond(found, history.machine) : null;
  if (further)
    return {
      do: "round",
      purpose: "refine",
      set: [],
      plan: further,
      why: "The best point is at the end of this ramp. The next ramp continues beyond this end.",
    };
  return plainNext(history, outcome, verdict, WORDS, proofOf(found, history));
}

function proofOf({ last, best }: Found, { machine }: Pick<History, "machine">): ProofPlan<RampPlan> {
  const { plan } = last;
  const { from, to } = rangeOf(plan);
  const way = along(plan, to) > along(plan, from) ? -1 : 1;
  const span = PROOF.span * spanOf(plan);
  const at = best.quantity.value;
  const begin = at - way * PROOF.bestAt * span;
  // The stock is always propped at the right end, so a height always falls.
  if (plan.varied === "aboveFocusMm")
    return {
      plan: withRange(plan, possible(plan, at + PROOF.bestAt * span, at - (1 - PROOF.bestAt) * span, machine)),
      set: [],
    };
  return { plan: withRange(plan, possible(plan, begin, begin + way * span, machine)), set: [] };
}

export const judgeRamp = judgeErrors<RampPlan, "">({
  unit: "percent",
  errors: oneError("Difference of the best value from the earlier ramps", differenceIn),
  text: ({ error }) =>
    `The best value differs by ${plain(100 * Math.abs(error.value), 1)} ± ${plain(100 * expandedUncertainty(error), 1)} % of the range`,
  advice: {
    proved: "Use these settings.",
    "not proved": "The two ramps contradict each other. Burn a test array over two settings.",
    "cannot tell": "The uncertainty is too large for the tolerance. Read the best point again.",
  },
  asFound: "difference of the best value",
  ways: ({ spec }) => [
    {
      text: `Read the best point ${MORE} more times. Start from the other end each time.`,
      sites: spec.sites.filter((s) => s.id === BEST_SITE).map((s) => s.id),
      more: MORE,
      gauge: null,
    },
  ],
});

/** As a share of the range of the first ramp. */
function differenceIn(history: History<RampPlan>, round: RoundRecord<RampPlan>): Measured | null {
  const finding = foundIn(history, round);
  if (!finding.ok) return null;
  const { ramps, last } = finding.found;
  const [first] = ramps;
  const before = history.rounds.findLast((r) => r.n < round.n && r.answers.length > 0);
  const earlier = before ? foundIn(history, before) : null;
  if (!first || !earlier?.ok) return null;
  const [a, b] = [last.value.quantity, earlier.found.best.quantity];
  const u = Math.hypot(a.standardUncertainty, b.standardUncertainty);
  const freedom =
    u ** 4 /
    [a, b].reduce(
      (s, q) => s + (q.degreesOfFreedom === "infinite" ? 0 : q.standardUncertainty ** 4 / q.degreesOfFreedom),
      0,
    );
  const span = spanOf(first.plan);
  return measured((a.value - b.value) / span, u / span, freedom);
}
