"use server";
/** What the pages may ask the server to do. Every input is parsed; every answer is data, also a refusal. */
import { revalidatePath } from "next/cache";
import { z } from "zod";
import { gcodeDialectSchema } from "../../core/machine/gcode-dialect";
import { zeroSchema } from "../../core/metrology/sitting";
import { cardOf } from "../../core/stock/stock-at-hand";
import { answerInputSchema } from "../../core/trial/answer-input";
import { draftSchema } from "../../core/trial/draft";
import { database } from "../../data/server-database";
import { momentNow } from "../keeping/clock";
import * as adjustment from "../trial/adjustment-steps";
import * as practice from "../trial/burn-on-practice";
import * as check from "../trial/check-steps";
import * as correction from "../trial/correction-steps";
import * as documents from "../trial/load-document";
import * as steps from "../trial/trial-steps";
import * as stock from "../trial/trial-stock";
import { fileText, run } from "./run-action";

const trialId = z.number().int().positive();
const roundN = z.number().int().positive();
const typedRows = z.array(z.object({ at: z.number().nullable(), text: z.string().max(60) })).max(500);

/** `stock`: key of a batch, where it is begun on one. */
const begun = z.object({ machine: z.string(), procedure: z.string(), stock: z.string().nullable().default(null) });

export async function beginTrial(input: unknown) {
  return run(begun, input, (i) => {
    const id = steps.beginTrial(database(), i.machine, i.procedure, momentNow(), i.stock);
    revalidatePath("/");
    return id;
  });
}

export async function loadTrial(input: unknown) {
  return run(z.object({ text: fileText }), input, (i) => {
    const id = documents.loadDocument(database(), i.text, momentNow());
    revalidatePath("/", "layout");
    return id;
  });
}

export async function beginCheck(input: unknown) {
  return run(begun, input, (i) => {
    const card = i.stock === null ? null : cardOf(i.stock);
    const id = check.beginCheck(database(), i.machine, i.procedure, momentNow(), card);
    revalidatePath("/", "layout");
    return id;
  });
}

export async function setTolerance(input: unknown) {
  return run(z.object({ trialId, text: z.string().max(60), always: z.boolean() }), input, (i) => {
    check.setTolerance(database(), i.trialId, i.text, i.always, momentNow());
    revalidatePath("/", "layout");
  });
}

export async function setLimits(input: unknown) {
  const typed = z.string().max(60);
  return run(
    z.object({ machine: z.string(), procedure: z.string(), tolerance: typed, recheckDays: typed }),
    input,
    (i) => {
      check.setLimits(database(), i.machine, i.procedure, i, momentNow());
      revalidatePath("/", "layout");
    },
  );
}

export async function setDialect(input: unknown) {
  return run(z.object({ machine: z.string(), dialect: gcodeDialectSchema }), input, (i) => {
    check.setDialect(database(), i.machine, i.dialect, momentNow());
    revalidatePath("/", "layout");
  });
}

export async function keepDraft(input: unknown) {
  return run(z.object({ trialId, n: roundN, draft: draftSchema, base: draftSchema.nullable() }), input, (i) =>
    steps.keepDraft(database(), i.trialId, i.n, i.draft, i.base),
  );
}

export async function markBurned(input: unknown) {
  return run(z.object({ trialId, n: roundN }), input, (i) => {
    steps.markBurned(database(), i.trialId, i.n, momentNow());
    revalidatePath(`/trial/${i.trialId}`, "layout");
  });
}

export async function burnOnPractice(input: unknown) {
  return run(z.object({ trialId, n: roundN, file: fileText.nullable() }), input, (i) => {
    practice.burnOnPractice(database(), i.trialId, i.n, i.file, momentNow());
    revalidatePath(`/trial/${i.trialId}`, "layout");
  });
}

export async function openSession(input: unknown) {
  return run(z.object({ trialId, n: roundN, gauge: z.string().nullable(), zero: zeroSchema }), input, (i) => {
    steps.openSession(database(), i.trialId, i.n, i.gauge, i.zero, momentNow());
    revalidatePath(`/trial/${i.trialId}`, "layout");
  });
}

export async function readMore(input: unknown) {
  return run(
    z.object({ trialId, n: roundN, sites: z.array(z.string()).min(1).max(500), more: z.number().int().min(1).max(50) }),
    input,
    (i) => {
      steps.readMore(database(), i.trialId, i.n, i.sites, i.more);
      revalidatePath(`/trial/${i.trialId}`, "layout");
    },
  );
}

