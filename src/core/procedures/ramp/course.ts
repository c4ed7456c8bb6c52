/** The course of a ramp: further on where the best lies at its end, then a second ramp half as wide as the proof. */
import { CELL_SETTINGS } from "../../marking/cell-settings";
import { doseOf } from "../../marking/dose";
import { fastestRow } from "../../marking/run-up";
import { judgeErrors, oneError } from "../../measuring/judge-errors";
import { type ProofPlan, plainNext } from "../../measuring/plain-course";
import { expandedUncertainty, type Measured, measured } from "../../metrology/measured";
import { plain } from "../../metrology/quantity-text";
import { sitesLeft } from "../../trial/answer";
import type { History, Next, RoundRecord } from "../../trial/history";
import type { Outcome } from "../../trial/outcome";
import type { Verdict } from "../../trial/verdict";
import { endOf, type Found, foundIn, valueOfAlong } from "./found";
import { type RampPlan, type Range, rangeOf, withRange } from "./plan";
import { along, settingsAt, spanOf } from "./strip";

/** The proof is so much narrower, and its best lies off its middle: an eye that likes the middle is found out. */
const PROOF = { span: 0.5, bestAt: 0.62 };
/** A ramp that goes on begins so far before the end of the last one, as a share of it. */
const OVERLAP = 0.35;
const MOST_RAMPS = 3;

const WORDS = {
  read: "Read where the strip is best.",
  prove: "Burn a narrower ramp that runs the other way. Its best value should be the same.",
  proved: "Proved: both ramps have the same best value.",
  holding: "Still valid. Change nothing.",
};

export function nextRamp(history: History<RampPlan>, outcome: Outcome, verdict: Verdict | null): Next<RampPlan> {
  const last = history.rounds.at(-1);
  const finding = last ? foundIn(history, last) : null;
  if (!last || !finding?.ok) return plainNext(history, outcome, verdict, WORDS, { why: WORDS.read });
  const { found } = finding;
  const isRead = sitesLeft(last.spec.sites, last.answers).length === 0;
  const further = isRead && last.purpose !== "proof" && last.purpose !== "check" ? beyond(found, history) : null;
  if (further)
    return {
      do: "round",
      purpose: "refine",
      set: [],
      plan: further,
      why: "The best lies at the end of this ramp. The next ramp continues beyond this end.",
    };
  return plainNext(history, outcome, verdict, WORDS, proofOf(found, history));
}

/** @returns `null` where the best lies inside, or the machine goes no further */
function beyond({ last, ramps }: Found, { machine }: Pick<History, "machine">): RampPlan | null {
  const end = endOf(last);
  if (!end || ramps.length >= MOST_RAMPS) return null;
  const { plan } = last;
  const { from, to } = rangeOf(plan);
  const [a, b] = [along(plan, from), along(plan, to)];
  const shift = (1 - OVERLAP) * (b - a) * (end === "end" ? 1 : -1);
  const next = possible(plan, a + shift, b + shift, machine);
  const moved = Math.abs(along(plan, end === "end" ? next.to : next.from) - (end === "end" ? b : a));
  return moved > 0.1 * spanOf(plan) ? withRange(plan, next) : null;
}

function proofOf({ last, best }: Found, { machine }: Pick<History, "machine">): ProofPlan<RampPlan> {
  const { plan } = last;
  const { from, to } = rangeOf(plan);
  const way = along(plan, to) > along(plan, from) ? -1 : 1;
  const span = PROOF.span * spanOf(plan);
  const at = best.quantity.value;
  const begin = at - way * PROOF.bestAt * span;
  // A height falls along the strip in every burn: the stock is propped on one side.
  if (plan.varied === "aboveFocusMm")
    return {
      plan: withRange(plan, possible(plan, at + PROOF.bestAt * span, at - (1 - PROOF.bestAt) * span, machine)),
      set: [],
    };
  return { plan: withRange(plan, possible(plan, begin, begin + way * span, machine)), set: [] };
}

/** Both ends as they are typed, within what the machine does and the stock stands. */
function possible(plan: RampPlan, a: number, b: number, machine: History["machine"]): Range {
  const { byRatio, decimals } = CELL_SETTINGS[plan.varied];
  const { least, most } = limitsOf(plan, machine);
  const step = 10 ** -decimals;
  const typed = (at: number) => {
    const value = Number(valueOfAlong(plan, at).toFixed(decimals));
    const low = Math.ceil(least / step - 1e-9) * step;
    const high = Math.floor(most / step + 1e-9) * step;
    return Number(Math.max(byRatio ? Math.max(step, low) : low, Math.min(high, value)).toFixed(decimals));
  };
  return { from: typed(a), to: typed(b) };
}

function limitsOf(plan: RampPlan, machine: History["machine"]): { least: number; most: number } {
  const jPerMm2 = plan.from?.mostJPerMm2 ?? Number.POSITIVE_INFINITY;
  const energyAt = (value: number) =>
    doseOf(settingsAt(plan, value), {
      wattsAtFull: plan.wattsAtFull,
      lineMm: plan.lineMm,
      isPulsed: false,
      isFilled: true,
    }).energy;
  switch (plan.varied) {
    // Energy grows with power, and falls as the speed grows.
    case "powerPct":
      return { least: 0, most: Math.min(100, jPerMm2 / energyAt(1)) };
    case "speedMmPerS":
      return { least: energyAt(1) / jPerMm2, most: Math.min(machine.topSpeedMmPerS, fastestRow(plan, machine)) };
    case "aboveFocusMm":
      return { least: Number.NEGATIVE_INFINITY, most: Number.POSITIVE_INFINITY };
  }
}

export const judgeRamp = judgeErrors<RampPlan, "">({
  unit: "percent",
  errors: oneError("Best of this ramp against the ramps before, of the range", differenceIn),
  text: ({ error }) =>
    `The best value differs by ${plain(100 * Math.abs(error.value), 1)} ± ${plain(100 * expandedUncertainty(error), 1)} % of the range`,
  advice: {
    proved: "Keep these settings.",
    "not proved": "The stock or the eye changed between the burns. Burn a test array over two settings.",
    "cannot tell": "The uncertainty is too large for the tolerance. Look at the best place more often.",
  },
  asFound: "difference of the best value",
  again: "Look from the other end each time.",
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
