/** The most memory that the pages of a browser have held, from the files of the kernel. */
import { readdirSync, readFileSync, writeFileSync } from "node:fs";

const KIB_IN_MB = 1000;

/** Forgets the most there was so far. @returns what pages hold now, MB */
export function peakFromNow(): number {
  for (const pid of pages()) writeFileSync(`/proc/${pid}/clear_refs`, "5");
  return peakMemory();
}

/** The most that the largest page of this program's browsers has held since, MB. */
export function peakMemory(): number {
  return Math.max(0, ...pages().map((pid) => Number(/^VmHWM:\s+(\d+)/m.exec(statusOf(pid))?.[1] ?? 0) / KIB_IN_MB));
}

function pages(): string[] {
  return readdirSync("/proc").filter((pid) => /^\d+$/.test(pid) && isPage(pid) && isOurs(pid));
}

function isPage(pid: string): boolean {
  return textOf(`/proc/${pid}/cmdline`).includes("--type=renderer");
}

function isOurs(pid: string): boolean {
  for (let at = pid; at !== "" && at !== "0"; at = /^PPid:\s+(\d+)/m.exec(statusOf(at))?.[1] ?? "")
    if (at === String(process.pid)) return true;
  return false;
}

function statusOf(pid: string): string {
  return textOf(`/proc/${pid}/status`);
}

/** Empty where the process has ended meanwhile. */
function textOf(file: string): string {
  try {
    return readFileSync(file, "utf8");
  } catch {
    return "";
  }
}
