/** Words of RS-274 lines, and its arcs, against readings in another way. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { arcPoints } from "./gcode-arc";
import { GcodeLine } from "./gcode-line";
import { FormatFault } from "./parsed";

const words = (text: string) => {
  const line = new GcodeLine();
  line.read(text, 0, text.length, 7);
  return line;
};
const fault = (text: string) => {
  try {
    words(text);
  } catch (error) {
    if (error instanceof FormatFault) return { line: error.line, column: error.column, message: error.message };
    throw error;
  }
  throw new Error("nothing was refused");
};

describe("a line", () => {
  it("is letters with numbers, spaces where they like, small letters as well", () => {
    const line = words("  n10 g1X 1.5y-2\tZ+.25 F6000.");
    expect(line.letters).toEqual(["N", "G", "X", "Y", "Z", "F"]);
    expect(line.values).toEqual([10, 1, 1.5, -2, 0.25, 6000]);
    expect(line.columns).toEqual([3, 7, 9, 14, 18, 24]);
    expect(line.value("Y")).toBe(-2);
    expect(line.value("Q")).toBeUndefined();
    expect(line.column("Z")).toBe(18);
    expect(line.column("Q")).toBe(1);
  });

  it("has comments in parentheses anywhere, and to its end behind a semicolon", () => {
    const line = words("G1 (first) X1 (second) ; third (no comment in it)");
    expect(line.comments).toEqual(["first", "second", "third (no comment in it)"]);
    expect(line.letters).toEqual(["G", "X"]);
    expect(words("; all of it").letters).toEqual([]);
  });

  it("is read from its part of a longer text, and forgets the line before", () => {
    const line = new GcodeLine();
    const text = "G1 X5\nM5";
    line.read(text, 0, 5, 1);
    line.read(text, 6, 8, 2);
    expect([line.letters, line.values, line.comments]).toEqual([["M"], [5], []]);
  });

  it("reads every number as JavaScript reads the same digits", () => {
    const digits = fc.stringMatching(/^[0-9]{0,12}$/);
    fc.assert(
      fc.property(fc.constantFrom("", "-", "+"), digits, digits, fc.boolean(), (sign, a, b, pointed) => {
        fc.pre(a + b !== "");
        const text = `${sign}${a}${pointed ? "." : ""}${b}`;
        expect(words(`X${text}`).value("X")).toBe(Number(text) + 0);
      }),
      { seed: 3, numRuns: 2000 },
    );
    expect(words("X0.1234567890123456789").value("X")).toBe(0.12345678901234568);
    expect(words("X-0").value("X")).toBe(0);
  });

  it.each([
    ["X", 1, /“X” is no word/],
    ["G1 X", 4, /no word/],
    ["G1 X-", 4, /no word/],
    ["X1..2", 1, /no word/],
    ["X1.2.3", 1, /no word/],
    ["G1 #5", 4, /“#5” is no word/],
    ["G1 é1", 4, /no word/],
    ["G1 (open", 4, /not closed/],
    ["(a (b) c)", 4, /comment in a comment/],
    ["Dear machine, please burn this", 1, /“Dear machine” is no word/],
  ])("is refused with its column: %s", (text, column, message) => {
    expect(fault(text)).toMatchObject({ line: 7, column, message: expect.stringMatching(message) });
  });
});

describe("an arc", () => {
  const angle = fc.double({ min: -3, max: 3, noNaN: true });
  const size = fc.double({ min: 0.5, max: 80, noNaN: true });
  type Words = Parameters<typeof arcPoints>[0];

  const points = (w: Words) => {
    const read = arcPoints(w);
    if (typeof read === "string") throw new Error(read);
    return read;
  };
  const length = (from: { x: number; y: number }, ps: readonly { x: number; y: number }[]) => {
    let [sum, at] = [0, from];
    for (const p of ps) {
      sum += Math.hypot(p.x - at.x, p.y - at.y);
      at = p;
    }
    return sum;
  };

  it("by centre and by radius is the same, both ways round, the short way and the long", () => {
    fc.assert(
      fc.property(
        angle,
        fc.double({ min: 0.2, max: 6, noNaN: true }),
        size,
        fc.boolean(),
        (start, turn, r, clockwise) => {
          const signed = clockwise ? -turn : turn;
          fc.pre(Math.abs(turn - Math.PI) > 0.05);
          const at = (a: number) => ({ x: r * Math.cos(a), y: r * Math.sin(a), z: 0 });
          const [from, to] = [at(start), at(start + signed)];
          const common = { from, to, clockwise, chordErrorMm: 0.0005 };
          const byCentre = points({ ...common, i: -from.x, j: -from.y, r: undefined });
          const byRadius = points({ ...common, i: undefined, j: undefined, r: turn > Math.PI ? -r : r });
          const wanted = r * turn;
          expect(length(from, byCentre)).toBeCloseTo(wanted, 1);
          expect(length(from, byRadius)).toBeCloseTo(wanted, 1);
          for (const p of [...byCentre, ...byRadius])
            expect(Math.abs(Math.hypot(p.x, p.y) - r)).toBeLessThan(1e-6 * (1 + r));
          expect(byCentre.at(-1)).toEqual(to);
          expect(byRadius.at(-1)).toEqual(to);
        },
      ),
      { seed: 4, numRuns: 300 },
    );
  });

  const quarter: Words = {
    from: { x: 10, y: 0, z: 0 },
    to: { x: 0, y: 10, z: 4 },
    clockwise: false,
    chordErrorMm: 0.01,
    i: -10,
    j: 0,
    r: undefined,
  };

  it("rises evenly where it ends higher", () => {
    const ps = points(quarter);
    for (const [k, p] of ps.entries()) expect(p.z).toBeCloseTo((4 * (k + 1)) / ps.length, 9);
  });

  it("whose ends are one is a whole turn", () => {
    const ps = points({ ...quarter, to: quarter.from });
    expect(length(quarter.from, ps)).toBeCloseTo(2 * Math.PI * 10, 1);
    const back = points({ ...quarter, to: quarter.from, clockwise: true });
    expect(Math.sign(back[0]?.y ?? 0)).toBe(-1);
  });

  it("may miss its end by what rounding leaves, and by no more", () => {
    const missing = (by: number) => arcPoints({ ...quarter, to: { x: 0, y: 10 + by, z: 0 } });
    expect(Array.isArray(missing(0.004))).toBe(true);
    expect(missing(0.02)).toMatch(/does not meet its end: the radius is 10\.0000 mm .* 10\.0200 mm/);
  });

  it.each([
    [{ i: undefined, j: undefined }, /needs I and J, or R/],
    [{ r: 10 }, /not both/],
    [{ i: 0, j: 0 }, /without a radius/],
    [{ i: undefined, j: undefined, r: 3 }, /too small/],
    [{ i: undefined, j: undefined, r: 5, to: quarter.from }, /full circle/],
    [{ i: -1e9, j: 0, to: { x: 9.99, y: 4000, z: 0 }, chordErrorMm: 1e-9 }, /too large|does not meet/],
  ])("is refused in words: %j", (change, message) => {
    expect(arcPoints({ ...quarter, ...change })).toMatch(message);
  });
});
