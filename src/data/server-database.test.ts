/** The file under the running server: what is written is never written to a file that no longer lies at its place. */
import {
  copyFileSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  renameSync,
  rmSync,
  utimesSync,
  writeFileSync,
} from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { openDatabase } from "./database";
import { closeDatabase, database } from "./server-database";
import { DatabaseTrouble } from "./trouble";

const before = process.env.USTRINA_DATABASE;
let folder: string;
let file: string;
beforeEach(() => {
  folder = mkdtempSync(path.join(tmpdir(), "ustrina-file-"));
  file = path.join(folder, "bench.sqlite");
  process.env.USTRINA_DATABASE = file;
  closeDatabase();
});
afterEach(() => {
  closeDatabase();
  if (before === undefined) delete process.env.USTRINA_DATABASE;
  else process.env.USTRINA_DATABASE = before;
  rmSync(folder, { recursive: true, force: true });
});

function kindOf(act: () => unknown): string {
  try {
    act();
    return "none";
  } catch (error) {
    return error instanceof DatabaseTrouble ? error.kind : String(error);
  }
}

function withBackup(): string {
  const backup = path.join(folder, "backups", "ustrina-20260101-101010-by-hand.sqlite");
  mkdirSync(path.dirname(backup));
  openDatabase(backup).$client.close();
  return backup;
}

describe("the file of the bench", () => {
  it("that is moved away is missed at the next write, and found again when it is back", () => {
    expect(kindOf(database)).toBe("none");
    renameSync(file, `${file}.away`);
    expect(kindOf(database)).toBe("moved");
    expect(existsSync(file)).toBe(false);
    renameSync(`${file}.away`, file);
    expect(kindOf(database)).toBe("none");
  });

  it("that is deleted, or replaced by another, takes nothing more", () => {
    database();
    copyFileSync(file, `${file}.other`);
    renameSync(`${file}.other`, file);
    expect(kindOf(database)).toBe("moved");
    rmSync(file);
    expect(kindOf(database)).toBe("moved");
  });

  it("that is gone or empty beside backups does not become an empty bench without a word", () => {
    withBackup();
    expect(kindOf(database)).toBe("gone");
    expect(existsSync(file)).toBe(false);
    writeFileSync(file, "");
    expect(kindOf(database)).toBe("gone");
    rmSync(path.join(folder, "backups"), { recursive: true });
    expect(kindOf(database)).toBe("none");
  });

  it("is opened after what killed copies left was swept; what is being made stays", () => {
    const backup = withBackup();
    copyFileSync(backup, file);
    const [old, fresh] = [`${backup}.0011.part`, path.join(folder, "bench.sqlite.22.part")];
    for (const part of [old, `${old}-wal`, fresh]) writeFileSync(part, "half");
    const yesterday = Date.now() / 1000 - 86_400;
    for (const part of [old, `${old}-wal`]) utimesSync(part, yesterday, yesterday);
    database();
    expect([old, `${old}-wal`, fresh, backup].map((f) => existsSync(f))).toEqual([false, false, true, true]);
  });
});
