/** Cards of stock from a file, taken onto this bench: what is there already is left as it is. */
import type { StockSpec } from "../../core/stock/stock-spec";
import type { Db } from "../../data/database";
import { everyMachine } from "../../data/machines";
import {
  addBatches,
  addStockResult,
  addStocks,
  addThickness,
  type Batch,
  batchesOf,
  batchKey,
  batchPlace,
  everyStock,
  idIn,
  type NewThickness,
  resultsOfBatch,
  stockSlugs,
  type ThicknessReading,
  thicknessReadings,
} from "../../data/stocks";
import { faultText } from "../../formats/parsed";
import { parseStockCsv } from "../../formats/stock-csv";
import { parseStockDocument, type StockDocument } from "../../formats/stock-document";
import { freeSlug } from "../free-slug";
import { isAhead } from "../happened-at";
import { Refusal } from "../refusal";

type Card = StockDocument["cards"][number];

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
    const cards = placed(tx, document.cards, known, now, taken);
    const batches = batchesPlaced(tx, cards, taken);
    taken.readings += addThickness(
      tx,
      batches.filter((b) => b.isNew).flatMap((b) => thicknessIn(b, [])),
    );
    for (const { batch, slug, id, isNew } of batches) fillBatch(tx, { id, slug, isNew }, batch, taken, known.machines);
    return taken;
  });
}

/** Cards, slugs and machines of the bench, looked up once per file. */
type Known = { cards: Map<string, { id: number; slug: string }>; slugs: Set<string>; machines: Map<string, number> };

function knownOn(db: Db): Known {
  const all = everyStock(db);
  return {
    cards: new Map(all.map((s) => [s.spec.name.toLowerCase(), s])),
    slugs: new Set(["new", ...stockSlugs(db)]),
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

type PlacedCard = { card: Card; id: number; slug: string; isNew: boolean };

/** Pairs each card of the file with the card of the same name on the bench. Adds the missing ones. */
function placed(db: Db, given: readonly Card[], { cards, slugs }: Known, now: number, taken: TakenIn): PlacedCard[] {
  const added = new Map<string, { slug: string; spec: StockSpec }>();
  for (const { batches: _, ...spec } of given) {
    const name = spec.name.toLowerCase();
    if (cards.has(name) || added.has(name)) continue;
    const slug = freeSlug(spec.name, "stock", slugs);
    slugs.add(slug);
    added.set(name, { slug, spec });
  }
  taken.cards += added.size;
  const ids = addStocks(db, [...added.values()], now);
  return given.map((card): PlacedCard => {
    const name = card.name.toLowerCase();
    const there = cards.get(name);
    if (there) return { card, id: there.id, slug: there.slug, isNew: false };
    const slug = added.get(name)?.slug ?? "";
    return { card, id: idIn(ids, slug), slug, isNew: true };
  });
}

type PlacedBatch = { batch: Card["batches"][number]; id: number; slug: string; isNew: boolean };

function batchesPlaced(db: Db, cards: readonly PlacedCard[], taken: TakenIn): PlacedBatch[] {
  const there = new Map(
    cards.flatMap(({ id, isNew }) => (isNew ? [] : batchesOf(db, id).map((b) => [batchPlace(b), b.id] as const))),
  );
  const added = new Map<string, Omit<Batch, "id">>();
  for (const { card, id: stockId } of cards)
    for (const { label, begun } of card.batches) {
      const place = batchPlace({ stockId, label });
      if (!there.has(place) && !added.has(place)) added.set(place, { stockId, label, begunAt: Date.parse(begun) });
    }
  taken.batches += added.size;
  const ids = addBatches(db, [...added.values()]);
  const seen = new Set(there.keys());
  return cards.flatMap(({ card, id: stockId, slug }) =>
    card.batches.map((batch) => {
      const place = batchPlace({ stockId, label: batch.label });
      // A file may name a batch twice. The second time the batch already has readings.
      const isNew = !seen.has(place);
      seen.add(place);
      return { batch, slug, id: there.get(place) ?? idIn(ids, place), isNew };
    }),
  );
}

/** Thickness readings of the file that the batch does not have yet. */
function thicknessIn(
  { id: batchId, batch }: Pick<PlacedBatch, "id" | "batch">,
  there: readonly ThicknessReading[],
): NewThickness[] {
  return batch.thickness.flatMap(({ mm, taken: when }, i) => {
    const takenAt = Date.parse(when);
    if (there.some((r) => r.takenAt === takenAt && r.valueMm === mm)) return [];
    return [
      {
        batchId,
        raw: String(mm),
        valueMm: mm,
        gaugeRevisionId: null,
        takenAt,
        clientKey: `loaded ${batchId} ${takenAt} ${i}`,
      },
    ];
  });
}

/** Adds the readings and results that the batch does not have yet. */
function fillBatch(
  db: Db,
  { id: batchId, slug, isNew }: Omit<PlacedBatch, "batch">,
  batch: PlacedBatch["batch"],
  taken: TakenIn,
  machines: Known["machines"],
): void {
  if (!isNew) taken.readings += addThickness(db, thicknessIn({ id: batchId, batch }, thicknessReadings(db, batchId)));
  const kept = isNew ? [] : resultsOfBatch(db, batchId);
  for (const { kept: when, machine, note, result } of batch.results) {
    const keptAt = Date.parse(when);
    if (kept.some((k) => k.keptAt === keptAt && k.result.kind === result.kind)) continue;
    const machineId = machines.get(machine.toLowerCase()) ?? null;
    addStockResult(db, {
      batchId,
      machineId,
      trialId: null,
      roundId: null,
      solutionId: null,
      keptAt,
      result: { ...result, stock: batchKey(slug, batch.label) },
      note: note || "from a file",
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
