import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { scanOffset } from "../core/procedures/scan-offset/procedure";
import { type Answer, PLAIN_SHARES } from "../core/trial/answer";
import { readAnswerInput } from "../core/trial/answer-input";
import { madeUp } from "../testing/made-up/procedure";
import { SAMPLE_MACHINE } from "../testing/sample-machine";
import { historyOf, readAs, TEST_GAUGE } from "../testing/scan-offset-history";
import { csvOf, parseCsv } from "./csv";
import { parseReadingsCsv, readingsCsv, sheetToFill } from "./readings-csv";
import { resultsCsv, sitesCsv } from "./results-csv";

const SITTING = { gauge: TEST_GAUGE, zero: { outside: 0, inside: 0 } };
const round = readAs({ staggers: { 100: 0.08, 300: -0.28 }, repeats: 2 });
const { sites } = round.spec;

describe("CSV tables", () => {
  it("come back as they went, whatever stands in their cells", () => {
    const cell = fc.string({ unit: "grapheme", maxLength: 12 }).map((s) => s.replace(/\r(?!\n)/g, ""));
    fc.assert(
      fc.property(fc.array(fc.tuple(cell, cell), { minLength: 1, maxLength: 6 }), (rows) => {
        const kept = rows.filter((r) => r.some((c) => c.trim() !== ""));
        const read = parseCsv(csvOf(["one", "two"], kept));
        expect(read).toMatchObject({ ok: true });
        if (read.ok) expect(read.value.rows.map((r) => r.cells)).toEqual(kept.map((r) => [...r]));
      }),
      { seed: 5, numRuns: 500 },
    );
  });

  it("hold no formula that a spreadsheet would run", () => {
    const text = csvOf(["a"], [["=1+1"], ["+cmd"], ["@x"], ["-2"]]);
    expect(text).toBe("a\r\n'=1+1\r\n'+cmd\r\n'@x\r\n'-2\r\n");
  });

  it("are read with commas, semicolons or tabs, as their first line has them", () => {
    for (const d of [",", ";", "\t"])
      expect(parseCsv(`site${d}reading\n"a ""b""${d}"${d}1`)).toMatchObject({
        ok: true,
        value: { rows: [{ line: 2, cells: [`a "b"${d}`, "1"] }] },
      });
  });

  it.each([
    ["", /name the columns/, 1],
    ["a,b\n1,2,3\n", /3 cells where the first line names 2 columns\. Was a decimal comma written/, 2],
    ["a;b\n1\n", /1 cells/, 2],
    ['a,b\n"1,2\n', /quote/i, 2],
  ])("refuse %j with the line", (text, message, line) =>
    expect(parseCsv(text)).toMatchObject({ ok: false, line, message: expect.stringMatching(message) }),
  );
});

describe("a sheet of readings", () => {
  it("has a row for every reading that is still asked for", () => {
    const some = round.answers.filter((a) => a.site !== "v300-left");
    const read = parseCsv(sheetToFill(sites, some, "mm"));
    if (!read.ok) throw new Error(read.message);
    const open = read.value.rows.map((r) => r.cells[0]);
    expect(open.filter((s) => s === "v300-left")).toHaveLength(2);
    expect(open.filter((s) => s === "v100-left")).toHaveLength(0);
    expect(read.value.header).toContain("reading (mm)");
  });

  it.each(["mm", "in", "thou"] as const)("comes back as the readings it was written from, in %s", (unit) => {
    const text = readingsCsv(
      sites,
      round.answers.map((answer) => ({ answer, raw: "as typed", takenAt: 0, gauge: "Calipers" })),
      unit,
    );
    const read = parseReadingsCsv(text, sites);
    if (!read.ok) throw new Error(read.message);
    expect(read.value).toHaveLength(round.answers.length);
    read.value.forEach((row, i) => {
      const site = sites.find((s) => s.id === row.site);
      const back = site && readAnswerInput(site, row.input, SITTING);
      const answer = round.answers[i];
      if (!back?.ok || back.value.kind !== "quantity" || answer?.content.status !== "read") throw new Error("lost");
      expect(row.site).toBe(answer.site);
      expect(back.value.value).toBeCloseTo((answer.content.value as { value: number }).value, 6);
    });
  });

  it("takes decimal commas from a sheet with semicolons, and reasons why a place cannot be read", () => {
    const text =
      "site;reading (mm);which;cannot read\nv100-left;0,29;Left-going stand out;\nv300-left;;;torn\nv300-right;;;\n";
    expect(parseReadingsCsv(text, sites)).toEqual({
      ok: true,
      value: [
        { line: 2, site: "v100-left", input: { kind: "quantity", text: "0,29", words: "positive", unit: "mm" } },
        { line: 3, site: "v300-left", input: { kind: "cannot read", why: "torn" } },
      ],
    });
  });

  it.each([
    ["reading (mm)\n1\n", 1, 1, /column “site”/],
    ["site,reading\nv100-left,1\n", 1, 1, /column “reading \(mm\)”/],
    ["site,reading (ell)\nv100-left,1\n", 1, 1, /“ell” is no unit/],
    ["site,reading (mm)\nv999-left,1\n", 2, 1, /no place “v999-left”/],
    ["site,reading (mm),which\nv100-left,1,both\n", 2, 3, /Write “left-going stand out” or/],
    ["site,reading (mm),cannot read\nv100-left,1,torn\n", 2, 2, /leave one of them empty/],
  ])("refuses %j at its line and column", (text, line, column, message) =>
    expect(parseReadingsCsv(text, sites)).toMatchObject({
      ok: false,
      line,
      column,
      message: expect.stringMatching(message),
    }),
  );

  it("answers any text with readings or a place", () => {
    const words = fc.constantFrom("site", "reading (mm)", "which", "v100-left", "0,3", '"', ",", ";", "\n", "=", "0.3");
    fc.assert(
      fc.property(fc.array(words, { maxLength: 20 }), (parts) => {
        const read = parseReadingsCsv(parts.join(""), sites);
        expect(read.ok || read.line >= 1).toBe(true);
      }),
      { seed: 6, numRuns: 5000 },
    );
  });
});

