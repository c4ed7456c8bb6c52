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

const BEGINS = "\n\n## ";

/**
 * The whole file with new results for these parts. Parts that were not measured stay as they are.
 *
 * @param titles of all parts, in their order @param kept the file as it is @param at when it was measured, ms
 */
export function markdown(kept: string, parts: readonly Part[], titles: readonly string[], at: number): string {
  const sections = new Map<string, string>();
  for (const text of `\n${kept.trimEnd()}`.split(BEGINS).slice(1))
    sections.set(text.slice(0, text.indexOf("\n")), `## ${text}`);
  for (const part of parts) sections.set(part.title, section(part, at));
  const all = titles.flatMap((title) => sections.get(title) ?? []).join("\n\n");
  const count = (end: string) => all.split(end).length - 1;
  const [holds, failing] = [count(" | holds |\n") + (all.endsWith(" | holds |") ? 1 : 0), count(" | **fails** |")];
  return `# What is promised, and what was measured

Made by \`npm run bench -- --keep\`, each part on the date below its title, on ${machine()}. ${holds + failing} lines, of which ${failing === 0 ? "all hold" : `${failing} fail`}.
Times depend on the machine and on what else it does; ratios are to something general that was measured in the same run.

${all}
`;
}

function section({ title, lines }: Part, at: number): string {
  const rows = lines.map(
    (l) => `| ${l.what.replaceAll("|", "\\|")} | ${l.measured} | ${l.target} | ${l.holds ? "holds" : "**fails**"} |`,
  );
  const day = new Date(at).toISOString().slice(0, 10);
  return [
    `## ${title}`,
    "",
    `Measured on ${day}.`,
    "",
    "| what | measured | promised | |",
    "|---|---:|---|---|",
    ...rows,
  ].join("\n");
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
