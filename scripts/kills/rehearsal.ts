/** Kills a process that reads, records and swaps, at random moments, again and again, and looks each time what is on disk. */
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { type Database, openDatabase } from "../../src/data/database";
import { seeded } from "../../src/practice/random";
import { type KillTrials, layOutScene } from "./scene";

export type KillFindings = {
  kills: number;
  /** Deeds that the killed processes had said were on disk, by kind. */
  acknowledged: Record<string, number>;
  /** What is wrong, in words; empty = nothing. */
  faults: string[];
};

/** One life of a process that does deeds on a bench: from its start until it is killed. */
export type Life = (given: {
  file: string;
  trials: KillTrials;
  seed: number;
  /** It is killed so long after its first deed. */
  afterMs: number;
  /** @returns the deeds that it said were on disk: kind, then what it was */
}) => Promise<string[][]>;

/** @param longestMs after its first deed a process lives so long at most */
export async function rehearseKills(life: Life, kills: number, longestMs: number, seed: number): Promise<KillFindings> {
  const folder = mkdtempSync(path.join(tmpdir(), "ustrina-kill-"));
  const file = path.join(folder, "bench.sqlite");
  const trials = layOutScene(file);
  const chance = seeded(seed);
  const findings: KillFindings = { kills, acknowledged: {}, faults: [] };
  try {
    for (let i = 0; i < kills; i++) {
      const said = await life({ file, trials, seed: seed + i, afterMs: chance.between(0, longestMs) });
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
  "what was worked out for a correction that was never entered, or a result that was never kept":
    "select s.id from solution s left join ledger_entry e on e.solution_id = s.id left join stock_result r on r.solution_id = s.id where e.id is null and r.id is null",
  "what is kept of a stock without what it was worked out from":
    "select id from stock_result where trial_id is not null and solution_id is null",
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
       where h.machine_id = 1 and h.role = 'controller' and e.setting = 'scan offset' and e.undone_at is null order by e.entered_at desc, e.id desc limit 1`,
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
