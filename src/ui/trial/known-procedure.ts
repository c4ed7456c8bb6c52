/** Procedures in the page: the same pure code as on the server. */

import type { RoundSpec } from "../../core/coupon/round-spec";
import type { Gauge } from "../../core/metrology/gauge";
import type { AnyProcedure, History, RoundRecord } from "../../core/procedures/contract";
import { madeUp } from "../../core/procedures/made-up/procedure";
import { admitHidden, procedureById } from "../../core/procedures/registry";

import type { RoundView, TakenReading, TrialView } from "../../server/trial/trial-view";

admitHidden(madeUp);

export function procedureOf(view: TrialView): AnyProcedure {
  return procedureById(view.procedure);
}

/**
 * All burned rounds up to round `n`, as the procedure reads them.
 *
 * @param readings readings of round `n` as the page has them now
 */
export function historyOf(view: TrialView, n: number, readings?: readonly TakenReading[]): History {
  const burned = view.rounds.filter((r) => r.n <= n && r.spec !== null);
  const gauges = new Map<string, Gauge>();
  for (const round of burned) for (const s of round.sessions) gauges.set(s.gauge.id, s.gauge);
  return {
    rounds: burned.map((r) => recordOf(r, r.n === n && readings ? readings : r.readings)),
    gauges: [...gauges.values()],
    available: view.gauges,
    machine: view.machine,
    tolerance: view.tolerance,
    decisions: view.decisions,
  };
}

/** A round as it will be when it is burned, with nothing read: for drawing what will be asked. */
export function unreadHistory(view: TrialView, spec: RoundSpec, plan: unknown): History {
  return {
    rounds: [{ n: 1, purpose: "measure", plan, spec, inForce: {}, answers: [] }],
    gauges: [],
    available: view.gauges,
    machine: view.machine,
    tolerance: view.tolerance,
    decisions: {},
  };
}

function recordOf(round: RoundView, readings: readonly TakenReading[]): RoundRecord {
  if (!round.spec) throw new RangeError("round: not burned");
  return {
    n: round.n,
    purpose: round.purpose,
    plan: round.plan,
    spec: round.spec,
    inForce: round.inForce ?? {},
    answers: readings.map((r) => r.answer),
  };
}
