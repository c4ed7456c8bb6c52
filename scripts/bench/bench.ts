/** Prints what is promised, what was measured on this machine just now, and whether it holds: all of it, or the parts that are named. `--keep` writes down what was measured. Needs a build. */
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { parseArgs } from "node:util";
import { openDatabase } from "../../src/data/database";
import { addDemoBench } from "../../src/server/demo/demo-bench";
import { fullTrial, roundOf } from "../../src/server/trial/trial-record";
import { accuracy } from "./accuracy";
import { array, energyAndTimes } from "./array";
import { axes } from "./axes";
import { files } from "./files";
import { focusAccuracy } from "./focus";
import { galvo } from "./galvo";
import { grid } from "./grid";
import { kerf } from "./kerf";
import { kills } from "./kills";
import type { Line } from "./line";
import { load } from "./load";
import { pageWeights } from "./pages";
import { parsing } from "./parsing";
import { pictures } from "./pictures";
import { rotary } from "./rotary";
import { slips } from "./slips";
import { solving } from "./solving";
import { markdown, type Part, printed } from "./table";
import { workshop } from "./workshop";

const KEPT = "docs/benchmarks.md";

void main();

async function main(): Promise<void> {
  const folder = mkdtempSync(path.join(tmpdir(), "ustrina-bench-"));
  const file = path.join(folder, "bench.sqlite");
  const db = openDatabase(file);
  addDemoBench(db, Date.now());
  const spec = roundOf(fullTrial(db, 2), 1).spec;
  if (!spec) throw new Error("the trial of the bench is not burned");
  db.$client.close();
  const parts: [name: string, title: string, measure: () => Line[] | Promise<Line[]>][] = [
    ["trial", "Solving, readings, files of a trial", async () => [...(await solving()), ...parsing()]],
    ["files", "Files that are read", () => files(spec)],
    ["results", "Results", () => [...accuracy(), ...focusAccuracy(), ...axes()]],
    ["slips", "Slips", slips],
    ["kerf", "Kerf and drawings", kerf],
    ["rotary", "Rotaries", rotary],
    ["galvo", "The field of a galvo", galvo],
    ["grid", "The field of a galvo by a grid of dots", grid],
    ["array", "Test arrays", array],
    ["energy", "Test arrays: times, and whether energy alone explains the marks", energyAndTimes],
    ["pictures", "Pictures", pictures],
    ["pages", "Pages", async () => [...(await pageWeights(file)), ...(await workshop())]],
    ["load", "Many at once", load],
    ["kills", "Killed", kills],
  ];
  const { values, positionals } = parseArgs({ options: { keep: { type: "boolean" } }, allowPositionals: true });
  const names = parts.map(([name]) => name);
  if (positionals.some((name) => !names.includes(name))) {
    console.error(`Parts are ${names.join(", ")}.`);
    process.exit(2);
  }
  const measured: Part[] = [];
  for (const [name, title, measure] of parts) {
    if (positionals.length > 0 && !positionals.includes(name)) continue;
    const part = { title, lines: await measure() };
    measured.push(part);
    console.log(printed(part));
  }
  rmSync(folder, { recursive: true, force: true });
  const titles = parts.map(([, title]) => title);
  if (values.keep) writeFileSync(KEPT, markdown(readFileSync(KEPT, "utf8"), measured, titles, Date.now()));
  process.exit(measured.every((m) => m.lines.every((l) => l.holds)) ? 0 : 1);
}