describe("every way of asking", () => {
  const asked = madeUp.round(
    { sizeMm: 20 },
    { machine: SAMPLE_MACHINE, couponCode: "T", inForce: {} },
    "measure",
  ).sites;
  const values: Record<string, Answer["content"]> = {
    quantity: { status: "read", value: { kind: "quantity", value: 19.8 } },
    count: { status: "read", value: { kind: "count", value: 4 } },
    ordinal: { status: "read", value: { kind: "ordinal", category: "clear" } },
    choice: { status: "read", value: { kind: "choice", option: "upper right" } },
    cells: { status: "read", value: { kind: "cells", cells: ["B", "C"] } },
    pair: { status: "read", value: { kind: "pair", first: 3.02, second: 3.1 } },
    points: {
      status: "read",
      value: {
        kind: "points",
        points: [
          { x: 10, y: 10.1 },
          { x: -30, y: 29.9 },
        ],
      },
    },
    comparison: { status: "read", value: { kind: "comparison", better: "C", worse: "A", alike: true } },
    scores: { status: "read", value: { kind: "scores", scores: [0.25, null] } },
    vector: { status: "read", value: { kind: "vector", x: -0.1, y: 0.2 } },
  };

  it("goes into a sheet and comes back", () => {
    const readings = asked.map((s) => ({
      answer: {
        site: s.id,
        content: values[s.ask.kind] as Answer["content"],
        u: null,
        gauge: "calipers",
        session: "1",
        shares: PLAIN_SHARES,
        from: "typed" as const,
      },
      raw: "",
      takenAt: 0,
      gauge: "Calipers",
    }));
    const read = parseReadingsCsv(readingsCsv(asked, readings, "mm"), asked);
    if (!read.ok) throw new Error(read.message);
    expect(read.value).toHaveLength(10);
    for (const row of read.value) {
      const site = asked.find((s) => s.id === row.site);
      const back = site && readAnswerInput(site, row.input, SITTING);
      expect(back, row.site).toMatchObject({ ok: true, value: (values[row.site] as { value: unknown }).value });
    }
  });
});

describe("tables to take away", () => {
  it("name every site with its place", () => {
    const read = parseCsv(sitesCsv(sites));
    if (!read.ok) throw new Error(read.message);
    expect(read.value.rows).toHaveLength(sites.length);
    expect(read.value.rows[0]?.cells[0]).toBe(sites[0]?.id);
  });

  it("hold every result with its uncertainty, and the value to enter with its sum", () => {
    const outcome = scanOffset.solve(
      historyOf([readAs({ staggers: { 100: 0.08, 200: 0.18, 300: 0.28 }, reference: 0.3 })]),
    );
    if (outcome.status !== "solved") throw new Error(outcome.status);
    const read = parseCsv(resultsCsv(outcome, "mm"));
    if (!read.ok) throw new Error(read.message);
    const lag = read.value.rows.find((r) => r.cells[1] === "Lag");
    expect(Number(lag?.cells[2])).toBeCloseTo(500, 6);
    expect(lag?.cells[3]).toBe("µs");
    const enter = read.value.rows.filter((r) => r.cells[0] === "enter");
    expect(enter.map((r) => Number(r.cells[2]))).toEqual([0.04, 0.09, 0.14]);
    expect(enter[2]?.cells[7]).toBe("0.000 + 0.280 ÷ 2 = 0.1400");
  });
});
