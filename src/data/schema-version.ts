/** How far the schema of a file has come: the number of migrations that were run on it. */
import type Sqlite from "better-sqlite3";
import journal from "./migrations/meta/_journal.json";
import { DatabaseTrouble } from "./trouble";

/** What this Ustrina knows. */
export const KNOWN_STEPS = journal.entries.length;
/** Kept by the migrator in each file. */
const MIGRATIONS = "__drizzle_migrations";

/** @returns 0 for a file without tables */
export function stepsOf(client: Sqlite.Database): number {
  if (!tablesOf(client).includes(MIGRATIONS)) return 0;
  return (client.prepare(`select count(*) as n from ${MIGRATIONS}`).get() as { n: number }).n;
}

/**
 * A file of another program is not filled with tables, and one of a newer Ustrina is not touched.
 *
 * @throws DatabaseTrouble
 */
export function refuseForeign(client: Sqlite.Database): void {
  const tables = tablesOf(client);
  if (tables.length > 0 && !tables.includes(MIGRATIONS)) throw new DatabaseTrouble("not a bench");
  if (stepsOf(client) > KNOWN_STEPS) throw new DatabaseTrouble("newer");
}

function tablesOf(client: Sqlite.Database): string[] {
  const rows = client
    .prepare("select name from sqlite_master where type = 'table' and name not like 'sqlite@_%' escape '@'")
    .all();
  return (rows as { name: string }[]).map((row) => row.name);
}
