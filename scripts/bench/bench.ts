/** Prints what is promised, what was measured on this machine just now, and whether it holds; \`--keep\` writes it down. Needs a build. */
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { openDatabase } from "../../src/data/database";
import { addDemoBench } from "../../src/server/demo/demo-bench";
import { fullTrial, roundOf } from "../../src/server/trial/trial-record";
import { accuracy } from "./accuracy";
import { files } from "./files";
import { kills } from "./kills";
import type { Line } from "./line";
import { load } from "./load";
import { pageWeights } from "./pages";
import { parsing } from "./parsing";
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
  const measured: Part[] = [];
  const part = async (title: string, measure: () => Line[] | Promise<Line[]>) => {
    const made = { title, lines: await measure() };
    measured.push(made);
    console.log(printed(made));
  };
  await part("Solving, readings, files of a trial", async () => [...(await solving()), ...parsing()]);
  await part("Files that are read", () => files(spec));
  await part("Results", accuracy);
  await part("Pages", async () => [...(await pageWeights(file)), ...(await workshop())]);
  await part("Many at once", load);
  await part("Killed", kills);
  rmSync(folder, { recursive: true, force: true });
  if (process.argv.includes("--keep")) writeFileSync(KEPT, markdown(measured, Date.now()));
  process.exit(measured.every((m) => m.lines.every((l) => l.holds)) ? 0 : 1);
}
