/** A file takes its name only once it is whole and on the disk: a kill at any moment leaves the old one or the new one. */
import { closeSync, fsyncSync, openSync, renameSync } from "node:fs";
import path from "node:path";

/** On the disk, then under its name. @param part in the same folder */
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
