import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { madeUp } from "../../testing/made-up/procedure";
import { SAMPLE_MACHINE } from "../../testing/sample-machine";
import { readAs } from "../../testing/scan-offset-history";
import type { Site } from "../coupon/site";
import { type Gauge, gaugeAsUsual } from "../metrology/gauge";
import { LENGTH_UNITS } from "../metrology/units";
import { readAnswerInput } from "./answer-input";
import { inputFromText, textFromInput, unitAt, writtenAnswer } from "./answer-text";

const gauge: Gauge = gaugeAsUsual("calipers", { id: "c" });
const SITTING = { gauge, zero: { outside: 0, inside: 0 } };
const signed = readAs({ staggers: { 100: 0.1 } }).spec.sites.find((s) => s.id === "v100-left") as Site;
const asked = madeUp.round({ sizeMm: 20 }, { machine: SAMPLE_MACHINE, couponCode: "T", inForce: {} }, "measure").sites;
const site = (id: string) => asked.find((s) => s.id === id) as Site;

describe("answers as texts", () => {
  it("come back as they were written, sign and all, in every unit", () => {
    fc.assert(
      fc.property(fc.double({ min: -1.9, max: 1.9, noNaN: true }), fc.constantFrom(...LENGTH_UNITS), (value, unit) => {
        const input = inputFromText(signed, writtenAnswer(signed, { kind: "quantity", value }, unit), unit);
        const back = input.ok ? readAnswerInput(signed, input.input, SITTING) : null;
        if (!back?.ok || back.value.kind !== "quantity") throw new Error("lost");
        expect(back.value.value).toBeCloseTo(value, 6);
      }),
      { seed: 10, numRuns: 400 },
    );
  });

  it("keep what was typed, with its unit: fractions, sums and all", () => {
    const text = (typed: string, unit: "mm" | "in") =>
      textFromInput(signed, { kind: "quantity", text: typed, words: "negative", unit });
    expect(text("1.46/2", "mm")).toEqual({ reading: "1.46/2 mm", words: "right-going stand out" });
    expect(text("3/8", "in").reading).toBe("3/8 in");
    expect(text("8 thou", "mm").reading).toBe("8 thou");
    expect(text(`5"`, "mm").reading).toBe(`5"`);
  });

  it("of several parts stand with a bar between them", () => {
    const pair = textFromInput(site("pair"), { kind: "pair", first: "3.02", second: "0.12 in", unit: "mm" });
    expect(pair.reading).toBe("3.02 mm | 0.12 in");
    expect(inputFromText(site("pair"), pair, "mm")).toEqual({
      ok: true,
      input: { kind: "pair", first: "3.02 mm", second: "0.12 in", unit: "mm" },
    });
    expect(textFromInput(site("cells"), { kind: "cells", cells: ["B", "C"] }).reading).toBe("B | C");
    expect(textFromInput(site("vector"), { kind: "vector", x: "-1", y: "2", unit: "mm" }).reading).toBe("-1 mm | 2 mm");
    expect(textFromInput(site("points"), { kind: "points", points: [{ x: "1", y: "2" }], unit: "mm" }).reading).toBe(
      "1 mm | 2 mm",
    );
    // A dot that is not seen has no unit.
    const missing = {
      kind: "points" as const,
      points: [
        { x: "?", y: "?" },
        { x: "3", y: "" },
      ],
      unit: "mm" as const,
    };
    expect(textFromInput(site("points"), missing).reading).toBe("? | ? | 3 mm | ");
  });

  it.each([
    ["pair", "3.02", "reading", /Two numbers with \|/],
    ["points", "1 | 2", "reading", /2 places are asked for/],
  ])("of a %s with too few parts are refused", (id, reading, field, message) => {
    expect(inputFromText(site(id), { reading, words: "" }, "mm")).toMatchObject({
      ok: false,
      field,
      message: expect.stringMatching(message),
    });
  });

  it("with words that are none of the two are refused at the words", () => {
    expect(inputFromText(signed, { reading: "0.2", words: "both" }, "mm")).toMatchObject({ ok: false, field: "words" });
    expect(inputFromText(signed, { reading: "0.2", words: "LEFT-GOING STAND OUT" }, "mm")).toMatchObject({ ok: true });
  });

  it("have a unit where numbers are asked for", () => {
    expect(unitAt(signed, "in")).toBe("in");
    expect(unitAt(site("count"), "in")).toBeNull();
    expect(unitAt(site("points"), "thou")).toBe("thou");
  });
});
