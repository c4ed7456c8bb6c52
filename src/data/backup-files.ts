/** The backups of a bench lie in one folder beside it, named by their moment (UTC) and why they were made. */
import { existsSync, readdirSync, rmSync, statSync } from "node:fs";
import path from "node:path";

export const BACKUP_REASONS = ["by hand", "before a restore", "before an update", "from a file"] as const;
export type BackupReason = (typeof BACKUP_REASONS)[number];

export type BackupFile = { name: string; file: string; at: number; reason: BackupReason; bytes: number };

const NAME = /^ustrina-(\d{4})(\d\d)(\d\d)-(\d\d)(\d\d)(\d\d)(?:-(\d+))?-([a-z-]+)\.sqlite$/;

/** @param database the file of the bench */
export function backupFolder(database: string): string {
  return path.join(path.dirname(database), "backups");
}

/** Newest first; other files in the folder are not looked at. */
export function backupFiles(database: string): BackupFile[] {
  const folder = backupFolder(database);
  if (!existsSync(folder)) return [];
  return readdirSync(folder)
    .flatMap((name) => {
      const read = readName(name);
      if (!read) return [];
      const file = path.join(folder, name);
      return [{ name, file, ...read, bytes: statSync(file).size }];
    })
    .sort((a, b) => b.at - a.at || b.name.localeCompare(a.name));
}

/** Name of a copy while it is written, and of the files that SQLite adds. */
const PART = /\.part(-wal|-shm|-journal)?$/;
/** An older part was left by a killed process. */
const ABANDONED_MS = 3_600_000;

/** Deletes the parts that killed backups, restores and updates left. @param now milliseconds */
export function sweepParts(database: string, now = Date.now()): void {
  for (const folder of [path.dirname(database), backupFolder(database)]) {
    if (!existsSync(/* turbopackIgnore: true */ folder)) continue;
    for (const name of readdirSync(/* turbopackIgnore: true */ folder)) {
      if (!PART.test(name)) continue;
      const file = path.join(/* turbopackIgnore: true */ folder, name);
      const stat = statSync(file, { throwIfNoEntry: false });
      if (stat && now - stat.mtimeMs > ABANDONED_MS) rmSync(file, { force: true });
    }
  }
}

/** A name that is not taken yet. */
export function newBackupFile(database: string, reason: BackupReason, at: number): string {
  const stamp = new Date(at).toISOString().replace(/[-:]/g, "").replace("T", "-").slice(0, 15);
  for (let i = 1; ; i++) {
    const name = `ustrina-${stamp}${i > 1 ? `-${i}` : ""}-${reason.replaceAll(" ", "-")}.sqlite`;
    const file = path.join(backupFolder(database), name);
    if (!existsSync(file)) return file;
  }
}

function readName(name: string): { at: number; reason: BackupReason } | null {
  const [, y, mo, d, h, mi, s, , why] = NAME.exec(name) ?? [];
  const reason = BACKUP_REASONS.find((r) => r.replaceAll(" ", "-") === why);
  if (!reason) return null;
  return { at: Date.UTC(Number(y), Number(mo) - 1, Number(d), Number(h), Number(mi), Number(s)), reason };
}
