/**
 * One field of a plan: its label, its usual value and its limits. Type, check, form and documentation of a plan come from its fields, so
 * that each is written once.
 */
import { z } from "zod";
import { labOfHex } from "../colour/lab";
import { contoursIn, MOST_DRAWING_POINTS } from "../coupon/own-drawing";
import { afterNumber, inUnit } from "../metrology/quantity-text";
import type { UnitId } from "../metrology/units";
import type { FieldKind } from "./plan-form";

/** A field counts only if another field has one of these values. */
export type When = { field: string; is: readonly string[] };

type Labelled = {
  label: string;
  /** Fields of one group are shown together, under its name. */
  group: string;
  /** Why it matters, or which value is usual. */
  why?: string;
  /** Left out: always. `false`: never on this machine. */
  when?: When | readonly When[] | false;
};

/** @typeParam T internal unit where it is a quantity */
export interface Field<T> {
  readonly label: string;
  readonly group: string;
  readonly why: string;
  /** All of them have to be so. */
  readonly when: readonly When[] | false;
  readonly shown: FieldKind;
  /** Value before anybody types, and wherever the field does not count. */
  readonly usual: T;
  /** Value in plans that were kept before there was this field. Left out: `usual`. */
  readonly before?: T;
  readonly type: z.ZodType<T>;
  /** For documents, for example `at least 20 mm`; empty where there are none. */
  readonly limits: string;
  /** Why the value is refused and what to enter, `null` where it is fine. */
  refusal(value: T): string | null;
}

/** A limit, with the reason for it if there is one: a whole sentence, shown before `Enter at least 20 mm.` */
type Limit = number | readonly [number, string];
type Limits = { min?: Limit; max?: Limit };

type NumberField = Labelled & Limits & { usual: number; before?: number };

const LENGTH = { kind: "quantity", dimension: "length", unit: "mm" } as const;
const SIGNED_LENGTH = { kind: "quantity", dimension: "length", unit: "mm", signed: true } as const;
const THOUSANDTHS = { kind: "quantity", dimension: "length", unit: "thou" } as const;
const SPEED = { kind: "quantity", dimension: "speed", unit: "mmPerS" } as const;
const SHARE = { kind: "quantity", dimension: "ratio", unit: "percent" } as const;
const COUNT = { kind: "count" } as const;

const COLOUR_REFUSAL = "Enter a colour, for example #3b5fa3.";

/** The fields there are. Lengths, speeds and powers are larger than 0 unless `min` says otherwise. */
export const field = {
  /** mm. */
  length: (of: NumberField) => numberField(LENGTH, "a length", of, "more than 0"),
  /** mm, either sign, typed with its sign. */
  signedLength: (of: NumberField) => numberField(SIGNED_LENGTH, "a length with its sign", of, "any"),
  /** mm, typed in thousandths of an inch unless a unit is typed with it. */
  thousandths: (of: NumberField) => numberField(THOUSANDTHS, "a length", of, "more than 0"),
  /** mm/s. */
  speed: (of: NumberField) => numberField(SPEED, "a speed", of, "more than 0"),
  /** 1; shown in percent. */
  share: (of: NumberField) => numberField(SHARE, "a share", of, "0 or more"),
  /** A number without a unit, not always a whole one. */
  number: (of: NumberField) => numberField(COUNT, "a number", of, "more than 0"),
  /** A whole number, at least 1 unless `min` says otherwise. */
  count: (of: NumberField) => numberField(COUNT, "a whole number", of, "whole"),

  /** mm, either sign, empty until it is typed. */
  unknownLength: (of: Labelled & { missing: string }): Field<number | undefined> => ({
    ...labelled(of),
    shown: SIGNED_LENGTH,
    usual: undefined,
    type: z.number().optional(),
    refusal: (value) => (value === undefined ? of.missing : null),
  }),

  /** mm/s, one or more. */
  speeds: (of: Labelled & { usual: number[] }): Field<number[]> => ({
    ...labelled(of),
    shown: { kind: "quantities", dimension: "speed", unit: "mmPerS" },
    usual: of.usual,
    type: z.array(z.number()),
    refusal: (values) =>
      values.length === 0
        ? "Enter at least one speed, for example 100 200 300."
        : values.some((v) => v <= 0)
          ? "Enter speeds of more than 0 mm/s."
          : null,
  }),

  /** mm, one or more. */
  lengths: (of: Labelled & { usual: number[] }): Field<number[]> => ({
    ...labelled(of),
    shown: { kind: "quantities", dimension: "length", unit: "mm" },
    usual: of.usual,
    type: z.array(z.number()),
    refusal: () => null,
  }),

  /** Plain numbers of one unit, one or more. */
  numbers: (of: Labelled & { usual: number[]; unit: string; signed?: true }): Field<number[]> => ({
    ...labelled(of),
    shown: { kind: "numbers", unit: of.unit, ...(of.signed ? { signed: true } : {}) },
    usual: of.usual,
    type: z.array(z.number()),
    refusal: () => null,
  }),

  /** One of some words: key and label of each. */
  choice: <K extends string>(
    options: Readonly<Record<K, string>>,
    of: Labelled & { usual: NoInfer<K>; before?: NoInfer<K>; whys?: Readonly<Partial<Record<NoInfer<K>, string>>> },
  ): Field<K> => {
    const keys = keysOf(options);
    return {
      ...labelled(of),
      shown: {
        kind: "choice",
        options: keys.map((value) => ({ value, label: options[value], why: of.whys?.[value] ?? "" })),
      },
      usual: of.usual,
      ...(of.before === undefined ? {} : { before: of.before }),
      type: z.enum(keys, { error: "Choose one of these." }),
      refusal: () => null,
    };
  },

  /** A colour, `#3b5fa3`. */
  colour: (of: Labelled & { usual: string }): Field<string> => ({
    ...labelled(of),
    shown: { kind: "colour" },
    usual: of.usual,
    type: z.string({ error: COLOUR_REFUSAL }),
    refusal: (value) => (labOfHex(value) ? null : COLOUR_REFUSAL),
  }),

  /** A drawing of one's own; empty until a file is chosen. */
  drawing: (of: Labelled & { missing: string }): Field<string> => ({
    ...labelled(of),
    shown: { kind: "drawing" },
    usual: "",
    type: z.string({ error: of.missing }),
    refusal: (value) => {
      if (value === "") return of.missing;
      const points = contoursIn(value)?.reduce((sum, c) => sum + c.points.length, 0);
      if (points === undefined) return "The drawing cannot be read. Choose the SVG file again.";
      return points > MOST_DRAWING_POINTS
        ? `The drawing has ${points} points. Choose a simpler drawing with at most ${MOST_DRAWING_POINTS} points.`
        : null;
    },
  }),

  /** One of what there is in this workshop, by key. */
  oneOfThese: (
    options: readonly { value: string; label: string }[],
    of: Labelled & { usual: string; refusal?: string; elsewhere?: { href: string; label: string } },
  ): Field<string> => ({
    ...labelled(of),
    shown: {
      kind: "choice",
      options: options.map((o) => ({ ...o, why: "" })),
      ...(of.elsewhere ? { elsewhere: of.elsewhere } : {}),
    },
    usual: of.usual,
    type: z.string({ error: of.refusal ?? "Choose one of these." }),
    refusal: (value) => (value === "" ? (of.refusal ?? "Choose one of these.") : null),
  }),
};

