/**
 * Reads, records, takes back and swaps as fast as it can, and says each deed once it is on disk: made to be killed by the rehearsal
 * beside it. Arguments: the file of the bench, the trial that is read, the trial whose correction is recorded, a seed.
 */
import { openDatabase } from "../../src/data/database";
import { holdersOf, machineBySlug } from "../../src/data/machines";
import { allParts } from "../../src/data/parts";
import { seeded } from "../../src/practice/random";
import { momentNow } from "../../src/server/keeping/clock";
import { takeBackEntry } from "../../src/server/ledger/ledger-steps";
import { swapPart } from "../../src/server/machine/part-steps";
import { recordEntry } from "../../src/server/trial/correction-steps";
import { fullTrial, historyOf, readingStamp } from "../../src/server/trial/trial-record";
import { takeReading, undoReading } from "../../src/server/trial/trial-steps";

const [file = "", readTrial = "0", recordTrial = "0", seed = "0"] = process.argv.slice(2);
const db = openDatabase(file);
const machine = machineBySlug(db, "alder");
if (!machine) throw new Error("there is no Alder");
const holders = holdersOf(db, machine.id);
const optics = allParts(db).filter((p) => p.spec.label.startsWith("spare"));
const chance = seeded(Number(seed));
const full = fullTrial(db, Number(recordTrial));
const outcome = full.procedure.solve(historyOf(full, 1));
if (outcome.status !== "solved") throw new Error(`the trial to record is ${outcome.status}`);
const rows = outcome.corrections.flatMap((c) => c.rows.map((r) => ({ at: r.at, text: r.enter.toFixed(3) })));

const say = (...words: (string | number)[]) => process.stdout.write(`${words.join(" ")}\n`);
const of = <T>(list: readonly T[]): T => list[Math.floor(chance.between(0, list.length))] as T;
let taken: { id: number; key: string } | null = null;

const deeds = [
  () => {
    const clientKey = `killed-${seed}-${process.pid}-${process.hrtime.bigint()}`;
    const input = {
      kind: "quantity",
      text: chance.between(0.1, 0.9).toFixed(3),
      words: "positive",
      unit: "mm",
    } as const;
    const place = { trialId: Number(readTrial), n: 1, site: "v300-left" };
    const { id } = takeReading(db, { ...place, input, from: "typed", clientKey }, momentNow(db));
    say("reading", clientKey);
    taken = { id, key: clientKey };
  },
  () => {
    if (!taken) return;
    undoReading(db, Number(readTrial), 1, taken.id, momentNow(db));
    say("undone", taken.key);
    taken = null;
  },
  () => {
    const entry = {
      trialId: full.trial.id,
      n: 1,
      setting: "scan offset",
      holderId: of(holders).id,
      rows,
      readBack: true,
    };
    const id = recordEntry(db, { ...entry, seen: readingStamp(full, 1) }, momentNow(db));
    say("entry", id);
    if (chance.between(0, 1) < 0.3) {
      takeBackEntry(db, "alder", id, momentNow(db));
      say("takenBack", id);
    }
  },
  () => {
    const present = db.$client
      .prepare(
        "select part_id as id from fitting where machine_id = ? and fitted_to is null and part_id in (select id from part where kind = 'optic')",
      )
      .get(machine.id) as { id: number } | undefined;
    const next = of(optics.filter((p) => p.id !== present?.id));
    const at = momentNow(db);
    swapPart(db, { machine: "alder", kind: "optic", partId: next.id, at: null }, at);
    say("fitted", next.id, at);
  },
];
for (;;) of(deeds)();
