import Sqlite from "better-sqlite3";
import { describe, expect, it } from "vitest";
import { openDatabase } from "./database";
import { troubleOf } from "./trouble";

const coded = (code: string) => Object.assign(new Error("at /home/somebody/secret.sqlite"), { code });

describe("what is wrong with the disk or the file", () => {
  it.each([
    ["SQLITE_FULL", "full"],
    ["ENOSPC", "full"],
    ["SQLITE_READONLY_DBMOVED", "read only"],
    ["EROFS", "read only"],
    ["SQLITE_BUSY_SNAPSHOT", "locked"],
    ["SQLITE_IOERR_FSYNC", "disk"],
    ["SQLITE_CORRUPT_INDEX", "damaged"],
    ["SQLITE_NOTADB", "not a bench"],
    ["SQLITE_CANTOPEN", "disk"],
  ])("is known by its code: %s", (code, kind) => {
    expect(troubleOf(coded(code))?.kind).toBe(kind);
  });

  it("is found behind an error that wraps it, and nothing else is taken for it", () => {
    expect(troubleOf(new Error("query failed", { cause: coded("SQLITE_FULL") }))?.kind).toBe("full");
    expect(troubleOf(coded("SQLITE_CONSTRAINT_UNIQUE"))).toBeNull();
    expect(troubleOf(new Error("no"))).toBeNull();
    expect(troubleOf("full")).toBeNull();
  });

  it("is said without any path, with what to do", () => {
    const trouble = troubleOf(coded("SQLITE_FULL"));
    expect(trouble?.message).toBe(
      "The disk with the data of the bench is full. Free some space on it, then try again.",
    );
    expect(trouble?.reason).toBe("The disk with the data of the bench is full. Free some space on it.");
  });

  it("is what SQLite itself says of a file that may not grow, and nothing half-done is left", () => {
    const db = openDatabase(":memory:");
    const pages = db.$client.pragma("page_count", { simple: true }) as number;
    db.$client.pragma(`max_page_count = ${pages}`);
    const fill = db.$client.transaction(() => {
      for (let i = 0; i < 10_000; i++)
        db.$client.prepare("insert into machine (slug, created_at) values (?, 0)").run(`m${i}`);
    });
    expect(() => fill()).toThrow(Sqlite.SqliteError);
    try {
      fill();
    } catch (error) {
      expect(troubleOf(error)?.kind).toBe("full");
    }
    expect(db.$client.prepare("select count(*) as n from machine").get()).toEqual({ n: 0 });
    db.$client.pragma(`max_page_count = ${pages * 100}`);
    fill();
    expect(db.$client.prepare("select count(*) as n from machine").get()).toEqual({ n: 10_000 });
    db.$client.close();
  });
});
