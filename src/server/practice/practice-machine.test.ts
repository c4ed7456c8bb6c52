/** The stand-in of a machine follows what is entered at its controller, and keeps what was burned as it was burned. */
import { beforeEach, describe, expect, it } from "vitest";
import type { Database } from "../../data/database";
import { entriesOf, ownerOfMachine } from "../../data/ledger";
import { holdersOf, machineBySlug } from "../../data/machines";
import { practiceOf, setPractice } from "../../data/practice";
import { demoCopy, NOW } from "../../testing/test-bench";
import { takeBackEntry, writeDown } from "../ledger/ledger-steps";
import { burnOnPractice, readOnPractice } from "../trial/burn-on-practice";
import { beginTrial, openSession } from "../trial/trial-steps";
import { controllerOf, tablesOf } from "./practice-machine";

const X = "axis scale x";
let db: Database;
let machineId = 0;
beforeEach(() => {
  db = demoCopy();
  machineId = machineBySlug(db, "alder")?.id ?? 0;
});

const numbers = () => {
  const row = practiceOf(db, machineId);
  return row ? controllerOf(row).numbers : undefined;
};
const byHand = (setting: string, text: string, at: number, origin: "hand" | "found" = "hand") =>
  writeDown(
    db,
    {
      machine: "alder",
      setting,
      holderId: holdersOf(db, machineId)[0]?.id ?? 0,
      origin,
      rows: [{ at: null, text }],
      note: "another pulley",
      readBack: true,
    },
    at,
  );

describe("numbers of the practice controller", () => {
  it("follow what is entered by hand, from what the ledger said was there, and back", () => {
    const found = numbers()?.[X]?.found;
    expect(found).toBeCloseTo(0.00625, 12);
    // As benches were before stand-ins knew of numbers
    setPractice(db, machineId, { controller: JSON.stringify({ table: [], switchedOn: true }) });
    const before = entriesOf(db, ownerOfMachine(machineId)).find((e) => e.setting === X)?.value;
    const id = byHand(X, "6.3", NOW + 1);
    expect(numbers()?.[X]).toEqual({ found: before?.shape === "scalar" ? before.value : 0, now: 0.0063 });
    byHand(X, "6.4", NOW + 2, "found");
    expect(numbers()?.[X]?.now).toBe(0.0063);
    expect(() => takeBackEntry(db, "alder", id, NOW + 3)).toThrow(/newer/);
  });

  it("are as found again once what was entered is taken back", () => {
    const id = byHand("home offset x", "200", NOW + 1);
    expect(numbers()?.["home offset x"]).toEqual({ found: 120, now: 200 });
    takeBackEntry(db, "alder", id, NOW + 2);
    expect(numbers()?.["home offset x"]).toEqual({ found: 120, now: 120 });
  });
});

describe("shifts of scanned rows by speed", () => {
  it("reach the practice controller beside the table of the scan offset, and leave it with their entry", () => {
    const tables = () => {
      const row = practiceOf(db, machineId);
      return row && tablesOf(controllerOf(row));
    };
    const before = tables()?.["scan offset"];
    const id = writeDown(
      db,
      {
        machine: "alder",
        setting: "row shift by speed",
        holderId: holdersOf(db, machineId)[0]?.id ?? 0,
        origin: "hand",
        rows: [{ at: 300, text: "0.12" }],
        note: "from its manual",
        readBack: true,
      },
      NOW + 1,
    );
    expect(tables()).toEqual({ "scan offset": before, "row shift by speed": [{ at: 300, value: 0.12 }] });
    takeBackEntry(db, "alder", id, NOW + 2);
    expect(tables()?.["row shift by speed"]).toEqual([]);
  });
});

describe("a piece that was burned", () => {
  it("is read the same whatever is entered afterwards; one burned with it is read too", () => {
    const burned = (at: number) => {
      const id = beginTrial(db, "alder", at === NOW ? "scan-offset" : "focus", at);
      burnOnPractice(db, id, 1, null, at + 1);
      openSession(db, id, 1, "calipers", { outside: 0, inside: null }, at + 2);
      return id;
    };
    const id = burned(NOW);
    const read = () => readOnPractice(db, id, 1, "v300-left").text;
    const before = read();
    expect(Number(before)).toBeGreaterThan(0);
    // 5 mm beside, and a twentieth longer
    byHand("home offset x", "320", NOW + 10);
    byHand(X, "5.9", NOW + 11);
    expect(read()).toBe(before);
    const later = burned(NOW + 20);
    expect(readOnPractice(db, later, 1, "marked").text).toMatch(/^\d+ to \d+$/);
  });
});
