/** Backups of the bench that is in use: made, taken in from a file, put back, thrown away. */

import { randomBytes } from "node:crypto";
import { mkdirSync, rmSync, writeFileSync } from "node:fs";
import path from "node:path";
import type { BenchFacts } from "../../core/machine/bench-facts";
import { backUp, checkCopy, putInPlace } from "../../data/backup";
import { type BackupFile, backupFiles, backupFolder, newBackupFile } from "../../data/backup-files";
import type { Database } from "../../data/database";
import { closeDatabase, databaseFile } from "../../data/server-database";
import { settle } from "../../data/settle-file";
import { DatabaseTrouble } from "../../data/trouble";
import { Refusal } from "../refusal";

/** How every file of SQLite begins. [sqlite.org/fileformat2.html, 1.3] */
const MAGIC = "SQLite format 3\0";

/** Makes a backup and checks it. */
export async function backUpNow(db: Database, file: string, now: number): Promise<BenchFacts> {
  return backUp(db, newBackupFile(file, "by hand", now));
}

/**
 * A backup from elsewhere joins those of this bench once it is found whole; its name means nothing.
 *
 * @throws Refusal at `backup` where it is no backup that can be used here
 */
export function takeInBackup(content: Uint8Array, file: string, now: number): BenchFacts {
  if (Buffer.from(content.subarray(0, MAGIC.length)).toString("latin1") !== MAGIC)
    throw new Refusal(
      "backup",
      "This is no backup, whatever its name says. Choose a file as it was downloaded on this page.",
    );
  const part = path.join(backupFolder(file), `${randomBytes(6).toString("hex")}.part`);
  try {
    mkdirSync(path.dirname(part), { recursive: true });
    writeFileSync(part, content);
    const facts = whole(part);
    settle(part, newBackupFile(file, "from a file", now));
    return facts;
  } finally {
    for (const left of [part, `${part}-wal`, `${part}-shm`]) rmSync(left, { force: true });
  }
}

/**
 * Puts a backup in the place of the bench of this server, which is kept as a backup itself.
 *
 * @throws Refusal at `backup` where it cannot be used; the bench stays as it is then
 */
export function restoreBackup(name: string, now: number): BenchFacts {
  const { file } = backupNamed(databaseFile(), name);
  const facts = whole(file);
  closeDatabase();
  putInPlace(file, databaseFile(), now);
  return facts;
}

/** @throws Refusal at `backup` for one that is not there */
export function throwAwayBackup(file: string, name: string): void {
  rmSync(backupNamed(file, name).file);
}

/**
 * The backup of a name. The name is looked for among those that are there, and never used as a path.
 *
 * @throws Refusal at `backup` for one that is not there
 */
export function backupNamed(file: string, name: string): BackupFile {
  const found = backupFiles(file).find((b) => b.name === name);
  if (!found) throw new Refusal("backup", "This backup is no longer there.");
  return found;
}

function whole(copy: string): BenchFacts {
  try {
    return checkCopy(copy);
  } catch (error) {
    if (!(error instanceof DatabaseTrouble)) throw error;
    if (error.kind === "newer")
      throw new Refusal(
        "backup",
        "A newer Ustrina has made this backup, and this one cannot read it. Start the newer one.",
      );
    if (error.kind === "older")
      throw new Refusal(
        "backup",
        "This backup is of a trial version of Ustrina, which this one cannot read. Open it with the version that made it.",
      );
    if (error.kind === "damaged")
      throw new Refusal("backup", "This backup is damaged and cannot be used. Take another.");
    if (error.kind === "not a bench") throw new Refusal("backup", "This file is a database, but not of a bench.");
    throw error;
  }
}
