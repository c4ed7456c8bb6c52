/** Writes the table of what makes a result stale into docs/stale.md; a test sees that it was done. */
import { readFileSync, writeFileSync } from "node:fs";
import { PROCEDURES } from "../src/core/course/registry";
import { staleTable } from "../src/core/course/stale-table";

const FILE = "docs/stale.md";
const [BEGIN, END] = ["<!-- table -->", "<!-- end of table -->"];

const text = readFileSync(FILE, "utf8");
const [before, rest] = text.split(BEGIN);
const after = rest?.split(END)[1];
if (before === undefined || after === undefined) throw new Error(`${FILE} has lost its marks ${BEGIN} and ${END}`);
writeFileSync(FILE, `${before}${BEGIN}\n${staleTable(PROCEDURES)}\n${END}${after}`);
