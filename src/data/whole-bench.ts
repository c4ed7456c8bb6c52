/** Whether a database is a bench: it has the tables of a bench, no triggers or views, and valid JSON in its columns. */
import type Sqlite from "better-sqlite3";
import { getTableConfig } from "drizzle-orm/sqlite-core";
import * as schema from "./schema";
import { PRESENT_SCHEMA, schemaOf } from "./schema-version";
import { DatabaseTrouble } from "./trouble";

const TABLES = Object.values(schema).flatMap((table) => {
  try {
    return [getTableConfig(table as Parameters<typeof getTableConfig>[0])];
  } catch {
    // The schema also exports things that are not tables.
    return [];
  }
});

/**
 * A file that opens may still be no bench. A table may be missing, a trigger or a view may act on use, or text may stand in place of JSON.
 *
 * @throws DatabaseTrouble `not a bench`, `damaged`
 */
export function refuseWhatIsNoBench(client: Sqlite.Database): void {
  const objects = client.prepare("select type, name from sqlite_master").all() as { type: string; name: string }[];
  if (objects.some((o) => o.type === "trigger" || o.type === "view")) throw new DatabaseTrouble("not a bench");
  // An older bench has fewer tables; they come when it is brought up to date.
  const tables = new Set(objects.filter((o) => o.type === "table").map((o) => o.name));
  if (schemaOf(client) === PRESENT_SCHEMA && TABLES.some((t) => !tables.has(t.name)))
    throw new DatabaseTrouble("not a bench");
  for (const table of TABLES) {
    if (!tables.has(table.name)) continue;
    const there = new Set(client.prepare("select name from pragma_table_info(?)").pluck().all(table.name) as string[]);
    for (const { name } of table.columns) {
      if (!schema.JSON_COLUMNS.has(name) || !there.has(name)) continue;
      const bad = client
        .prepare(`select 1 from "${table.name}" where "${name}" is not null and not json_valid("${name}") limit 1`)
        .get();
      if (bad) throw new DatabaseTrouble("damaged");
    }
  }
}
