"use server";
/** What the pages may ask the server to do with machines, parts, holders, gauges and the ledger. */
import { z } from "zod";
import { changeKindSchema } from "../../core/machine/change";
import { database } from "../../data/server-database";
import * as gauges from "../gauges/gauge-steps";
import { gaugeInputSchema } from "../gauges/gauge-steps";
import { momentNow } from "../keeping/clock";
import * as ledger from "../ledger/ledger-steps";
import { loadLedger } from "../ledger/load-ledger";
import * as archiving from "../machine/archive-steps";
import * as changes from "../machine/change-steps";
import * as holders from "../machine/holder-steps";
import * as machines from "../machine/machine-steps";
import { machineInputSchema } from "../machine/machine-steps";
import * as parts from "../machine/part-steps";
import { partInputSchema } from "../machine/part-steps";
import { fileText, runAndRefresh } from "./run-action";

const id = z.number().int().positive();
const machine = z.string().max(120);
const words = z.string().max(500);
/** Milliseconds; `null` = now. */
const at = z.number().nullable();
const typedRows = z.array(z.object({ at: z.string().max(60), text: z.string().max(60) })).max(500);

export async function keepMachine(input: unknown) {
  return runAndRefresh(machineInputSchema, input, (i) => machines.keepMachine(database(), i, momentNow()));
}

export async function removeMachine(input: unknown) {
  return runAndRefresh(z.object({ machine }), input, (i) => archiving.removeMachine(database(), i.machine));
}

export async function archiveMachine(input: unknown) {
  return runAndRefresh(z.object({ machine }), input, (i) => archiving.archive(database(), i.machine, momentNow()));
}

export async function bringBackMachine(input: unknown) {
  return runAndRefresh(z.object({ machine }), input, (i) => archiving.bringBack(database(), i.machine));
}

export async function keepPart(input: unknown) {
  return runAndRefresh(partInputSchema, input, (i) => parts.keepPart(database(), i, momentNow()));
}

export async function swapPart(input: unknown) {
  const schema = z.object({ machine, kind: z.enum(["optic", "rotary"]), partId: id.nullable(), at });
  return runAndRefresh(schema, input, (i) => parts.swapPart(database(), i, momentNow()));
}

export async function putPartAway(input: unknown) {
  return runAndRefresh(z.object({ id, away: z.boolean() }), input, (i) =>
    parts.putPartAway(database(), i.id, i.away, momentNow()),
  );
}

export async function addCopy(input: unknown) {
  return runAndRefresh(z.object({ machine, name: words }), input, (i) =>
    holders.addCopy(database(), i.machine, i.name),
  );
}

export async function nameHolder(input: unknown) {
  return runAndRefresh(z.object({ machine, holderId: id, name: words }), input, (i) =>
    holders.nameHolder(database(), i.machine, i.holderId, i.name),
  );
}

export async function removeHolder(input: unknown) {
  return runAndRefresh(z.object({ machine, holderId: id }), input, (i) =>
    holders.removeHolder(database(), i.machine, i.holderId, momentNow()),
  );
}

export async function bringBackHolder(input: unknown) {
  return runAndRefresh(z.object({ machine, holderId: id }), input, (i) =>
    holders.bringBackHolder(database(), i.machine, i.holderId),
  );
}

export async function noteChange(input: unknown) {
  return runAndRefresh(z.object({ machine, kind: changeKindSchema, note: words, at }), input, (i) =>
    changes.noteChange(database(), i, momentNow()),
  );
}

export async function takeBackChange(input: unknown) {
  return runAndRefresh(z.object({ machine, id }), input, (i) =>
    changes.takeBackChange(database(), i.machine, i.id, momentNow()),
  );
}

export async function noteToPutBack(input: unknown) {
  return runAndRefresh(z.object({ machine, what: words }), input, (i) =>
    changes.noteToPutBack(database(), i.machine, i.what, momentNow()),
  );
}

export async function settlePutBack(input: unknown) {
  return runAndRefresh(z.object({ machine, id, isBack: z.boolean() }), input, (i) =>
    changes.settlePutBack(database(), i.machine, i.id, i.isBack, momentNow()),
  );
}

export async function writeDown(input: unknown) {
  const schema = z.object({
    machine,
    setting: words,
    holderId: id,
    rows: typedRows.nullable(),
    origin: z.enum(["found", "hand"]),
    note: words,
    readBack: z.boolean(),
  });
  return runAndRefresh(schema, input, (i) => ledger.writeDown(database(), i, momentNow()));
}

export async function putBackValue(input: unknown) {
  const schema = z.object({ machine, entryId: id, holderId: id, readBack: z.boolean(), note: words });
  return runAndRefresh(schema, input, (i) => ledger.putBackValue(database(), i, momentNow()));
}

export async function takeBackEntry(input: unknown) {
  return runAndRefresh(z.object({ machine, entryId: id }), input, (i) =>
    ledger.takeBackEntry(database(), i.machine, i.entryId, momentNow()),
  );
}

export async function importLedger(input: unknown) {
  return runAndRefresh(z.object({ machine, text: fileText }), input, (i) =>
    loadLedger(database(), i.machine, i.text, momentNow()),
  );
}

export async function declareGauge(input: unknown) {
  return runAndRefresh(gaugeInputSchema, input, (i) => gauges.declareGauge(database(), i, momentNow()));
}

export async function foundWrong(input: unknown) {
  return runAndRefresh(z.object({ gauge: words, note: words, since: at }), input, (i) =>
    gauges.foundWrong(database(), i.gauge, i, momentNow()),
  );
}

export async function takeBackFault(input: unknown) {
  return runAndRefresh(z.object({ id }), input, (i) => gauges.takeBackFault(database(), i.id, momentNow()));
}
