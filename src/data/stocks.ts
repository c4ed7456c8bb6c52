/** Stocks on their cards: batches, how thick they are, and what was kept of them. */
import { and, asc, desc, eq, isNull } from "drizzle-orm";
import { settingsAmong } from "../core/marking/cell-settings";
import { type Gauge, gaugeSchema } from "../core/metrology/gauge";
import type { StockAtHand, Thickness } from "../core/stock/stock-at-hand";
import { type StockSpec, stockSpecSchema } from "../core/stock/stock-spec";
import { thicknessOf } from "../core/stock/thickness";
import { type StockResult, stockResultSchema } from "../core/trial/outcome";
import type { Db } from "./database";
import { eachSound, fromColumn, soundOrNull, toColumn } from "./json-column";
import { everyMachine } from "./machines";
import { batch, gaugeRevision, stock, stockResult, stockRevision, thicknessReading } from "./schema";

export type Stock = { id: number; slug: string; spec: StockSpec; createdAt: number; archivedAt: number | null };
export type Batch = { id: number; stockId: number; label: string; begunAt: number };
export type ThicknessReading = {
  id: number;
  /** The line that it was typed in. */
  raw: string;
  valueMm: number;
  gauge: Gauge | null;
  takenAt: number;
};
export type KeptResult = {
  id: number;
  batchId: number;
  machineId: number | null;
  trialId: number | null;
  roundId: number | null;
  result: StockResult;
  note: string;
  keptAt: number;
};

/** All cards except damaged ones, archived ones included, oldest first. */
export function everyStock(db: Db): Stock[] {
  const rows = db.select().from(stock).orderBy(asc(stock.id)).all();
  return eachSound(rows, (row) => stockOf(db, row)).sound;
}

/** Slugs in use, damaged cards included. */
export function stockSlugs(db: Db): string[] {
  return db
    .select({ slug: stock.slug })
    .from(stock)
    .all()
    .map((row) => row.slug);
}

export function stockBySlug(db: Db, slug: string): Stock | undefined {
  const row = db.select().from(stock).where(eq(stock.slug, slug)).get();
  return row && stockOf(db, row);
}

function stockOf(db: Db, row: typeof stock.$inferSelect): Stock {
  const revision = db
    .select()
    .from(stockRevision)
    .where(eq(stockRevision.stockId, row.id))
    .orderBy(desc(stockRevision.from), desc(stockRevision.id))
    .get();
  if (!revision) throw new RangeError(`stock ${row.slug} has no revision`);
  return { ...row, spec: fromColumn(stockSpecSchema, revision.spec, "stock_revision.spec") };
}

/** @returns its id */
export function addStock(db: Db, slug: string, spec: StockSpec, now: number): number {
  return idIn(addStocks(db, [{ slug, spec }], now), slug);
}

/** Adds many cards in few statements. @returns their ids by slug */
export function addStocks(
  db: Db,
  cards: readonly { slug: string; spec: StockSpec }[],
  now: number,
): ReadonlyMap<string, number> {
  return db.transaction((tx) => {
    const ids = new Map<string, number>();
    for (const some of chunksOf(cards)) {
      const rows = tx
        .insert(stock)
        .values(some.map(({ slug }) => ({ slug, createdAt: now })))
        .returning({ id: stock.id, slug: stock.slug })
        .all();
      for (const { id, slug } of rows) ids.set(slug, id);
      tx.insert(stockRevision)
        .values(
          some.map(({ slug, spec }) => ({
            stockId: idIn(ids, slug),
            spec: toColumn(stockSpecSchema.parse(spec)),
            from: now,
          })),
        )
        .run();
    }
    return ids;
  });
}

/** @throws RangeError if the row is missing */
export function idIn(ids: ReadonlyMap<string, number>, key: string): number {
  const id = ids.get(key);
  if (id === undefined) throw new RangeError(`no row for ${key}`);
  return id;
}

/** Rows per statement, well below the limit of SQLite on bound values. */
const ROWS_A_STATEMENT = 500;

