import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { measured } from "./measured";
import { inUnit, withUncertainty } from "./quantity-text";
import { parseReading, parseSignedReading } from "./reading-text";
import { LENGTH_UNITS } from "./units";

const mm = (text: string) => {
  const read = parseReading(text, "length");
  return read.ok ? read.value : `${read.at}: ${read.message}`;
};

describe("reading text", () => {
  it.each([
    ["1.46", 1.46],
    ["12,5", 12.5],
    [".29", 0.29],
    ["+000.29", 0.29],
    ["0.0035 in", 0.0889],
    ["3/8 in", 9.525],
    ["1 3/8 in", 34.925],
    ["8 thou", 0.2032],
    ["50 um", 0.05],
    ["50 µm", 0.05],
    ['5"', 127],
    ["5”", 127],
    ["2'", 609.6],
    [`5' 3"`, 1600.2],
    [`5'3 1/2"`, 1612.9],
    ["1.2 cm", 12],
    ["3/8", 0.375],
    ["1.46/2", 0.73],
    ["350+6", 356],
    ["350 + 6 mm", 356],
    ["1 + 2 in", 76.2],
    ["1in - 0.4mm", 25],
    [" 0.29 ", 0.29],
  ])("reads %s", (text, value) => expect(mm(text)).toBeCloseTo(value as number, 9));

  it.each([
    ["", 0, /Type what was measured/],
    ["-0.3", 0, /without a minus sign/],
    ["0.2x", 3, /not a unit/],
    ["0.2.3", 3, /one decimal mark/],
    ["1,250.5", 5, /one decimal mark/],
    ["1-3/8 in", 1, /sum or a difference/],
    ["1'000", 2, /inches carry their mark/],
    ["350 mm + 6", 9, /last number its unit/],
    ["5 mil", 2, /thou or mm/],
    ["1234567890123456", 0, /more digits/],
    ["1/1 3/8", 2, /plain number/],
    ["3 📏", 2, /“📏” cannot be read/],
    ["1/0", 2, /divide by 0/],
    ["1 3/0", 4, /0 below the line/],
    ["1.5 3/8", 0, /whole number goes before/],
    ["3 mm/s", 2, /does not fit/],
    ["4 +", 3, /missing at the end/],
    ["abc", 0, /cannot be read/],
  ])("refuses “%s” at character %i", (text, at, message) => {
    const read = parseReading(text, "length");
    expect(read).toMatchObject({ ok: false, at, message: expect.stringMatching(message) });
  });

  it("takes speeds in any unit and never confuses mm/s with mm/min", () => {
    expect(parseReading("6000 mm/min", "speed")).toMatchObject({ ok: true, value: 100 });
    expect(parseReading("100", "speed")).toMatchObject({ ok: true, value: 100 });
  });

  it("knows how often each measured term is in it", () => {
    expect(parseReading("1.46/2", "length")).toMatchObject({ shares: [0.5] });
    expect(parseReading("10.2 - 3.1", "length")).toMatchObject({ shares: [1, -1] });
    expect(parseReading(`5' 3"`, "length")).toMatchObject({ shares: [1] });
  });

  it("agrees with what Ustrina writes, in every unit of length", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 5000, noNaN: true }),
        fc.constantFrom(...LENGTH_UNITS, "um" as const),
        (x, unit) => {
          const text = inUnit(x, unit, 6);
          expect(mm(text)).toBeCloseTo(x, unit === "in" ? 4 : 5);
          const shown = withUncertainty(measured(x, 0.004, Infinity), unit);
          const expanded = 1.96 * 0.004;
          expect(Math.abs(Number(mm(shown.replace(/ ± [\d.]+/, ""))) - x)).toBeLessThan(expanded / 10);
        },
      ),
      { seed: 1, numRuns: 500 },
    );
  });

  it("refuses what has two meanings, and what it takes means what a second reader makes of it", () => {
    const alphabet = fc.constantFrom(..."0123456789012345.,/+- \"' ", " in", " mm", " thou", "um");
    let taken = 0;
    fc.assert(
      fc.property(fc.array(alphabet, { maxLength: 9 }), (parts) => {
        const text = parts.join("");
        const read = parseReading(text, "length");
        if (!read.ok) return;
        taken++;
        expect(read.value).toBeCloseTo(secondReader(text), 6);
      }),
      { seed: 3, numRuns: 20_000 },
    );
    expect(taken).toBeGreaterThan(500);
  });

  it("answers every text with a number or a message at a place inside it", () => {
    const alphabet = fc.constantFrom(...'0123456789.,/+-− "inmumthou%°abc\t'.split(""));
    fc.assert(
      fc.property(fc.string({ unit: alphabet, maxLength: 14 }), (text) => {
        const read = parseReading(text, "length");
        if (read.ok) expect(Number.isFinite(read.value)).toBe(true);
        else {
          expect(read.message.length).toBeGreaterThan(5);
          expect(read.at).toBeGreaterThanOrEqual(0);
          expect(read.at).toBeLessThanOrEqual(text.length);
        }
      }),
      { seed: 2, numRuns: 3000 },
    );
    fc.assert(
      fc.property(fc.string({ unit: "grapheme" }), (text) => {
        const read = parseReading(text, "length");
        expect(read.ok || read.at <= text.length).toBe(true);
      }),
      { seed: 4, numRuns: 2000 },
    );
  });
});

