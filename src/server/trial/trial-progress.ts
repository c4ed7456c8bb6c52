/** Where an open trial stands. */
import { sitesLeft } from "../../core/trial/answer";
import type { Db } from "../../data/database";
import { entriesOf, ownerOfMachine } from "../../data/ledger";
import type { OpenProgress } from "../procedures/procedure-state";
import { fullTrial } from "./trial-record";

/** Where an open trial is continued, and what is left to do there. */
export function progressOf(db: Db, trialId: number): OpenProgress & { href: string } {
  const full = fullTrial(db, trialId);
  const last = full.rounds.at(-1);
  const proof = last?.purpose === "proof";
  const check = last?.purpose === "check";
  const at = (stage: string) => `/trial/${trialId}/${stage}${last && last.n > 1 ? `?round=${last.n}` : ""}`;
  const name = proof ? "the proof" : check ? "the check" : "the coupon";
  if (!last?.spec)
    return proof
      ? { stage: "burn", detail: "waiting for the proof burn", toProve: true, href: at("burn") }
      : { stage: "lay-out", detail: "being laid out", toProve: false, href: at("lay-out") };
  const answers = last.readings.map((r) => r.answer);
  const total = last.spec.sites.length;
  const done = total - sitesLeft(last.spec.sites, answers).length;
  if (done < total)
    return { stage: "read", detail: `${done} of ${total} sites of ${name} read`, toProve: proof, href: at("read") };
  if (proof || check)
    return { stage: "prove", detail: "verdict to accept", toProve: proof, href: `/trial/${trialId}/prove` };
  const recorded = entriesOf(db, ownerOfMachine(full.trial.machineId)).some(
    (e) => e.trialId === trialId && e.origin === "trial" && e.undoneAt === null,
  );
  return recorded
    ? { stage: "prove", detail: "recorded, proof not burned", toProve: true, href: `/trial/${trialId}/prove` }
    : { stage: "correct", detail: "read, correction to enter", toProve: false, href: at("correct") };
}
