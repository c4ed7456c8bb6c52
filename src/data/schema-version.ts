/**
 * How far the schema of a file has come: the moment of the last migration that was run on it.
 *
 * The first step here has the moment of the last one of those that it stands for, so that a bench of then needs nothing.
 */
import type Sqlite from "better-sqlite3";
import journal from "./migrations/meta/_journal.json";
import { DatabaseTrouble } from "./trouble";

const MOMENTS = journal.entries.map((step) => step.when);
/** The oldest schema that is brought up to date, and the one that this Ustrina has. */
export const [OLDEST_SCHEMA, PRESENT_SCHEMA] = [Math.min(...MOMENTS), Math.max(...MOMENTS)];
/** Kept by the migrator in each file. */
const MIGRATIONS = "__drizzle_migrations";

/** @returns 0 for a file without tables */
export function schemaOf(client: Sqlite.Database): number {
  if (!tablesOf(client).includes(MIGRATIONS)) return 0;
  const row = client.prepare(`select coalesce(max(created_at), 0) as last from ${MIGRATIONS}`).get();
  return (row as { last: number }).last;
}

/**
 * A file of another program is not filled with tables; one of a newer Ustrina, or of one before the first that is kept up with, is not touched.
 *
 * @throws DatabaseTrouble
 */
export function refuseForeign(client: Sqlite.Database): void {
  const tables = tablesOf(client);
  if (tables.length > 0 && !tables.includes(MIGRATIONS)) throw new DatabaseTrouble("not a bench");
  const schema = schemaOf(client);
  if (schema > PRESENT_SCHEMA) throw new DatabaseTrouble("newer");
  if (schema > 0 && schema < OLDEST_SCHEMA) throw new DatabaseTrouble("older");
}

function tablesOf(client: Sqlite.Database): string[] {
  const rows = client
    .prepare("select name from sqlite_master where type = 'table' and name not like 'sqlite@_%' escape '@'")
    .all();
  return (rows as { name: string }[]).map((row) => row.name);
}
