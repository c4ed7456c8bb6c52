/**
 * All cards of stock as a table: one line a fact, so that a spreadsheet can sort them, and read back to the same cards.
 *
 * `what` is card, batch, thickness, or the kind and name of a value. Values are in internal units; `unit` names the one in which they are shown, empty
 * for mm. The values of one result have the same time and machine.
 */

import { unitIdSchema } from "../core/metrology/unit-schema";
import type { UnitId } from "../core/metrology/units";
import type { StockResult } from "../core/trial/outcome";
import { type Cell, csvOf, parseCsv } from "./csv";
import { FormatFault, type Parsed, parsing } from "./parsed";
import { STOCK_FORMAT, STOCK_VERSION, type StockDocument, stockDocumentSchema } from "./stock-document";

const COLUMNS = [
  "card",
  "nominal mm",
  "most J/mm2",
  "batch",
  "what",
  "label",
  "value mm",
  "u mm",
  "freedom",
  "unit",
  "when",
  "machine",
  "conditions",
  "note",
] as const;
type Column = (typeof COLUMNS)[number];
type Line = Partial<Record<Column, Cell>>;
type Card = StockDocument["cards"][number];
type Batch = Card["batches"][number];

/** Between the conditions of a result, and between the name of one and what it says. */
const [APART, SAYS] = ["; ", ": "];
/** Names for keys that do not explain themselves. */
const VALUE_WORDS: Readonly<Record<string, string>> = { kerf: "width of cut", offset: "offset per side" };
const BY_WORDS = new Map(Object.entries(VALUE_WORDS).map(([id, words]) => [words, id]));

export function stockCsv({ cards }: StockDocument): string {
  const lines = cards.flatMap((card): Line[] => [
    {
      card: card.name,
      "nominal mm": card.nominalMm,
      "most J/mm2": card.mostJPerMm2 ?? "",
      what: "card",
      note: card.note,
    },
    ...card.batches.flatMap((batch): Line[] => {
      const at = { card: card.name, batch: batch.label };
      return [
        { ...at, what: "batch", when: batch.begun },
        ...batch.thickness.map((t): Line => ({ ...at, what: "thickness", "value mm": t.mm, when: t.taken })),
        ...batch.results.flatMap(({ kept, machine, note, result }) =>
          result.values.map(
            ({ id, label, quantity, unit }): Line => ({
              ...at,
              what: `${result.kind}${SAYS}${VALUE_WORDS[id] ?? id}`,
              label,
              "value mm": quantity.value,
              "u mm": quantity.standardUncertainty,
              freedom: quantity.degreesOfFreedom,
              unit: unit === "mm" ? "" : unit,
              when: kept,
              machine,
              note,
              conditions: result.conditions.map((c) => `${c.label}${SAYS}${c.text}`).join(APART),
            }),
          ),
        ),
      ];
    }),
  ]);
  return csvOf(
    COLUMNS,
    lines.map((line) => COLUMNS.map((column) => line[column] ?? "")),
  );
}

/** @returns the same document; a fault names its line */
export function parseStockCsv(text: string): Parsed<StockDocument> {
  const table = parseCsv(text);
  if (!table.ok) return table;
  return parsing(() => {
    const { header, rows } = table.value;
    const missing = (["card", "what", "value mm", "when"] as const).find((name) => !header.includes(name));
    if (missing) throw new FormatFault(1, 1, `The first line must name the column “${missing}”.`);
    const cards = new Map<string, Card>();
    for (const { line, cells } of rows) {
      const of = (column: Column) => cells[header.indexOf(column)]?.trim() ?? "";
      takeLine(cards, of, line);
    }
    const document = { format: STOCK_FORMAT, version: STOCK_VERSION, cards: [...cards.values()] };
    const read = stockDocumentSchema.safeParse(document);
    if (!read.success) throw new FormatFault(1, 1, read.error.issues[0]?.message ?? "This cannot be read.");
    return read.data;
  });
}

function takeLine(cards: Map<string, Card>, of: (column: Column) => string, line: number): void {
  const name = of("card");
  if (name === "") throw new FormatFault(line, 1, "Give the name of the card.");
  const number = (column: Column) => {
    const value = Number(of(column).replace(",", "."));
    if (of(column) === "" || !Number.isFinite(value)) throw new FormatFault(line, 1, `“${column}” must be a number.`);
    return value;
  };
  if (of("what") === "card") {
    cards.set(name, {
      name,
      nominalMm: number("nominal mm"),
      ...(of("most J/mm2") === "" ? {} : { mostJPerMm2: number("most J/mm2") }),
      note: of("note"),
      batches: cards.get(name)?.batches ?? [],
    });
    return;
  }
  const card = cards.get(name);
  if (!card) throw new FormatFault(line, 1, `A line that says “card” must come first for ${name}.`);
  if (of("what") === "batch") {
    card.batches.push({ label: of("batch"), begun: of("when"), thickness: [], results: [] });
    return;
  }
  const batch = card.batches.find((b) => b.label === of("batch"));
  if (!batch) throw new FormatFault(line, 1, `A line that says “batch” must come first for ${of("batch") || "it"}.`);
  if (of("what") === "thickness") batch.thickness.push({ mm: number("value mm"), taken: of("when") });
  else takeValue(batch, of, number, line);
}

function takeValue(
  batch: Batch,
  of: (column: Column) => string,
  number: (column: Column) => number,
  line: number,
): void {
  // Older files have a space instead of the colon, and the key.
  const [, kind, words = ""] = /^(\w+):? (.+)$/.exec(of("what")) ?? [];
  if (kind !== "kerf" && kind !== "marking")
    throw new FormatFault(
      line,
      1,
      `The column “what” contains “${of("what")}”. Enter card, batch, thickness, or a value such as “kerf: offset per side”.`,
    );
  const freedom = of("freedom");
  const value: StockResult["values"][number] = {
    id: BY_WORDS.get(words) ?? words,
    label: of("label") || words,
    unit: unitIn(of("unit"), line),
    quantity: {
      value: number("value mm"),
      standardUncertainty: number("u mm"),
      degreesOfFreedom: freedom === "" || freedom === "infinite" ? "infinite" : number("freedom"),
    },
  };
  const same = batch.results.find(
    (r) => r.kept === of("when") && r.machine === of("machine") && r.result.values.every((v) => v.id !== value.id),
  );
  if (same) same.result.values.push(value);
  else
    batch.results.push({
      kept: of("when"),
      machine: of("machine"),
      note: of("note"),
      result: {
        kind,
        stock: "imported",
        arithmetic: [],
        values: [value],
        ...purposeIn(conditionsOf(of("conditions"))),
      },
    });
}

/** Older files have lengths alone, without a unit. */
function unitIn(text: string, line: number): UnitId {
  const unit = unitIdSchema.safeParse(text === "" ? "mm" : text);
  if (!unit.success) throw new FormatFault(line, 1, `“${text}” is not a unit of this table. Export the table again.`);
  return unit.data;
}

/** Marking settings have their purpose among their conditions. */
function purposeIn(conditions: StockResult["conditions"]): Pick<StockResult, "conditions" | "purpose"> {
  const purpose = conditions.find((c) => c.label === "Purpose")?.text;
  return purpose === undefined ? { conditions } : { conditions, purpose };
}

function conditionsOf(text: string): StockResult["conditions"] {
  return text.split(APART).flatMap((part) => {
    const at = part.indexOf(SAYS);
    return at > 0 ? [{ label: part.slice(0, at), text: part.slice(at + SAYS.length) }] : [];
  });
}
