/** What is promised of the work on a trial: solving while it is typed, taking a reading, writing its files. */
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import Sqlite from "better-sqlite3";
import { PROCEDURES } from "../../src/core/course/registry";
import { burnFileOf } from "../../src/core/machine/machine-kind";
import { type Database, openDatabase } from "../../src/data/database";
import { parseGcode } from "../../src/formats/gcode-parser";
import { gcodeOf } from "../../src/formats/gcode-writer";
import { addDemoBench } from "../../src/server/demo/demo-bench";
import { burnOnPractice } from "../../src/server/trial/burn-on-practice";
import { loadDocument } from "../../src/server/trial/load-document";
import { AS_USUAL, roundFile } from "../../src/server/trial/round-files";
import { type FullTrial, fullTrial, historyOf, roundOf } from "../../src/server/trial/trial-record";
import { beginTrial, openSession, takeReading } from "../../src/server/trial/trial-steps";
import { below, type Line } from "./line";
import { median } from "./timing";

/** By their addresses; what a file is promised to take, ms. */
const FILES = {
  "coupon.svg": 20,
  "coupon.dxf": 20,
  "coupon.nc": 20,
  "sites.csv": 20,
  "results.csv": 20,
  "trial.json": 50,
  "run-sheet.pdf": 1000,
};

export async function solving(): Promise<Line[]> {
  const folder = mkdtempSync(path.join(tmpdir(), "ustrina-solving-"));
  const db = openDatabase(path.join(folder, "bench.sqlite"));
  addDemoBench(db, Date.now());
  const lines: Line[] = [];
  for (const { id, title } of PROCEDURES) {
    const text = readFileSync(`examples/${id}/trial.json`, "utf8");
    const full = fullTrial(db, loadDocument(db, text, Date.now()));
    const isBurned = roundOf(full, 1).spec?.pieces.length !== 0;
    lines.push(...solves(title, full), ...(await exports(db, title, full, isBurned)));
    if (isBurned && takesGcode(full)) lines.push(gcodeRead(title, full));
  }
  lines.push(...taking(db, path.join(folder, "bare.sqlite")));
  db.$client.close();
  rmSync(folder, { recursive: true, force: true });
  return lines;
}

/** A galvo takes the drawing. */
function takesGcode({ machine }: FullTrial): boolean {
  return burnFileOf(machine.kind) === "g-code";
}

function solves(title: string, full: FullTrial): Line[] {
  const history = historyOf(full, full.rounds.length);
  const readings = history.rounds.reduce((sum, r) => sum + r.answers.length, 0);
  // A reading makes a new round: nothing that was worked out before is remembered for it.
  const fresh = () => ({ ...history, rounds: history.rounds.map((r) => ({ ...r, answers: [...r.answers] })) });
  const solve = () => full.procedure.solve(fresh());
  const site = history.rounds.at(-1)?.spec.sites.findLast((s) => s.ask.kind === "quantity")?.id;
  const predict = () => full.procedure.expected(fresh(), site ?? "");
  // As while reading, when both have run at every key before.
  median(60, solve);
  median(60, predict);
  const ms = median(60, solve);
  const copying = median(60, () => JSON.parse(JSON.stringify(history)));
  return [
    { what: `predict a reading of ${title} while it is typed, warm`, ...below(median(60, predict), 5, "ms") },
    {
      what: `solve ${title} after a reading, slips and help included: ${history.rounds.length} rounds, ${readings} readings, warm`,
      ...below(ms, 50, "ms"),
    },
    { what: "the same, as a ratio to copying its readings as JSON", ...below(ms / copying, 400, "times") },
  ];
}

/** @param isBurned else it has no coupon to write */
async function exports(db: Database, title: string, full: FullTrial, isBurned: boolean): Promise<Line[]> {
  const lines: Line[] = [];
  for (const [name, target] of Object.entries(FILES)) {
    if (name.startsWith("coupon.") && !isBurned) continue;
    if (name === "coupon.nc" && !takesGcode(full)) continue;
    const times: number[] = [];
    for (let i = 0; i < 12; i++) {
      const began = performance.now();
      const body = await roundFile(db, full.trial.id, 1, name, AS_USUAL).body;
      if (typeof body !== "string" && !Buffer.isBuffer(body)) for (const _ of body);
      times.push(performance.now() - began);
    }
    const ms = times.sort((a, b) => a - b)[6] ?? Number.NaN;
    lines.push({ what: `write ${name} of ${title}, from the database`, ...below(ms, target, "ms") });
  }
  return lines;
}

function gcodeRead(title: string, full: FullTrial): Line {
  const spec = roundOf(full, 1).spec;
  if (!spec) throw new Error(`${title}: the example is not burned`);
  const options = { couponCode: full.trial.code, machineName: full.machine.name, dialect: full.machine.gcode };
  const text = gcodeOf(spec, options);
  const parsing = median(30, () => parseGcode(text));
  const copying = median(30, () => text.split("\n").map((line) => line.split(" ")));
  const what = `parse the G-code of ${title} (${text.split("\n").length} lines), as a ratio to splitting it into words`;
  return { what, ...below(parsing / copying, 30, "times") };
}

function taking(db: Database, bareFile: string): Line[] {
  const trialId = beginTrial(db, "alder", "scan-offset", Date.now());
  burnOnPractice(db, trialId, 1, null, Date.now());
  openSession(db, trialId, 1, "calipers", { outside: 0, inside: null }, Date.now());
  let key = 0;
  const input = { kind: "quantity", text: "0.31", words: "positive", unit: "mm" } as const;
  const ms = median(60, () => {
    const clientKey = `bench-reading-${key++}`;
    takeReading(db, { trialId, n: 1, site: "v300-left", input, from: "typed", clientKey }, Date.now());
  });
  return [
    { what: "take a reading, to disk (synchronous FULL)", ...below(ms, 30, "ms") },
    { what: "the same, as a ratio to a bare row on the same disk", ...below(ms / bareRow(bareFile), 100, "times") },
  ];
}

/** The least that keeping anything takes here, ms. */
function bareRow(file: string): number {
  const bare = new Sqlite(file);
  bare.pragma("journal_mode = WAL");
  bare.pragma("synchronous = FULL");
  bare.exec("create table row (text text)");
  const insert = bare.prepare("insert into row values ('0.31 mm')");
  const ms = median(60, () => insert.run());
  bare.close();
  return ms;
}
