import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { NO_FIELD_TABLE } from "./field-table";
import type { SettingValue } from "./setting";
import { type DatedValue, differences, entryBefore, inForceAt, isSame } from "./setting-history";

const entry = (id: number, at: number, undoneAt: number | null = null, setting = "s", holderId = 1): DatedValue => ({
  id,
  setting,
  holderId,
  at,
  undoneAt,
});

describe("what was in force at a moment", () => {
  it("is the newest entry made by then, and what was taken back later still counts for the time between", () => {
    const ledger = [entry(1, 100), entry(2, 200, 350), entry(3, 300)];
    const at = (moment: number) => inForceAt(ledger, moment).map((e) => e.id);
    expect(at(99)).toEqual([]);
    expect(at(100)).toEqual([1]);
    expect(at(250)).toEqual([2]);
    expect(at(320)).toEqual([3]);
    expect(inForceAt([entry(1, 100), entry(2, 200, 350)], 300).map((e) => e.id)).toEqual([2]);
    expect(inForceAt([entry(1, 100), entry(2, 200, 350)], 350).map((e) => e.id)).toEqual([1]);
  });

  it("is one entry for each setting at each holder, however the ledger is ordered", () => {
    const some = fc.array(
      fc.record({
        id: fc.integer({ min: 1, max: 1e6 }),
        setting: fc.constantFrom("a", "b"),
        holderId: fc.constantFrom(1, 2, null),
        at: fc.integer({ min: 0, max: 50 }),
        undoneAt: fc.option(fc.integer({ min: 51, max: 90 })),
      }),
      { maxLength: 20 },
    );
    fc.assert(
      fc.property(some, fc.integer({ min: 0, max: 100 }), (ledger, moment) => {
        const unique = ledger.filter((e, i) => ledger.findIndex((o) => o.id === e.id) === i);
        const found = inForceAt(unique, moment);
        const keys = found.map((e) => `${e.setting} ${e.holderId}`);
        expect(new Set(keys).size).toBe(keys.length);
        for (const e of found) {
          const rivals = unique.filter(
            (o) =>
              o.setting === e.setting && o.holderId === e.holderId && o.at <= moment && (o.undoneAt ?? 1e9) > moment,
          );
          expect(Math.max(...rivals.map((o) => o.at))).toBe(e.at);
        }
        const key = (list: DatedValue[]) => list.map((e) => e.id).sort((a, b) => a - b);
        expect(key(inForceAt([...unique].reverse(), moment))).toEqual(key(found));
      }),
      { seed: 4, numRuns: 200 },
    );
  });
});

describe("what stood before an entry", () => {
  it("goes by the order of the ledger at the same place, not by when it was written", () => {
    // Loaded from a file: written last, but made first.
    const ledger = [entry(2, 300), entry(1, 200, null, "s", 2), entry(3, 100)];
    expect(entryBefore(ledger, ledger[0] as DatedValue)?.id).toBe(3);
    expect(entryBefore(ledger, ledger[1] as DatedValue)).toBeUndefined();
    expect(entryBefore(ledger, ledger[2] as DatedValue)).toBeUndefined();
  });
});

describe("how two values differ", () => {
  const table = (...rows: [number, number][]): SettingValue => ({
    shape: "table",
    rows: rows.map(([at, value]) => ({ at, value })),
  });

  it("is said row by row, with rows that came and rows that went", () => {
    expect(differences(table([100, 0.1], [300, 0.2]), table([100, 0.1], [500, 0.3]))).toEqual([
      { at: 100, before: 0.1, after: 0.1 },
      { at: 300, before: 0.2, after: null },
      { at: 500, before: null, after: 0.3 },
    ]);
  });

  it("knows what was not known from what was empty", () => {
    expect(differences(null, { shape: "scalar", value: 2 })).toEqual([{ at: null, before: null, after: 2 }]);
    expect(differences(null, table())).toEqual([]);
    expect(isSame(null, table())).toBe(false);
    expect(isSame(table([1, 2]), table([1, 2]))).toBe(true);
  });

  it("is not said number by number for maps", () => {
    expect(differences(NO_FIELD_TABLE, null)).toBeNull();
  });
});