function chunksOf<T>(rows: readonly T[]): T[][] {
  return Array.from({ length: Math.ceil(rows.length / ROWS_A_STATEMENT) }, (_, i) =>
    rows.slice(i * ROWS_A_STATEMENT, (i + 1) * ROWS_A_STATEMENT),
  );
}

export function reviseStock(db: Db, stockId: number, spec: StockSpec, now: number): void {
  db.insert(stockRevision)
    .values({ stockId, spec: toColumn(stockSpecSchema.parse(spec)), from: now })
    .run();
}

export function archiveStock(db: Db, stockId: number, at: number | null): void {
  db.update(stock).set({ archivedAt: at }).where(eq(stock.id, stockId)).run();
}

/** Newest first. */
export function batchesOf(db: Db, stockId: number): Batch[] {
  return db.select().from(batch).where(eq(batch.stockId, stockId)).orderBy(desc(batch.begunAt), desc(batch.id)).all();
}

/** @returns its id */
export function addBatch(db: Db, values: Omit<Batch, "id">): number {
  return db.insert(batch).values(values).returning().get().id;
}

/** Adds many batches in few statements. Each label may occur once per card. @returns their ids by `batchPlace` */
export function addBatches(db: Db, batches: readonly Omit<Batch, "id">[]): ReadonlyMap<string, number> {
  const rows = chunksOf(batches).flatMap((some) => db.insert(batch).values(some).returning().all());
  return new Map(rows.map((row) => [batchPlace(row), row.id]));
}

/** Identifies a batch of a card. Capitals in the label do not matter. */
export function batchPlace({ stockId, label }: Pick<Batch, "stockId" | "label">): string {
  return `${stockId} ${label.toLowerCase()}`;
}

/** Whether anything was ever measured or kept of it, taken back or not. */
export function isUsedBatch(db: Db, batchId: number): boolean {
  const reading = db.select().from(thicknessReading).where(eq(thicknessReading.batchId, batchId)).get();
  return (
    reading !== undefined || db.select().from(stockResult).where(eq(stockResult.batchId, batchId)).get() !== undefined
  );
}

export function deleteBatch(db: Db, batchId: number): void {
  db.delete(batch).where(eq(batch.id, batchId)).run();
}

/** Those that were not taken back, oldest first. */
export function thicknessReadings(db: Db, batchId: number): ThicknessReading[] {
  return db
    .select()
    .from(thicknessReading)
    .leftJoin(gaugeRevision, eq(gaugeRevision.id, thicknessReading.gaugeRevisionId))
    .where(and(eq(thicknessReading.batchId, batchId), isNull(thicknessReading.takenBackAt)))
    .orderBy(asc(thicknessReading.id))
    .all()
    .map(({ thickness_reading: r, gauge_revision: revision }) => ({
      id: r.id,
      raw: r.raw,
      valueMm: r.valueMm,
      takenAt: r.takenAt,
      gauge: revision && soundOrNull(() => fromColumn(gaugeSchema, revision.spec, "gauge_revision.spec")),
    }));
}

export function thicknessOfBatch(db: Db, batchId: number): Thickness | null {
  const readings = thicknessReadings(db, batchId);
  return thicknessOf(
    readings.map((r) => r.valueMm),
    readings.at(-1)?.gauge ?? null,
  );
}

export type NewThickness = Omit<typeof thicknessReading.$inferInsert, "id" | "takenBackAt">;

/** Adds readings, except those with a client key that is already there. @returns how many were added */
export function addThickness(db: Db, readings: readonly NewThickness[]): number {
  const add = (some: NewThickness[]) => db.insert(thicknessReading).values(some).onConflictDoNothing().run().changes;
  return chunksOf(readings).reduce((sum, some) => sum + add(some), 0);
}

export function takeBackThickness(db: Db, batchId: number, id: number, now: number): boolean {
  const which = and(
    eq(thicknessReading.id, id),
    eq(thicknessReading.batchId, batchId),
    isNull(thicknessReading.takenBackAt),
  );
  return db.update(thicknessReading).set({ takenBackAt: now }).where(which).run().changes > 0;
}

