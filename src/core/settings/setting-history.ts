/** A setting over time: what was in force when, and how two values differ. */
import type { SettingValue } from "./setting";

/** As entries of a ledger are; times in milliseconds. */
export type DatedValue = { id: number; setting: string; holderId: number | null; at: number; undoneAt: number | null };

/**
 * The entry of each setting at each holder that was in force at a moment: the newest of those made by then and not yet taken
 * back.
 *
 * @param counts leaves out what does not hold at that moment for another reason
 */
export function inForceAt<E extends DatedValue>(
  entries: readonly E[],
  moment: number,
  counts: (entry: E) => boolean = () => true,
): E[] {
  const then = entries
    .filter((e) => counts(e) && e.at <= moment && (e.undoneAt === null || e.undoneAt > moment))
    .sort((a, b) => b.at - a.at || b.id - a.id);
  return then.filter((e, i) => then.findIndex((o) => o.setting === e.setting && o.holderId === e.holderId) === i);
}

/** Internal units; `at` is the place in a table, `null` elsewhere and where no row has a place of its own. */
export type ValueDifference = { at: number | null; before: number | null; after: number | null };

/** Number by number how a value changed; `null` where they cannot be held against each other number by number. */
export function differences(before: SettingValue | null, after: SettingValue | null): ValueDifference[] | null {
  const [b, a] = [numbersOf(before), numbersOf(after)];
  if (!b || !a) return null;
  const places = [...new Set([...b.keys(), ...a.keys()])].sort((x, y) => (x ?? 0) - (y ?? 0));
  return places.map((at) => ({ at, before: b.get(at) ?? null, after: a.get(at) ?? null }));
}

/** Not known is no number at all. */
function numbersOf(value: SettingValue | null): Map<number | null, number> | null {
  if (value === null) return new Map();
  if (value.shape === "scalar") return new Map([[null, value.value]]);
  return value.shape === "table" ? new Map(value.rows.map((r) => [r.at, r.value])) : null;
}

/** Whether two values are the same, number for number. */
export function isSame(a: SettingValue | null, b: SettingValue | null): boolean {
  return JSON.stringify(a) === JSON.stringify(b);
}

/**
 * What stood at the same holder before an entry.
 *
 * @param entries newest first, that entry among them
 */
export function entryBefore<E extends Pick<DatedValue, "setting" | "holderId">>(
  entries: readonly E[],
  entry: E,
): E | undefined {
  const older = entries.slice(entries.indexOf(entry) + 1);
  return older.find((e) => e.setting === entry.setting && e.holderId === entry.holderId);
}
