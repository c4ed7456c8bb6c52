/**
 * A correction table of a galvo as CSV and JSON: values of nodes in the order, the sense and the unit that a controller takes.
 *
 * The columns of the CSV say what its values are, for example `x (add, mm)`. Both read back to the shift at each node: docs/formats.md.
 */
import { z } from "zod";
import type { TableNode } from "../core/procedures/field/table";
import { TABLE_VALUES, type TableForm } from "../core/procedures/field/table-form";
import { csvOf, parseCsv } from "./csv";
import { documentText, type ReadDocument, readDocument } from "./json-document";
import { FormatFault, type Parsed, parsing } from "./parsed";

const FORMAT = "ustrina field table";
const VERSION = 1;
/** 257 x 257 nodes have some 4 million characters. */
const MOST_CHARACTERS = 8_000_000;
/** Digits after the point of a value in mm; counts are whole. */
const DECIMALS = 6;

const valueKinds = Object.keys(TABLE_VALUES) as [keyof typeof TABLE_VALUES, ...(keyof typeof TABLE_VALUES)[]];

const tableDocumentSchema = z.object({
  format: z.literal(FORMAT),
  version: z.literal(VERSION),
  across: z.number().int().min(2),
  sideMm: z.number().positive(),
  values: z.enum(valueKinds),
  unit: z.enum(["mm", "counts"]),
  countsPerMm: z.number().positive().nullable(),
  /** In the order of the file: drawn place from the middle of the field, mm; value; whether dots were measured there. */
  nodes: z.array(z.tuple([z.number(), z.number(), z.number(), z.number(), z.boolean()])),
});
type TableDocument = z.infer<typeof tableDocumentSchema>;

/** Nodes as a file holds them: places in mm, values as the controller takes them. */
type FileNode = TableDocument["nodes"][number];

/** The first columns of the CSV. */
export const TABLE_BEGINS = "at x mm,at y mm,";

/** Whether a text says of itself that it is a table. */
export function isFieldTable(text: string): boolean {
  return new RegExp(`^\\s*\\{\\s*"format"\\s*:\\s*"${FORMAT}"`).test(text.replace(/^\uFEFF/, ""));
}

/** @param nodes rows from the front, each from the left */
function ordered(nodes: readonly TableNode[], { across, order, values, countsPerMm }: TableForm): FileNode[] {
  const [from, first] = order.split(", ");
  const perMm = countsPerMm ?? 1;
  const shown = (mm: number) => (countsPerMm === null ? Number(mm.toFixed(DECIMALS)) + 0 : Math.round(perMm * mm) + 0);
  return Array.from({ length: across * across }, (_, i): FileNode => {
    const [slow, fast] = [Math.floor(i / across), i % across];
    const [column, step] = first === "x" ? [fast, slow] : [slow, fast];
    const row = from === "front" ? step : across - 1 - step;
    const node = nodes[row * across + column];
    if (!node) throw new RangeError(`nodes: ${nodes.length} are no table of ${across} × ${across}`);
    const { x, y, dx, dy, outside } = node;
    const [vx, vy] = { add: [dx, dy], command: [x + dx, y + dy], "take off": [-dx, -dy] }[values] as [number, number];
    return [Number(x.toFixed(DECIMALS)) + 0, Number(y.toFixed(DECIMALS)) + 0, shown(vx), shown(vy), !outside];
  });
}

function unitOf({ countsPerMm }: Pick<TableForm, "countsPerMm">): string {
  return countsPerMm === null ? "mm" : `${countsPerMm} counts per mm`;
}

export function fieldTableCsv(nodes: readonly TableNode[], form: TableForm): string {
  const says = `(${form.values}, ${unitOf(form)})`;
  return csvOf(
    ["at x mm", "at y mm", `x ${says}`, `y ${says}`, "measured"],
    ordered(nodes, form).map(([x, y, vx, vy, measured]) => [x, y, vx, vy, measured ? "yes" : "no"]),
  );
}

export function fieldTableJson(nodes: readonly TableNode[], form: TableForm, sideMm: number): string {
  const document: TableDocument = {
    format: FORMAT,
    version: VERSION,
    across: form.across,
    sideMm,
    values: form.values,
    unit: form.countsPerMm === null ? "mm" : "counts",
    countsPerMm: form.countsPerMm,
    nodes: ordered(nodes, form),
  };
  return form.across > 65 ? `${JSON.stringify(document)}\n` : documentText(document);
}

/** Shifts by node, whatever the order of the file: rows from the front, each from the left. */
export type ReadTable = { across: number; sideMm: number; nodes: TableNode[] };

export function parseFieldTableCsv(text: string): Parsed<ReadTable> {
  const read = parseCsv(text, MOST_CHARACTERS);
  if (!read.ok) return read;
  return parsing(() => {
    const { header, rows } = read.value;
    const says = /^x \((add|command|take off), (?:mm|([\d.]+) counts per mm)\)$/.exec(header[2] ?? "");
    const [, kind, counts] = says ?? [];
    const values = valueKinds.find((k) => k === kind);
    if (header[0] !== "at x mm" || header[1] !== "at y mm" || !values)
      throw new FormatFault(1, 1, "The columns must be at x mm, at y mm, x (add, mm), y (add, mm) and measured.");
    const nodes = rows.map(({ line, cells }): FileNode => {
      const number = (i: number) => {
        const value = Number(cells[i]);
        if ((cells[i] ?? "").trim() === "" || !Number.isFinite(value))
          throw new FormatFault(line, 1, `“${cells[i] ?? ""}” in column ${i + 1} is not a number.`);
        return value;
      };
      return [number(0), number(1), number(2), number(3), cells[4] === "yes"];
    });
    return tableOf(nodes, values, counts ? Number(counts) : 1, (message) => new FormatFault(1, 1, message));
  });
}

export function parseFieldTableJson(text: string): ReadDocument<ReadTable> {
  const read = readDocument(
    text,
    { name: "table", format: FORMAT, version: VERSION, schema: tableDocumentSchema },
    1_000_000,
  );
  if (!read.ok) return read;
  const { nodes, values, countsPerMm } = read.document;
  const parsed = parsing(() => tableOf(nodes, values, countsPerMm ?? 1, (message) => new FormatFault(1, 1, message)));
  return parsed.ok
    ? { ok: true, document: parsed.value }
    : { ok: false, fault: { path: "nodes", message: parsed.message } };
}

function tableOf(
  nodes: readonly FileNode[],
  values: TableForm["values"],
  perMm: number,
  fault: (message: string) => Error,
): ReadTable {
  const across = Math.round(Math.sqrt(nodes.length));
  if (across < 2 || across * across !== nodes.length)
    throw fault(`${nodes.length} nodes are no square. Export the table again.`);
  const read = nodes.map(([x, y, vx, vy, measured]): TableNode => {
    const [px, py] = [vx / perMm, vy / perMm];
    const [dx, dy] = { add: [px, py], command: [px - x, py - y], "take off": [-px, -py] }[values] as [number, number];
    return { x, y, dx, dy, outside: !measured };
  });
  read.sort((a, b) => (Math.abs(a.y - b.y) > 1e-4 ? a.y - b.y : a.x - b.x));
  const [first, last] = [read[0], read.at(-1)];
  return { across, sideMm: (last?.x ?? 0) - (first?.x ?? 0), nodes: read };
}
