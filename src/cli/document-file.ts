/** Trial documents on disk. */
import { readFileSync, writeFileSync } from "node:fs";
import type { z } from "zod";
import { type DocumentTrial, trialOfDocument } from "../formats/document-history";
import { documentText, pathText } from "../formats/json-document";
import { parseTrialDocument, type TrialDocument } from "../formats/trial-document";
import { CliFault } from "./cli-fault";

/** @throws CliFault when the file is not there */
export function fileText(file: string): string {
  try {
    return readFileSync(file, "utf8");
  } catch {
    throw new CliFault(file, "", "There is no such file, or it cannot be read.");
  }
}

/** A small JSON file of a known shape. @throws CliFault with the field at fault */
export function jsonFile<T>(file: string, schema: z.ZodType<T>): T {
  const text = fileText(file);
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch {
    throw new CliFault(file, "", "The file is not valid JSON. Export it again.");
  }
  const read = schema.safeParse(raw);
  if (read.success) return read.data;
  const issue = read.error.issues[0];
  throw new CliFault(file, pathText(issue?.path ?? []), issue?.message ?? "This cannot be read.");
}

/** @throws CliFault with the field at fault */
export function loadDocument(file: string): TrialDocument {
  const read = parseTrialDocument(fileText(file));
  if (!read.ok) throw new CliFault(file, read.fault.path, read.fault.message);
  return read.document;
}

/** @throws CliFault with the field at fault */
export function trialIn(file: string, document: TrialDocument): DocumentTrial {
  const read = trialOfDocument(document);
  if (!read.ok) throw new CliFault(file, read.fault.path, read.fault.message);
  return read.trial;
}

export function saveFile(file: string, content: string | Uint8Array): void {
  try {
    writeFileSync(file, content);
  } catch {
    throw new CliFault(file, "", "This file cannot be written.");
  }
}

export function saveDocument(file: string, document: TrialDocument): void {
  saveFile(file, documentText(document));
}
