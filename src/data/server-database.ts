/** The one database of this server: opened when it is first asked for, and again after a trouble. */
import { rmSync, statSync, writeFileSync } from "node:fs";
import path from "node:path";
import { backupFiles, sweepParts } from "./backup-files";
import { type Database, openDatabase } from "./database";
import { DatabaseTrouble, troubleOf } from "./trouble";

const DEFAULT_FILE = "data/ustrina.sqlite";

/** Where the database lies: USTRINA_DATABASE, or data/ustrina.sqlite below the working folder. */
export function databaseFile(): string {
  return path.resolve(/* turbopackIgnore: true */ process.env.USTRINA_DATABASE ?? DEFAULT_FILE);
}

const held = globalThis as typeof globalThis & { ustrinaDatabase?: Database; ustrinaFile?: string };

/**
 * The database of this server. After a trouble it is opened again when it is next asked for.
 *
 * @throws DatabaseTrouble `moved` if another file, or none, is at the path of the open file. Writes to the open file would be lost.
 */
export function database(): Database {
  const file = databaseFile();
  if (held.ustrinaDatabase) {
    if (identityOf(file) !== held.ustrinaFile) throw new DatabaseTrouble("moved");
    return held.ustrinaDatabase;
  }
  refuseEmptyPlace(file);
  sweepParts(file);
  return keep(openDatabase(file));
}

function keep(opened: Database): Database {
  held.ustrinaDatabase = opened;
  held.ustrinaFile = identityOf(databaseFile());
  return opened;
}

/** Device and inode of a file; empty if there is none. */
function identityOf(file: string): string {
  const stat = statSync(/* turbopackIgnore: true */ file, { throwIfNoEntry: false, bigint: true });
  return stat ? `${stat.dev} ${stat.ino}` : "";
}

/**
 * An empty or missing file beside backups is a lost bench, not a new one.
 *
 * @throws DatabaseTrouble `gone`
 */
export function refuseEmptyPlace(file: string): void {
  const size = statSync(/* turbopackIgnore: true */ file, { throwIfNoEntry: false })?.size ?? 0;
  if (size === 0 && backupFiles(file).length > 0) throw new DatabaseTrouble("gone");
}

/**
 * What is behind a trouble of this server's database: SQLite says of many that the disk does not answer, the system says why.
 *
 * The connection is exchanged for a new one where that can be had: one that was opened to a read-only file, or to a disk that was
 * away for a moment, stays as it was. Else it is kept, since what is there can still be read through it.
 */
export function looksInto(trouble: DatabaseTrouble): DatabaseTrouble {
  if (!["full", "locked", "moved", "gone"].includes(trouble.kind)) openAnew();
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
    refuseEmptyPlace(databaseFile());
    const anew = openDatabase(databaseFile());
    held.ustrinaDatabase?.$client.close();
    keep(anew);
  } catch (error) {
    if (!troubleOf(error)) throw error;
  }
}

/** Ends the connection of this server, for as long as the file is exchanged; the next one to ask opens it again. */
export function closeDatabase(): void {
  held.ustrinaDatabase?.$client.close();
  held.ustrinaDatabase = undefined;
  held.ustrinaFile = undefined;
}