export function keysOf<K extends string>(options: Readonly<Record<K, string>>): K[] {
  const keys: K[] = [];
  for (const key in options) keys.push(key);
  return keys;
}

function labelled({ label, group, why = "", when = [] }: Labelled) {
  return { label, group, why, when: when === false ? when : [when].flat(), limits: "" };
}

type Sort = "any" | "0 or more" | "more than 0" | "whole";

function numberField(shown: FieldKind, what: string, of: NumberField, sort: Sort): Field<number> {
  const unit = shown.kind === "quantity" ? shown.unit : "one";
  return {
    ...labelled(of),
    shown,
    usual: of.usual,
    ...(of.before === undefined ? {} : { before: of.before }),
    type: z.number({ error: `Enter ${what}, ${of.usual === 0 ? "or 0" : `for example ${inUnit(of.usual, unit)}`}.` }),
    limits: limitsText(of, sort, unit),
    refusal: (value) => numberRefusal(value, of, sort, unit),
  };
}

function leastOf({ min }: Limits, sort: Sort): Limit | undefined {
  return min ?? (sort === "whole" ? 1 : sort === "0 or more" ? 0 : undefined);
}

function limitsText(limits: Limits, sort: Sort, unit: UnitId): string {
  const least = leastOf(limits, sort);
  const low = least === undefined ? (sort === "more than 0" ? "more than 0" : "") : `at least ${text(least, unit)}`;
  const high = limits.max === undefined ? "" : `at most ${text(limits.max, unit)}`;
  return [low, high].filter(Boolean).join(", ");
}

function numberRefusal(value: number, limits: Limits, sort: Sort, unit: UnitId): string | null {
  const { max } = limits;
  const least = leastOf(limits, sort);
  if (sort === "whole" && !Number.isInteger(value)) return "Enter a whole number.";
  if (least !== undefined && value < limitOf(least)) return refusedBy(least, `Enter at least ${text(least, unit)}.`);
  if (least === undefined && sort === "more than 0" && value <= 0) return `Enter more than 0${afterNumber(unit)}.`;
  if (max !== undefined && value > limitOf(max)) return refusedBy(max, `Enter at most ${text(max, unit)}.`);
  return null;
}

function limitOf(limit: Limit): number {
  return typeof limit === "number" ? limit : limit[0];
}

function refusedBy(limit: Limit, what: string): string {
  return typeof limit === "number" ? what : `${limit[1]} ${what}`;
}

function text(limit: Limit, unit: UnitId): string {
  return inUnit(limitOf(limit), unit);
}
