/** JSON columns: written as text, parsed by the schema of their type on reading. */
import type { z } from "zod";

/** A row that does not fit its schema. Only what depends on this row cannot be shown. */
export class DamagedRow extends Error {
  constructor(
    /** Table and column, for example `round.spec`. */
    readonly column: string,
    why: string,
  ) {
    super(`${column} does not fit its schema: ${why}`);
  }
}

/**
 * @param column table and column, for the message
 * @throws DamagedRow when the text does not fit its schema
 */
export function fromColumn<T>(schema: z.ZodType<T>, text: string, column: string): T {
  const read = schema.safeParse(jsonOf(text, column));
  if (!read.success) throw new DamagedRow(column, read.error.message);
  return read.data;
}

/** The same where a row that does not fit is left out: `null`. */
export function readColumn<T>(schema: z.ZodType<T>, text: string): T | null {
  try {
    return fromColumn(schema, text, "");
  } catch (error) {
    if (error instanceof DamagedRow) return null;
    throw error;
  }
}

function jsonOf(text: string, column: string): unknown {
  try {
    return JSON.parse(text);
  } catch (error) {
    throw new DamagedRow(column, String(error));
  }
}

/** Makes something of each item. Items whose row is damaged are listed separately. */
export function eachSound<I, O>(
  items: readonly I[],
  make: (item: I) => O,
): { sound: O[]; damaged: { item: I; column: string }[] } {
  const sound: O[] = [];
  const damaged: { item: I; column: string }[] = [];
  for (const item of items)
    try {
      sound.push(make(item));
    } catch (error) {
      if (!(error instanceof DamagedRow)) throw error;
      damaged.push({ item, column: error.column });
    }
  return { sound, damaged };
}

/** What `make` returns, or `null` if its row is damaged. */
export function soundOrNull<T>(make: () => T): T | null {
  const [made] = eachSound([make], (m) => m()).sound;
  return made ?? null;
}

export function toColumn(value: unknown): string {
  return JSON.stringify(value);
}
