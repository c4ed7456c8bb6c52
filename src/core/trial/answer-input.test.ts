import { describe, expect, it } from "vitest";
import { madeUp } from "../../testing/made-up/procedure";
import { SAMPLE_MACHINE } from "../../testing/sample-machine";
import type { Ask, Site } from "../coupon/site";
import { type Gauge, gaugeAsUsual } from "../metrology/gauge";
import type { Sitting } from "../metrology/sitting";
import { PLAIN_SHARES, quantitiesAt, siteIsDone } from "./answer";
import { readAnswerInput } from "./answer-input";

const context = { machine: SAMPLE_MACHINE, couponCode: "T-1", inForce: {} };
const sites = madeUp.round({ sizeMm: 20 }, context, "measure").sites;
const calipers: Gauge = gaugeAsUsual("calipers", { id: "c" });
const sitting = (outside: number, inside: number | null = null): Sitting => ({
  gauge: calipers,
  zero: { outside, inside },
});
const CLEAN = sitting(0, 0);
const siteFor = (kind: Ask["kind"]) => sites.find((s) => s.ask.kind === kind) as Site;
const signedSite: Site = {
  ...siteFor("quantity"),
  ask: {
    kind: "quantity",
    dimension: "length",
    signedBy: { question: "Which?", positive: "these", negative: "those" },
    jaws: "outside",
    plausibleUpTo: 2,
  },
};

