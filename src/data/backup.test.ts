/** Backups: whole while the bench is written to, checked, put back at once or not at all. */
import {
  copyFileSync,
  existsSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  truncateSync,
  writeFileSync,
} from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import Sqlite from "better-sqlite3";
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from "vitest";
import { SAMPLE_MACHINE } from "../testing/sample-machine";
import { backUp, checkCopy, factsOfCopy, putInPlace } from "./backup";
import { backupFiles, backupFolder, newBackupFile } from "./backup-files";
import { type Database, openDatabase } from "./database";
import { addMachine } from "./machines";
import { DatabaseTrouble } from "./trouble";

let root: string;
let folder: string;
let file: string;
let db: Database;
beforeAll(() => {
  root = mkdtempSync(path.join(tmpdir(), "ustrina-backup-"));
});
afterAll(() => rmSync(root, { recursive: true }));
beforeEach(() => {
  folder = mkdtempSync(path.join(root, "bench-"));
  file = path.join(folder, "bench.sqlite");
  db = openDatabase(file);
});
afterEach(() => db.$client.close());

const named = (name: string) => addMachine(db, name.toLowerCase(), { ...SAMPLE_MACHINE, name }, [], 1000);
const slugs = (at: string) => {
  const client = new Sqlite(at, { readonly: true });
  const rows = client.prepare("select slug from machine order by id").all() as { slug: string }[];
  client.close();
  return rows.map((row) => row.slug);
};
const kindOf = (act: () => unknown) => {
  try {
    act();
  } catch (error) {
    return error instanceof DatabaseTrouble ? error.kind : String(error);
  }
  return "none";
};

describe("a backup", () => {
  it("is one file, whole, with what was there, while the bench is written to", async () => {
    for (let i = 0; i < 400; i++) named(`Machine-${i}`);
    const copy = path.join(folder, "copy.sqlite");
    const copying = backUp(db, copy);
    // The copy is made in steps; between them the bench goes on
    for (let i = 0; i < 50; i++) {
      await new Promise(setImmediate);
      named(`Later-${i}`);
    }
    const facts = await copying;
    expect(facts.machines).toBeGreaterThanOrEqual(400);
    expect(checkCopy(copy)).toEqual(facts);
    expect(slugs(copy).slice(0, 400)).toEqual(Array.from({ length: 400 }, (_, i) => `machine-${i}`));
    expect(readdirSync(folder).filter((f) => f.startsWith("copy"))).toEqual(["copy.sqlite"]);
    expect(slugs(file)).toHaveLength(450);
  });

  it("that cannot be made leaves the one before it", async () => {
    const copy = path.join(folder, "copy.sqlite");
    writeFileSync(copy, "the one before");
    const away = path.join(folder, "taken", "copy.sqlite");
    writeFileSync(path.join(folder, "taken"), "a file where the folder should be");
    await expect(backUp(db, away)).rejects.toThrow();
    expect(readFileSync(copy, "utf8")).toBe("the one before");
    expect(readdirSync(folder).filter((f) => f.includes(".part"))).toEqual([]);
  });

  it("is listed by its moment and its reason, whatever else lies there", async () => {
    const at = Date.UTC(2026, 10, 25, 18, 30, 4);
    const first = newBackupFile(file, "by hand", at);
    await backUp(db, first);
    await backUp(db, newBackupFile(file, "by hand", at));
    await backUp(db, newBackupFile(file, "before a restore", at - 86_400_000));
    writeFileSync(path.join(backupFolder(file), "notes.txt"), "");
    writeFileSync(path.join(backupFolder(file), "ustrina-20261125-183004-for-fun.sqlite"), "");
    expect(backupFiles(file).map((b) => [b.name, b.at, b.reason])).toEqual([
      ["ustrina-20261125-183004-by-hand.sqlite", at, "by hand"],
      ["ustrina-20261125-183004-2-by-hand.sqlite", at, "by hand"],
      ["ustrina-20261124-183004-before-a-restore.sqlite", at - 86_400_000, "before a restore"],
    ]);
    expect(backupFiles(path.join(folder, "elsewhere", "x.sqlite"))).toEqual([]);
  });
});

describe("the check of a copy", () => {
  it("finds a page that was overwritten, an end that is cut off, and what is no bench at all", async () => {
    for (let i = 0; i < 200; i++) named(`Machine-${i}`);
    const good = path.join(folder, "good.sqlite");
    await backUp(db, good);
    const spoiled = (name: string, spoil: (content: Buffer) => Buffer) => {
      const bad = path.join(folder, name);
      writeFileSync(bad, spoil(readFileSync(good)));
      return bad;
    };
    const overwritten = spoiled("a.sqlite", (b) => b.fill(0x5a, 8 * 4096, 12 * 4096));
    expect(kindOf(() => checkCopy(overwritten))).toBe("damaged");
    const cut = spoiled("b.sqlite", (b) => b.subarray(0, b.length - 4096 * 20));
    expect(kindOf(() => checkCopy(cut))).toBe("damaged");
    expect(kindOf(() => checkCopy(spoiled("c.sqlite", () => Buffer.from("no database at all".repeat(99)))))).toBe(
      "not a bench",
    );
    expect(kindOf(() => checkCopy(spoiled("d.sqlite", () => Buffer.alloc(0))))).toBe("not a bench");
    expect(kindOf(() => checkCopy(path.join(folder, "nowhere.sqlite")))).toBe("disk");
    const other = new Sqlite(path.join(folder, "other.sqlite"));
    other.exec("create table song (name text)");
    other.close();
    expect(kindOf(() => checkCopy(path.join(folder, "other.sqlite")))).toBe("not a bench");
    expect(kindOf(() => checkCopy(good))).toBe("none");
  });

  it("finds a record whose other half is missing", async () => {
    named("Alder");
    const copy = path.join(folder, "copy.sqlite");
    await backUp(db, copy);
    const client = new Sqlite(copy);
    client.pragma("foreign_keys = OFF");
    client.exec("delete from machine");
    client.close();
    expect(kindOf(() => checkCopy(copy))).toBe("damaged");
    expect(factsOfCopy(copy).machines).toBe(0);
  });
});

