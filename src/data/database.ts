/** The one database file: opened once, brought up to date, durable. */
import { mkdirSync } from "node:fs";
import path from "node:path";
import Sqlite from "better-sqlite3";
import { type BetterSQLite3Database, drizzle } from "drizzle-orm/better-sqlite3";
import { migrate } from "drizzle-orm/better-sqlite3/migrator";
import * as schema from "./schema";

export type Database = BetterSQLite3Database<typeof schema> & { $client: Sqlite.Database };
/** A database or a transaction on it. */
export type Db = Pick<Database, "select" | "insert" | "update" | "delete" | "transaction">;

const DEFAULT_FILE = "data/ustrina.sqlite";

/** Where the database lies: USTRINA_DATABASE, or data/ustrina.sqlite below the working folder. */
export function databaseFile(): string {
  return path.resolve(/* turbopackIgnore: true */ process.env.USTRINA_DATABASE ?? DEFAULT_FILE);
}

/**
 * Opens a database file, making it and its folder where there is none, and migrates it. A buffer is a database in memory.
 *
 * synchronous FULL: what was accepted survives a power cut, not only a killed server.
 */
export function openDatabase(file: string | Buffer): Database {
  if (typeof file === "string" && file !== ":memory:") mkdirSync(path.dirname(file), { recursive: true });
  const client = new Sqlite(file);
  client.pragma("journal_mode = WAL");
  client.pragma("synchronous = FULL");
  client.pragma("foreign_keys = ON");
  client.pragma("busy_timeout = 5000");
  const db = drizzle(client, { schema });
  migrate(db, { migrationsFolder: path.resolve("src/data/migrations") });
  return db;
}

const held = globalThis as typeof globalThis & { ustrinaDatabase?: Database };

/** The database of this server. */
export function database(): Database {
  held.ustrinaDatabase ??= openDatabase(databaseFile());
  return held.ustrinaDatabase;
}
