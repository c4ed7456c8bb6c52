/** What is asked before a burn, as a form shows it, and what is known where a burn is laid out. */
import type { MachineSpec } from "../machine/machine-spec";
import type { OpticSpec, RotarySpec } from "../machine/part-spec";
import type { Gauge } from "../metrology/gauge";
import type { Dimension, UnitId } from "../metrology/units";
import type { SettingsInForce } from "../settings/setting";
import type { StockAtHand } from "../stock/stock-at-hand";

/** How a field is typed or chosen. */
export type FieldKind =
  | { kind: "quantity"; dimension: Dimension; unit: UnitId; signed?: true }
  | { kind: "quantities"; dimension: Dimension; unit: UnitId }
  /** Plain numbers, of which the unit may stand behind the last. */
  | { kind: "numbers"; unit: string; signed?: true }
  | { kind: "count" }
  /** A colour, `#3b5fa3`. */
  | { kind: "colour" }
  /** A drawing from a file, as `core/coupon/own-drawing` writes it. */
  | { kind: "drawing" }
  | {
      kind: "choice";
      options: { value: string; label: string; why: string }[];
      /** Where more of them are made. */
      elsewhere?: { href: string; label: string };
    };

export type FieldSpec = FieldKind & {
  key: string;
  label: string;
  /** Why it matters, or which value is usual. */
  why: string;
  group: string;
  /** For example `at least 20 mm`; empty where there are none. */
  limits: string;
  /** Asked only if each of these other fields has one of its values. */
  when?: readonly { field: string; is: readonly string[] }[];
};

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

/** Why a value is refused, and what to do. */
export type PlanIssue = { field: string; message: string };

export type ReadPlan<P> =
  | { ok: true; plan: P }
  | {
      ok: false;
      issues: PlanIssue[];
      /** A plan that is refused can be drawn if every value of it is typed. */
      unfit: P | null;
    };

/** Whatever a form and a file need of a plan. */
export type PlanForm<P> = {
  fields: FieldSpec[];
  defaults: P;
  /**
   * Checks every value that is asked for, then how they go together. Fields that are not asked for have their usual values.
   *
   * @param values internal units, by field
   */
  read(values: Readonly<Record<string, unknown>>): ReadPlan<P>;
  /** A plan as it was kept, with the value that each newer field had in its day. */
  whole(kept: object): P;
};

/** Something worth saying that does not stop the burn. */
export type PlanWarning = PlanIssue;

/** The day of a moment as it is burned beside the code of a coupon, `2026-05-31`: by Greenwich, so that it is the same everywhere. */
export function dayOf(moment: number): string {
  return new Date(moment).toISOString().slice(0, 10);
}
