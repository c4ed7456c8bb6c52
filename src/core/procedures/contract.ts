import type { RoundSpec } from "../coupon/round-spec";
import type { Detail, Primitive } from "../drawing/scene";
import type { Model } from "../estimate/model";
import type { ChangeKind } from "../machine/change";
import type { MachineKind } from "../machine/machine-kind";
import type { MachineSpec } from "../machine/machine-spec";
import type { Need } from "../machine/need";
import type { ArrayGiven } from "../marking/array-given";
import {
  type Contradicting,
  examinedJudge,
  examinedSolve,
  heldTogether,
  newestRead,
  predictedReading,
} from "../measuring/examined";
import { type CourseWords, type ProofPlan, plainNext, sameAgain } from "../measuring/plain-course";
import { readTicks } from "../measuring/read-ticks";
import type { Measured } from "../metrology/measured";
import type { UnitId } from "../metrology/units";
import type { SettingSpec, SettingsInForce } from "../settings/setting";
import type { StockAtHand } from "../stock/stock-at-hand";
import type { Edges } from "../trial/edges";
import { completed, type GivenOutcome } from "../trial/given-outcome";
import type { Focus, History, Next, Purpose, RoundRecord } from "../trial/history";
import type { Outcome } from "../trial/outcome";
import type { PlanContext, PlanForm, PlanWarning } from "../trial/plan-form";
import type { Verdict } from "../trial/verdict";

export interface Procedure<P = unknown> {
  readonly id: string;
  readonly version: number;
  readonly title: string;
  /** One line for the bench and the palette. */
  readonly summary: string;
  readonly machineKinds: readonly MachineKind[];
  readonly settings: readonly SettingSpec[];
  readonly needs: readonly Need[];
  /** Done where there is a reason for it: that it was never done is no reason. */
  readonly occasional?: true;
  /** Done for each stock anew, on which it stands by itself; left out elsewhere. */
  readonly stock?: {
    /** Of its layout: names the batch by its key. */
    field: string;
    /** The stock as a plan has it, with what its card said when it was laid out. */
    of: (plan: P) => StockAtHand | null;
  };
  /**
   * What is noted of the machine once its adjustments are made by hand, and the words for their sizes: `raise by`, `against the highest`.
   * Left out where there are none.
   */
  readonly adjusts?: { change: ChangeKind; by: string; against: string };
  readonly tolerance: { default: number; unit: UnitId; label: string };
  /** After so many days a proved result is due for a check, unless the machine says otherwise. */
  readonly recheck: { defaultDays: number; why: string };
  /** The layout is an array of cells: it is changed on its own drawing. Left out elsewhere. */
  readonly edges?: Edges<P>;
  plan(context: PlanContext): PlanForm<P>;
  /** The longest lengths that bed and the chosen gauge allow, by field: they follow the gauge. Left out where no length is chosen. */
  longest?(plan: P, context: PlanContext): Partial<P>;
  /** Who applies the settings to a burn with this plan: the controller, or Ustrina when it writes the file. */
  actsFrom(plan: P): "controller" | "ustrina";
  /** Keys of the settings of a machine that a burn with this plan is to correct: what each held is read back. */
  sets(plan: P, machine: MachineSpec): readonly string[];
  /** What is worth saying about a valid plan. */
  warnings(plan: P, context: PlanContext): PlanWarning[];
  round(plan: P, context: PlanContext, purpose: Purpose): RoundSpec;
  /**
   * The round as this delivery sends it with these settings in force, for files that Ustrina compensates itself;
   * the same spec where the controller compensates or nobody does.
   */
  asSent(spec: RoundSpec, plan: P, inForce: SettingsInForce, machine: MachineSpec): RoundSpec;
  /** The short plan of a check: few sites, what was proved last. */
  checkPlan(last: P, context: PlanContext): P;
  /** The readings of a burn as a model, `null` while too little is read. Left out where judgements are ordered and not measured. */
  observe?(history: History<P>, round: RoundRecord<P>): Model | null;
  /** The first result of what is judged in order, without a look at contradictions: for forecasts. Left out where all is measured. */
  judged?(history: History<P>, round: RoundRecord<P>): { label: string; quantity: Measured } | null;
  /** What the other readings say this site should read, internal unit; `null` where they say nothing. */
  expected(history: History<P>, site: string): Measured | null;
  solve(history: History<P>): Outcome;
  /** Responses that `solve`, `next` and `judge` ask for: a page has them worked out beforehand. Left out where there are none. */
  responses?(history: History<P>): readonly ArrayGiven[];
  next(history: History<P>, outcome: Outcome): Next<P>;
  /** `null` before there is a proof or check round with enough readings. */
  judge(history: History<P>): Verdict | null;
  /** Extra lines on the coupon drawing, such as marks of what was read. */
  overlay(history: History<P>): Primitive[];
  /** The close-up of a site. */
  detail(history: History<P>, focus: Focus): Detail | null;
}

