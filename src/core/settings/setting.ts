/** Settings that a procedure corrects, and their values. */
import { z } from "zod";
import type { FieldTerm } from "../geometry/field-term";
import { unitIdSchema } from "../metrology/unit-schema";
import { type Dimension, toInternal, UNITS, type UnitId } from "../metrology/units";
import { fieldTableSchema } from "./field-table";

export const settingValueSchema = z.discriminatedUnion("shape", [
  z.object({ shape: z.literal("scalar"), value: z.number() }),
  /** Rows by rising `at`. Internal units. */
  z.object({
    shape: z.literal("table"),
    rows: z.array(z.object({ at: z.number(), value: z.number() })),
  }),
  fieldTableSchema,
]);
export type SettingValue = z.infer<typeof settingValueSchema>;

/** From a file that may have been edited: the rows of a table must be in order, each place once. */
export const givenSettingValueSchema = settingValueSchema.superRefine((value, context) => {
  if (value.shape !== "table") return;
  value.rows.forEach((row, i) => {
    const before = value.rows[i - 1];
    if (!before || row.at > before.at) return;
    const message =
      row.at === before.at
        ? `${row.at} occurs twice. Enter each place once.`
        : `${row.at} comes after ${before.at}. Sort the rows.`;
    context.addIssue({ code: "custom", path: ["rows", i, "at"], message });
  });
});
export type SettingTable = Extract<SettingValue, { shape: "table" }>;

/** What changes at the machine with a setting. */
export type Acts =
  /** Both ends of scanned rows, by direction and speed. */
  | { on: "row ends" }
  /** Scanned rows against drawn lines: all of them, or by speed. */
  | { on: "scanned rows" }
  /** How long an axis makes a length, or where it begins. */
  | { on: "length" | "home"; axis: "x" | "y" }
  /** How far a rotary turns. */
  | { on: "rotary steps" | "roller" }
  /** Which way X and Y of a galvo run. */
  | { on: "orientation"; part: "swap" | "invert x" | "invert y" }
  /** How large the field of a galvo is along an axis. */
  | { on: "field scale"; axis: "x" | "y" }
  /** How far a galvo turns every drawing. */
  | { on: "field turn" }
  /** The form of the field: a term of its map. */
  | { on: "field form"; term: FieldTerm }
  /** Every point of the field, by a table in the controller. */
  | { on: "field table" }
  /** Drawings, before they are sent: Ustrina bends them. */
  | { on: "drawings" }
  /** Nothing that a file shows: the next burn is laid out by it. */
  | { on: "next burn" };

export type SettingSpec = {
  key: string;
  label: string;
  /** A practice machine changes by it as the real one does. */
  acts: Acts;
  /** `optic`, `rotary`: of the machine with the one that is fitted. */
  owner: "machine" | "optic" | "rotary";
  shape: SettingValue["shape"];
  /** Whether other programs keep copies of it, to be kept in step. */
  copied: boolean;
  /** Unit of the value on screen. */
  unit: UnitId;
  /** Unit of `at`; tables only. */
  atUnit: UnitId | null;
  /** What a larger value does, where controllers differ in it; `null` where they do not. */
  larger: { positive: string; negative: string } | null;
  /** Label of the choice between the two; left out: `A larger entry`. */
  senseLabel?: string;
  /** Which of the two is usual, and in which kind of unit there is no choice; left out: the positive one, everywhere a choice. */
  usualSense?: { otherwise: 1 | -1; fixed: Partial<Record<Dimension, 1 | -1>> };
  /** In which kinds of unit controllers take it; left out: those of its own unit. */
  dimensions?: readonly Dimension[];
  /** Smallest step that controllers take as a rule, internal unit, where it differs by kind of unit. (common practice, no source) */
  usualStep?: Partial<Record<Dimension, number>>;
  /** A coefficient whose effect differs from controller to controller: what one more of it does. Left out: the unit says it. */
  effect?: string;
  /** What its units mean, where they do not say it themselves. */
  about?: string;
  /** Not every machine has it: what a machine is asked, to which it says yes. */
  onlyWhere?: string;
};

