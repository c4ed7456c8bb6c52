/** Gives a file its name after it is complete and on the disk. A kill at any moment leaves the old file or the new one. */
import { closeSync, fsyncSync, openSync, renameSync } from "node:fs";
import path from "node:path";

/** Syncs the part, then renames it. @param part in the same folder */
export function settle(part: string, file: string): void {
  onDisk(part);
  renameSync(part, file);
  onDisk(path.dirname(file));
}

function onDisk(fileOrFolder: string): void {
  const handle = openSync(fileOrFolder, "r");
  fsyncSync(handle);
  closeSync(handle);
}
