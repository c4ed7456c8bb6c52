/** Whether a database is a bench and nothing else: its tables, no code of its own, and rows that can be read. */
import type Sqlite from "better-sqlite3";
import { getTableConfig } from "drizzle-orm/sqlite-core";
import * as schema from "./schema";
import { KNOWN_STEPS, stepsOf } from "./schema-version";
import { DatabaseTrouble } from "./trouble";

const TABLES = Object.values(schema).flatMap((table) => {
  try {
    return [getTableConfig(table as Parameters<typeof getTableConfig>[0])];
  } catch {
    // What else the schema exports is no table.
    return [];
  }
});

/** Columns that hold JSON, by what is written beside them in the schema. */
const JSON_COLUMNS = /^(spec|draft|plan|answer|result|value|truth|controller|decisions|in_force|more|scale|marks)$/;

/**
 * A file that opens may still be none of a bench: with a table missing, with triggers or views that act when it is used, or with texts where
 * JSON belongs.
 *
 * @throws DatabaseTrouble `not a bench`, `damaged`
 */
export function refuseWhatIsNoBench(client: Sqlite.Database): void {
  const objects = client.prepare("select type, name from sqlite_master").all() as { type: string; name: string }[];
  if (objects.some((o) => o.type === "trigger" || o.type === "view")) throw new DatabaseTrouble("not a bench");
  // An older bench has fewer tables; they come when it is brought up to date.
  const tables = new Set(objects.filter((o) => o.type === "table").map((o) => o.name));
  if (stepsOf(client) === KNOWN_STEPS && TABLES.some((t) => !tables.has(t.name)))
    throw new DatabaseTrouble("not a bench");
  for (const table of TABLES) {
    if (!tables.has(table.name)) continue;
    const there = new Set(client.prepare("select name from pragma_table_info(?)").pluck().all(table.name) as string[]);
    for (const { name } of table.columns) {
      if (!JSON_COLUMNS.test(name) || !there.has(name)) continue;
      const bad = client
        .prepare(`select 1 from "${table.name}" where "${name}" is not null and not json_valid("${name}") limit 1`)
        .get();
      if (bad) throw new DatabaseTrouble("damaged");
    }
  }
}
