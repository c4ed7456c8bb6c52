import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import Sqlite from "better-sqlite3";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { backupFiles, backupFolder } from "../../data/backup-files";
import { allMachines } from "../../data/machines";
import { closeDatabase, database } from "../../data/server-database";
import { demoCopy, NOW, refusal } from "../../testing/test-bench";
import { archive } from "../machine/archive-steps";
import { backUpNow, backupNamed, restoreBackup, takeInBackup, throwAwayBackup } from "./backup-steps";
import { backupView, lastBackup } from "./backup-view";

let folder: string;
let file: string;
beforeEach(() => {
  // Whatever another file left open.
  closeDatabase();
  folder = mkdtempSync(path.join(tmpdir(), "ustrina-backups-"));
  file = path.join(folder, "bench.sqlite");
  vi.stubEnv("USTRINA_DATABASE", file);
  const demo = demoCopy();
  writeFileSync(file, demo.$client.serialize());
  demo.$client.close();
});
afterEach(() => {
  closeDatabase();
  vi.unstubAllEnvs();
  rmSync(folder, { recursive: true });
});

const newestName = () => backupFiles(file)[0]?.name ?? "";
const onBench = () => allMachines(database()).map((m) => m.slug);
const refusedRestore = (name: string) => refusal(() => restoreBackup(name, NOW + 9000)).message;

describe("backups of the bench in use", () => {
  it("are made, listed with what they hold, put back, and the bench before that too", async () => {
    const before = onBench();
    const facts = await backUpNow(database(), file, NOW);
    expect(facts).toMatchObject({ machines: 3, trials: 21 });
    expect(facts.readings).toBeGreaterThan(100);
    expect(backupView(file)).toMatchObject([{ reason: "by hand", at: NOW, holds: facts }]);
    expect(lastBackup(file)).toBe(NOW);

    archive(database(), "bracken", NOW + 1000);
    const after = onBench();
    expect(after).not.toEqual(before);
    restoreBackup(newestName(), NOW + 2000);
    expect(onBench()).toEqual(before);
    expect(backupFiles(file).map((b) => b.reason)).toEqual(["before a restore", "by hand"]);
    restoreBackup(newestName(), NOW + 4000);
    expect(onBench()).toEqual(after);
  });

  it("come in from a file once they are found whole, whatever the file is called", async () => {
    await backUpNow(database(), file, NOW);
    const content = readFileSync(backupNamed(file, newestName()).file);
    takeInBackup(content, file, NOW + 5000);
    expect(backupView(file)[0]).toMatchObject({ reason: "from a file", at: NOW + 5000 });
    expect(refusal(() => takeInBackup(Buffer.from("%PDF-1.7"), file, NOW)).message).toMatch(/no backup/);
    expect(refusal(() => takeInBackup(content.subarray(0, content.length / 2), file, NOW)).message).toMatch(/damaged/);
    const other = new Sqlite(":memory:");
    other.exec("create table song (name text)");
    expect(refusal(() => takeInBackup(other.serialize(), file, NOW)).message).toMatch(/not of a bench/);
    const newer = new Sqlite(content);
    newer.exec("insert into __drizzle_migrations (hash, created_at) values ('later', 9999999999999)");
    expect(refusal(() => takeInBackup(newer.serialize(), file, NOW)).message).toMatch(/newer Ustrina/);
    expect(backupFiles(file)).toHaveLength(2);
    expect(readdirSync(backupFolder(file)).filter((f) => f.includes("part"))).toEqual([]);
  });

  it("that are damaged or gone are not put back, and the bench stays", async () => {
    const before = onBench();
    await backUpNow(database(), file, NOW);
    const { name, file: copy } = backupNamed(file, newestName());
    writeFileSync(copy, readFileSync(copy).fill(0x5a, 4096 * 4, 4096 * 9));
    expect(refusedRestore(name)).toMatch(/damaged/);
    expect(onBench()).toEqual(before);
    throwAwayBackup(file, name);
    expect(refusedRestore(name)).toMatch(/no longer there/);
    expect(onBench()).toEqual(before);
    expect(lastBackup(file)).toBeNull();
  });

  it("are named by no path", async () => {
    await backUpNow(database(), file, NOW);
    for (const name of ["../bench.sqlite", "..", "", path.join(backupFolder(file), newestName()), `./${newestName()}`])
      expect(refusal(() => backupNamed(file, name)).field).toBe("backup");
  });

  it("take the place of a bench that cannot be read any more", async () => {
    const before = onBench();
    await backUpNow(database(), file, NOW);
    closeDatabase();
    for (const log of ["-wal", "-shm"]) rmSync(file + log, { force: true });
    writeFileSync(file, "spoiled ".repeat(5000));
    expect(() => database()).toThrow(/not the data of a bench/);
    restoreBackup(newestName(), NOW + 3000);
    expect(onBench()).toEqual(before);
  });
});
