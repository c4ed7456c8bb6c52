/**
 * Does the server's own steps and says each deed once it is on disk: made to be killed, and quick to start.
 * Arguments: the file of the bench, the trial that is read, the trial whose correction is recorded, a seed.
 */
import { openDatabase } from "../../src/data/database";
import { seeded } from "../../src/practice/random";
import { momentNow } from "../../src/server/keeping/clock";
import { takeBackEntry } from "../../src/server/ledger/ledger-steps";
import { swapPart } from "../../src/server/machine/part-steps";
import { recordEntries } from "../../src/server/trial/correction-steps";
import { takeReading, undoReading } from "../../src/server/trial/trial-steps";
import { type Doer, doDeeds } from "./deeds";
import { KILLED_MACHINE, sceneOf, sent } from "./scene";

const [file = "", read = "0", recorded = "0", seed = "0"] = process.argv.slice(2);
const db = openDatabase(file);
const scene = sceneOf(db, { read: Number(read), recorded: Number(recorded) });

const doer: Doer = {
  takeReading: async (key, text) => takeReading(db, sent.reading(scene, key, text), momentNow(db)).id,
  undoReading: async (id) => undoReading(db, scene.trials.read, 1, id, momentNow(db)),
  recordEntries: async (holderId) => recordEntries(db, sent.entry(scene, holderId), momentNow(db)),
  takeBackEntry: async (id) => takeBackEntry(db, KILLED_MACHINE, id, momentNow(db)),
  fit: async (partId) => {
    const now = momentNow(db);
    swapPart(db, sent.fitting(partId, now), now);
    return now;
  },
};
void doDeeds(doer, scene, seeded(Number(seed)), `${process.pid}-${seed}`, (...words) =>
  process.stdout.write(`${words.join(" ")}\n`),
);
