/** Everything kept of one machine, read once: its ledger, what happened to it, what was fitted, its trials and their verdicts. */
import type { AnyProcedure } from "../../core/procedures/contract";
import type { Db } from "../../data/database";
import { eventsOf, type MachineEvent } from "../../data/events";
import { type GaugeFault, gaugeFaults, gaugesOfTrial } from "../../data/gauges";
import { soundOrNull } from "../../data/json-column";
import { entriesOf, type LedgerEntry, ownerOfMachine } from "../../data/ledger";
import { cameFromElsewhere } from "../../data/load-trial";
import { everyHolderOf, type Holder, type Machine } from "../../data/machines";
import { type Fitting, fittingsOf } from "../../data/parts";
import { type KeptVerdict, verdictsOfMachine } from "../../data/solutions";
import { batchesOf, stockBySlug } from "../../data/stocks";
import { type Trial, trialsOfMachine } from "../../data/trials";
import { stocksOfTrials } from "./stocks-of-trials";

export type MachineRecord = {
  machine: Machine;
  holders: Holder[];
  /** Newest first, without those taken back. */
  entries: LedgerEntry[];
  events: MachineEvent[];
  /** Oldest first. */
  fittings: Fitting[];
  /** Newest first. */
  trials: Trial[];
  verdictsOf: (trialId: number) => readonly KeptVerdict[];
  isFromElsewhere: (trial: Trial) => boolean;
  faults: readonly GaugeFault[];
  /** When a trial was read with which gauge. */
  readWith: (trialId: number) => { gauge: string; at: number }[];
  /** On which batch each trial of a procedure is, by its key; empty where it is on none. */
  stocksOf: (procedure: AnyProcedure) => (trialId: number) => string;
  /** Name of a card, and when its newest batch was begun. */
  card: (slug: string) => { name: string; newest: { label: string; begunAt: number } | null } | undefined;
};

export function machineRecord(db: Db, machine: Machine): MachineRecord {
  const verdicts = verdictsOfMachine(db, machine.id);
  return {
    machine,
    holders: everyHolderOf(db, machine.id),
    entries: entriesOf(db, ownerOfMachine(machine.id)).filter((e) => e.undoneAt === null),
    events: eventsOf(db, machine.id),
    fittings: fittingsOf(db, machine.id),
    trials: trialsOfMachine(db, machine.id),
    verdictsOf: (trialId) => verdicts.get(trialId) ?? [],
    isFromElsewhere: (trial) => cameFromElsewhere(db, trial),
    faults: gaugeFaults(db),
    readWith: (trialId) => gaugesOfTrial(db, trialId),
    stocksOf: (procedure) => stocksOfTrials(db, machine.id, procedure),
    card: (slug) => {
      const found = soundOrNull(() => stockBySlug(db, slug));
      return found ? { name: found.spec.name, newest: batchesOf(db, found.id)[0] ?? null } : undefined;
    },
  };
}