export async function takeReading(input: unknown) {
  return run(
    z.object({
      trialId,
      n: roundN,
      site: z.string(),
      input: answerInputSchema,
      from: z.enum(["typed", "wedge", "practice", "picture"]),
      clientKey: z.string().min(8).max(80),
      session: z.number().int().optional(),
    }),
    input,
    (i) => steps.takeReading(database(), i, momentNow()),
  );
}

export async function takeSheet(input: unknown) {
  return run(z.object({ trialId, n: roundN, text: fileText, sure: z.boolean() }), input, (i) => {
    const count = steps.takeSheet(database(), i.trialId, i.n, i.text, i.sure, momentNow());
    revalidatePath(`/trial/${i.trialId}`, "layout");
    return count;
  });
}

export async function undoReading(input: unknown) {
  return run(z.object({ trialId, n: roundN, readingId: z.number().int() }), input, (i) =>
    steps.undoReading(database(), i.trialId, i.n, i.readingId, momentNow()),
  );
}

export async function readOnPractice(input: unknown) {
  return run(z.object({ trialId, n: roundN, site: z.string() }), input, (i) =>
    practice.readOnPractice(database(), i.trialId, i.n, i.site),
  );
}

export async function confirmHeld(input: unknown) {
  // By setting; without rows: nobody knows.
  return run(z.object({ trialId, n: roundN, held: z.record(z.string(), typedRows.nullable()) }), input, (i) => {
    correction.confirmHeld(database(), i.trialId, i.n, i.held, momentNow());
    revalidatePath(`/trial/${i.trialId}`, "layout");
  });
}

const decision = z.object({ key: z.string().max(200), value: z.string().max(200, "Enter at most 200 characters.") });

export async function decide(input: unknown) {
  return run(z.object({ trialId, decisions: z.array(decision).min(1) }), input, (i) => {
    correction.decide(database(), i.trialId, i.decisions);
    revalidatePath(`/trial/${i.trialId}`, "layout");
  });
}

export async function recordEntries(input: unknown) {
  return run(
    z.object({
      trialId,
      n: roundN,
      holderId: z.number().int(),
      rows: z.record(z.string(), typedRows),
      readBack: z.boolean(),
      seen: z.string(),
    }),
    input,
    (i) => {
      const ids = correction.recordEntries(database(), i, momentNow());
      revalidatePath(`/trial/${i.trialId}`, "layout");
      return ids;
    },
  );
}

export async function undoEntry(input: unknown) {
  return run(z.object({ trialId, entryId: z.number().int() }), input, (i) => {
    correction.undoEntry(database(), i.trialId, i.entryId, momentNow());
    revalidatePath(`/trial/${i.trialId}`, "layout");
  });
}

export async function noteAdjusted(input: unknown) {
  return run(z.object({ trialId, n: roundN, seen: z.string().max(80) }), input, (i) => {
    adjustment.noteAdjusted(database(), i.trialId, i.n, i.seen, momentNow());
    revalidatePath("/", "layout");
  });
}

export async function undoAdjusted(input: unknown) {
  return run(z.object({ trialId, n: roundN }), input, (i) => {
    adjustment.undoAdjusted(database(), i.trialId, i.n, momentNow());
    revalidatePath("/", "layout");
  });
}

export async function keepForStock(input: unknown) {
  return run(z.object({ trialId, n: roundN, seen: z.string().max(80) }), input, (i) => {
    stock.keepForStock(database(), i.trialId, i.n, i.seen, momentNow());
    revalidatePath("/", "layout");
  });
}

export async function takeOffCard(input: unknown) {
  return run(z.object({ trialId }), input, (i) => {
    stock.takeOffCard(database(), i.trialId, momentNow());
    revalidatePath("/", "layout");
  });
}

export async function layOutNext(input: unknown) {
  return run(z.object({ trialId }), input, (i) => {
    const n = correction.layOutNext(database(), i.trialId, momentNow());
    revalidatePath(`/trial/${i.trialId}`, "layout");
    return n;
  });
}

export async function acceptVerdict(input: unknown) {
  return run(z.object({ trialId }), input, (i) => {
    const verdict = correction.acceptVerdict(database(), i.trialId, momentNow());
    revalidatePath("/", "layout");
    return verdict.result;
  });
}

export async function giveUp(input: unknown) {
  return run(z.object({ trialId }), input, (i) => {
    correction.giveUp(database(), i.trialId, momentNow());
    revalidatePath("/", "layout");
  });
}
