/** The one database of this server: opened when it is first asked for, and again after a trouble. */
import { rmSync, writeFileSync } from "node:fs";
import path from "node:path";
import { type Database, openDatabase } from "./database";
import { type DatabaseTrouble, troubleOf } from "./trouble";

const DEFAULT_FILE = "data/ustrina.sqlite";

/** Where the database lies: USTRINA_DATABASE, or data/ustrina.sqlite below the working folder. */
export function databaseFile(): string {
  return path.resolve(/* turbopackIgnore: true */ process.env.USTRINA_DATABASE ?? DEFAULT_FILE);
}

const held = globalThis as typeof globalThis & { ustrinaDatabase?: Database };

/** The database of this server. After a trouble it is opened again when it is next asked for. */
export function database(): Database {
  held.ustrinaDatabase ??= openDatabase(databaseFile());
  return held.ustrinaDatabase;
}

/**
 * What is behind a trouble of this server's database: SQLite says of many that the disk does not answer, the system says why.
 *
 * The connection is exchanged for a new one where that can be had: one that was opened to a read-only file, or to a disk that was
 * away for a moment, stays as it was. Else it is kept, since what is there can still be read through it.
 */
export function looksInto(trouble: DatabaseTrouble): DatabaseTrouble {
  if (trouble.kind !== "full" && trouble.kind !== "locked") openAnew();
  if (trouble.kind !== "disk") return trouble;
  const probe = path.join(path.dirname(databaseFile()), ".can-be-written");
  try {
    writeFileSync(probe, "yes");
    rmSync(probe);
    return trouble;
  } catch (error) {
    return troubleOf(error) ?? trouble;
  }
}

function openAnew(): void {
  try {
    const anew = openDatabase(databaseFile());
    held.ustrinaDatabase?.$client.close();
    held.ustrinaDatabase = anew;
  } catch (error) {
    if (!troubleOf(error)) throw error;
  }
}

/** Ends the connection of this server, for as long as the file is exchanged; the next one to ask opens it again. */
export function closeDatabase(): void {
  held.ustrinaDatabase?.$client.close();
  held.ustrinaDatabase = undefined;
}
