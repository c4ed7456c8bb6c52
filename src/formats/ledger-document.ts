/** The ledger of one machine as a JSON document: every setting over time, with where each value came from. */
import { z } from "zod";
import { machineKindSchema } from "../core/machine/machine-spec";
import { unitIdSchema } from "../core/metrology/unit-schema";
import { givenSettingValueSchema } from "../core/settings/setting";
import { type ReadDocument, readDocument } from "./json-document";

const FORMAT = "ustrina ledger";
const VERSION = 1;
const MOST_ENTRIES = 20_000;

const time = z.iso.datetime();
const LIMIT = 500;
/** What was loaded says so behind its note. */
const LONGEST_NOTE = 2 * LIMIT;

export const ledgerEntryDocumentSchema = z.strictObject({
  setting: z.string().min(1).max(LIMIT),
  holder: z.string().min(1).max(LIMIT),
  role: z.enum(["controller", "copy", "ustrina"]),
  /** Internal units; null = not known. */
  value: givenSettingValueSchema.nullable(),
  /** In which its controller shows it. */
  unit: unitIdSchema,
  /** Standard uncertainty, internal unit; null where none is known. */
  u: z.number().nonnegative().nullable(),
  origin: z.enum(["found", "trial", "hand", "restored"]),
  /** Code of the trial it came from. */
  trial: z.string().max(LIMIT).nullable(),
  readBack: z.boolean(),
  note: z.string().max(LONGEST_NOTE),
  at: time,
  takenBack: time.nullable(),
});

export const ledgerDocumentSchema = z.strictObject({
  format: z.literal(FORMAT),
  version: z.literal(VERSION),
  machine: z.string().min(1),
  kind: machineKindSchema,
  written: time,
  /** Oldest first. */
  entries: z.array(ledgerEntryDocumentSchema).max(MOST_ENTRIES),
});
export type LedgerDocument = z.infer<typeof ledgerDocumentSchema>;

export function ledgerDocument(values: Omit<LedgerDocument, "format" | "version">): LedgerDocument {
  return { format: FORMAT, version: VERSION, ...values };
}

export function parseLedgerDocument(text: string): ReadDocument<LedgerDocument> {
  return readDocument(text, {
    name: "ledger",
    format: FORMAT,
    version: VERSION,
    schema: ledgerDocumentSchema,
  });
}

/** Whether a text says of itself that it is a ledger. */
export function isLedger(text: string): boolean {
  return new RegExp(`^\\s*\\{\\s*"format"\\s*:\\s*"${FORMAT}"`).test(text.replace(/^\uFEFF/, ""));
}
