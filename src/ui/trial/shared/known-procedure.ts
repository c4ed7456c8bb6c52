/** Procedures in the page: the same pure code as on the server. */

import { EXTRA_PROCEDURES } from "#extra-procedures";
import type { RoundSpec } from "../../../core/coupon/round-spec";
import { PROCEDURE_LIST } from "../../../core/course/procedure-list";
import type { Gauge } from "../../../core/metrology/gauge";
import type { AnyProcedure } from "../../../core/procedures/contract";
import { draftOf, readDraft } from "../../../core/trial/draft";
import type { History, RoundRecord } from "../../../core/trial/history";
import type { PlanContext } from "../../../core/trial/plan-form";
import { dayOf } from "../../../core/trial/plan-form";
import type { RoundView, TakenReading, TrialView } from "../../../server/trial/trial-view";

const coming = new Map<string, Promise<AnyProcedure>>();
const here = new Map<string, AnyProcedure>();

/** Comes once, and then is there: {@link procedureOf} has it after that. */
export function loadProcedure(id: string): Promise<AnyProcedure> {
  const before = coming.get(id);
  if (before) return before;
  const load = [...PROCEDURE_LIST, ...EXTRA_PROCEDURES].find((p) => p.id === id)?.load;
  if (!load) throw new RangeError(`There is no procedure “${id}”.`);
  const loading = load().then((procedure) => {
    here.set(id, procedure);
    return procedure;
  });
  // What did not come is asked for again with the next page.
  loading.catch(() => coming.delete(id));
  coming.set(id, loading);
  return loading;
}

/** @throws RangeError before it was loaded */
export function procedureOf(view: TrialView): AnyProcedure {
  const found = here.get(view.procedure);
  if (!found) throw new RangeError(`Procedure “${view.procedure}” is not loaded.`);
  return found;
}

/** What a round is laid out with. */
export function planContext(view: TrialView, couponCode: string): PlanContext {
  const { machine, heldNow: inForce, gauges, tolerance, begunAt, stocks } = view;
  return { machine, couponCode, inForce, gauges, tolerance, stocks, day: dayOf(begunAt), ...view.fittedNow };
}

/** Where a round that is to come begins: at its layout, where something is left to be said there. */
export function firstStageOf(view: TrialView, n: number, plan: unknown): "lay-out" | "burn" {
  const form = procedureOf(view).plan(planContext(view, `${view.code}.${n}`));
  return readDraft(form, draftOf(form, plan)).ok ? "burn" : "lay-out";
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
    corrected: round.corrected,
  };
}
