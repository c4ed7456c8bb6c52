/** A trial document from another computer, taken onto this bench. */

import type { MachineSpec } from "../../core/machine/machine-spec";
import { plain } from "../../core/metrology/quantity-text";
import { cardOf, type StockAtHand } from "../../core/stock/stock-at-hand";
import { draftOf } from "../../core/trial/draft";
import type { Db } from "../../data/database";
import { insertTrial, type LoadedRound, trialByCode } from "../../data/load-trial";
import { everyMachine, type Machine } from "../../data/machines";
import { addBatch, addStock, batchByKey, stockBySlug } from "../../data/stocks";
import { contextOf, type DocumentTrial, sittingsOf, trialOfDocument } from "../../formats/document-history";
import { parseTrialDocument, type TrialDocument } from "../../formats/trial-document";
import { isAhead } from "../happened-at";
import { standOnBench } from "../machine/machine-steps";
import { Refusal } from "../refusal";

/**
 * The ledger is not touched: what a controller holds is a matter of the machine, not of a trial. A machine that is not on the bench
 * is added with the spec of the document.
 *
 * @returns the id of the trial
 * @throws Refusal with the field at fault
 */
export function loadDocument(db: Db, text: string, now: number): number {
  const read = parseTrialDocument(text);
  if (!read.ok) throw new Refusal("document", faultText(read.fault));
  const trial = trialOfDocument(read.document);
  if (!trial.ok) throw new Refusal("document", faultText(trial.fault));
  const { document } = read;
  refuseFuture(document, now);
  const { procedure, history } = trial.trial;
  const begunAt = timeOf(document.begun) ?? now;
  return db.transaction((tx) => {
    for (const stock of document.stocks) cardFor(tx, stock, document.code, now);
    return insertTrial(tx, {
      machineId: machineFor(tx, document.machine, now).id,
      machine: document.machine,
      procedure: procedure.id,
      procedureVersion: document.procedureVersion ?? procedure.version,
      code: freeCode(tx, document, begunAt),
      tolerance: history.tolerance,
      decisions: document.decisions,
      begunAt,
      endedAt: timeOf(document.ended?.at),
      end: document.ended?.how ?? null,
      rounds: document.rounds.map((_, i) => roundFor(document, trial.trial, i, begunAt)),
      verdicts: document.verdicts.map((v) => ({
        round: v.round,
        result: v.verdict,
        acceptedAt: timeOf(v.at) ?? now,
      })),
    });
  });
}

function roundFor(
  document: TrialDocument,
  { history, procedure }: DocumentTrial,
  i: number,
  begunAt: number,
): LoadedRound {
  const written = document.rounds[i];
  const record = history.rounds[i];
  if (!written || !record) throw new RangeError(`rounds[${i}] is missing`);
  const isBurned = written.burned !== null || written.spec !== null || written.readings.length > 0;
  const burnedAt = isBurned ? (timeOf(written.burned) ?? begunAt) : null;
  return {
    purpose: written.purpose,
    draft: draftOf(procedure.plan(contextOf(document, i + 1)), record.plan),
    plan: record.plan,
    spec: isBurned ? record.spec : null,
    inForce: isBurned ? written.inForce : null,
    readBackAt: timeOf(written.readBack),
    burnedAt,
    sessions: [...sittingsOf(document, i)].map(([key, { gauge, zero }]) => {
      const begun = timeOf(written.sittings.find((s) => s.id === key)?.begun);
      return { key, gauge, zero, begunAt: begun ?? burnedAt ?? begunAt };
    }),
    readings: written.readings.flatMap((r, k) => {
      const answer = record.answers[k];
      const session = r.sitting ?? written.sittings.at(-1)?.id;
      return answer && session !== undefined
        ? [{ session, raw: r.reading, answer, takenAt: timeOf(r.taken) ?? burnedAt ?? begunAt }]
        : [];
    }),
  };
}

/** The machine of that name, or a new one. */
function machineFor(db: Db, spec: MachineSpec, now: number): Machine {
  const machines = everyMachine(db);
  const known = machines.find((m) => m.spec.name.toLowerCase() === spec.name.toLowerCase());
  if (known && known.spec.kind !== spec.kind)
    throw new Refusal(
      "document",
      `machine.kind: ${spec.name} is a ${known.spec.kind} here and a ${spec.kind} there: they cannot be the same machine.`,
    );
  return known ?? standOnBench(db, spec, now);
}

/** A card for a stock that has none here yet. */
function cardFor(
  db: Db,
  { key, name, batch, nominalMm, thickness, mostJPerMm2 }: StockAtHand,
  code: string,
  now: number,
): void {
  if (batchByKey(db, key)) return;
  const measured = thickness
    ? ` ${plain(thickness.meanMm, 3)} mm (${plain(thickness.leastMm, 3)} to ${plain(thickness.mostMm, 3)}) at ${thickness.count} places there.`
    : "";
  const card = cardOf(key);
  const stockId =
    stockBySlug(db, card)?.id ??
    addStock(
      db,
      card,
      {
        name,
        nominalMm,
        note: `Came with trial ${code}.${measured}`,
        ...(mostJPerMm2 === undefined ? {} : { mostJPerMm2 }),
      },
      now,
    );
  addBatch(db, { stockId, label: batch, begunAt: now });
}

/** The code of the trial; with a number behind it where another trial has it. The very same trial is refused. */
function freeCode(db: Db, document: TrialDocument, begunAt: number): string {
  const known = trialByCode(db, document.code);
  if (!known) return document.code;
  if (known.begunAt === begunAt) throw new Refusal("document", `Trial ${document.code} is on this bench already.`);
  for (let i = 2; ; i++) {
    const code = `${document.code}-${i}`;
    if (!trialByCode(db, code)) return code;
  }
}

/** Every moment in it, by the path of its field: one that is still to come would carry the time of this bench ahead with it. */
function refuseFuture(document: TrialDocument, now: number): void {
  const moments: [string, string | null | undefined][] = [
    ["begun", document.begun],
    ["ended.at", document.ended?.at],
    ...document.verdicts.map((v, i): [string, string | null] => [`verdicts[${i}].at`, v.at]),
    ...document.rounds.flatMap((round, i): [string, string | null | undefined][] => [
      [`rounds[${i}].burned`, round.burned],
      [`rounds[${i}].readBack`, round.readBack],
      ...round.sittings.map((s, k): [string, string | null] => [`rounds[${i}].sittings[${k}].begun`, s.begun]),
      ...round.readings.map((r, k): [string, string | null] => [`rounds[${i}].readings[${k}].taken`, r.taken]),
    ]),
  ];
  const ahead = moments.find(([, text]) => isAhead(timeOf(text), now));
  if (ahead)
    throw new Refusal(
      "document",
      `${ahead[0]}: ${ahead[1]} is still to come by the clock of this computer. Set the clock right, here or where the trial was run.`,
    );
}

function timeOf(text: string | null | undefined): number | null {
  return text ? Date.parse(text) : null;
}

function faultText(fault: { path: string; message: string }): string {
  return fault.path === "" ? fault.message : `${fault.path}: ${fault.message}`;
}
