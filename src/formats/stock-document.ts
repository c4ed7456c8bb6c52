/** All cards of stock as a document, to keep or to take to another bench. */
import { z } from "zod";
import { stockSpecSchema } from "../core/stock/stock-spec";
import { stockResultSchema } from "../core/trial/outcome";
import { type ReadDocument, readDocument } from "./json-document";

export const STOCK_FORMAT = "ustrina stock";
export const STOCK_VERSION = 1;

const time = z.iso.datetime({ offset: true, error: "Give a moment, for example 2026-05-31T09:30:00Z." });

const batchSchema = z.strictObject({
  label: z
    .string()
    .min(1, "Give the batch a name.")
    .max(40, "40 letters at most.")
    .refine((label) => !label.includes("/"), "No stroke (/) in the name of a batch."),
  begun: time,
  /** Squeezed, place by place, mm. */
  thickness: z
    .array(z.strictObject({ mm: z.number().positive("It must be thicker than 0."), taken: time }))
    .default([]),
  results: z
    .array(
      z.strictObject({
        kept: time,
        machine: z.string().default(""),
        note: z.string().default(""),
        result: stockResultSchema,
      }),
    )
    .default([]),
});

export const stockDocumentSchema = z.strictObject({
  format: z.literal(STOCK_FORMAT),
  version: z.literal(STOCK_VERSION),
  cards: z.array(
    z.strictObject({
      ...stockSpecSchema.extend({ note: z.string().max(500).default("") }).shape,
      batches: z.array(batchSchema).default([]),
    }),
  ),
});
export type StockDocument = z.infer<typeof stockDocumentSchema>;

/** Reads a document; a fault names its field, such as `cards[0].batches[1].begun`. */
export function parseStockDocument(text: string): ReadDocument<StockDocument> {
  return readDocument(text, {
    name: "stock",
    format: STOCK_FORMAT,
    version: STOCK_VERSION,
    schema: stockDocumentSchema,
  });
}

/** Whether a text says of itself that it is cards of stock. */
export function isStock(text: string): boolean {
  return new RegExp(`^\\s*\\{\\s*"format"\\s*:\\s*"${STOCK_FORMAT}"`).test(text.replace(/^\uFEFF/, ""));
}
