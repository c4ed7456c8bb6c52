/** A trial document as its procedure reads it: plans parsed, coupons laid out, readings taken with the zero of their sitting. */
import type { RoundSpec } from "../core/coupon/round-spec";
import { procedureById } from "../core/course/registry";
import { parseReading, parseSignedReading } from "../core/metrology/reading-text";
import type { Sitting } from "../core/metrology/sitting";
import { UNITS } from "../core/metrology/units";
import type { AnyProcedure } from "../core/procedures/contract";
import { type Answer, PLAIN_SHARES } from "../core/trial/answer";
import { readAnswerInput } from "../core/trial/answer-input";
import { inputFromText } from "../core/trial/answer-text";
import { lengthUnitOf } from "../core/trial/decisions";
import { draftOf, readDraft } from "../core/trial/draft";
import type { History, RoundRecord } from "../core/trial/history";
import type { PlanContext } from "../core/trial/plan-form";
import { dayOf } from "../core/trial/plan-form";
import type { DocumentFault } from "./json-document";
import type { TrialDocument } from "./trial-document";

type DocumentRound = TrialDocument["rounds"][number];
export type DocumentTrial = { procedure: AnyProcedure; history: History };
export type ReadTrial = { ok: true; trial: DocumentTrial } | { ok: false; fault: DocumentFault };

class Fault extends Error {
  constructor(
    readonly path: string,
    message: string,
  ) {
    super(message);
  }
}

/** @returns the history of all rounds, or the first fault with its field */
export function trialOfDocument(document: TrialDocument): ReadTrial {
  try {
    const procedure = procedureOf(document);
    return {
      ok: true,
      trial: {
        procedure,
        history: {
          rounds: document.rounds.map((round, i) => recordOf(document, procedure, round, i)),
          gauges: gaugesUsed(document),
          available: document.gauges,
          machine: document.machine,
          tolerance: toleranceOf(document, procedure),
          decisions: document.decisions,
        },
      },
    };
  } catch (error) {
    if (error instanceof Fault) return { ok: false, fault: { path: error.path, message: error.message } };
    throw error;
  }
}

/** The code burned in a round: the first keeps that of the trial. */
export function couponCodeOf(document: TrialDocument, n: number): string {
  return n === 1 ? document.code : `${document.code}.${n}`;
}

export function contextOf(document: TrialDocument, n: number): PlanContext {
  return {
    machine: document.machine,
    couponCode: couponCodeOf(document, n),
    inForce: document.rounds[n - 1]?.inForce ?? {},
    // By the tolerance of the trial, as it was laid out: what is too short for another may do for this one.
    gauges: document.gauges,
    stocks: document.stocks,
    tolerance: toleranceOf(document, procedureOf(document)),
    ...(document.begun ? { day: dayOf(Date.parse(document.begun)) } : {}),
  };
}

function procedureOf(document: TrialDocument): AnyProcedure {
  try {
    return procedureById(document.procedure);
  } catch (error) {
    if (error instanceof RangeError) throw new Fault("procedure", error.message);
    throw error;
  }
}

function recordOf(document: TrialDocument, procedure: AnyProcedure, round: DocumentRound, i: number): RoundRecord {
  const context = contextOf(document, i + 1);
  const form = procedure.plan(context);
  const read = readDraft(form, { ...draftOf(form, form.defaults), ...round.plan });
  // What was burned was laid out well enough then, whatever has been decided since.
  const plan = read.ok ? read.plan : round.spec ? read.unfit : null;
  if (!read.ok && plan === null) {
    const issue = read.issues[0];
    throw new Fault(`rounds[${i}].plan.${issue?.field ?? ""}`, issue?.message ?? "The plan cannot be read.");
  }
  const spec = round.spec ?? procedure.round(plan, context, round.purpose);
  return {
    n: i + 1,
    purpose: round.purpose,
    plan,
    spec,
    inForce: round.inForce,
    answers: answersOf(document, spec, round, i),
  };
}

function answersOf(document: TrialDocument, spec: RoundSpec, round: DocumentRound, i: number): Answer[] {
  const sittings = sittingsOf(document, i);
  const last = round.sittings.at(-1)?.id ?? "";
  return round.readings.map((reading, k): Answer => {
    const path = `rounds[${i}].readings[${k}]`;
    const site = spec.sites.find((s) => s.id === reading.site);
    if (!site) throw new Fault(`${path}.site`, `This coupon has no place “${reading.site}”.`);
    const id = reading.sitting ?? last;
    const sitting = sittings.get(id);
    if (!sitting) throw new Fault(`${path}.sitting`, "Name a sitting of this round: the gauge it was read with.");
    const { uMm = null, ...pictured } = reading.picture ?? {};
    const common = {
      site: site.id,
      u: uMm,
      gauge: sitting.gauge.id,
      session: `${i + 1} ${id}`,
      from: reading.from,
      ...(reading.picture ? { picture: pictured as NonNullable<Answer["picture"]> } : {}),
    };
    if (reading.cannotRead !== null)
      return { ...common, content: { status: "cannot read", why: reading.cannotRead }, shares: PLAIN_SHARES };
    const written = inputFromText(site, { reading: reading.reading, words: reading.which }, lengthUnitOf(document));
    if (!written.ok) throw new Fault(`${path}.${written.field === "words" ? "which" : "reading"}`, written.message);
    const read = readAnswerInput(site, written.input, sitting);
    if (!read.ok) throw new Fault(`${path}.${read.issue.field === "words" ? "which" : "reading"}`, read.issue.message);
    return { ...common, content: { status: "read", value: read.value }, shares: read.shares };
  });
}

/**
 * The sittings of a round by their id: gauge and zeros. `i` counts from 0.
 *
 * @throws the fault of a document that `trialOfDocument` refuses
 */
export function sittingsOf(document: TrialDocument, i: number): Map<string, Sitting> {
  return new Map(
    (document.rounds[i]?.sittings ?? []).map((s, k) => [s.id, sittingOf(document, s, `rounds[${i}].sittings[${k}]`)]),
  );
}

function sittingOf(document: TrialDocument, sitting: DocumentRound["sittings"][number], path: string): Sitting {
  const gauge = document.gauges.find((g) => g.id === sitting.gauge);
  if (!gauge) throw new Fault(`${path}.gauge`, `No gauge “${sitting.gauge}” is declared in this document.`);
  const zero = (text: string, field: string) => signedLength(text, `${path}.${field}`);
  return {
    gauge,
    zero: {
      outside: zero(sitting.zero, "zero"),
      inside: sitting.insideZero === null ? null : zero(sitting.insideZero, "insideZero"),
    },
  };
}

function signedLength(text: string, path: string): number {
  const read = parseSignedReading(text, "length", "mm");
  if (!read.ok) throw new Fault(path, read.message);
  return read.value;
}

function toleranceOf(document: TrialDocument, procedure: AnyProcedure): number {
  if (document.tolerance === undefined) return document.machine.tolerances[procedure.id] ?? procedure.tolerance.default;
  const { unit } = procedure.tolerance;
  const read = parseReading(document.tolerance, UNITS[unit].dimension, unit);
  if (!read.ok) throw new Fault("tolerance", read.message);
  if (!(read.value > 0)) throw new Fault("tolerance", "The tolerance must be larger than 0.");
  return read.value;
}

function gaugesUsed(document: TrialDocument): History["gauges"] {
  const used = new Set(document.rounds.flatMap((r) => r.sittings.map((s) => s.gauge)));
  return document.gauges.filter((g) => used.has(g.id));
}