/** What most procedures say alike has a usual answer in {@link defineProcedure}. */
type WithUsualAnswer =
  | "version"
  | "actsFrom"
  | "sets"
  | "warnings"
  | "asSent"
  | "checkPlan"
  | "expected"
  | "overlay"
  | "solve"
  | "next";

/** What a procedure says of itself. */
export type ProcedureSpec<P> = Omit<Procedure<P>, WithUsualAnswer> &
  Partial<Pick<Procedure<P>, Exclude<WithUsualAnswer, "solve" | "next">>> & {
    /** What the readings amount to; suspects are found around it. */
    solve(history: History<P>): GivenOutcome;
    /** Its settings are right only together: while one is held back, none is entered. */
    together?: true;
    /** Judgements in order that contradict each other; left out where nothing is judged in order. */
    contradicting?: Contradicting<P>;
  } & (
    | {
        /** Words for a trial that measures once, corrects and proves. */
        words: CourseWords;
        /** What is burned as the proof, and which settings are set before; left out: the same again with all corrections in force. */
        proof?: (history: History<P>, outcome: Outcome) => ProofPlan<P>;
      }
    | {
        /** @param verdict on the newest burn, with what contradicts */
        next(history: History<P>, outcome: Outcome, verdict: Verdict | null): Next<P>;
      }
  );

/** A procedure with the usual answers where it says nothing of its own, and with what the estimator says around its results. */
export function defineProcedure<P>(spec: ProcedureSpec<P>): Procedure<P> {
  const { observe, contradicting, solve, judge, together, ...own } = spec;
  const model = observe ?? (() => null);
  const checkPlan = own.checkPlan ?? ((last: P) => last);
  const examinedVerdict = examinedJudge(model, judge, contradicting);
  const expected =
    own.expected ??
    (observe ? (history: History<P>, site: string) => predictedReading(observe, history, site) : () => null);
  const worked = (history: History<P>) => completed(solve(history), newestRead(history));
  const examined = examinedSolve(model, worked, contradicting, expected);
  return {
    version: 1,
    actsFrom: () => "controller",
    sets: () => own.settings.map((s) => s.key),
    warnings: () => [],
    asSent: (round) => round,
    overlay: readTicks,
    ...own,
    expected,
    ...(observe ? { observe } : {}),
    checkPlan,
    solve: (history) => (together ? heldTogether(examined(history)) : examined(history)),
    next: (history, outcome) => {
      if ("next" in spec) return spec.next(history, outcome, examinedVerdict(history));
      const proof = spec.proof?.(history, outcome) ?? sameAgain(history, outcome, own.settings);
      return plainNext(history, outcome, examinedVerdict(history), spec.words, proof);
    },
    judge: examinedVerdict,
  };
}

/** A procedure whose plan type is its own business: what registry, interface and database deal in. */
// biome-ignore lint/suspicious/noExplicitAny: the plan is parsed by the procedure's own schema before it reaches it
export type AnyProcedure = Procedure<any>;
