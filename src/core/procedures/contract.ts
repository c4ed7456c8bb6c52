/**
 * What every procedure is.
 *
 * A trial is a list of rounds. A procedure plans a round, says what is burned and where it is measured, solves all
 * readings so far, says what to do next, and judges a proof. The interface knows asks, primitives and figures, never
 * a procedure.
 */
import { z } from "zod";
import type { RoundSpec } from "../coupon/round-spec";
import type { Detail, Primitive } from "../drawing/scene";
import type { Model } from "../estimate/model";
import type { Gauge } from "../metrology/gauge";
import type { Measured } from "../metrology/measured";
import type { Dimension, UnitId } from "../metrology/units";
import type { Answer } from "./answer";
import type { ChangeKind } from "./change";
import type { MachineKind, MachineSpec } from "./machine-spec";
import type { Need } from "./need";
import type { Outcome } from "./outcome";
import type { OpticSpec, RotarySpec } from "./part-spec";
import type { SettingSpec, SettingsInForce } from "./setting";
import type { StockAtHand } from "./stock-at-hand";
import type { Verdict } from "./verdict";

export const purposeSchema = z.enum(["measure", "tune", "refine", "proof", "check"]);
export type Purpose = z.infer<typeof purposeSchema>;

export type FieldSpec = {
  key: string;
  label: string;
  /** Why it matters, or what is usual. */
  why: string;
  group: string;
  /** Asked only where another field says one of these; left out of the plan elsewhere. A layout can be drawn without it. */
  when?: { field: string; is: readonly string[] };
} & (
  | { kind: "quantity"; dimension: Dimension; unit: UnitId; signed?: true }
  | { kind: "quantities"; dimension: Dimension; unit: UnitId }
  | { kind: "count" }
  | {
      kind: "choice";
      options: { value: string; label: string; why: string }[];
      /** Where more of them are made. */
      elsewhere?: { href: string; label: string };
    }
);

export type PlanContext = {
  machine: MachineSpec;
  /** Burned on the coupon, for example `A-14`. */
  couponCode: string;
  inForce: SettingsInForce;
  /** What is fitted; left out where nothing is written down. */
  optic?: OpticSpec;
  rotary?: RotarySpec;
  /** Gauges of the workshop; left out where nothing is known of them. */
  gauges?: readonly Gauge[];
  /** Largest residual that is still good, internal unit; left out: as the procedure has it. */
  tolerance?: number;
  /** Stocks of the workshop, the one at hand first; left out where nothing is known of them. */
  stocks?: readonly StockAtHand[];
  /** The day on which the trial was begun, for example `2026-05-31`, to be burned beside the code; left out where it is not known. */
  day?: string;
};

export type PlanForm<P> = {
  schema: z.ZodType<P>;
  defaults: P;
  fields: FieldSpec[];
};

/** Something worth saying that does not stop the burn. */
export type PlanWarning = { field: string; message: string };

export type RoundRecord<P = unknown> = {
  n: number;
  purpose: Purpose;
  plan: P;
  spec: RoundSpec;
  /** What the controller held while this round was burned, as read back. */
  inForce: SettingsInForce;
  answers: readonly Answer[];
};

export type History<P = unknown> = {
  rounds: readonly RoundRecord<P>[];
  /** Gauges that were read with. */
  gauges: readonly Gauge[];
  /** Gauges there are in the workshop. */
  available: readonly Gauge[];
  machine: MachineSpec;
  /** Largest residual that is still good, internal unit. */
  tolerance: number;
  /** Choices made while correcting: `table: line`, `accept:400: yes`. */
  decisions: Readonly<Record<string, string>>;
};

export type Next<P> =
  | { do: "round"; purpose: Purpose; plan: P; set: string[]; why: string }
  | { do: "read"; sites: string[]; why: string }
  | { do: "stop"; why: string };

/** Where the person is looking while reading, and what is typed so far (internal unit, signed). */
export type Focus = { site: string; typed: number | null };

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
  /** What the other readings say this site should read, internal unit; `null` where they say nothing. */
  expected(history: History<P>, site: string): Measured | null;
  solve(history: History<P>): Outcome;
  next(history: History<P>, outcome: Outcome): Next<P>;
  /** `null` before there is a proof or check round with enough readings. */
  judge(history: History<P>): Verdict | null;
  /** Extra lines on the coupon drawing, such as marks of what was read. */
  overlay(history: History<P>): Primitive[];
  /** The close-up of a site. */
  detail(history: History<P>, focus: Focus): Detail | null;
}

/** A procedure whose plan type is its own business: what registry, interface and database deal in. */
// biome-ignore lint/suspicious/noExplicitAny: the plan is parsed by the procedure's own schema before it reaches it
export type AnyProcedure = Procedure<any>;
