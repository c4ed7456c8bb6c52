/** Cards of stock from a file, taken onto this bench: what is there already is left as it is. */
import type { Db } from "../../data/database";
import { everyMachine } from "../../data/machines";
import {
  addBatch,
  addStock,
  addStockResult,
  addThickness,
  batchesOf,
  batchKey,
  everyStock,
  resultsOfBatch,
  thicknessReadings,
} from "../../data/stocks";
import { faultText } from "../../formats/parsed";
import { parseStockCsv } from "../../formats/stock-csv";
import { parseStockDocument, type StockDocument } from "../../formats/stock-document";
import { freeSlug } from "../free-slug";
import { isAhead } from "../happened-at";
import { Refusal } from "../refusal";

/** What was new in a file. */
export type TakenIn = { cards: number; batches: number; readings: number; results: number };

/**
 * @param text a document (JSON) or a table (CSV)
 * @throws Refusal with what is wrong, and where
 */
export function loadStock(db: Db, text: string, now: number): TakenIn {
  const document = read(text);
  refuseFuture(document, now);
  const taken: TakenIn = { cards: 0, batches: 0, readings: 0, results: 0 };
  return db.transaction((tx) => {
    const known = knownOn(tx);
    for (const card of document.cards) takeCard(tx, card, now, taken, known);
    return taken;
  });
}

/** What is on the bench, looked up once however many cards come. */
type Known = { cards: Map<string, { id: number; slug: string }>; slugs: Set<string>; machines: Map<string, number> };

function knownOn(db: Db): Known {
  const all = everyStock(db);
  return {
    cards: new Map(all.map((s) => [s.spec.name.toLowerCase(), s])),
    slugs: new Set(["new", ...all.map((s) => s.slug)]),
    machines: new Map(everyMachine(db).map((m) => [m.spec.name.toLowerCase(), m.id])),
  };
}

function read(text: string): StockDocument {
  if (/^\s*\{/.test(text.replace(/^\uFEFF/, ""))) {
    const document = parseStockDocument(text);
    if (document.ok) return document.document;
    const { path, message } = document.fault;
    throw new Refusal("document", path === "" ? message : `${path}: ${message}`);
  }
  const table = parseStockCsv(text);
  if (!table.ok) throw new Refusal("document", faultText(table));
  return table.value;
}

function takeCard(
  db: Db,
  card: StockDocument["cards"][number],
  now: number,
  taken: TakenIn,
  { cards, slugs, machines }: Known,
): void {
  const { batches, ...spec } = card;
  const name = spec.name.toLowerCase();
  const known = cards.get(name);
  const slug = known?.slug ?? freeSlug(spec.name, "stock", slugs);
  const id = known?.id ?? addStock(db, slug, spec, now);
  if (!known) {
    taken.cards++;
    cards.set(name, { id, slug });
    slugs.add(slug);
  }
  for (const batch of batches) takeBatch(db, { stockId: id, slug }, batch, taken, machines);
}

function takeBatch(
  db: Db,
  { stockId, slug }: { stockId: number; slug: string },
  batch: StockDocument["cards"][number]["batches"][number],
  taken: TakenIn,
  machines: Known["machines"],
): void {
  const known = batchesOf(db, stockId).find((b) => b.label.toLowerCase() === batch.label.toLowerCase());
  const batchId = known?.id ?? addBatch(db, { stockId, label: batch.label, begunAt: Date.parse(batch.begun) });
  if (!known) taken.batches++;
  const readings = thicknessReadings(db, batchId);
  batch.thickness.forEach(({ mm, taken: when }, i) => {
    const takenAt = Date.parse(when);
    if (readings.some((r) => r.takenAt === takenAt && r.valueMm === mm)) return;
    const values = { batchId, raw: String(mm), valueMm: mm, gaugeRevisionId: null, takenAt };
    if (addThickness(db, { ...values, clientKey: `loaded ${batchId} ${takenAt} ${i}` })) taken.readings++;
  });
  const kept = resultsOfBatch(db, batchId);
  for (const { kept: when, machine, note, result } of batch.results) {
    const keptAt = Date.parse(when);
    if (kept.some((k) => k.keptAt === keptAt && k.result.kind === result.kind)) continue;
    const machineId = machines.get(machine.toLowerCase()) ?? null;
    addStockResult(db, {
      ...{ batchId, machineId, trialId: null, roundId: null, solutionId: null, keptAt },
      ...{ result: { ...result, stock: batchKey(slug, batch.label) }, note: note || "from a file" },
    });
    taken.results++;
  }
}

/** A moment that is still to come would carry the time of this bench ahead with it. */
function refuseFuture({ cards }: StockDocument, now: number): void {
  const moments = cards.flatMap((card) =>
    card.batches.flatMap((b) => [b.begun, ...b.thickness.map((t) => t.taken), ...b.results.map((r) => r.kept)]),
  );
  const ahead = moments.find((text) => isAhead(Date.parse(text), now));
  if (ahead) throw new Refusal("document", `${ahead} is still to come by the clock of this computer.`);
}
