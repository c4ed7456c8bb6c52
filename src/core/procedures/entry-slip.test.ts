import { describe, expect, it } from "vitest";
import { type EnteredRow, entrySlip } from "./entry-slip";

/** Rows of a table whose old entries were not zero: 0.10, 0.15, 0.20; worked out 0.05 more each. */
const table = (entered: (row: { old: number; workedOut: number }) => number): EnteredRow[] =>
  [0.1, 0.15, 0.2].map((old, i) => {
    const workedOut = old + 0.05;
    return { label: `${100 * (i + 1)} mm/s`, old, workedOut, entered: entered({ old, workedOut }) };
  });

describe("slips in what was entered into a table", () => {
  it.each([
    ["the whole for the half", ({ old }: { old: number }) => old + 0.1, /twice the one worked out.*half belongs/],
    ["the change reversed", ({ old }: { old: number }) => old - 0.05, /opposite sign/],
    ["nothing changed", ({ old }: { old: number }) => old, /the old ones/],
    ["half of the half", ({ old }: { old: number }) => old + 0.025, /halved twice/],
    ["the change alone", () => 0.05, /changes alone/],
    ["inches", ({ workedOut }: { workedOut: number }) => workedOut / 25.4, /divided by 25\.4/],
    ["µm", ({ workedOut }: { workedOut: number }) => workedOut * 1000, /1000 times off/],
    ["a misplaced point", ({ workedOut }: { workedOut: number }) => workedOut * 10, /decimal point/],
  ])("are asked about: %s", (_, entered, question) => expect(entrySlip(table(entered))).toMatch(question));

  it("are named where one row alone shows them", () => {
    const rows = table(({ workedOut }) => workedOut);
    const one = rows.map((r, i) => (i === 1 ? { ...r, entered: 2 } : r));
    expect(entrySlip(one)).toMatch(/for 200 mm\/s is 10 or 100 times off/);
    const kept = rows.map((r, i) => (i === 2 ? { ...r, entered: 0.2 } : r));
    expect(entrySlip(kept)).toMatch(/for 300 mm\/s is the old one/);
  });

  it("are none where it is what was worked out, rounded by a person", () => {
    expect(entrySlip(table(({ workedOut }) => workedOut))).toBeNull();
    expect(entrySlip(table(({ workedOut }) => workedOut + 0.005))).toBeNull();
  });
});

describe("slips in a single value", () => {
  const single = (entered: number, old: number | null = 80, workedOut = 80.4) =>
    entrySlip([{ label: "Pulses per mm", old, workedOut, entered }]);

  it.each([
    [80.8, /twice/],
    [79.6, /opposite sign/],
    [80, /the old one/],
    [804, /decimal point/],
    [0.4, /change alone/],
    [81.5, /differs/],
  ])("are asked about: %f for 80.4 with 80 before", (entered, question) => expect(single(entered)).toMatch(question));

  it("are none in what was meant, nor where the old value is not known", () => {
    expect(single(80.4)).toBeNull();
    expect(single(80.41)).toBeNull();
    expect(single(80.4, null)).toBeNull();
    expect(single(0.3, 0, 0.295)).toBeNull();
  });
});
