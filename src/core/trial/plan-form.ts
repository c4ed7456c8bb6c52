/** What is asked before a burn: fields of a layout, their shapes, and what is known where it is laid out. */
import { z } from "zod";
import type { MachineSpec } from "../machine/machine-spec";
import { topSpeedText } from "../machine/not-known";
import type { OpticSpec, RotarySpec } from "../machine/part-spec";
import type { Gauge } from "../metrology/gauge";
import type { Dimension, UnitId } from "../metrology/units";
import type { SettingsInForce } from "../settings/setting";
import type { StockAtHand } from "../stock/stock-at-hand";

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

/** The day of a moment as it is burned beside the code of a coupon, `2026-05-31`: by Greenwich, so that it is the same everywhere. */
export function dayOf(moment: number): string {
  return new Date(moment).toISOString().slice(0, 10);
}

/** A choice between words, the key of each with its label. */
export const choice = (of: Record<string, string>) => ({
  kind: "choice" as const,
  options: Object.entries(of).map(([value, label]) => ({ value, label, why: "" })),
});
export const oneOf = <K extends string>(of: Record<K, string>) => z.enum(Object.keys(of) as [K, ...K[]]);

export const LENGTH = { kind: "quantity", dimension: "length", unit: "mm" } as const;
export const SPEED = { kind: "quantity", dimension: "speed", unit: "mmPerS" } as const;

/** @param what is to be given, for example `the side, for example 40 mm` */
export function positive(what: string) {
  return z.number({ error: `Give ${what}.` }).positive("It must be larger than 0.");
}

/** @param what is to be given */
export function wholeNumber(what: string, least: number, most: number) {
  return z
    .number({ error: `Give ${what}.` })
    .int("A whole number.")
    .min(least, `At least ${least}.`)
    .max(most, `${most} at most.`);
}

export function speedShape(machine: Pick<MachineSpec, "name" | "topSpeedMmPerS" | "assumed">, what: string) {
  return positive(what).max(machine.topSpeedMmPerS, topSpeedText(machine));
}

export const POWER_SHAPE = positive("the power").max(100, "Power goes up to 100 %.");

/** How often each site is read. */
export const REPEATS_SHAPE = wholeNumber("how often each site is read", 1, 20);
