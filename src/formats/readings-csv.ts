/** Readings to and from a spreadsheet: a row a reading, the place named, the unit in the header. */
import type { Site } from "../core/coupon/site";
import { LENGTH_UNITS, type LengthUnit, UNITS, unitBySpelling } from "../core/metrology/units";
import type { Answer } from "../core/trial/answer";
import type { AnswerInput } from "../core/trial/answer-input";
import { inputFromText, writtenAnswer } from "../core/trial/answer-text";
import { type Cell, csvOf, parseCsv } from "./csv";
import { FormatFault, type Parsed, parsing } from "./parsed";

const COLUMNS = { site: "site", place: "place", question: "question", words: "which", cannot: "cannot read" } as const;
const READING = /^reading \(([^)]+)\)$/i;

export type CsvReading = { line: number; site: string; input: AnswerInput };

/** A sheet to fill in: a row for every reading that a round still asks for. */
export function sheetToFill(sites: readonly Site[], answers: readonly Answer[], length: LengthUnit): string {
  const rows = sites.flatMap((site) => {
    const taken = answers.filter((a) => a.site === site.id).length;
    return Array.from({ length: Math.max(0, site.repeats - taken) }, (): Cell[] => rowOf(site, "", "", ""));
  });
  return csvOf(header(length), rows);
}

/** What was read, as it was taken: the same columns, and the gauge. */
export function readingsCsv(
  sites: readonly Site[],
  readings: readonly { answer: Answer; raw: string; takenAt: number; gauge: string }[],
  length: LengthUnit,
): string {
  const rows = readings.flatMap(({ answer, raw, takenAt, gauge }): Cell[][] => {
    const site = sites.find((s) => s.id === answer.site);
    if (!site) return [];
    const { content } = answer;
    const written = content.status === "read" ? writtenAnswer(site, content.value, length) : { reading: "", words: "" };
    const number = content.status === "read" && content.value.kind === "quantity";
    const value = number ? bareNumber(written.reading) : written.reading;
    const cannot = content.status === "read" ? "" : content.why;
    return [[...rowOf(site, value, written.words, cannot), raw, gauge, new Date(takenAt).toISOString()]];
  });
  return csvOf([...header(length), "as typed", "gauge", "taken"], rows);
}

/**
 * Reads a filled sheet. Rows without a reading are left out.
 *
 * @param sites of the round that the sheet is for
 */
export function parseReadingsCsv(text: string, sites: readonly Site[]): Parsed<CsvReading[]> {
  const table = parseCsv(text);
  if (!table.ok) return table;
  return parsing(() => {
    const { header, rows } = table.value;
    const at = (name: string) => header.findIndex((h) => h.toLowerCase() === name);
    const siteAt = at(COLUMNS.site);
    const readingAt = header.findIndex((h) => READING.test(h));
    if (siteAt < 0) throw new FormatFault(1, 1, "A column “site” is missing.");
    if (readingAt < 0)
      throw new FormatFault(1, 1, "A column “reading (mm)” is missing: its unit stands in brackets, mm, in or thou.");
    const length = lengthUnit(header[readingAt] ?? "");
    const cell = (cells: readonly string[], index: number) => (index < 0 ? "" : (cells[index] ?? "").trim());
    return rows.flatMap(({ line, cells }): CsvReading[] => {
      const id = cell(cells, siteAt);
      const reading = cell(cells, readingAt);
      const why = cell(cells, at(COLUMNS.cannot));
      if (reading === "" && why === "") return [];
      const site = sites.find((s) => s.id === id);
      if (!site) throw new FormatFault(line, siteAt + 1, `This coupon has no place “${id}”.`);
      if (reading !== "" && why !== "")
        throw new FormatFault(
          line,
          readingAt + 1,
          "A reading, and a reason why it cannot be read: leave one of them empty.",
        );
      if (reading === "") return [{ line, site: id, input: { kind: "cannot read", why } }];
      const words = cell(cells, at(COLUMNS.words));
      const read = inputFromText(site, { reading, words }, length);
      if (read.ok) return [{ line, site: id, input: read.input }];
      throw new FormatFault(line, (read.field === "words" ? at(COLUMNS.words) : readingAt) + 1, read.message);
    });
  });
}

function header(length: LengthUnit): string[] {
  return [
    COLUMNS.site,
    COLUMNS.place,
    COLUMNS.question,
    `reading (${UNITS[length].symbol})`,
    COLUMNS.words,
    COLUMNS.cannot,
  ];
}

function rowOf(site: Site, reading: Cell, words: string, cannot: string): Cell[] {
  return [site.id, site.label, `${site.question}${choices(site)}`, reading, words, cannot];
}

/** What may be written, where that is words. */
function choices({ ask }: Site): string {
  if (ask.kind === "quantity" && ask.signedBy)
    return ` ${ask.signedBy.question} In “${COLUMNS.words}”: ${ask.signedBy.positive}, or ${ask.signedBy.negative}.`;
  if (ask.kind === "ordinal") return ` One of: ${ask.categories.join(", ")}.`;
  if (ask.kind === "choice") return ` One of: ${ask.options.map((o) => o.id).join(", ")}.`;
  return "";
}

function lengthUnit(column: string): LengthUnit {
  const spelled = READING.exec(column)?.[1] ?? "";
  const unit = LENGTH_UNITS.find((u) => u === unitBySpelling(spelled));
  if (!unit) throw new FormatFault(1, 1, `“${spelled}” is no unit of readings here: write mm, in or thou.`);
  return unit;
}

/** The number without its unit: the header names it. */
function bareNumber(text: string): Cell {
  const number = Number(text.split(" ")[0]);
  return Number.isFinite(number) ? number : text;
}
