/** The lines of the bench as they are printed, and as docs/benchmarks.md keeps them. */

import { execFileSync } from "node:child_process";
import { cpus, totalmem } from "node:os";
import { CHROMIUM } from "../../e2e/chromium";
import type { Line } from "./line";

export type Part = { title: string; lines: Line[] };

export function printed({ title, lines }: Part): string {
  const rows = lines.map(
    (l) => `${l.holds ? "holds" : "FAILS"}  ${l.measured.padStart(12)}  ${l.target.padEnd(16)} ${l.what}`,
  );
  return [`\n${title}`, ...rows].join("\n");
}

/** @param at when it was measured, ms */
export function markdown(parts: readonly Part[], at: number): string {
  const all = parts.flatMap((part) => part.lines);
  const failing = all.filter((line) => !line.holds).length;
  return `# What is promised, and what was measured

Made by \`npm run bench -- --keep\` on ${new Date(at).toISOString().slice(0, 10)}, on ${machine()}. ${all.length} lines, of which ${failing === 0 ? "all hold" : `${failing} fail`}.
Times depend on the machine and on what else it does; ratios are to something general that was measured in the same run.

${parts.map(section).join("\n\n")}
`;
}

function section({ title, lines }: Part): string {
  const rows = lines.map(
    (l) => `| ${l.what.replaceAll("|", "\\|")} | ${l.measured} | ${l.target} | ${l.holds ? "holds" : "**fails**"} |`,
  );
  return [`## ${title}`, "", "| what | measured | promised | |", "|---|---:|---|---|", ...rows].join("\n");
}

function machine(): string {
  const [first] = cpus();
  const chromium = execFileSync(CHROMIUM.executablePath, ["--version"], { encoding: "utf8" })
    .trim()
    .split(" ")
    .slice(0, 2)
    .join(" ");
  return `${cpus().length} cores (${first?.model.trim() ?? "unknown"}), ${Math.round(totalmem() / 2 ** 30)} GiB, ${process.platform}, Node ${process.version}, ${chromium}`;
}
