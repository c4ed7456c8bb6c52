/**
 * A trial as one JSON document: exactly the trial, with the snapshots it stands on. Written by Ustrina, or by hand: everything that
 * can be worked out may be left out, quantities are texts with their unit.
 */
import { z } from "zod";
import { roundSpecSchema } from "../core/coupon/round-spec";
import { gaugeSchema } from "../core/metrology/gauge";
import { purposeSchema } from "../core/procedures/contract";
import { draftSchema } from "../core/procedures/draft";
import { machineSpecSchema } from "../core/procedures/machine-spec";
import { settingValueSchema } from "../core/procedures/setting";
import { verdictSchema } from "../core/procedures/verdict";
import { tooLarge } from "./parsed";
import { broughtUpToDate, VERSION } from "./trial-migrations";

export const FORMAT = "ustrina trial";

const MOST_CHARACTERS = 8_000_000;
/** Beginnings and separators in JSON: a trial of a thousand readings has some ten thousand. */
const MOST_MARKS = 200_000;
const [COMMA, OPEN_LIST, OPEN_OBJECT] = [44, 91, 123];

/** ISO 8601. */
const time = z.iso.datetime();

const sittingSchema = z.strictObject({
  id: z.string().min(1),
  /** Id of one of the gauges. */
  gauge: z.string().min(1),
  /** What the closed jaws read, with its unit. */
  zero: z.string().default("0 mm"),
  /** The same of the inside jaws; null = not looked at. */
  insideZero: z.string().nullable().default(null),
  begun: time.nullable().default(null),
});

const readingSchema = z.strictObject({
  site: z.string().min(1),
  /** As typed, with its unit; empty where it cannot be read. */
  reading: z.string().default(""),
  /** Which rows stand out and the like, where a site asks it in words. */
  which: z.string().default(""),
  cannotRead: z.string().nullable().default(null),
  /** Id of the sitting; the last one where it is left out. */
  sitting: z.string().optional(),
  from: z.enum(["typed", "wedge", "practice", "picture"]).default("typed"),
  taken: time.nullable().default(null),
});

const roundSchema = z.strictObject({
  purpose: purposeSchema.default("measure"),
  /** Texts by field, as on the Lay out screen; the usual layout where a field is left out. */
  plan: draftSchema.default({}),
  burned: time.nullable().default(null),
  /** What was burned and asked, frozen; worked out from the plan where it is left out. */
  spec: roundSpecSchema.nullable().default(null),
  /** What the controller held during the burn, by setting; null = not known. */
  inForce: z.record(z.string(), settingValueSchema.nullable()).default({}),
  readBack: time.nullable().default(null),
  sittings: z.array(sittingSchema).default([]),
  readings: z.array(readingSchema).default([]),
});

export const trialDocumentSchema = z.strictObject({
  format: z.literal(FORMAT),
  version: z.literal(VERSION),
  procedure: z.string().min(1),
  procedureVersion: z.number().int().positive().optional(),
  /** Burned on the coupon. */
  code: z.string().min(1).default("T-1"),
  machine: machineSpecSchema,
  /** With its unit; the machine's or the usual one where it is left out. */
  tolerance: z.string().optional(),
  /** Choices made while correcting. */
  decisions: z.record(z.string(), z.string()).default({}),
  gauges: z.array(gaugeSchema).default([]),
  begun: time.nullable().default(null),
  ended: z
    .strictObject({ how: z.enum(["proved", "held", "given up"]), at: time })
    .nullable()
    .default(null),
  rounds: z.array(roundSchema).default([]),
  /** As they were accepted, by round from 1. */
  verdicts: z
    .array(z.strictObject({ round: z.number().int().positive(), at: time, verdict: verdictSchema }))
    .default([]),
});
export type TrialDocument = z.infer<typeof trialDocumentSchema>;

export type DocumentFault = { path: string; message: string };
export type ReadDocument = { ok: true; document: TrialDocument } | { ok: false; fault: DocumentFault };

/** Reads a document; a fault names its field, such as `rounds[0].readings[3].site`. */
export function parseTrialDocument(text: string): ReadDocument {
  if (text.length > MOST_CHARACTERS) return bad("", tooLarge(MOST_CHARACTERS));
  if (marksIn(text) > MOST_MARKS)
    return bad("", "The document holds more than any trial: it is damaged, or something else.");
  let raw: unknown;
  try {
    raw = JSON.parse(text.replace(/^\uFEFF/, ""));
  } catch (error) {
    return bad("", `This is no JSON: ${error instanceof Error ? error.message : "it cannot be read"}.`);
  }
  if (typeof raw !== "object" || raw === null || Array.isArray(raw))
    return bad("", "This is no trial document: it is no JSON object.");
  const { format, version } = raw as { format?: unknown; version?: unknown };
  if (format !== FORMAT) return bad("format", `This is no trial document: its format must be “${FORMAT}”.`);
  if (typeof version !== "number" || !Number.isInteger(version) || version < 1)
    return bad("version", `Give the version of the document: 1 to ${VERSION}.`);
  if (version > VERSION)
    return bad(
      "version",
      `This document is of version ${version}; this Ustrina knows up to ${VERSION}. Bring Ustrina up to date.`,
    );
  const read = trialDocumentSchema.safeParse(broughtUpToDate(raw as Record<string, unknown>, version));
  if (read.success) return { ok: true, document: read.data };
  const issue = read.error.issues[0];
  return bad(pathText(issue?.path ?? []), issue?.message ?? "This cannot be read.");
}

/** How many lists, objects and separators a text has, as far as it matters. */
function marksIn(text: string): number {
  let count = 0;
  for (let i = 0; i < text.length && count <= MOST_MARKS; i++) {
    const c = text.charCodeAt(i);
    if (c === COMMA || c === OPEN_LIST || c === OPEN_OBJECT) count++;
  }
  return count;
}

export function trialDocumentText(document: TrialDocument): string {
  return `${JSON.stringify(document, null, 2)}\n`;
}

/** `rounds[0].plan.speeds`. */
export function pathText(path: readonly PropertyKey[]): string {
  return path.reduce<string>(
    (text, part) => (typeof part === "number" ? `${text}[${part}]` : `${text}${text ? "." : ""}${String(part)}`),
    "",
  );
}

function bad(path: string, message: string): ReadDocument {
  return { ok: false, fault: { path, message } };
}
