/** Ladders as a person judged them, without a practice machine. For tests. */

import type { MachineSpec } from "../core/machine/machine-spec";
import { cellId, focusRound, MARKED_SITE, SHARPEST_SITE } from "../core/procedures/focus/ladder/coupon";
import type { FocusPlan, LadderPlan } from "../core/procedures/focus/plan";
import { focus } from "../core/procedures/focus/procedure";
import type { SettingsInForce } from "../core/settings/setting";
import { type Answer, PLAIN_SHARES } from "../core/trial/answer";
import type { History, Purpose, RoundRecord } from "../core/trial/history";
import type { PlanContext } from "../core/trial/plan-form";
import { usualLadder } from "./usual-ladder";

export type JudgedLadder = {
  machine: MachineSpec;
  plan?: Partial<LadderPlan>;
  inForce?: SettingsInForce;
  /** Numbers of the first and the last cell that marked. */
  marked?: [number, number];
  /** Numbers of cells, one a look. */
  sharpest?: number[];
  purpose?: Purpose;
  n?: number;
};

export function judgedRound(ladder: JudgedLadder): RoundRecord<LadderPlan> {
  const { machine, inForce = {}, marked, sharpest = [], purpose = "measure", n = 1 } = ladder;
  const context: PlanContext = { machine, couponCode: "T-1", inForce: {} };
  const plan = { ...usualLadder(context), ...ladder.plan };
  const cells = (site: string, numbers: number[]): Answer => ({
    site,
    u: null,
    gauge: "eye",
    session: "1",
    shares: PLAIN_SHARES,
    from: "typed",
    content: { status: "read", value: { kind: "cells", cells: numbers.map(cellId) } },
  });
  return {
    n,
    purpose,
    plan,
    inForce,
    spec: focusRound(plan, context, purpose),
    answers: [
      ...(marked ? [cells(MARKED_SITE, [...new Set(marked)])] : []),
      ...sharpest.map((number) => cells(SHARPEST_SITE, [number])),
    ],
  };
}

export function historyWith(
  machine: MachineSpec,
  rounds: RoundRecord<LadderPlan>[],
  decisions: History["decisions"] = {},
): History<LadderPlan> {
  return { rounds, gauges: [], available: [], machine, tolerance: focus.tolerance.default, decisions };
}

/** @throws Error for a plan of another way */
export function asLadder(plan: FocusPlan): LadderPlan {
  if (plan.way !== "ladder") throw new Error(`a ladder was expected, not a ${plan.way}`);
  return plan;
}
