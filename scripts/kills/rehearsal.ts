/** Kills a process that reads, records and swaps, at random moments, again and again, and looks each time what is on disk. */
import { spawn } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { type Database, openDatabase } from "../../src/data/database";
import { addPart } from "../../src/data/parts";
import { seeded } from "../../src/practice/random";
import { addDemoBench } from "../../src/server/demo/demo-bench";
import { burnOnPractice } from "../../src/server/trial/burn-on-practice";
import { giveUp } from "../../src/server/trial/correction-steps";
import { readAllOnPractice } from "../../src/server/trial/read-all-on-practice";
import { beginTrial, openSession } from "../../src/server/trial/trial-steps";

export type KillFindings = {
  kills: number;
  /** Deeds that the killed processes had said were on disk, by kind. */
  acknowledged: Record<string, number>;
  /** What is wrong, in words; empty = nothing. */
  faults: string[];
};

/** A process that has done its first deed lives so long at most. */
const LONGEST_MS = 300;

/** @param child the file of the process to be killed, ready to run */
export async function rehearseKills(child: string, kills: number, seed: number): Promise<KillFindings> {
  const folder = mkdtempSync(path.join(tmpdir(), "ustrina-kill-"));
  const file = path.join(folder, "bench.sqlite");
  const trials = layOut(file);
  const chance = seeded(seed);
  const findings: KillFindings = { kills, acknowledged: {}, faults: [] };
  try {
    for (let i = 0; i < kills; i++) {
      const said = await killed([child, file, ...trials.map(String), String(seed + i)], chance.between(0, LONGEST_MS));
      const db = openDatabase(file);
      for (const words of said) {
        const [kind = ""] = words;
        findings.acknowledged[kind] = (findings.acknowledged[kind] ?? 0) + 1;
      }
      findings.faults.push(...missing(db, said), ...halfDone(db));
      db.$client.close();
    }
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
  return findings;
}

/** @returns the trial that is read and the one whose correction is recorded */
function layOut(file: string): [number, number] {
  const db = openDatabase(":memory:");
  const now = Date.now();
  addDemoBench(db, now);
  for (const label of ["spare 50.8", "spare 63.5", "spare 101.6"])
    addPart(db, { kind: "optic", label, focalLengthMm: null }, now);
  const begin = () => {
    const id = beginTrial(db, "alder", "scan-offset", Date.now());
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
  return [read, recorded];
}

/** Lets it work for so long after its first deed, kills it, and returns the lines that it had said whole. */
function killed(args: readonly string[], afterMs: number): Promise<string[][]> {
  const child = spawn(process.execPath, args);
  let said = "";
  let faults = "";
  return new Promise((resolve, reject) => {
    child.stderr.on("data", (data) => {
      faults += data;
    });
    child.stdout.on("data", (data) => {
      const isFirst = !said.includes("\n");
      said += data;
      if (isFirst && said.includes("\n")) setTimeout(() => child.kill("SIGKILL"), afterMs);
    });
    child.on("exit", (code) => {
      if (code !== null) return reject(new Error(`the process ended by itself: ${faults}`));
      const lines = said.split("\n").slice(0, -1);
      resolve(lines.map((line) => line.split(" ")));
    });
  });
}

function missing(db: Database, said: readonly string[][]): string[] {
  const one = (sql: string, ...values: unknown[]) => db.$client.prepare(sql).get(...values) !== undefined;
  const isThere: Record<string, (...words: string[]) => boolean> = {
    reading: (key) => one("select 1 from reading where client_key = ?", key),
    undone: (key) => one("select 1 from reading where client_key = ? and taken_back_at is not null", key),
    entry: (id) => one("select 1 from ledger_entry where id = ?", id),
    takenBack: (id) => one("select 1 from ledger_entry where id = ? and undone_at is not null", id),
    fitted: (id, at) => one("select 1 from fitting where part_id = ? and fitted_from = ?", id, at),
  };
  return said.flatMap((words) => {
    const [kind = "", ...rest] = words;
    return isThere[kind]?.(...rest) ? [] : [`not on disk, although it was said: ${words.join(" ")}`];
  });
}

/** Each of these queries finds a record of which one half is there. */
const HALVES: Record<string, string> = {
  "a reading whose answer cannot be read": "select id from reading where json_valid(answer) = 0",
  "a correction entered without what it was worked out from":
    "select id from ledger_entry where trial_id is not null and origin = 'trial' and solution_id is null",
  "what was worked out for a correction that was never entered":
    "select s.id from solution s left join ledger_entry e on e.solution_id = s.id where e.id is null",
  "two optics on one machine":
    "select f.machine_id from fitting f join part p on p.id = f.part_id where f.fitted_to is null group by f.machine_id, p.kind having count(*) > 1",
  "an optic taken off with none in its place":
    "select f.id from fitting f where f.machine_id = 1 and f.fitted_to is not null and not exists (select 1 from fitting g where g.machine_id = 1 and g.fitted_from = f.fitted_to)",
  "an optic fitted over another":
    "select f.id from fitting f join fitting g on g.machine_id = f.machine_id and g.id > f.id join part p on p.id = f.part_id join part q on q.id = g.part_id and q.kind = p.kind where f.fitted_to is null or g.fitted_from < f.fitted_to",
};

function halfDone(db: Database): string[] {
  const whole = db.$client.pragma("integrity_check", { simple: true });
  const orphans = db.$client.pragma("foreign_key_check") as unknown[];
  return [
    ...(whole === "ok" ? [] : [`integrity_check: ${whole}`]),
    ...(orphans.length === 0 ? [] : [`${orphans.length} rows refer to nothing`]),
    ...Object.entries(HALVES).flatMap(([what, sql]) => (db.$client.prepare(sql).get() === undefined ? [] : [what])),
    ...practiceBehind(db),
  ];
}

/** What is in force at the controller is at its stand-in too. */
function practiceBehind(db: Database): string[] {
  const newest = db.$client
    .prepare(
      `select e.value from ledger_entry e join holder h on h.id = e.holder_id
       where h.machine_id = 1 and h.role = 'controller' and e.undone_at is null order by e.entered_at desc, e.id desc limit 1`,
    )
    .get() as { value: string } | undefined;
  const { controller } = db.$client.prepare("select controller from practice_machine where machine_id = 1").get() as {
    controller: string;
  };
  const rows = newest ? JSON.parse(newest.value).rows : [];
  return JSON.stringify(JSON.parse(controller).table) === JSON.stringify(rows)
    ? []
    : ["a record that is not at the practice machine"];
}
