import { describe, expect, it } from "vitest";
import { type EnteredRow, entrySlip } from "./entry-slip";

/** Rows of a table whose old entries were not zero: 0.10, 0.15, 0.20; calculated 0.05 more each. */
const table = (entered: (row: { old: number; workedOut: number }) => number): EnteredRow[] =>
  [0.1, 0.15, 0.2].map((old, i) => {
    const workedOut = old + 0.05;
    return { label: `${100 * (i + 1)} mm/s`, old, workedOut, entered: entered({ old, workedOut }) };
  });

describe("a table entered in a controller", () => {
  it.each([
    ["the whole for the half", ({ old }: { old: number }) => old + 0.1, /twice the calculated one.*instead of half/],
    ["the change reversed", ({ old }: { old: number }) => old - 0.05, /opposite sign/],
    ["nothing changed", ({ old }: { old: number }) => old, /the old values/],
    ["half of the half", ({ old }: { old: number }) => old + 0.025, /halve it twice/],
    ["the change alone", () => 0.05, /changes alone/],
    ["inches", ({ workedOut }: { workedOut: number }) => workedOut / 25.4, /divided by 25\.4/],
    ["µm", ({ workedOut }: { workedOut: number }) => workedOut * 1000, /factor of 1000/],
    ["a misplaced point", ({ workedOut }: { workedOut: number }) => workedOut * 10, /decimal point/],
  ])("causes a question about a slip: %s", (_, entered, question) =>
    expect(entrySlip(table(entered))).toMatch(question),
  );

  it("causes a question that names the only row with a slip", () => {
    const rows = table(({ workedOut }) => workedOut);
    const one = rows.map((r, i) => (i === 1 ? { ...r, entered: 2 } : r));
    expect(entrySlip(one)).toMatch(/for 200 mm\/s differs from the calculated one by a factor of 10 or 100/);
    const kept = rows.map((r, i) => (i === 2 ? { ...r, entered: 0.2 } : r));
    expect(entrySlip(kept)).toMatch(/for 300 mm\/s is the old value/);
  });

  it("causes no question if it has the calculated values, rounded by hand", () => {
    expect(entrySlip(table(({ workedOut }) => workedOut))).toBeNull();
    expect(entrySlip(table(({ workedOut }) => workedOut + 0.005))).toBeNull();
  });
});

describe("a single value entered in a controller", () => {
  const single = (entered: number, old: number | null = 80, workedOut = 80.4) =>
    entrySlip([{ label: "Pulses per mm", old, workedOut, entered }]);

  it.each([
    [80.8, /twice/],
    [79.6, /opposite sign/],
    [80, /the old value/],
    [804, /decimal point/],
    [0.4, /change alone/],
    [81.5, /differs/],
  ])("causes a question: %f instead of 80.4, with the old value 80", (entered, question) =>
    expect(single(entered)).toMatch(question),
  );

  it("causes no question if it is right, or if the old value is not known", () => {
    expect(single(80.4)).toBeNull();
    expect(single(80.41)).toBeNull();
    expect(single(80.4, null)).toBeNull();
    expect(single(0.3, 0, 0.295)).toBeNull();
  });
});
