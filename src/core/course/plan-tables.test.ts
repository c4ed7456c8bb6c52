import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { SAMPLE_GALVO, SAMPLE_MACHINE } from "../../testing/sample-machine";
import { planTables } from "./plan-tables";
import { PROCEDURES } from "./registry";

describe("the tables of the plans", () => {
  it("stand in the documents as the fields are: npm run docs:tables writes them", () => {
    const [, rest] = readFileSync("docs/plans.md", "utf8").split("<!-- table -->\n");
    expect(rest?.split("\n<!-- end of table -->")[0]).toBe(planTables(PROCEDURES, [SAMPLE_MACHINE, SAMPLE_GALVO]));
  });

  it("say what is usual, the limits, and when a field counts, in the words of the form", () => {
    const tables = planTables(PROCEDURES, [SAMPLE_MACHINE]);
    expect(tables).toContain("| Row length | 50 mm | at least 20 mm |  | 50 mm is usually enough. |");
    expect(tables).toMatch(
      /\| Kerf, about \| 0\.2 mm \| at least 0 mm, at most 2 mm \| What is measured: A cut rectangle \|/,
    );
  });
});
