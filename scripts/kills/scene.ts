/** The bench on which the server is killed: one trial to read, one to record, optics to swap. */

import { writeFileSync } from "node:fs";
import { opticOf } from "../../src/core/machine/part-spec";
import { type Database, openDatabase } from "../../src/data/database";
import { holdersOf, machineBySlug } from "../../src/data/machines";
import { addPart, allParts, fittedPart } from "../../src/data/parts";
import { addDemoBench } from "../../src/server/demo/demo-bench";
import { burnOnPractice } from "../../src/server/trial/burn-on-practice";
import { giveUp } from "../../src/server/trial/correction-steps";
import { readAllOnPractice } from "../../src/server/trial/read-all-on-practice";
import { fullTrial, historyOf, readingStamp } from "../../src/server/trial/trial-record";
import { beginTrial, openSession } from "../../src/server/trial/trial-steps";

export type KillTrials = { read: number; recorded: number };

export type Scene = {
  trials: KillTrials;
  /** A place of the trial that is read. */
  site: string;
  holders: number[];
  optics: number[];
  /** The optic on the machine now. */
  fitted: number | null;
  /** What is entered when the correction is recorded, and from which readings. */
  rows: { at: number | null; text: string }[];
  seen: string;
};

export const KILLED_MACHINE = "alder";
const SETTING = "scan offset";

/** Writes the bench to `file`. */
export function layOutScene(file: string): KillTrials {
  const db = openDatabase(":memory:");
  const now = Date.now();
  addDemoBench(db, now);
  for (const label of ["spare 50.8", "spare 63.5", "spare 101.6"])
    addPart(db, { kind: "optic", ...opticOf({ label }) }, now);
  const begin = () => {
    const id = beginTrial(db, KILLED_MACHINE, "scan-offset", Date.now());
    burnOnPractice(db, id, 1, null, Date.now());
    openSession(db, id, 1, "calipers", { outside: 0, inside: null }, Date.now());
    return id;
  };
  const recorded = begin();
  readAllOnPractice(db, recorded, 1, "laid-out", () => Date.now());
  giveUp(db, recorded, Date.now());
  const read = begin();
  writeFileSync(file, db.$client.serialize());
  db.$client.close();
  return { read, recorded };
}

/** The scene as it stands in this bench. */
export function sceneOf(db: Database, trials: KillTrials): Scene {
  const machine = machineBySlug(db, KILLED_MACHINE);
  if (!machine) throw new Error(`there is no ${KILLED_MACHINE}`);
  const full = fullTrial(db, trials.recorded);
  const outcome = full.procedure.solve(historyOf(full, 1));
  if (outcome.status !== "solved") throw new Error(`the trial to record is ${outcome.status}`);
  return {
    trials,
    site: fullTrial(db, trials.read).rounds[0]?.spec?.sites[0]?.id ?? "",
    holders: holdersOf(db, machine.id).map((h) => h.id),
    optics: allParts(db)
      .filter((p) => p.spec.label.startsWith("spare"))
      .map((p) => p.id),
    fitted: fittedPart(db, machine.id, "optic", Date.now())?.partId ?? null,
    rows: outcome.corrections.flatMap((c) => c.rows.map((r) => ({ at: r.at, text: r.enter.toFixed(3) }))),
    seen: readingStamp(full, 1),
  };
}

/** What is sent for each deed, by whichever way. */
export const sent = {
  reading: ({ trials, site }: Scene, clientKey: string, text: string) => ({
    trialId: trials.read,
    n: 1,
    site,
    from: "typed" as const,
    clientKey,
    input: { kind: "quantity" as const, text, words: "positive" as const, unit: "mm" as const },
  }),
  entry: ({ trials, rows, seen }: Scene, holderId: number) => ({
    trialId: trials.recorded,
    n: 1,
    holderId,
    rows: { [SETTING]: rows },
    readBack: true,
    seen,
  }),
  fitting: (partId: number, at: number) => ({ machine: KILLED_MACHINE, kind: "optic" as const, partId, at }),
};
