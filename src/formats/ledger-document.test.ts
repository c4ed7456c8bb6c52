import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { check } from "../cli/check";
import { powersOf } from "../core/fitting/plane-map";
import { givenSettingValueSchema } from "../core/settings/setting";
import { parseCsv } from "./csv";
import { documentText } from "./json-document";
import { ledgerCsv } from "./ledger-csv";
import { isLedger, type LedgerDocument, ledgerDocument, parseLedgerDocument } from "./ledger-document";

const time = fc.integer({ min: 0, max: 4e12 }).map((t) => new Date(t).toISOString());
const number = fc.double({ min: -1e3, max: 1e3, noNaN: true }).filter((v) => !Object.is(v, -0));
/** Moves every point by a hundredth of the half at most: it can be inverted. */
const nearIdentity = (degree: number) => {
  const terms = powersOf(degree);
  const off = fc.double({ min: -0.01 / terms.length, max: 0.01 / terms.length, noNaN: true });
  const along = (axis: 0 | 1) =>
    fc
      .tuple(...terms.map(() => off))
      .map((o) => o.map((v, i) => 70 * (v + (terms[i]?.[axis] === 1 && terms[i][1 - axis] === 0 ? 1 : 0))));
  return fc.record({ degree: fc.constant(degree), half: fc.constant(70), x: along(0), y: along(1) });
};
const value = fc.oneof(
  fc.constant(null),
  fc.record({ shape: fc.constant("scalar" as const), value: number }),
  fc.record({
    shape: fc.constant("table" as const),
    rows: fc
      .uniqueArray(fc.record({ at: number, value: number }), { maxLength: 4, selector: (row) => row.at })
      .map((rows) => rows.sort((a, b) => a.at - b.at)),
  }),
  fc.record({
    shape: fc.constant("map" as const),
    undone: fc.array(fc.record({ map: fc.integer({ min: 1, max: 5 }).chain(nearIdentity), reachMm: fc.constant(70) }), {
      maxLength: 2,
    }),
    form: fc.constant(null),
  }),
);
const entry: fc.Arbitrary<LedgerDocument["entries"][number]> = fc.record({
  setting: fc.string({ minLength: 1, maxLength: 20 }),
  holder: fc.string({ minLength: 1, maxLength: 20 }),
  role: fc.constantFrom("controller", "copy", "ustrina"),
  value,
  unit: fc.constantFrom("mm", "in", "us"),
  u: fc.option(number.map(Math.abs)),
  origin: fc.constantFrom("found", "trial", "hand", "restored"),
  trial: fc.option(fc.string({ maxLength: 10 })),
  readBack: fc.boolean(),
  note: fc.string({ maxLength: 30 }),
  at: time,
  takenBack: fc.option(time),
});
const ledger = fc
  .array(entry, { maxLength: 5 })
  .map((entries) =>
    ledgerDocument({ machine: "Alder", kind: "CO2 gantry", written: "2026-11-25T10:00:00.000Z", entries }),
  );

describe("a ledger document", () => {
  it("comes back as it was written, whatever is in it", () => {
    fc.assert(
      fc.property(ledger, (document) => {
        const text = documentText(document);
        expect(isLedger(text)).toBe(true);
        expect(parseLedgerDocument(text)).toEqual({ ok: true, document });
      }),
      { seed: 8, numRuns: 100 },
    );
  });

  it("is a table with one number a line, which a spreadsheet can read", () => {
    fc.assert(
      fc.property(ledger, (document) => {
        const read = parseCsv(ledgerCsv(document));
        if (!read.ok) throw new Error(read.message);
        const lines = document.entries.map((e) => (e.value?.shape === "table" ? Math.max(1, e.value.rows.length) : 1));
        expect(read.value.rows).toHaveLength(lines.reduce((a, b) => a + b, 0));
      }),
      { seed: 9, numRuns: 100 },
    );
  });

  it("refuses a table whose rows are out of order or twice there, at the row", () => {
    const faultOf = (ats: number[]) => {
      const rows = ats.map((at) => ({ at, value: 0.1 }));
      const read = givenSettingValueSchema.safeParse({ shape: "table", rows });
      return read.success ? null : { path: read.error.issues[0]?.path, message: read.error.issues[0]?.message };
    };
    expect(faultOf([100, 200, 300])).toBeNull();
    expect(faultOf([100, 300, 200])).toEqual({
      path: ["rows", 2, "at"],
      message: "200 comes after 300. Sort the rows.",
    });
    expect(faultOf([100, 200, 200])?.message).toMatch(/200 occurs twice/);
  });

  it.each([
    [{ version: 2 }, "version", /Update Ustrina/],
    [{ kind: "lathe" }, "kind", /./],
    [{ entries: [{}] }, "entries[0].setting", /./],
    [{ more: 1 }, "", /more/],
  ])("names the field at fault: %j", (change, where, message) => {
    const whole = ledgerDocument({ machine: "A", kind: "galvo", written: "2026-11-25T10:00:00.000Z", entries: [] });
    expect(parseLedgerDocument(documentText({ ...whole, ...change }))).toMatchObject({
      ok: false,
      fault: { path: where, message: expect.stringMatching(message) },
    });
  });

  it("is told from a trial by a terminal", async () => {
    const folder = mkdtempSync(path.join(tmpdir(), "ustrina-ledger-"));
    const file = path.join(folder, "ledger.json");
    const whole = ledgerDocument({ machine: "Alder", kind: "galvo", written: "2026-11-25T10:00:00.000Z", entries: [] });
    writeFileSync(file, documentText(whole));
    expect(await check(file)).toBe("Ledger of Alder: 0 entries of 0 settings.\n");
    writeFileSync(file, documentText({ ...whole, kind: "lathe" }));
    await expect(check(file)).rejects.toThrow();
    rmSync(folder, { recursive: true });
  });
});
