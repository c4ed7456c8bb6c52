/** What can be wrong with the file of the bench or the disk it lies on, in words that say what to do. */

export type TroubleKind =
  | "full"
  | "read only"
  | "locked"
  | "disk"
  | "damaged"
  | "not a bench"
  | "newer"
  | "older"
  | "moved"
  | "gone";

const WORDS: Record<TroubleKind, { what: string; cure: string }> = {
  full: { what: "The disk with the data of the bench is full.", cure: "Free some space on it" },
  "read only": {
    what: "The data of the bench cannot be written: its disk, folder or file is read-only.",
    cure: "Make it writable",
  },
  locked: {
    what: "Another program holds the data of the bench.",
    cure: "End what it does there",
  },
  disk: {
    what: "The disk with the data of the bench does not answer as it should.",
    cure: "Look whether it is there and sound",
  },
  damaged: {
    what: "The data of the bench is damaged.",
    cure: "Restore the newest backup on the page Backup",
  },
  "not a bench": {
    what: "The file in the place of the bench's data is not the data of a bench.",
    cure: "Name the right file, or restore a backup on the page Backup",
  },
  newer: {
    what: "A newer Ustrina has kept this bench, and this one cannot read it.",
    cure: "Start the newer one, or restore a backup from before",
  },
  older: {
    what: "This bench is of a trial version of Ustrina from before 26 November 2026, which this one cannot read.",
    cure: "Open it once with a version from that week, or restore a newer backup",
  },
  moved: {
    what: "The data file of the bench was moved, deleted or replaced while Ustrina runs. Nothing can be saved.",
    cure: "Put the file back, or restore the newest backup on the page Backup",
  },
  gone: {
    what: "The data file of the bench is missing or empty, but there are backups.",
    cure: "Put the file back, or restore the newest backup on the page Backup. To start an empty bench, move the backup folder away",
  },
};

/** The file cannot be used as it is; nothing of it was changed. */
export class DatabaseTrouble extends Error {
  constructor(readonly kind: TroubleKind) {
    super(`${WORDS[kind].what} ${WORDS[kind].cure}, then try again.`);
  }

  /** For what is tried again by itself. */
  get reason(): string {
    return `${WORDS[this.kind].what} ${WORDS[this.kind].cure}.`;
  }
}

/** By the codes of SQLite [sqlite.org/rescode.html] and of the system, from the start of the code. */
const KINDS: [string, TroubleKind][] = [
  ["SQLITE_FULL", "full"],
  ["ENOSPC", "full"],
  ["EDQUOT", "full"],
  ["SQLITE_READONLY", "read only"],
  ["EROFS", "read only"],
  ["EACCES", "read only"],
  ["EPERM", "read only"],
  ["SQLITE_BUSY", "locked"],
  ["SQLITE_LOCKED", "locked"],
  ["SQLITE_CORRUPT", "damaged"],
  ["SQLITE_NOTADB", "not a bench"],
  ["SQLITE_IOERR", "disk"],
  ["SQLITE_CANTOPEN", "disk"],
  ["EIO", "disk"],
];

/** Which trouble an error tells of, also one that another wraps; `null` = it is none of the disk or the file. */
export function troubleOf(error: unknown): DatabaseTrouble | null {
  if (error instanceof DatabaseTrouble) return error;
  if (!(error instanceof Error)) return null;
  const code = "code" in error ? String(error.code) : "";
  const known = KINDS.find(([start]) => code.startsWith(start));
  return known ? new DatabaseTrouble(known[1]) : troubleOf(error.cause);
}
