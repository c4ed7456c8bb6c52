/** Settings that a procedure corrects, and their values. */
import { z } from "zod";
import type { UnitId } from "../metrology/units";

export const settingValueSchema = z.discriminatedUnion("shape", [
  z.object({ shape: z.literal("scalar"), value: z.number() }),
  /** Rows by rising `at`. Internal units. */
  z.object({
    shape: z.literal("table"),
    rows: z.array(z.object({ at: z.number(), value: z.number() })),
  }),
  z.object({
    shape: z.literal("map"),
    nodes: z.array(z.object({ x: z.number(), y: z.number(), dx: z.number(), dy: z.number() })),
  }),
]);
export type SettingValue = z.infer<typeof settingValueSchema>;
export type SettingTable = Extract<SettingValue, { shape: "table" }>;

export type SettingSpec = {
  key: string;
  label: string;
  /** `optic`: of the machine with the optic that is fitted. */
  owner: "machine" | "optic" | "rotary" | "stock use";
  shape: SettingValue["shape"];
  /** Whether other programs keep copies of it, to be kept in step. */
  copied: boolean;
  /** Unit of the value on screen. */
  unit: UnitId;
  /** Unit of `at`; tables only. */
  atUnit: UnitId | null;
  /** What a larger value does, where controllers differ in it; `null` where they do not. */
  larger: { positive: string; negative: string } | null;
  /** Smallest step that controllers take as a rule, internal unit. (common practice, no source) */
  usualStep?: number;
  /** Not every machine has it: what a machine is asked, to which it says yes. */
  onlyWhere?: string;
};

/** Whether the controller of a machine holds it; what belongs to a rotary or a use of stock is kept elsewhere. */
export function isHeldAtMachine({ owner }: SettingSpec): boolean {
  return owner === "machine" || owner === "optic";
}

/** Whether a machine has a setting at all, by what is known of how it takes it. */
export function isHeldBy(setting: SettingSpec, held: Readonly<Record<string, unknown>>): boolean {
  return setting.onlyWhere === undefined || held[setting.key] !== undefined;
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
