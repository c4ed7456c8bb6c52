/** Databases of earlier versions, brought up to date at start with everything that is in them. */
import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import Sqlite from "better-sqlite3";
import { drizzle } from "drizzle-orm/better-sqlite3";
import { migrate } from "drizzle-orm/better-sqlite3/migrator";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { USUAL_DIALECT } from "../core/procedures/gcode-dialect";
import { UNKNOWN_AXES } from "../core/procedures/machine-spec";
import { SAMPLE_MACHINE } from "../core/procedures/sample-machine";
import { openDatabase } from "./database";
import { machineBySlug } from "./machines";
import { allParts, fittingsOf } from "./parts";

const FOLDER = "src/data/migrations";

let folder: string;
beforeAll(() => {
  folder = mkdtempSync(path.join(tmpdir(), "ustrina-migrations-"));
});
afterAll(() => rmSync(folder, { recursive: true }));

/** A database as it was after the first `count` steps. */
function databaseAfter(count: number, fill: (client: Sqlite.Database) => void): string {
  const steps = path.join(folder, `steps-${count}`);
  cpSync(FOLDER, steps, { recursive: true });
  const journalFile = path.join(steps, "meta/_journal.json");
  const journal = JSON.parse(readFileSync(journalFile, "utf8"));
  writeFileSync(journalFile, JSON.stringify({ ...journal, entries: journal.entries.slice(0, count) }));
  const file = path.join(folder, `after-${count}.sqlite`);
  const client = new Sqlite(file);
  migrate(drizzle(client), { migrationsFolder: steps });
  fill(client);
  client.close();
  return file;
}

/** A machine as specs were written before G-code had words of its own. */
function oldMachine(client: Sqlite.Database, full: number): void {
  const { gcode: _, axes: __, ...spec } = SAMPLE_MACHINE;
  const held = { "scan offset": { step: 0.001, tableKind: "interpolated", sense: 1 } };
  client.prepare("insert into machine (id, slug, created_at) values (1, 'old', 0)").run();
  const columns = (client.prepare("pragma table_info(machine_revision)").all() as { name: string }[]).map(
    (c) => c.name,
  );
  const from = columns.find((c) => c.includes("from")) ?? "";
  client
    .prepare(`insert into machine_revision (machine_id, spec, "${from}") values (1, ?, 0)`)
    .run(JSON.stringify({ ...spec, held, powerWordAtFull: full }));
}

describe("a database of an earlier version", () => {
  it("has the power word of its machines in their G-code afterwards, and nothing else changed", () => {
    const file = databaseAfter(2, (client) => oldMachine(client, 255));
    const db = openDatabase(file);
    expect(machineBySlug(db, "old")?.spec).toEqual({
      ...SAMPLE_MACHINE,
      gcode: { ...USUAL_DIALECT, powerAtFull: 255 },
      // Nobody had said anything of its axes, nor in which unit its controller takes numbers.
      axes: UNKNOWN_AXES,
    });
    const { spec } = db.$client.prepare("select spec from machine_revision").get() as { spec: string };
    expect(JSON.parse(spec)).not.toHaveProperty("powerWordAtFull");
    db.$client.close();
  });

  it("has its optics as parts afterwards, fitted as they were", () => {
    const file = databaseAfter(3, (client) => {
      client.exec(`insert into machine (id, slug, created_at) values (1, 'old', 0);
        insert into optic (id, label) values (7, '50.8'), (8, '38.1');
        insert into optic_revision (optic_id, spec, valid_from) values (7, '{"label":"50.8","focalLengthMm":50.8}', 10), (8, '{"label":"38.1","focalLengthMm":38.1}', 10);
        insert into fitting (machine_id, optic_id, fitted_from, fitted_to) values (1, 7, 10, 20), (1, 8, 20, null)`);
    });
    const db = openDatabase(file);
    expect(allParts(db).map((p) => p.spec)).toEqual([
      { kind: "optic", label: "50.8", focalLengthMm: 50.8 },
      { kind: "optic", label: "38.1", focalLengthMm: 38.1 },
    ]);
    expect(fittingsOf(db, 1).map((f) => [f.partId, f.from, f.to])).toEqual([
      [7, 10, 20],
      [8, 20, null],
    ]);
    expect(() => db.$client.prepare("insert into part (label) values ('38.1')").run()).toThrow(/UNIQUE/);
    expect(() => db.$client.prepare("delete from part where id = 8").run()).toThrow(/FOREIGN KEY/);
    db.$client.close();
  });

  it("is brought up to date once: opened again it stays as it is", () => {
    const file = databaseAfter(1, (client) => oldMachine(client, 1000));
    const first = openDatabase(file);
    const before = first.$client.prepare("select * from machine_revision").all();
    first.$client.close();
    const again = openDatabase(file);
    expect(again.$client.prepare("select * from machine_revision").all()).toEqual(before);
    expect(again.$client.pragma("integrity_check", { simple: true })).toBe("ok");
    again.$client.close();
  });

  it("has the tables of a new one", () => {
    const tables = (file: string) => {
      const db = openDatabase(file);
      const names = db.$client.prepare("select name, sql from sqlite_master where type = 'table' order by name").all();
      db.$client.close();
      return (names as { name: string }[]).map((t) => t.name);
    };
    expect(tables(databaseAfter(1, () => undefined))).toEqual(tables(path.join(folder, "new.sqlite")));
  });

  it("keeps what was accepted through a power cut, and holds to its references", () => {
    const db = openDatabase(path.join(folder, "pragmas.sqlite"));
    expect(db.$client.pragma("synchronous", { simple: true })).toBe(2);
    expect(db.$client.pragma("journal_mode", { simple: true })).toBe("wal");
    expect(() =>
      db.$client.prepare("insert into fitting (machine_id, part_id, fitted_from) values (9, 9, 0)").run(),
    ).toThrow(/FOREIGN KEY/);
    db.$client.close();
  });
});
