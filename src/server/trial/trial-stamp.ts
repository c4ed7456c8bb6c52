/** What a trial's pages show, as a short text that changes with it: another window asks for it to see whether it is behind. */
import { createHash } from "node:crypto";
import type { Db } from "../../data/database";
import { entriesOf, ownerOfMachine } from "../../data/ledger";
import { machineById } from "../../data/machines";
import { countReadings, sessionsOf } from "../../data/readings";
import { roundsOf } from "../../data/rounds";
import { verdictsOf } from "../../data/solutions";
import { trialById } from "../../data/trials";
import { Refusal } from "../refusal";

export type TrialStamp = {
  /** Everything but the readings. */
  rest: string;
  /** How many readings count in each round, and the newest of them. */
  readings: Record<number, { count: number; newest: number }>;
};

/** @throws Refusal when there is no such trial */
export function trialStamp(db: Db, trialId: number): TrialStamp {
  const trial = trialById(db, trialId);
  if (!trial) throw new Refusal("trial", "There is no such trial.");
  const rounds = roundsOf(db, trialId);
  const entries = entriesOf(db, ownerOfMachine(trial.machineId));
  const rest = [
    trial,
    rounds.map((r) => [r.n, r.draft, r.burnedAt, r.readBackAt, r.spec?.sites.map((s) => s.repeats)]),
    rounds.map((r) => sessionsOf(db, r.id).map((s) => s.id)),
    entries.map((e) => [e.id, e.undoneAt]),
    verdictsOf(db, trialId).length,
    machineById(db, trial.machineId)?.revisionId,
  ];
  return {
    rest: createHash("sha256").update(JSON.stringify(rest)).digest("hex").slice(0, 16),
    readings: Object.fromEntries(rounds.map((r) => [r.n, countReadings(db, r.id)])),
  };
}
