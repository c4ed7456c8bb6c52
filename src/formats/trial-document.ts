/**
 * A trial as one JSON document: exactly the trial, with the snapshots it stands on. Written by Ustrina, or by hand: everything that
 * can be worked out may be left out, quantities are texts with their unit.
 */

import { z } from "zod";
import { roundSpecSchema } from "../core/coupon/round-spec";
import { machineSpecSchema } from "../core/machine/machine-spec";
import { gaugeSchema } from "../core/metrology/gauge";
import { givenSettingValueSchema } from "../core/settings/setting";
import { stockAtHandSchema } from "../core/stock/stock-at-hand";
import { draftSchema } from "../core/trial/draft";
import { purposeSchema } from "../core/trial/history";
import { TRIAL_ENDS } from "../core/trial/trial-end";
import { verdictSchema } from "../core/trial/verdict";
import { type ReadDocument, readDocument } from "./json-document";

export const FORMAT = "ustrina trial";
export const VERSION = 3;

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
  /** What was read in a picture: which, by which reader, whether it was moved by hand, and its standard uncertainty, mm. */
  picture: z
    .strictObject({
      sha256: z.string().regex(/^[0-9a-f]{64}$/, "64 hexadecimal digits"),
      reader: z.number().int(),
      edited: z.boolean(),
      uMm: z.number().positive(),
      degreesOfFreedom: z.number().positive().optional(),
    })
    .optional(),
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
  inForce: z.record(z.string(), givenSettingValueSchema.nullable()).default({}),
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
  /** Those that it is done on, where it is done stock by stock. */
  stocks: z.array(stockAtHandSchema).default([]),
  begun: time.nullable().default(null),
  ended: z
    .strictObject({ how: z.enum(TRIAL_ENDS), at: time })
    .nullable()
    .default(null),
  rounds: z.array(roundSchema).default([]),
  /** As they were accepted, by round from 1. */
  verdicts: z
    .array(z.strictObject({ round: z.number().int().positive(), at: time, verdict: verdictSchema }))
    .default([]),
});
export type TrialDocument = z.infer<typeof trialDocumentSchema>;

/** Reads a document; a fault names its field, such as `rounds[0].readings[3].site`. */
export function parseTrialDocument(text: string): ReadDocument<TrialDocument> {
  return readDocument(text, {
    name: "trial",
    format: FORMAT,
    version: VERSION,
    schema: trialDocumentSchema,
  });
}
