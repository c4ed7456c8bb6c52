/** All cards of stock as files. */
import type { Db } from "../../data/database";
import { everyMachine } from "../../data/machines";
import { batchesOf, everyStock, resultsOfBatch, thicknessReadings } from "../../data/stocks";
import { documentText } from "../../formats/json-document";
import { stockCsv } from "../../formats/stock-csv";
import { STOCK_FORMAT, STOCK_VERSION, type StockDocument } from "../../formats/stock-document";
import { Refusal } from "../refusal";

const FILES = {
  "stock.json": { mime: "application/json", make: documentText },
  "stock.csv": { mime: "text/csv", make: stockCsv },
} as const;

/** @throws Refusal where there is no such file */
export function stockFile(db: Db, file: string): { name: string; mime: string; text: string } {
  const made = Object.hasOwn(FILES, file) ? FILES[file as keyof typeof FILES] : null;
  if (!made) throw new Refusal("file", "There is no such file.");
  return { name: `ustrina-${file}`, mime: made.mime, text: made.make(stockDocument(db)) };
}

export function stockDocument(db: Db): StockDocument {
  const names = new Map(everyMachine(db).map((m) => [m.id, m.spec.name]));
  return {
    format: STOCK_FORMAT,
    version: STOCK_VERSION,
    cards: everyStock(db).map(({ id, spec }) => ({
      ...spec,
      batches: batchesOf(db, id).map((batch) => ({
        label: batch.label,
        begun: iso(batch.begunAt),
        thickness: thicknessReadings(db, batch.id).map((t) => ({ mm: t.valueMm, taken: iso(t.takenAt) })),
        results: resultsOfBatch(db, batch.id).map(({ machineId, result, note, keptAt }) => ({
          kept: iso(keptAt),
          machine: names.get(machineId ?? -1) ?? "",
          note,
          result,
        })),
      })),
    })),
  };
}

function iso(at: number): string {
  return new Date(at).toISOString();
}
