/** Damaged rows besides those of machines and trials. Lists leave them out, and the bench names them. */
import { eq, isNotNull } from "drizzle-orm";
import type { z } from "zod";
import { opticSpecSchema, rotarySpecSchema } from "../core/machine/part-spec";
import { gaugeSchema } from "../core/metrology/gauge";
import { settingValueSchema } from "../core/settings/setting";
import { stockSpecSchema } from "../core/stock/stock-spec";
import { stockResultSchema } from "../core/trial/outcome";
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

/** What the row belongs to, as the object of a sentence, and the damaged column. */
export type DamagedOne = { of: string; column: string };

export function damagedRows(db: Db): DamagedOne[] {
  const revisionsOfParts = db
    .select({ kind: part.kind, label: part.label, text: partRevision.spec })
    .from(partRevision)
    .innerJoin(part, eq(part.id, partRevision.partId));
  const revisionsOfGauges = db
    .select({ key: gauge.key, text: gaugeRevision.spec })
    .from(gaugeRevision)
    .innerJoin(gauge, eq(gauge.id, gaugeRevision.gaugeId));
  const revisionsOfCards = db
    .select({ slug: stock.slug, text: stockRevision.spec })
    .from(stockRevision)
    .innerJoin(stock, eq(stock.id, stockRevision.stockId));
  const results = db
    .select({ slug: stock.slug, text: stockResult.result })
    .from(stockResult)
    .innerJoin(batch, eq(batch.id, stockResult.batchId))
    .innerJoin(stock, eq(stock.id, batch.stockId));
  const entries = db
    .select({ setting: ledgerEntry.setting, text: ledgerEntry.value })
    .from(ledgerEntry)
    .where(isNotNull(ledgerEntry.value));
  return [
    ...damagedOf(revisionsOfParts.all(), "part_revision.spec", (row) => ({
      of: `the ${row.kind} ${row.label}`,
      schema: row.kind === "optic" ? opticSpecSchema : rotarySpecSchema,
    })),
    ...damagedOf(revisionsOfGauges.all(), "gauge_revision.spec", (row) => ({
      of: `the gauge ${row.key}`,
      schema: gaugeSchema,
    })),
    ...damagedOf(revisionsOfCards.all(), "stock_revision.spec", (row) => ({
      of: `the card ${row.slug}`,
      schema: stockSpecSchema,
    })),
    ...damagedOf(results.all(), "stock_result.result", (row) => ({
      of: `a result on the card ${row.slug}`,
      schema: stockResultSchema,
    })),
    ...damagedOf(entries.all(), "ledger_entry.value", (row) => ({
      of: `an entry of ${row.setting} in the ledger`,
      schema: settingValueSchema,
    })),
  ];
}

function damagedOf<R extends { text: string | null }>(
  rows: readonly R[],
  column: string,
  about: (row: R) => { of: string; schema: z.ZodType<unknown> },
): DamagedOne[] {
  return eachSound(rows, (row) => fromColumn(about(row).schema, row.text ?? "", column)).damaged.map(({ item }) => ({
    of: about(item).of,
    column,
  }));
}
