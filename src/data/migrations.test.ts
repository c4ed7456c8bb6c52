/** Databases of earlier versions, brought up to date at start with everything that is in them. */

import { cpSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { gunzipSync } from "node:zlib";
import Sqlite from "better-sqlite3";
import { drizzle } from "drizzle-orm/better-sqlite3";
import { migrate } from "drizzle-orm/better-sqlite3/migrator";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { USUAL_DIALECT } from "../core/procedures/gcode-dialect";
import { UNKNOWN_AXES } from "../core/procedures/machine-spec";
import { opticOf } from "../core/procedures/part-spec";
import { SAMPLE_MACHINE } from "../core/procedures/sample-machine";
import { backupFiles } from "./backup-files";
import { openDatabase } from "./database";
import { machineBySlug } from "./machines";
import { allParts, fittingsOf } from "./parts";
import { KNOWN_STEPS, stepsOf } from "./schema-version";

const FOLDER = "src/data/migrations";
/** Demo benches as earlier versions laid them out, by the number of their schema. */
const OLD_FOLDER = "src/data/old-databases";
const OLD = readdirSync(OLD_FOLDER).map((name) => name.replace(".sqlite.gz", ""));

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
      { kind: "optic", ...opticOf({ label: "50.8", focalLengthMm: 50.8 }) },
      { kind: "optic", ...opticOf({ label: "38.1", focalLengthMm: 38.1 }) },
    ]);
    expect(fittingsOf(db, 1).map((f) => [f.partId, f.from, f.to])).toEqual([
      [7, 10, 20],
      [8, 20, null],
    ]);
    expect(() => db.$client.prepare("insert into part (label) values ('38.1')").run()).toThrow(/UNIQUE/);
    expect(() => db.$client.prepare("delete from part where id = 8").run()).toThrow(/FOREIGN KEY/);
    db.$client.close();
  });

  it.each(OLD)("as it was kept by the Ustrina of then, %s, keeps every row, and a copy of it as it was", (name) => {
    const file = path.join(folder, "kept", `${name}.sqlite`);
    mkdirSync(path.dirname(file), { recursive: true });
    writeFileSync(file, gunzipSync(readFileSync(path.join(OLD_FOLDER, `${name}.sqlite.gz`))));
    const rows = (client: Sqlite.Database) => ({
      readings: client.prepare("select raw, answer, client_key, taken_at from reading order by id").all(),
      entries: client.prepare("select setting, value, origin, entered_at from ledger_entry order by id").all(),
      trials: client.prepare('select code, procedure, begun_at, "end" from trial order by id').all(),
      burns: client.prepare("select file, marks from practice_burn order by id").all(),
    });
    const old = new Sqlite(file);
    const before = rows(old);
    old.close();
    expect(before.readings.length).toBeGreaterThan(200);
    const db = openDatabase(file);
    expect(rows(db.$client)).toEqual(before);
    expect(db.$client.pragma("integrity_check", { simple: true })).toBe("ok");
    expect(db.$client.pragma("foreign_key_check")).toEqual([]);
    db.$client.close();
    const [copy] = backupFiles(file).filter((b) => b.reason === "before an update");
    if (!copy) throw new Error("no copy was kept");
    const asItWas = new Sqlite(copy.file, { readonly: true });
    expect(rows(asItWas)).toEqual(before);
    expect(stepsOf(asItWas)).toBeLessThan(KNOWN_STEPS);
    asItWas.close();
    rmSync(path.dirname(file), { recursive: true });
  });

  it("has a fixture for each schema that was ever in use", () => {
    // The first step was never used alone.
    expect(OLD).toEqual(Array.from({ length: KNOWN_STEPS - 2 }, (_, i) => `schema-${i + 2}`));
  });

  it("of a newer Ustrina, or of another program, is refused in words and not touched", () => {
    const newer = path.join(folder, "newer.sqlite");
    const db = openDatabase(newer);
    db.$client.exec("insert into __drizzle_migrations (hash, created_at) values ('later', 9999999999999)");
    db.$client.close();
    const other = path.join(folder, "other.sqlite");
    const client = new Sqlite(other);
    client.exec("create table song (name text)");
    client.close();
    const [a, b] = [readFileSync(newer), readFileSync(other)];
    expect(() => openDatabase(newer)).toThrow(
      "A newer Ustrina has kept this bench, and this one cannot read it. Start the newer one, or restore a backup from before, then try again.",
    );
    expect(() => openDatabase(other)).toThrow(/not the data of a bench/);
    expect(readFileSync(newer)).toEqual(a);
    expect(readFileSync(other)).toEqual(b);
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
