/**
 * Tables as CSV. [RFC 4180]
 *
 * Written with commas and decimal points. Text that a spreadsheet would take for a formula gets an apostrophe in front, which is
 * taken off again on reading. Read with commas, semicolons or tabs, whichever the header uses.
 */
import Papa from "papaparse";
import { FormatFault, type Parsed, parsing, refuseLarge } from "./parsed";

export type Cell = string | number | null;

export type CsvTable = {
  header: string[];
  rows: { line: number; cells: string[] }[];
};

const MOST_CHARACTERS = 2_000_000;
const DELIMITERS = [",", ";", "\t"] as const;
/** First characters that make a formula of a text. */
const FORMULA = /^[=+\-@\t\r]/;

export function csvOf(header: readonly string[], rows: readonly (readonly Cell[])[]): string {
  const lines = [header, ...rows].map((row) => row.map(written).join(","));
  return `${lines.join("\r\n")}\r\n`;
}

/**
 * @param mostCharacters that are read
 * @returns every row with as many cells as the header; empty lines are left out
 */
export function parseCsv(text: string, mostCharacters = MOST_CHARACTERS): Parsed<CsvTable> {
  return parsing(() => {
    refuseLarge(text, mostCharacters);
    const body = text.replace(/^\uFEFF/, "");
    const first = body.split(/\r?\n/, 1)[0] ?? "";
    if (first.trim() === "") throw new FormatFault(1, 1, "The first line must name the columns.");
    const delimiter = DELIMITERS.reduce((a, b) => (first.split(b).length > first.split(a).length ? b : a));
    const read = Papa.parse<string[]>(body, { delimiter, skipEmptyLines: false });
    const fault = read.errors[0];
    if (fault) throw new FormatFault((fault.row ?? 0) + 1, 1, `${fault.message}.`);
    const [header = [], ...rest] = read.data;
    const rows = rest
      .map((cells, i) => ({ line: i + 2, cells: cells.map(plainText) }))
      .filter((row) => row.cells.some((cell) => cell.trim() !== ""));
    for (const row of rows)
      if (row.cells.length !== header.length)
        throw new FormatFault(
          row.line,
          1,
          `${row.cells.length} cells where the first line names ${header.length} columns.${row.cells.length > header.length && delimiter === "," ? " Was a decimal comma written? Save the table with semicolons." : ""}`,
        );
    return { header: header.map((h) => plainText(h).trim()), rows };
  });
}

function written(cell: Cell): string {
  if (cell === null) return "";
  if (typeof cell === "number") return String(cell);
  const safe = FORMULA.test(cell) ? `'${cell}` : cell;
  return /[",\r\n]/.test(safe) ? `"${safe.replaceAll('"', '""')}"` : safe;
}

function plainText(cell: string): string {
  return cell.startsWith("'") && FORMULA.test(cell.slice(1)) ? cell.slice(1) : cell;
}
