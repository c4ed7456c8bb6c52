/**
 * Copies of the bench in one file each, made while it is in use, and put back in its place.
 *
 * SQLite's online backup [sqlite.org/backup.html] copies a moment of the database, whatever is written meanwhile. A copy counts
 * only when it was opened again and found whole.
 */
import { randomBytes } from "node:crypto";
import { copyFileSync, existsSync, mkdirSync, rmSync } from "node:fs";
import path from "node:path";
import Sqlite from "better-sqlite3";
import type { BenchFacts } from "../core/machine/bench-facts";
import { newBackupFile } from "./backup-files";
import { type Database, openDatabase } from "./database";
import { refuseForeign, schemaOf } from "./schema-version";
import { settle } from "./settle-file";
import { DatabaseTrouble, troubleOf } from "./trouble";
import { refuseWhatIsNoBench } from "./whole-bench";

const COUNTED = "machines, trials, readings, entries".split(", ") as (keyof BenchFacts)[];

/**
 * Copies the bench into one file and checks the copy; a file of that name is replaced only by a good one.
 *
 * @throws DatabaseTrouble where the disk of the copy refuses it; what is there already stays
 */
export async function backUp(db: Database, file: string): Promise<BenchFacts> {
  const part = `${file}.${randomBytes(4).toString("hex")}.part`;
  try {
    mkdirSync(path.dirname(file), { recursive: true });
    const before = factsOf(db.$client);
    await db.$client.backup(part);
    asOneFile(part);
    const facts = checkCopy(part);
    // The bench only ever grows: a copy with less than was there before is none.
    if (COUNTED.some((what) => facts[what] < before[what])) throw new DatabaseTrouble("damaged");
    settle(part, file);
    return facts;
  } catch (error) {
    throw troubleOf(error) ?? error;
  } finally {
    rmSync(part, { force: true });
  }
}

/**
 * Opens a copy, looks whether it is whole, and says what it holds. The file is not changed.
 *
 * @throws DatabaseTrouble where it is damaged, of a newer Ustrina, or no bench at all
 */
export function checkCopy(file: string): BenchFacts {
  return looking(file, (client) => {
    if (client.pragma("integrity_check", { simple: true }) !== "ok") throw new DatabaseTrouble("damaged");
    if ((client.pragma("foreign_key_check") as unknown[]).length > 0) throw new DatabaseTrouble("damaged");
    refuseWhatIsNoBench(client);
    return factsOf(client);
  });
}

/** What a copy says that it holds, without looking whether all of it is whole. @throws DatabaseTrouble */
export function factsOfCopy(file: string): BenchFacts {
  return looking(file, factsOf);
}

/**
 * Puts a checked copy in the place of the bench. It is made ready beside it and then takes its name, so that a kill at any
 * moment leaves either the one or the other, whole.
 *
 * Numbers that the bench gave out since the copy was made are not given out again: what still waits in a browser for one of
 * them finds nothing, and never something else.
 *
 * @param file of the bench; nobody may have it open
 * @returns the backup of the bench before, whatever state it was in; `null` = there was none
 * @throws DatabaseTrouble: `locked` while somebody has it open
 */
export function putInPlace(copy: string, file: string, now: number): string | null {
  checkCopy(copy);
  const isThere = existsSync(/* turbopackIgnore: true */ file);
  const kept = isThere ? keptAside(file, newBackupFile(file, "before a restore", now)) : null;
  const part = `${file}.${randomBytes(4).toString("hex")}.part`;
  try {
    mkdirSync(path.dirname(file), { recursive: true });
    copyFileSync(copy, part);
    const ready = openDatabase(part, false);
    if (isThere) keepNumbers(ready.$client, file);
    ready.$client.close();
    asOneFile(part);
    if (isThere) leaveAlone(file);
    settle(part, file);
    return kept;
  } catch (error) {
    if (kept !== null) rmSync(kept, { force: true });
    throw troubleOf(error) ?? error;
  } finally {
    for (const left of [part, `${part}-wal`, `${part}-shm`]) rmSync(left, { force: true });
  }
}

function looking<T>(file: string, look: (client: Sqlite.Database) => T): T {
  let client: Sqlite.Database | null = null;
  try {
    client = new Sqlite(file, { readonly: true, fileMustExist: true });
    refuseForeign(client);
    if (schemaOf(client) === 0) throw new DatabaseTrouble("not a bench");
    return look(client);
  } catch (error) {
    throw troubleOf(error) ?? error;
  } finally {
    client?.close();
  }
}

function factsOf(client: Sqlite.Database): BenchFacts {
  return client
    .prepare(
      `select (select count(*) from machine) as machines, (select count(*) from trial) as trials,
        (select count(*) from reading) as readings, (select count(*) from ledger_entry) as entries,
        max(coalesce((select max(taken_at) from reading), 0), coalesce((select max(entered_at) from ledger_entry), 0)) as newest`,
    )
    .get() as BenchFacts;
}

/** Without a log beside it. */
function asOneFile(file: string): void {
  const client = new Sqlite(file);
  client.pragma("journal_mode = DELETE");
  client.close();
}

/** The numbers that a bench gave out go on from there. A bench too damaged to say them gives none. */
function keepNumbers(ready: Sqlite.Database, file: string): void {
  let given: { name: string; seq: number }[] = [];
  try {
    const client = new Sqlite(file, { readonly: true });
    try {
      const isKept = client.prepare("select 1 from sqlite_master where name = 'sqlite_sequence'").get() !== undefined;
      if (isKept) given = client.prepare("select name, seq from sqlite_sequence").all() as typeof given;
    } finally {
      client.close();
    }
  } catch (error) {
    if (!isSpoiled(error)) throw error;
  }
  const raise = ready.prepare("update sqlite_sequence set seq = max(seq, ?) where name = ?");
  const add = ready.prepare("insert into sqlite_sequence (name, seq) values (?, ?)");
  for (const { name, seq } of given) if (raise.run(seq, name).changes === 0) add.run(name, seq);
}

/** The bench as it is, also one of a newer Ustrina; one that SQLite cannot read is copied as it lies there, with its log. */
function keptAside(file: string, to: string): string {
  mkdirSync(path.dirname(to), { recursive: true });
  try {
    const client = new Sqlite(file);
    try {
      rmSync(`${to}.part`, { force: true });
      client.prepare("vacuum into ?").run(`${to}.part`);
      settle(`${to}.part`, to);
    } finally {
      client.close();
    }
  } catch (error) {
    if (!isSpoiled(error)) throw error;
    for (const end of ["-wal", ""]) {
      if (!existsSync(/* turbopackIgnore: true */ file + end)) continue;
      copyFileSync(file + end, `${to}${end}.part`);
      settle(`${to}${end}.part`, to + end);
    }
  }
  return to;
}

/** Makes sure that nobody has the bench open, and leaves no log of it that would be read into the file that comes. */
function leaveAlone(file: string): void {
  try {
    const client = new Sqlite(file);
    try {
      // SQLite leaves the log only to the last one that has the file open.
      client.pragma("busy_timeout = 0");
      client.pragma("journal_mode = DELETE");
    } finally {
      client.close();
    }
  } catch (error) {
    if (!isSpoiled(error)) throw error;
    for (const log of [`${file}-wal`, `${file}-shm`]) rmSync(log, { force: true });
  }
}

/** No state from which anything could be read. */
function isSpoiled(error: unknown): boolean {
  return ["damaged", "not a bench"].includes(troubleOf(error)?.kind ?? "");
}
