/** `backup [FILE]` and `restore FILE`: the bench as one file, and back. They work on the bench of USTRINA_DATABASE, also while it is in use. */
import { existsSync } from "node:fs";
import path from "node:path";
import { benchFactsText } from "../core/machine/bench-facts";
import { backUp, checkCopy, putInPlace } from "../data/backup";
import { newBackupFile } from "../data/backup-files";
import { openDatabase } from "../data/database";
import { databaseFile } from "../data/server-database";
import { DatabaseTrouble } from "../data/trouble";
import { CliFault } from "./cli-fault";

/** @param to where it goes; into the folder of the backups where it is left out. @returns what was written and what it holds */
export async function backup(to: string | undefined, now: number): Promise<string> {
  const bench = databaseFile();
  if (!existsSync(bench)) throw new CliFault(bench, "", "There is no bench here. USTRINA_DATABASE says where it lies.");
  const file = to ?? newBackupFile(bench, "by hand", now);
  return said(file, async () => {
    const db = openDatabase(bench);
    try {
      return `${path.relative("", file)}: ${benchFactsText(await backUp(db, path.resolve(file)))}, checked.\n`;
    } finally {
      db.$client.close();
    }
  });
}

/** Puts a backup in the place of the bench, which is kept as a backup itself. Nobody may have the bench open. */
export async function restore(file: string, now: number): Promise<string> {
  if (!existsSync(file)) throw new CliFault(file, "", "There is no such file.");
  return said(file, async () => {
    const held = checkCopy(file);
    const kept = putInPlace(file, databaseFile(), now);
    return `Restored: ${benchFactsText(held)}.\n${kept === null ? "" : `The bench as it was: ${path.relative("", kept)}\n`}`;
  });
}

/** Facts of a backup, found whole. */
export async function checkBackup(file: string): Promise<string> {
  return said(file, async () => `Backup: ${benchFactsText(checkCopy(file))}, whole.\n`);
}

async function said(file: string, act: () => Promise<string>): Promise<string> {
  try {
    return await act();
  } catch (error) {
    if (!(error instanceof DatabaseTrouble)) throw error;
    const message =
      error.kind === "locked" ? "The bench is in use. Stop Ustrina, or restore on its page Backup." : error.message;
    throw new CliFault(file, "", message);
  }
}
