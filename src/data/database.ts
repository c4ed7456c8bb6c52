/** A database file: opened, brought up to date, durable. */
import { mkdirSync, rmSync } from "node:fs";
import path from "node:path";
import Sqlite from "better-sqlite3";
import { type BetterSQLite3Database, drizzle } from "drizzle-orm/better-sqlite3";
import { migrate } from "drizzle-orm/better-sqlite3/migrator";
import { newBackupFile } from "./backup-files";
import * as schema from "./schema";
import { PRESENT_SCHEMA, refuseForeign, schemaOf } from "./schema-version";
import { settle } from "./settle-file";
import { troubleOf } from "./trouble";

export type Database = BetterSQLite3Database<typeof schema> & { $client: Sqlite.Database };
/** A database or a transaction on it. */
export type Db = Pick<Database, "select" | "insert" | "update" | "delete" | "transaction">;

/** Steps in a folder, and the moment of the last. */
export type SchemaSteps = { folder: string; newest: number };
const PRESENT: SchemaSteps = { folder: path.resolve("src/data/migrations"), newest: PRESENT_SCHEMA };

/** So long another program may write before an action gives up: nobody waits longer without being told. */
const BUSY_MS = 2000;

/**
 * Opens a database file, making it and its folder where there is none, and migrates it. A buffer is a database in memory.
 *
 * synchronous FULL: what was accepted survives a power cut, not only a killed server.
 *
 * @param keepOld whether a file of an earlier schema is copied before it is brought up to date
 * @param to the steps up to which it is brought
 * @throws DatabaseTrouble where the file cannot be used; nothing of it is changed then
 */
export function openDatabase(file: string | Buffer, keepOld = true, to = PRESENT): Database {
  try {
    return opened(file, keepOld, to);
  } catch (error) {
    throw troubleOf(error) ?? error;
  }
}

function opened(file: string | Buffer, keepOld: boolean, to: SchemaSteps): Database {
  if (isOnDisk(file)) mkdirSync(path.dirname(file), { recursive: true });
  const client = new Sqlite(file);
  try {
    client.pragma(`busy_timeout = ${BUSY_MS}`);
    refuseForeign(client);
    client.pragma("journal_mode = WAL");
    client.pragma("synchronous = FULL");
    client.pragma("foreign_keys = ON");
    const db = drizzle(client, { schema });
    bringUpToDate(db, keepOld && isOnDisk(file) ? file : null, to);
    return db;
  } catch (error) {
    client.close();
    throw error;
  }
}

function isOnDisk(file: string | Buffer): file is string {
  return typeof file === "string" && file !== ":memory:";
}

/** What was there before is copied first, so that an older Ustrina can have it back. */
function bringUpToDate(db: Database, file: string | null, to: SchemaSteps): void {
  const schemaNow = schemaOf(db.$client);
  if (schemaNow >= to.newest) return;
  if (schemaNow > 0 && file !== null) {
    const copy = newBackupFile(file, "before an update", Date.now());
    mkdirSync(path.dirname(copy), { recursive: true });
    // A kill leaves a part, which is deleted at the next start.
    const part = `${copy}.part`;
    rmSync(part, { force: true });
    db.$client.prepare("vacuum into ?").run(part);
    settle(part, copy);
  }
  migrate(db, { migrationsFolder: to.folder });
}
