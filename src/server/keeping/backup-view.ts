/** The backups of the bench, as their page shows them. */
import type { BenchFacts } from "../../core/machine/bench-facts";
import { factsOfCopy } from "../../data/backup";
import { type BackupFile, backupFiles } from "../../data/backup-files";
import { type DatabaseTrouble, troubleOf } from "../../data/trouble";

export type BackupRow = Pick<BackupFile, "name" | "at" | "reason" | "bytes"> & {
  /** What it holds, or why it cannot be used. */
  holds: BenchFacts | { fault: DatabaseTrouble["kind"] };
};

/** Newest first. @param database its file; it is not opened */
export function backupView(database: string): BackupRow[] {
  return backupFiles(database).map(({ file, ...row }) => ({ ...row, holds: holds(file) }));
}

/** When the newest backup was made; `null` = there is none. */
export function lastBackup(database: string): number | null {
  return backupFiles(database)[0]?.at ?? null;
}

function holds(file: string): BackupRow["holds"] {
  try {
    return factsOfCopy(file);
  } catch (error) {
    const trouble = troubleOf(error);
    if (!trouble) throw error;
    return { fault: trouble.kind };
  }
}
