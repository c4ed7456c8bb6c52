/** The plan of a machine for its page. */
import { type Needed, neededFor } from "../../core/course/needed-for";
import { type Occasion, workPlan } from "../../core/course/work-plan";
import type { AnyProcedure } from "../../core/procedures/contract";
import type { PlanContext } from "../../core/trial/plan-form";
import type { Db } from "../../data/database";
import { gaugesAtHand } from "../../data/gauges";
import type { Machine } from "../../data/machines";
import { fittedNow } from "../../data/parts";
import { stocksAtHand } from "../../data/stocks";
import type { MachineRecord } from "../procedures/machine-record";
import { trialsOf } from "../procedures/procedure-state";
import { offeredProcedures } from "../procedures/procedures";
import type { BenchProcedure } from "./bench-machine";

export type PlanLineView = {
  procedure: BenchProcedure;
  done: boolean;
  summary: string;
  /** Titles of dependent procedures. */
  before: string[];
  /** `null` if it is done, or if its usual layout cannot be burned. */
  needed: Needed | null;
};

export type PlanView = { occasion: Occasion; lines: PlanLineView[] };

/** @param procedures of this machine with their states, in practice order */
export function planView(db: Db, record: MachineRecord, procedures: readonly BenchProcedure[]): PlanView | null {
  const { machine } = record;
  const wasProved = (id: string) =>
    trialsOf(record, id).some((t) =>
      record.verdictsOf(t.id).some((v) => v.purpose === "proof" && v.result.result === "proved"),
    );
  const stands = offeredProcedures(machine.spec.kind).flatMap((procedure) => {
    const view = procedures.find((p) => p.id === procedure.id);
    return view ? [{ procedure, view, state: view.state, since: view.since, wasProved: wasProved(procedure.id) }] : [];
  });
  const plan = workPlan(stands);
  return (
    plan && {
      occasion: plan.occasion,
      lines: plan.lines.map(({ of, done, before }) => ({
        procedure: of.view,
        done,
        summary: of.procedure.summary,
        before,
        needed: done ? null : neededFor(of.procedure, usualContext(db, machine, of.procedure)),
      })),
    }
  );
}

/** The context of a trial that begins now. */
function usualContext(db: Db, machine: Machine, procedure: AnyProcedure): PlanContext {
  return {
    machine: machine.spec,
    couponCode: "",
    inForce: {},
    gauges: gaugesAtHand(db),
    tolerance: machine.spec.tolerances[procedure.id] ?? procedure.tolerance.default,
    ...(procedure.stock ? { stocks: stocksAtHand(db, null) } : {}),
    ...fittedNow(db, machine.id),
  };
}
