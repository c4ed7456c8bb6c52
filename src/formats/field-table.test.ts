import { describe, expect, it } from "vitest";
import type { TableForm } from "../core/procedures/field/table-form";
import { fieldTableCsv, fieldTableJson, parseFieldTableCsv, parseFieldTableJson } from "./field-table";

const FORM: TableForm = { across: 3, values: "add", order: "front, x", countsPerMm: null };
/** Rows from the front left. Each node has another shift. */
const NODES = Array.from({ length: 9 }, (_, i) => {
  const [column, row] = [i % 3, Math.floor(i / 3)];
  return { x: 50 * (column - 1), y: 50 * (row - 1), dx: 0.1 * column + 0.01, dy: -0.2 * row, outside: i === 0 };
});

const rowsOf = (text: string) =>
  text
    .trim()
    .split("\r\n")
    .slice(1)
    .map((line) => line.split(","));

describe("a table as CSV", () => {
  it.each([
    ["front, x", [0, 1, 2, 3]],
    ["front, y", [0, 3, 6, 1]],
    ["back, x", [6, 7, 8, 3]],
    ["back, y", [6, 3, 0, 7]],
  ] as const)("has its nodes in the order that was chosen: %s", (order, first) => {
    const rows = rowsOf(fieldTableCsv(NODES, { ...FORM, order }));
    expect(rows.slice(0, 4).map(([x, y]) => [Number(x), Number(y)])).toEqual(
      first.map((i) => [NODES[i]?.x, NODES[i]?.y]),
    );
  });

  it("says shifts, commanded points or errors, in mm or whole counts", () => {
    const at5 = (form: Partial<TableForm>) => rowsOf(fieldTableCsv(NODES, { ...FORM, ...form }))[5] ?? [];
    expect(at5({})).toEqual(["50", "0", "0.21", "-0.2", "yes"]);
    expect(at5({ values: "command" })).toEqual(["50", "0", "50.21", "-0.2", "yes"]);
    expect(at5({ values: "take off" })).toEqual(["50", "0", "-0.21", "0.2", "yes"]);
    expect(at5({ countsPerMm: 595.8 })).toEqual(["50", "0", "125", "-119", "yes"]);
    expect(rowsOf(fieldTableCsv(NODES, FORM))[0]?.[4]).toBe("no");
  });

  it("reads back to the same shifts, whatever its order, sense and unit", () => {
    for (const order of ["front, x", "back, y"] as const)
      for (const values of ["add", "command", "take off"] as const)
        for (const countsPerMm of [null, 1000]) {
          const form: TableForm = { ...FORM, order, values, countsPerMm };
          const csv = parseFieldTableCsv(fieldTableCsv(NODES, form));
          const json = parseFieldTableJson(fieldTableJson(NODES, form, 100));
          if (!csv.ok || !json.ok) throw new Error("not read");
          for (const read of [csv.value, json.document]) {
            expect(read).toMatchObject({ across: 3, sideMm: 100 });
            read.nodes.forEach((n, i) => {
              expect(n.dx).toBeCloseTo(NODES[i]?.dx ?? 0, 6);
              expect(n.dy).toBeCloseTo(NODES[i]?.dy ?? 0, 6);
              expect(n.outside).toBe(i === 0);
            });
          }
        }
  });

  it.each([
    ["other columns", "x,y,dx,dy,m\r\n1,2,3,4,yes\r\n", /columns must be/],
    ["a node too few", fieldTableCsv(NODES, FORM).split("\r\n").slice(0, -2).join("\r\n"), /8 nodes are no square/],
    ["a word for a number", fieldTableCsv(NODES, FORM).replace("0.21", "much"), /Line 7|“much” in column 3/],
  ])("is refused with %s", (_name, text, why) => {
    const read = parseFieldTableCsv(text);
    expect(read.ok ? "" : `Line ${read.line}: ${read.message}`).toMatch(why);
  });

  it("is refused as JSON of another kind", () => {
    const read = parseFieldTableJson('{"format": "else", "version": 1}');
    expect(read.ok ? "" : read.fault.message).toMatch(/not a table document/);
  });
});
