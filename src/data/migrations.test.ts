/** Benches of earlier schemas: brought up to date at start with everything that is in them, or refused in words and not touched. */

import { cpSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { gunzipSync } from "node:zlib";
import Sqlite from "better-sqlite3";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { backupFiles } from "./backup-files";
import { openDatabase, type SchemaSteps } from "./database";
import { OLDEST_SCHEMA, PRESENT_SCHEMA, schemaOf } from "./schema-version";

const FOLDER = "src/data/migrations";
/** Benches as they were kept by each schema that has landed, by its number. */
const OLD_FOLDER = "src/data/old-benches";
const OLD = readdirSync(OLD_FOLDER);

let folder: string;
beforeAll(() => {
  folder = mkdtempSync(path.join(tmpdir(), "ustrina-migrations-"));
});
afterAll(() => rmSync(folder, { recursive: true }));

/** A copy of an old bench in a folder of its own. */
function oldBench(name: string, as: string): string {
  const file = path.join(folder, as, "bench.sqlite");
  mkdirSync(path.dirname(file), { recursive: true });
  writeFileSync(file, gunzipSync(readFileSync(path.join(OLD_FOLDER, name))));
  return file;
}

const rowsOf = (client: Sqlite.Database) => ({
  readings: client.prepare("select raw, answer, client_key, taken_at from reading order by id").all(),
  entries: client.prepare("select setting, value, origin, entered_at from ledger_entry order by id").all(),
  trials: client.prepare('select code, procedure, begun_at, "end" from trial order by id').all(),
  burns: client.prepare("select file, marks from practice_burn order by id").all(),
});

function rowsIn(file: string) {
  const client = new Sqlite(file, { readonly: true });
  const rows = rowsOf(client);
  client.close();
  return rows;
}

/** The steps of today with one more, as the next change of the schema will be. */
function withOneMoreStep(): SchemaSteps {
  const steps = path.join(folder, "later-steps");
  cpSync(FOLDER, steps, { recursive: true });
  const journalFile = path.join(steps, "meta/_journal.json");
  const journal = JSON.parse(readFileSync(journalFile, "utf8"));
  const newest = PRESENT_SCHEMA + 1000;
  journal.entries.push({
    idx: journal.entries.length,
    version: "6",
    when: newest,
    tag: "9999_made_up",
    breakpoints: true,
  });
  writeFileSync(journalFile, JSON.stringify(journal));
  writeFileSync(path.join(steps, "9999_made_up.sql"), "alter table machine add made_up text;");
  return { folder: steps, newest };
}

describe("a bench of an earlier schema", () => {
  it.each(OLD)("%s keeps every row, and has the tables and columns of a new one", (name) => {
    const file = oldBench(name, "kept");
    const before = rowsIn(file);
    expect(before.readings.length).toBeGreaterThan(100);
    const db = openDatabase(file);
    expect(rowsOf(db.$client)).toEqual(before);
    expect(db.$client.pragma("integrity_check", { simple: true })).toBe("ok");
    expect(db.$client.pragma("foreign_key_check")).toEqual([]);
    const fresh = openDatabase(":memory:");
    expect(columnsOf(db.$client)).toEqual(columnsOf(fresh.$client));
    fresh.$client.close();
    db.$client.close();
  });

  it("is copied as it was before a step changes it, once, and is then too new for the Ustrina before", () => {
    const [name = ""] = OLD;
    const file = oldBench(name, "stepped");
    const before = rowsIn(file);
    const later = withOneMoreStep();
    const db = openDatabase(file, true, later);
    expect(rowsOf(db.$client)).toEqual(before);
    expect(columnsOf(db.$client).machine).toContain("made_up");
    expect(schemaOf(db.$client)).toBe(later.newest);
    db.$client.close();
    expect(() => openDatabase(file)).toThrow(/A newer Ustrina/);
    const copies = backupFiles(file).filter((b) => b.reason === "before an update");
    expect(copies).toHaveLength(1);
    const asItWas = new Sqlite(copies[0]?.file ?? "", { readonly: true });
    expect(rowsOf(asItWas)).toEqual(before);
    expect(schemaOf(asItWas)).toBe(OLDEST_SCHEMA);
    asItWas.close();
  });

  it("of a newer Ustrina, of one before the first, or of another program, is refused in words and not touched", () => {
    const refused = (as: string, change: (client: Sqlite.Database) => void, words: RegExp) => {
      const file = path.join(folder, `${as}.sqlite`);
      const client = new Sqlite(file);
      change(client);
      client.close();
      const bytes = readFileSync(file);
      expect(() => openDatabase(file)).toThrow(words);
      expect(readFileSync(file)).toEqual(bytes);
    };
    const kept = (moment: number) => (client: Sqlite.Database) =>
      client.exec(`create table __drizzle_migrations (id integer primary key, hash text, created_at numeric);
        insert into __drizzle_migrations (hash, created_at) values ('a step', ${moment})`);
    refused("newer", kept(9_999_999_999_999), /^A newer Ustrina has kept this bench.*Start the newer one, or restore/);
    refused("older", kept(OLDEST_SCHEMA - 1), /^This bench is of a trial version.*Open it once with a version from/);
    refused("other", (client) => client.exec("create table song (name text)"), /not the data of a bench/);
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

/** By table, in the order of the alphabet: old steps added theirs at the end. */
function columnsOf(client: Sqlite.Database): Record<string, string[]> {
  const tables = client
    .prepare(
      "select name from sqlite_master where type = 'table' and name not like 'sqlite@_%' escape '@' order by name",
    )
    .pluck()
    .all() as string[];
  return Object.fromEntries(
    tables.map((table) => [
      table,
      (client.prepare("select name from pragma_table_info(?) order by name").pluck().all(table) as string[]).sort(),
    ]),
  );
}