/** Another way to the same number: terms cut apart at their signs, units put in as factors. NaN where it cannot be. */
function secondReader(text: string): number {
  const factors: Record<string, number> = { mm: 1, "": 1, in: 25.4, '"': 25.4, thou: 0.0254, um: 0.001, "'": 304.8 };
  const terms = text.split(/(?=[+-])/).map((t) => {
    const m =
      /^([+-]?)\s*(?:(\d+)[.,]? *' *(?=[\d.,]))?(?:(\d*[.,]?\d*)(?: +(\d+) *\/ *(\d+))?)(?: *\/ *(\d*[.,]?\d*))? *(mm|in|thou|um|"|')? *$/.exec(
        t.replace(/^ +/, ""),
      );
    if (!m) return { amount: Number.NaN, unit: "" };
    const [, sign, feet, whole = "", above, below, divisor, unit = ""] = m;
    const plain = Number(whole.replace(",", ".")) + (above ? Number(above) / Number(below) : 0);
    const amount = plain / (divisor ? Number(divisor.replace(",", ".")) : 1) + (feet ? 12 * Number(feet) : 0);
    return { amount: sign === "-" ? -amount : amount, unit };
  });
  const covering = terms.at(-1)?.unit ?? "";
  return terms.reduce((sum, t) => sum + t.amount * (factors[t.unit || covering] ?? Number.NaN), 0);
}

describe("a number that may lie below 0", () => {
  const value = (text: string) => {
    const read = parseSignedReading(text, "length", "mm");
    return read.ok ? read.value : read.message;
  };

  it("has its minus on the first term alone", () => {
    expect(value("-8+3")).toBe(-5);
    expect(value("−1.5 in")).toBeCloseTo(-38.1, 9);
    expect(value("-3 1/8 in")).toBeCloseTo(-79.375, 9);
    expect(value("4.2")).toBe(4.2);
  });

  it("is never minus nothing, which no file keeps", () => {
    expect(Object.is(value("-0"), 0)).toBe(true);
  });

  it("is refused where the fault is", () => {
    expect(parseSignedReading("-2x", "length", "mm")).toMatchObject({ ok: false, at: 2 });
  });
});

describe("a reading of the clipboard", () => {
  it("is refused above 200 characters", () => {
    const sums = `1${"+1".repeat(1_000_000)}`;
    expect(parseReading(sums, "length")).toMatchObject({ ok: false, message: /Type at most 200/ });
  });
});
