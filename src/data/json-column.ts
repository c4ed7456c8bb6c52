/** JSON columns: written as text, parsed by the schema of their type on reading. */
import type { z } from "zod";

/**
 * @param column table and column, for the message
 * @throws Error naming the column when the text does not fit its schema
 */
export function fromColumn<T>(schema: z.ZodType<T>, text: string, column: string): T {
  const read = schema.safeParse(JSON.parse(text));
  if (!read.success) throw new Error(`${column} does not fit its schema: ${read.error.message}`);
  return read.data;
}

export function toColumn(value: unknown): string {
  return JSON.stringify(value);
}