/** Units in which a controller may take it, that of the setting first. */
export function unitsOf({ unit, dimensions }: Pick<SettingSpec, "unit" | "dimensions">): UnitId[] {
  const taken: readonly Dimension[] = dimensions ?? [UNITS[unit].dimension];
  // Steps and counts are the same number under two names. A setting offers only its own name.
  const other: UnitId = unit === "steps" ? "counts" : "steps";
  const all = (Object.keys(UNITS) as UnitId[]).filter((id) => id !== other && taken.includes(UNITS[id].dimension));
  return [unit, ...all.filter((id) => id !== unit)];
}

/** Lengths by a thousandth of a millimetre, times by a microsecond, internal units. (common practice, no source) */
const USUAL_STEPS: Partial<Record<Dimension, number>> = { length: 0.001, time: 1e-6 };
/** Of everything else a thousandth of the unit in which it is shown. (common practice, no source) */
const USUAL_SHARE = 0.001;

/** The smallest step that controllers take as a rule in this kind of unit, internal unit. */
export function usualStepIn({ usualStep }: Pick<SettingSpec, "usualStep">, unit: UnitId): number {
  const { dimension } = UNITS[unit];
  return usualStep?.[dimension] ?? USUAL_STEPS[dimension] ?? toInternal(USUAL_SHARE, unit);
}

/** What a larger value does where the unit alone says it; `null` where controllers differ. */
export function senseFixedBy({ usualSense }: Pick<SettingSpec, "usualSense">, unit: UnitId): 1 | -1 | null {
  return usualSense?.fixed[UNITS[unit].dimension] ?? null;
}

/** Whether a machine has a setting at all: by what is known of how it takes it, or because something was written down of it. @param written keys */
export function isHeldBy(
  { key, onlyWhere }: Pick<SettingSpec, "key" | "onlyWhere">,
  held: Readonly<Record<string, unknown>>,
  written: ReadonlySet<string>,
): boolean {
  return onlyWhere === undefined || held[key] !== undefined || written.has(key);
}

/** Values by key of their setting; `null` = not known. */
export type SettingsInForce = Record<string, SettingValue | null>;

export const tableKindSchema = z.enum(["interpolated", "exact speed only", "not known"]);
export type TableKind = z.infer<typeof tableKindSchema>;

/**
 * What a table gives at `at`; `null` where that cannot be known.
 *
 * Interpolated tables hold their end values beyond their ends; an exact table gives 0 away from its entries.
 */
export function tableValueAt(table: SettingTable, at: number, kind: TableKind): number | null {
  const exact = table.rows.find((row) => row.at === at);
  if (exact) return exact.value;
  if (table.rows.length === 0) return 0;
  if (table.rows.every((row) => row.value === 0)) return 0;
  if (kind === "exact speed only") return 0;
  if (kind === "not known") return null;
  const above = table.rows.findIndex((row) => row.at > at);
  const high = table.rows[above];
  const low = table.rows[above < 0 ? table.rows.length - 1 : above - 1];
  if (!high || !low) return (low ?? high)?.value ?? 0;
  const share = (at - low.at) / (high.at - low.at);
  return low.value + share * (high.value - low.value);
}

/** `table` with some rows replaced or added, by rising `at`. */
export function withRows(table: SettingTable, rows: SettingTable["rows"]): SettingTable {
  const kept = table.rows.filter((old) => rows.every((row) => row.at !== old.at));
  return {
    shape: "table",
    rows: [...kept, ...rows].sort((a, b) => a.at - b.at),
  };
}

/** How a controller takes one setting. */
export const heldSettingSchema = z.object({
  /** Unit in which it takes and shows the value. */
  unit: unitIdSchema,
  /** Smallest step it takes, internal unit. */
  step: z.number().positive(),
  /** Smallest and largest value it takes, internal unit; `null` = not known. */
  range: z.object({ low: z.number(), high: z.number() }).nullable(),
  /** Tables only. */
  tableKind: tableKindSchema,
  /** Which of the two a larger entry does, in the words of its setting. */
  sense: z.union([z.literal(1), z.literal(-1)]),
  /** What one more of it moves the corner of the field, mm; for coefficients of a field. Absent: not known. */
  effectMm: z.number().optional(),
  /** `sense` is assumed, because it is not known. Two burns replace it. Absent: known. */
  senseAssumed: z.literal(true).optional(),
});
export type HeldSetting = z.infer<typeof heldSettingSchema>;
