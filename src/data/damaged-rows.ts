/** Rows besides machines and trials that do not fit their schema: lists leave them out, the bench says so. */
import { eq, isNotNull } from "drizzle-orm";
import { gaugeSchema } from "../core/metrology/gauge";
import { stockResultSchema } from "../core/procedures/outcome";
import { opticSpecSchema, rotarySpecSchema } from "../core/procedures/part-spec";
import { settingValueSchema } from "../core/procedures/setting";
import { stockSpecSchema } from "../core/stock/stock-spec";
import type { Db } from "./database";
import { eachSound, fromColumn } from "./json-column";
import {
  batch,
  gauge,
  gaugeRevision,
  ledgerEntry,
  part,
  partRevision,
  stock,
  stockResult,
  stockRevision,
} from "./schema";

/** What it is of, in words, and which column. */
export type DamagedOne = { of: string; column: string };

export function damagedRows(db: Db): DamagedOne[] {
  const parts = db
    .select({ kind: part.kind, label: part.label, text: partRevision.spec })
    .from(partRevision)
    .innerJoin(part, eq(part.id, partRevision.partId))
    .all();
  const gauges = db
    .select({ key: gauge.key, text: gaugeRevision.spec })
    .from(gaugeRevision)
    .innerJoin(gauge, eq(gauge.id, gaugeRevision.gaugeId))
    .all();
  const cards = db
    .select({ slug: stock.slug, text: stockRevision.spec })
    .from(stockRevision)
    .innerJoin(stock, eq(stock.id, stockRevision.stockId))
    .all();
  const results = db
    .select({ slug: stock.slug, text: stockResult.result })
    .from(stockResult)
    .innerJoin(batch, eq(batch.id, stockResult.batchId))
    .innerJoin(stock, eq(stock.id, batch.stockId))
    .all();
  const entries = db
    .select({ setting: ledgerEntry.setting, text: ledgerEntry.value })
    .from(ledgerEntry)
    .where(isNotNull(ledgerEntry.value))
    .all();
  return [
    ...damagedOf(parts, ({ kind, text }) =>
      kind === "optic"
        ? fromColumn(opticSpecSchema, text, "part_revision.spec")
        : fromColumn(rotarySpecSchema, text, "part_revision.spec"),
    ).map(({ item, column }) => ({ of: `the ${item.kind} ${item.label}`, column })),
    ...damagedOf(gauges, ({ text }) => fromColumn(gaugeSchema, text, "gauge_revision.spec")).map(
      ({ item, column }) => ({
        of: `the gauge ${item.key}`,
        column,
      }),
    ),
    ...damagedOf(cards, ({ text }) => fromColumn(stockSpecSchema, text, "stock_revision.spec")).map(
      ({ item, column }) => ({ of: `the card ${item.slug}`, column }),
    ),
    ...damagedOf(results, ({ text }) => fromColumn(stockResultSchema, text, "stock_result.result")).map(
      ({ item, column }) => ({ of: `a result on the card ${item.slug}`, column }),
    ),
    ...damagedOf(entries, ({ text }) => fromColumn(settingValueSchema, text ?? "", "ledger_entry.value")).map(
      ({ item, column }) => ({ of: `an entry of ${item.setting} in the ledger`, column }),
    ),
  ];
}

function damagedOf<I>(items: readonly I[], make: (item: I) => unknown): { item: I; column: string }[] {
  return eachSound(items, make).damaged;
}