describe("a copy that opens and is no bench", () => {
  it.each([
    ["a trigger", "create trigger t after insert on reading begin delete from ledger_entry; end", "not a bench"],
    ["a view", "create view v as select 1", "not a bench"],
    ["a missing table", "drop table put_back", "not a bench"],
    ["a text where JSON belongs", "update machine_revision set spec = 'no json'", "damaged"],
  ])("is refused: %s", async (_, sql, kind) => {
    named("Alder");
    const copy = path.join(folder, "copy.sqlite");
    await backUp(db, copy);
    expect(kindOf(() => checkCopy(copy))).toBe("none");
    const client = new Sqlite(copy);
    client.exec(sql);
    client.close();
    expect(kindOf(() => checkCopy(copy))).toBe(kind);
  });
});

describe("a restore", () => {
  let copy: string;
  beforeEach(async () => {
    copy = path.join(folder, "copy.sqlite");
    named("Alder");
    await backUp(db, copy);
    named("Bracken");
  });

  it("puts the bench as it was in its place, ready to be used", () => {
    db.$client.close();
    const kept = putInPlace(copy, file, 5000);
    expect(slugs(file)).toEqual(["alder"]);
    expect(slugs(kept ?? "")).toEqual(["alder", "bracken"]);
    db = openDatabase(file);
    expect(db.$client.pragma("journal_mode", { simple: true })).toBe("wal");
    expect(db.$client.pragma("integrity_check", { simple: true })).toBe("ok");
    expect(readdirSync(folder).filter((f) => f.includes(".part"))).toEqual([]);
    expect(checkCopy(copy).machines).toBe(1);
  });

  it("gives out no number again that the bench gave out since", () => {
    const given = db.$client.prepare("select id from machine where slug = 'bracken'").get() as { id: number };
    db.$client.close();
    putInPlace(copy, file, 5000);
    db = openDatabase(file);
    named("Cinder");
    const { id } = db.$client.prepare("select id from machine where slug = 'cinder'").get() as { id: number };
    expect(id).toBeGreaterThan(given.id);
  });

  it("waits until nobody has the bench open, and leaves it as it is till then", () => {
    expect(kindOf(() => putInPlace(copy, file, 5000))).toBe("locked");
    named("Cinder");
    expect(slugs(file)).toEqual(["alder", "bracken", "cinder"]);
    expect(backupFiles(file)).toEqual([]);
  });

  it("does nothing with a copy that is not whole", () => {
    db.$client.close();
    truncateSync(copy, 4096 * 3);
    expect(kindOf(() => putInPlace(copy, file, 5000))).toBe("damaged");
    expect(slugs(file)).toEqual(["alder", "bracken"]);
    db = openDatabase(file);
  });

  it("takes the place of a bench that is damaged, and keeps that aside", () => {
    db.$client.close();
    const spoiled = Buffer.from("this was a bench once ".repeat(400));
    writeFileSync(file, spoiled);
    expect(kindOf(() => openDatabase(file))).toBe("not a bench");
    const kept = putInPlace(copy, file, 5000);
    expect(slugs(file)).toEqual(["alder"]);
    expect(readFileSync(kept ?? "")).toEqual(spoiled);
    db = openDatabase(file);
  });

  it("takes the place of a bench of a newer Ustrina, and keeps that aside whole", () => {
    db.$client.exec("insert into __drizzle_migrations (hash, created_at) values ('later', 9999999999999)");
    db.$client.close();
    const kept = putInPlace(copy, file, 5000);
    expect(slugs(file)).toEqual(["alder"]);
    expect(slugs(kept ?? "")).toEqual(["alder", "bracken"]);
    expect(kindOf(() => checkCopy(kept ?? ""))).toBe("newer");
    db = openDatabase(file);
  });

  it("makes the bench where there is none", () => {
    const elsewhere = path.join(folder, "new", "bench.sqlite");
    expect(putInPlace(copy, elsewhere, 5000)).toBeNull();
    expect(slugs(elsewhere)).toEqual(["alder"]);
    expect(existsSync(`${elsewhere}-wal`)).toBe(false);
  });

  it("reads no log of the bench before into the one that comes", () => {
    // As after a kill: the log was never taken into the file
    const killed = path.join(folder, "killed.sqlite");
    copyFileSync(file, killed);
    copyFileSync(`${file}-wal`, `${killed}-wal`);
    putInPlace(copy, killed, 5000);
    expect(slugs(killed)).toEqual(["alder"]);
  });
});
