/** Cards of stock: made, changed, measured. */
import { z } from "zod";
import { parseReading } from "../../core/metrology/reading-text";
import { APART_WITH_DECIMAL_COMMAS, readQuantities } from "../../core/trial/draft";
import type { Db } from "../../data/database";
import { allGauges } from "../../data/gauges";
import { everyMachine } from "../../data/machines";
import {
  addBatch,
  addStock,
  addThickness,
  archiveStock,
  type Batch,
  batchesOf,
  batchKey,
  deleteBatch,
  everyStock,
  isUsedBatch,
  reviseStock,
  type Stock,
  stockBySlug,
  stockSlugs,
  takeBackStockResult,
  takeBackThickness,
} from "../../data/stocks";
import { trialsOfMachine } from "../../data/trials";
import { FormFaults } from "../form-faults";
import { freeSlug } from "../free-slug";
import { offeredProcedures } from "../procedures/procedures";
import { stocksOfTrials } from "../procedures/stocks-of-trials";
import { Refusal } from "../refusal";

const LONGEST_NAME = 80;
const LONGEST_LABEL = 40;
/** Thicker stock is not cut by these machines. (common practice, no source) */
const THICKEST_MM = 100;
/** A reading this far from what it is sold as is another stock, or a slip. */
const FAR_OFF = 3;
const MOST_READINGS = 50;
const MINUS = /(?:^|[\s;,])[-−]/;

export const stockInputSchema = z.object({
  /** `null` = a new card. */
  slug: z.string().max(120).nullable(),
  name: z.string().max(200),
  /** As typed. */
  nominal: z.string().max(60),
  /** Energy per area that chars it, J/mm^2, as typed; empty where it is not known. */
  limit: z.string().max(60).optional(),
  note: z.string().max(500),
  /** Of its first batch; only for a new card. */
  batch: z.string().max(200).default(""),
});
export type StockInput = z.infer<typeof stockInputSchema>;

/** Makes a card, or changes what stands on its head from now on. @returns its slug @throws Refusal with all faults of the form */
export function keepStock(db: Db, input: StockInput, now: number): string {
  const known = input.slug === null ? null : knownStock(db, input.slug);
  const form = new FormFaults();
  const spec = {
    name: form.read(() => nameFrom(db, input), ""),
    nominalMm: form.read(() => nominalFrom(input), 1),
    note: input.note.trim(),
    ...form.read(() => limitFrom(input), {}),
  };
  const batch = form.read(() => labelOf(input.batch || "1"), "");
  form.refuse();
  return db.transaction((tx) => {
    if (known) {
      reviseStock(tx, known.id, spec, now);
      return known.slug;
    }
    const slug = freeSlug(spec.name, "stock", new Set(["new", ...stockSlugs(tx)]));
    const stockId = addStock(tx, slug, spec, now);
    addBatch(tx, { stockId, label: batch, begunAt: now });
    return slug;
  });
}

function nameFrom(db: Db, { slug, name: typed }: StockInput): string {
  const name = typed.trim();
  if (name === "") throw new Refusal("name", "Enter the kind of stock, for example birch plywood 3 mm.");
  if (name.length > LONGEST_NAME) throw new Refusal("name", `${LONGEST_NAME} letters at most.`);
  if (everyStock(db).some((s) => s.slug !== slug && s.spec.name.toLowerCase() === name.toLowerCase()))
    throw new Refusal("name", "Another card has this name. Enter a different name, or begin a new batch on that card.");
  return name;
}

function nominalFrom({ nominal }: StockInput): number {
  if (MINUS.test(nominal)) throw new Refusal("nominal", "It must be thicker than 0.");
  const read = parseReading(nominal, "length", "mm");
  if (!read.ok) throw new Refusal("nominal", `${read.message} As it is sold, for example 3 mm.`);
  if (!(read.value > 0)) throw new Refusal("nominal", "It must be thicker than 0.");
  if (read.value > THICKEST_MM) throw new Refusal("nominal", `${THICKEST_MM} mm at most: was a unit forgotten?`);
  return read.value;
}

function limitFrom({ limit = "" }: StockInput): { mostJPerMm2?: number } {
  const text = limit.replace(/J\s*\/\s*mm(²|\^?2)\s*$/i, "").trim();
  if (text === "") return {};
  const read = parseReading(text, "ratio", "one");
  if (!read.ok) throw new Refusal("limit", `${read.message} Enter the energy per area, for example 5.`);
  if (!(read.value > 0)) throw new Refusal("limit", "Enter more than 0 J/mm², or nothing if no limit is known.");
  return { mostJPerMm2: read.value };
}

function labelOf(typed: string): string {
  const label = typed.trim();
  if (label === "") throw new Refusal("batch", "Give the batch a name, for example the day it came.");
  if (label.length > LONGEST_LABEL) throw new Refusal("batch", `${LONGEST_LABEL} letters at most.`);
  if (label.includes("/")) throw new Refusal("batch", "No stroke (/) in the name of a batch.");
  return label;
}

