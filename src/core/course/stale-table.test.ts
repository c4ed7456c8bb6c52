import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { CHANGES, changeKindSchema, changesOn } from "../machine/change";
import { effectOfFitting, needsText } from "../machine/need";
import { PROCEDURES } from "./registry";
import { staleTable } from "./stale-table";

describe("the table of what makes a result stale", () => {
  it("in the documents is made from the procedures as they are", () => {
    const [, rest] = readFileSync("docs/stale.md", "utf8").split("<!-- table -->\n");
    expect(rest?.split("\n<!-- end of table -->")[0]).toBe(staleTable(PROCEDURES));
  });

  it("has a row for each kind of change and a column for each procedure", () => {
    const made = { title: "Kerf", needs: [{ on: "optic", effect: "stale" }] } as const;
    const lines = staleTable([...PROCEDURES, made]).split("\n");
    for (const line of lines) expect(line.split(" | ")).toHaveLength(PROCEDURES.length + 2);
    for (const kind of changeKindSchema.options)
      expect(lines.filter((l) => l.includes(CHANGES[kind].happened))).toHaveLength(1);
    expect(lines.find((l) => l.includes("another optic was fitted"))).toMatch(/– \| stale \|$/);
    expect(lines.find((l) => l.includes("fitted before was fitted again"))).toMatch(/– \| check due \|$/);
  });

  it("knows a part that was fitted before from another one", () => {
    const need = { on: "optic", effect: "stale" } as const;
    expect(effectOfFitting(need, false)).toEqual({ effect: "stale", why: "another optic was fitted" });
    expect(effectOfFitting(need, true).effect).toBe("check");
    expect(needsText([need]).check).toEqual(["an optic that was fitted before was fitted again"]);
  });

  it("leaves out what a kind of machine does not have", () => {
    expect(changesOn("galvo")).not.toContain("belt");
    expect(changesOn("CO2 gantry")).toEqual(
      changeKindSchema.options.filter((change) => change !== "head" && change !== "thickness"),
    );
  });
});