describe("what is put in at a site", () => {
  it("gets its sign from words", () => {
    const input = { kind: "quantity", text: "0.29", words: "negative", unit: "mm" } as const;
    expect(readAnswerInput(signedSite, input, CLEAN)).toEqual({
      ok: true,
      value: { kind: "quantity", value: -0.29 },
      shares: PLAIN_SHARES,
    });
    expect(readAnswerInput(signedSite, { ...input, words: null }, CLEAN)).toMatchObject({
      ok: false,
      issue: { field: "words" },
    });
    expect(readAnswerInput(signedSite, { ...input, text: "0", words: null }, CLEAN)).toMatchObject({ ok: true });
  });

  it("loses the zero error once a measured term", () => {
    const read = (text: string) =>
      readAnswerInput(siteFor("quantity"), { kind: "quantity", text, words: null, unit: "mm" }, sitting(0.02));
    expect(read("1.46")).toEqual({ ok: true, value: { kind: "quantity", value: 1.44 }, shares: PLAIN_SHARES });
    expect(read("1.46/2")).toEqual({
      ok: true,
      value: { kind: "quantity", value: 0.72 },
      shares: { common: 0.5, scatter: 0.5 },
    });
  });

  it("may lie a little below 0 once the zero of the jaws is taken off, and 0 is nothing to measure", () => {
    const at = (site: Site, text: string, outside = 0.03) =>
      readAnswerInput(site, { kind: "quantity", text, words: "negative", unit: "mm" }, sitting(outside));
    expect(at(siteFor("quantity"), "0.02")).toMatchObject({ ok: true, value: { value: expect.closeTo(-0.01, 9) } });
    expect(at(siteFor("quantity"), "0")).toMatchObject({ ok: true, value: { value: 0 } });
    // Words keep their side: the reading is smaller than the gauge shows.
    expect(at(signedSite, "0.02")).toMatchObject({ ok: true, value: { value: -0.005 } });
    expect(at(siteFor("quantity"), "0.05", 0.3)).toMatchObject({
      ok: false,
      issue: { message: expect.stringMatching(/less than the reading of the closed jaws/) },
    });
  });

  it("is taken as it stands where the machine shows it: below 0 too, without the zero of any jaws", () => {
    const readout: Site = {
      ...siteFor("quantity"),
      ask: { ...signedSite.ask, kind: "quantity", signedBy: null, jaws: "outside", atMachine: { step: 0.01 } } as Ask,
    };
    const read = (text: string) =>
      readAnswerInput(readout, { kind: "quantity", text, words: null, unit: "mm" }, sitting(0.02));
    expect(read("8.46")).toEqual({ ok: true, value: { kind: "quantity", value: 8.46 }, shares: PLAIN_SHARES });
    expect(read("−1.5")).toEqual({ ok: true, value: { kind: "quantity", value: -1.5 }, shares: PLAIN_SHARES });
    expect(read("-1.5 or so")).toMatchObject({ ok: false, issue: { field: "text" } });
  });

  it("takes each part of a pair with the zero of its own jaws", () => {
    const read = (on: Sitting) =>
      readAnswerInput(siteFor("pair"), { kind: "pair", first: "3.02", second: "3.1", unit: "mm" }, on);
    const both = read(sitting(0.02, -0.01));
    expect(both).toMatchObject({ ok: true, value: { kind: "pair" } });
    if (both.ok && both.value.kind === "pair") {
      expect(both.value.first).toBeCloseTo(3, 9);
      expect(both.value.second).toBeCloseTo(3.11, 9);
    }
    expect(read(sitting(0.02))).toMatchObject({
      ok: false,
      issue: { field: "second", message: expect.stringMatching(/inside jaws: close them/) },
    });
  });

  it("refuses a difference below nothing by saying which number goes first", () => {
    const input = { kind: "quantity", text: "0.2 - 0.5", words: null, unit: "mm" } as const;
    expect(readAnswerInput(siteFor("quantity"), input, CLEAN)).toMatchObject({
      ok: false,
      issue: { field: "text", message: expect.stringMatching(/larger number first/) },
    });
  });

  it("is an inch where inches are switched on", () => {
    const read = readAnswerInput(
      siteFor("quantity"),
      { kind: "quantity", text: "0.5", words: null, unit: "in" },
      CLEAN,
    );
    expect(read).toEqual({ ok: true, value: { kind: "quantity", value: 12.7 }, shares: PLAIN_SHARES });
  });

  it.each([
    ["count", { kind: "count", text: "4" }, { kind: "count", value: 4 }],
    ["ordinal", { kind: "ordinal", category: "clear" }, { kind: "ordinal", category: "clear" }],
    ["choice", { kind: "choice", option: "upper right" }, { kind: "choice", option: "upper right" }],
    ["cells", { kind: "cells", cells: ["A", "C"] }, { kind: "cells", cells: ["A", "C"] }],
    ["pair", { kind: "pair", first: "3.02", second: "3.1", unit: "mm" }, { kind: "pair", first: 3.02, second: 3.1 }],
    ["vector", { kind: "vector", x: "-1", y: "2", unit: "mm" }, { kind: "vector", x: -1, y: 2 }],
    [
      "points",
      {
        kind: "points",
        points: [
          { x: "10", y: "10.1" },
          { x: "30", y: "29.9" },
        ],
        unit: "mm",
      },
      {
        kind: "points",
        points: [
          { x: 10, y: 10.1 },
          { x: 30, y: 29.9 },
        ],
      },
    ],
  ] as const)("takes a %s", (kind, input, value) => {
    expect(readAnswerInput(siteFor(kind), input as never, CLEAN)).toEqual({ ok: true, value, shares: PLAIN_SHARES });
  });

  it.each([
    ["count", { kind: "count", text: "many" }, "text"],
    ["count", { kind: "count", text: "5" }, "text"],
    ["ordinal", { kind: "ordinal", category: "pink" }, "category"],
    ["choice", { kind: "choice", option: "" }, "option"],
    ["cells", { kind: "cells", cells: [] }, "cells"],
    ["cells", { kind: "cells", cells: ["A", "Z"] }, "cells"],
    ["cells", { kind: "cells", cells: ["A", "B", "C"] }, "cells"],
    ["pair", { kind: "pair", first: "3.02", second: "", unit: "mm" }, "second"],
    ["vector", { kind: "vector", x: "left", y: "2", unit: "mm" }, "x"],
    ["points", { kind: "points", points: [{ x: "10", y: "?" }], unit: "mm" }, "y0"],
    ["quantity", { kind: "count", text: "3" }, "text"],
  ] as const)("refuses a bad %s at its field", (kind, input, field) => {
    expect(readAnswerInput(siteFor(kind), input as never, CLEAN)).toMatchObject({ ok: false, issue: { field } });
  });
});

describe("a site", () => {
  const answer = (value: number) =>
    ({
      site: "a",
      content: { status: "read", value: { kind: "quantity", value } },
      u: null,
      gauge: "c",
      session: "1",
      shares: PLAIN_SHARES,
      from: "typed",
    }) as const;

  it("is done when read as often as asked, or given up", () => {
    expect(siteIsDone({ id: "a", repeats: 2 }, [answer(1)])).toBe(false);
    expect(siteIsDone({ id: "a", repeats: 2 }, [answer(1), answer(2)])).toBe(true);
    expect(
      siteIsDone({ id: "a", repeats: 2 }, [{ ...answer(1), content: { status: "cannot read", why: "torn" } }]),
    ).toBe(true);
    expect(quantitiesAt([answer(1), answer(2)], "a")).toEqual([1, 2]);
  });
});
