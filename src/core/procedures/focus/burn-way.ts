/** What every way of burning for the focus is: what is burned, what it tells, and what is burned to prove it. */
import type { RoundSpec } from "../../coupon/round-spec";
import type { Detail, Primitive } from "../../drawing/scene";
import type { Model } from "../../estimate/model";
import type { OrderedSuspect } from "../../measuring/ordered-suspects";
import type { Focus, History, Purpose, RoundRecord } from "../../trial/history";
import type { PlanContext, PlanWarning } from "../../trial/plan-form";
import type { WayOut } from "../../trial/verdict";
import type { Found } from "./found";
import type { FocusPlan } from "./plan";

export interface BurnWay<P extends FocusPlan> {
  /** Said before anything is read. */
  readonly nothingRead: string;
  warnings(plan: P, context: PlanContext): PlanWarning[];
  round(plan: P, context: PlanContext, purpose: Purpose): RoundSpec;
  found(history: History<P>, round: RoundRecord<P>): Found;
  /** The burn around an answer, as short as it can be. */
  proofPlan(history: History<P>, round: RoundRecord<P>, middleMm: number): P;
  /** The readings of a burn as a model; left out where they are judged by eye, or noted at the machine. */
  observe?(history: History<P>, round: RoundRecord<P>): Model | null;
  /** Answers by eye that contradict each other; left out where there is one way alone. */
  contradicting?(history: History<P>, round: RoundRecord<P>): OrderedSuspect[];
  overlay(history: History<P>): Primitive[];
  detail(history: History<P>, focus: Focus): Detail | null;
  /** Where a verdict cannot be told yet. */
  waysOut(round: RoundRecord<P>): WayOut[];
}