/** @throws Refusal where there is no such card */
export function knownStock(db: Db, slug: string): Stock {
  const found = stockBySlug(db, slug);
  if (!found) throw new Refusal("stock", "There is no such card.");
  return found;
}

export function setArchived(db: Db, slug: string, archived: boolean, now: number): void {
  archiveStock(db, knownStock(db, slug).id, archived ? now : null);
}

/** A new delivery: what depends on the stock is due for a check from now on. */
export function beginBatch(db: Db, slug: string, typed: string, now: number): void {
  const stock = knownStock(db, slug);
  const label = labelOf(typed);
  if (batchesOf(db, stock.id).some((b) => b.label.toLowerCase() === label.toLowerCase()))
    throw new Refusal("batch", "There is a batch of this name already.");
  addBatch(db, { stockId: stock.id, label, begunAt: now });
}

/** A batch that was begun by mistake is gone again, while nothing hangs on it. */
export function takeBackBatch(db: Db, slug: string, batchId: number): void {
  const { stock, batch } = knownBatch(db, slug, batchId);
  if (batchesOf(db, stock.id).length === 1) throw new Refusal("batch", "It is the only batch of this stock.");
  if (isUsedBatch(db, batch.id) || trialsOnBatch(db, batchKey(slug, batch.label)))
    throw new Refusal("batch", "Something was measured on this batch: it stays.");
  deleteBatch(db, batch.id);
}

function trialsOnBatch(db: Db, key: string): boolean {
  return everyMachine(db).some((machine) =>
    offeredProcedures(machine.spec.kind)
      .filter((p) => p.stock)
      .some((procedure) => {
        const stockOf = stocksOfTrials(db, machine.id, procedure);
        return trialsOfMachine(db, machine.id).some((t) => t.procedure === procedure.id && stockOf(t.id) === key);
      }),
  );
}

export type ThicknessInput = {
  stock: string;
  batchId: number;
  /** One or several, as typed. */
  text: string;
  /** `null` = not known. */
  gauge: string | null;
  /** That what is far off is right was said. */
  sure: boolean;
  clientKey: string;
};

/** Takes thickness readings of a batch; they are on disk when this returns. @returns how many were taken now */
export function takeThickness(db: Db, input: ThicknessInput, now: number): number {
  const { stock, batch } = knownBatch(db, input.stock, input.batchId);
  const gauge = input.gauge === null ? null : (allGauges(db).find((g) => g.spec.id === input.gauge) ?? null);
  if (input.gauge !== null && !gauge) throw new Refusal("gauge", "Choose a gauge.");
  if (MINUS.test(input.text)) throw new Refusal("text", "It must be thicker than 0.");
  const unit = gauge?.spec.unit ?? "mm";
  const read = readQuantities(input.text, "length", unit, APART_WITH_DECIMAL_COMMAS);
  if (!read.ok) throw new Refusal("text", read.message);
  if (read.value.length === 0) throw new Refusal("text", "Type one thickness or several, for example 2.96 3.01 2.98.");
  if (read.value.length > MOST_READINGS) throw new Refusal("text", `${MOST_READINGS} at once at most.`);
  const { nominalMm } = stock.spec;
  for (const value of read.value) {
    if (!(value > 0)) throw new Refusal("text", "Thickness must be larger than 0.");
    if (!input.sure && (value > FAR_OFF * nominalMm || value < nominalMm / FAR_OFF))
      throw new Refusal("sure", `${value.toFixed(2)} mm for a stock of ${nominalMm} mm: is that right?`);
  }
  return db.transaction((tx) =>
    read.value.reduce((count, valueMm, i) => {
      const values = {
        batchId: batch.id,
        raw: input.text.trim(),
        valueMm,
        gaugeRevisionId: gauge?.revisionId ?? null,
        clientKey: `${input.clientKey} ${i}`,
        takenAt: now,
      };
      return count + addThickness(tx, [values]);
    }, 0),
  );
}

/** One thickness reading is taken back. */
export function undoThickness(db: Db, slug: string, batchId: number, id: number, now: number): void {
  const { batch } = knownBatch(db, slug, batchId);
  if (!takeBackThickness(db, batch.id, id, now)) throw new Refusal("reading", "This reading is taken back already.");
}

/** Something kept is taken off the card, or put back on it. */
export function setOffCard(db: Db, id: number, off: boolean, now: number): void {
  takeBackStockResult(db, id, off ? now : null);
}

function knownBatch(db: Db, slug: string, batchId: number): { stock: Stock; batch: Batch } {
  const stock = knownStock(db, slug);
  const batch = batchesOf(db, stock.id).find((b) => b.id === batchId);
  if (!batch) throw new Refusal("batch", "This stock has no such batch.");
  return { stock, batch };
}
