/** One way of measuring a field: its burn, its points, and the field from its readings. */
import type { RoundSpec } from "../../coupon/round-spec";
import type { Figure } from "../../drawing/figure";
import type { Detail, Primitive } from "../../drawing/scene";
import type { Model } from "../../estimate/model";
import type { HistoryKnown } from "../../measuring/remembering";
import type { Measured } from "../../metrology/measured";
import type { GivenOutcome } from "../../trial/given-outcome";
import type { Focus, History, Purpose, RoundRecord } from "../../trial/history";
import type { Estimate, Finding, ResultTable, Wish } from "../../trial/outcome";
import type { PlanContext } from "../../trial/plan-form";
import type { FieldFound } from "./found";
import type { FieldPlan } from "./plan";

type H = History<FieldPlan>;
type Round = RoundRecord<FieldPlan>;

export interface FieldWay {
  /** Said before anything is read. */
  readonly nothingRead: string;
  round(plan: FieldPlan, context: PlanContext, purpose: Purpose): RoundSpec;
  observe(history: H, round: Round): Model | null;
  /** @returns `null` until enough is read, or if no field is like this */
  found(history: HistoryKnown<FieldPlan>, round: Round): FieldFound | null;
  /** Missing readings; `null` if none is missing. */
  missing(history: H, round: Round): GivenOutcome | null;
  estimates(history: H, round: Round): Estimate[];
  findings(history: H, round: Round): Finding[];
  figures(history: H, round: Round): Figure[];
  /** Choices of the user on how the field is worked out. */
  wishes(history: H, round: Round): Wish[];
  table(history: H, round: Round): ResultTable;
  expected(history: H, round: Round, site: string): Measured | null;
  overlay(history: H): Primitive[];
  detail(history: H, focus: Focus): Detail | null;
}