/** Results of a batch except those that were undone or are damaged, newest first. */
export function resultsOfBatch(db: Db, batchId: number): KeptResult[] {
  const rows = db
    .select()
    .from(stockResult)
    .where(and(eq(stockResult.batchId, batchId), isNull(stockResult.takenBackAt)))
    .orderBy(desc(stockResult.keptAt), desc(stockResult.id))
    .all();
  return eachSound(rows, resultOf).sound;
}

/** `undefined` where there is none, or it was taken off its card. */
export function resultById(db: Db, id: number): KeptResult | undefined {
  const which = and(eq(stockResult.id, id), isNull(stockResult.takenBackAt));
  const row = db.select().from(stockResult).where(which).get();
  return row && resultOf(row);
}

export function resultsOfTrial(db: Db, trialId: number): KeptResult[] {
  return db
    .select()
    .from(stockResult)
    .where(and(eq(stockResult.trialId, trialId), isNull(stockResult.takenBackAt)))
    .orderBy(desc(stockResult.id))
    .all()
    .map(resultOf);
}

function resultOf(row: typeof stockResult.$inferSelect): KeptResult {
  return { ...row, result: fromColumn(stockResultSchema, row.result, "stock_result.result") };
}

/** @returns its id */
export function addStockResult(
  db: Db,
  { result, ...values }: Omit<KeptResult, "id"> & { solutionId: number | null },
): number {
  return db
    .insert(stockResult)
    .values({ ...values, result: toColumn(result) })
    .returning()
    .get().id;
}

/** @param at when it was taken off its card; `null` = it is put back */
export function takeBackStockResult(db: Db, id: number, at: number | null): void {
  db.update(stockResult).set({ takenBackAt: at }).where(eq(stockResult.id, id)).run();
}

/** A batch names itself by its card and its label. */
export function batchKey(slug: string, label: string): string {
  return `${slug}/${label}`;
}

/** @returns `undefined` where there is no such card or batch */
export function batchByKey(db: Db, key: string): { stock: Stock; batch: Batch } | undefined {
  const cut = key.indexOf("/");
  const found = cut > 0 ? stockBySlug(db, key.slice(0, cut)) : undefined;
  const own = found && batchesOf(db, found.id).find((b) => b.label === key.slice(cut + 1));
  return found && own && { stock: found, batch: own };
}

/** Every batch of every card that is in use, that of `first` in front, else the newest batches first. */
export function stocksAtHand(db: Db, first: string | null = null): StockAtHand[] {
  const machines = new Map(everyMachine(db).map((m) => [m.id, m.spec.name]));
  const all = everyStock(db)
    .filter((s) => s.archivedAt === null)
    .flatMap((s) => batchesOf(db, s.id).map((b) => ({ at: b.begunAt, hand: atHand(db, s, b, machines) })))
    .sort((a, b) => b.at - a.at)
    .map(({ hand }) => hand);
  return [...all.filter((s) => s.key === first), ...all.filter((s) => s.key !== first)];
}

function atHand(db: Db, { id: stockId, slug, spec }: Stock, { id, label }: Batch, machines: Names): StockAtHand {
  return {
    key: batchKey(slug, label),
    name: spec.name,
    batch: label,
    nominalMm: spec.nominalMm,
    thickness: thicknessOfBatch(db, id),
    ...(spec.mostJPerMm2 === undefined ? {} : { mostJPerMm2: spec.mostJPerMm2 }),
    ...markedOf(db, stockId, machines),
  };
}

type Names = ReadonlyMap<number, string>;

/** Of all batches, the newest of each purpose and machine. */
function markedOf(db: Db, stockId: number, machines: Names): Pick<StockAtHand, "marked"> {
  const results = batchesOf(db, stockId).flatMap((b) => resultsOfBatch(db, b.id));
  const all = results
    .filter((r) => r.result.kind === "marking")
    .map(({ machineId, result }) => ({
      purpose: result.purpose ?? "",
      machine: (machineId === null ? undefined : machines.get(machineId)) ?? "",
      settings: settingsAmong(result.values),
    }));
  const marked = all.filter((m, i) => all.findIndex((o) => o.purpose === m.purpose && o.machine === m.machine) === i);
  return marked.length > 0 ? { marked } : {};
}
