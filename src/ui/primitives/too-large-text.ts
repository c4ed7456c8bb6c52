import { LARGEST_FILE } from "../../formats/largest-file";

/** Why a file is not taken at all; empty where it is. */
export function tooLargeText(file: File): string {
  if (file.size <= LARGEST_FILE) return "";
  return `${file.name} is too large: at most ${LARGEST_FILE / 1024 / 1024} MB are taken at once.`;
}
