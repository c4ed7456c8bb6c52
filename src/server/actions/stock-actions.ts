"use server";
/** What the pages may ask the server to do with cards of stock. */
import { z } from "zod";
import { database } from "../../data/server-database";
import { momentNow } from "../keeping/clock";
import { loadStock } from "../stock/load-stock";
import * as steps from "../stock/stock-steps";
import { stockInputSchema } from "../stock/stock-steps";
import { fileText, runAndRefresh } from "./run-action";

const id = z.number().int().positive();
const slug = z.string().max(120);

export async function keepStock(input: unknown) {
  return runAndRefresh(stockInputSchema, input, (i) => steps.keepStock(database(), i, momentNow()));
}

export async function setStockArchived(input: unknown) {
  const schema = z.object({ slug, archived: z.boolean() });
  return runAndRefresh(schema, input, (i) => steps.setArchived(database(), i.slug, i.archived, momentNow()));
}

export async function beginBatch(input: unknown) {
  const schema = z.object({ slug, label: z.string().max(200) });
  return runAndRefresh(schema, input, (i) => steps.beginBatch(database(), i.slug, i.label, momentNow()));
}

export async function takeBackBatch(input: unknown) {
  const schema = z.object({ slug, batchId: id });
  return runAndRefresh(schema, input, (i) => steps.takeBackBatch(database(), i.slug, i.batchId));
}

export async function takeThickness(input: unknown) {
  const schema = z.object({
    stock: slug,
    batchId: id,
    text: z.string().max(500),
    gauge: z.string().nullable(),
    sure: z.boolean(),
    clientKey: z.string().min(8).max(80),
  });
  return runAndRefresh(schema, input, (i) => steps.takeThickness(database(), i, momentNow()));
}

export async function undoThickness(input: unknown) {
  const schema = z.object({ stock: slug, batchId: id, id });
  return runAndRefresh(schema, input, (i) => steps.undoThickness(database(), i.stock, i.batchId, i.id, momentNow()));
}

export async function setOffCard(input: unknown) {
  const schema = z.object({ id, off: z.boolean() });
  return runAndRefresh(schema, input, (i) => steps.setOffCard(database(), i.id, i.off, momentNow()));
}

export async function importStock(input: unknown) {
  return runAndRefresh(z.object({ text: fileText }), input, (i) => loadStock(database(), i.text, momentNow()));
}
