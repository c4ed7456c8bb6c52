/** Writes the tables of the documents that are made from the code: what makes a result stale, and the fields of each plan. Tests compare them. */
import { readFileSync, writeFileSync } from "node:fs";
import { planTables } from "../src/core/course/plan-tables";
import { PROCEDURES } from "../src/core/course/registry";
import { staleTable } from "../src/core/course/stale-table";
import { SAMPLE_GALVO, SAMPLE_MACHINE } from "../src/testing/sample-machine";

const [BEGIN, END] = ["<!-- table -->", "<!-- end of table -->"];

function write(file: string, table: string): void {
  const [before, rest] = readFileSync(file, "utf8").split(BEGIN);
  const after = rest?.split(END)[1];
  if (before === undefined || after === undefined) throw new Error(`${file} has lost its marks ${BEGIN} and ${END}`);
  writeFileSync(file, `${before}${BEGIN}\n${table}\n${END}${after}`);
}

write("docs/stale.md", staleTable(PROCEDURES));
write("docs/plans.md", planTables(PROCEDURES, [SAMPLE_MACHINE, SAMPLE_GALVO]));
