import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Piece } from "../core/coupon/piece";
import type { RoundSpec } from "../core/coupon/round-spec";
import { parseGcode } from "./gcode-parser";
import { burnedPaths } from "./gcode-paths";
import { gcodeOf } from "./gcode-writer";
import { faultText } from "./parsed";
import { parseSvg } from "./svg-parser";
import { svgOf } from "./svg-writer";

const coordinate = fc.double({ min: 0, max: 500, noNaN: true });
const point = fc.record({ x: coordinate, y: coordinate });
const piece: fc.Arbitrary<Piece> = fc
  .record({
    widthMm: fc.integer({ min: 1, max: 900 }),
    heightMm: fc.integer({ min: 1, max: 900 }),
    paths: fc.array(fc.record({ points: fc.array(point, { minLength: 2, maxLength: 6 }), closed: fc.boolean() }), {
      minLength: 1,
      maxLength: 5,
    }),
    label: fc.constantFrom("plain", 'with "quotes" & <angles>', "µ"),
  })
  .map((p) => ({
    ...p,
    id: "p",
    stock: "card",
    settings: [{ id: "a", label: p.label, use: "line", speedMmPerS: 100, powerPct: 12.5, runUpMm: 0, scan: null }],
    paths: p.paths.map((path) => ({ ...path, settings: "a" })),
  }));

describe("SVG", () => {
  it("loses less than a nanometre over random coupons", () => {
    fc.assert(
      fc.property(piece, (p) => {
        const read = parseSvg(svgOf(p));
        if (!read.ok) throw new Error(faultText(read));
        expect(read.value.settings).toEqual(p.settings);
        read.value.paths.forEach((path, i) => {
          expect(path.closed).toBe(p.paths[i]?.closed);
          path.points.forEach((q, k) => {
            expect(Math.abs(q.x - (p.paths[i]?.points[k]?.x ?? Number.NaN))).toBeLessThan(1e-6);
            expect(Math.abs(q.y - (p.paths[i]?.points[k]?.y ?? Number.NaN))).toBeLessThan(1e-6);
          });
        });
      }),
      { seed: 3, numRuns: 200 },
    );
  });

  const good = svgOf({
    id: "p",
    label: "L",
    stock: "card",
    widthMm: 50,
    heightMm: 40,
    settings: [{ id: "a", label: "A", use: "line", speedMmPerS: 100, powerPct: 10, runUpMm: 0, scan: null }],
    paths: [
      {
        points: [
          { x: 1, y: 2 },
          { x: 3, y: 4 },
        ],
        closed: false,
        settings: "a",
      },
    ],
  });

  it.each([
    ["nothing", () => "", /./],
    ["something else", () => "<html></html>", /no single SVG/],
    ["a document type", () => `<!DOCTYPE svg [<!ENTITY a "b">]>${good}`, /not accepted/],
    ["a cut file", () => good.slice(0, -20), /./],
    ["pixels", () => good.replace("50mm", "50px"), /width must be given in mm/],
    ["a scaling viewBox", () => good.replace("0 0 50 40", "0 0 500 400"), /viewBox/],
    ["a curve", () => good.replace("L3 36", "C1 2 3 4 5 6"), /straight absolute paths/],
    ["a lone coordinate", () => good.replace("L3 36", "L3"), /pair of coordinates/],
    ["a picture", () => good.replace("</g>", "<image/></g>"), /<image> is not understood/],
    ["a negative speed", () => good.replace('mm-per-s="100"', 'mm-per-s="-1"'), /settings of a group/],
    ["a missing speed", () => good.replace(' data-speed-mm-per-s="100"', ""), /settings of a group/],
  ])("refuses %s with a place", (_, make, message) => {
    const read = parseSvg(make());
    expect(read).toMatchObject({ ok: false, message: expect.stringMatching(message) });
    if (!read.ok) expect(read.line).toBeGreaterThan(0);
  });
});

describe("G-code", () => {
  const ok = "G21 G90\nM3 S100 F600\nG0 X1 Y1\nG1 X5 S200\nM5\nM2\n";

  it("keeps modal state: units, motion, feed, power", () => {
    const read = parseGcode("(a) ; b\nG20\nF60 M3 S10\nG1 X1\nX2 Y1\nM5\nX3\nM30");
    if (!read.ok) throw new Error(read.message);
    const moves = read.value.steps.filter((s) => s.kind === "move");
    expect(moves.map((m) => m.to.x)).toEqual([25.4, 50.8, 25.4 * 3]);
    expect(moves[0]?.feedMmPerS).toBeCloseTo(25.4, 9);
    expect(moves.map((m) => m.power)).toEqual([10, 10, 0]);
    expect(read.value.comments).toEqual(["a", "b"]);
  });

  it("joins what burns on into one path", () => {
    const read = parseGcode(ok);
    expect(read.ok && burnedPaths(read.value)).toMatchObject([
      {
        points: [
          { x: 1, y: 1 },
          { x: 5, y: 1 },
        ],
        speedMmPerS: 10,
        power: 200,
        scan: null,
      },
    ]);
  });

  it.each([
    ["a cut file", ok.replace("M2\n", ""), /cut short/],
    ["arcs", ok.replace("G1 X5", "G2 X5 I2"), /I is not understood|G2 is not understood/],
    ["a word without a number", ok.replace("X5", "X"), /no word of G-code/],
    ["two points in a number", ok.replace("X5", "X5.0.1"), /no word of G-code/],
    ["a word twice", ok.replace("X5", "X5 X6"), /stands twice/],
    ["no unit", ok.replace("G21", "G94"), /unit is not set/],
    ["no feed", ok.replace("F600", ""), /F is missing/],
    ["negative power", ok.replace("S200", "S-3"), /cannot be negative/],
    ["an open comment", ok.replace("M5", "(M5"), /not closed/],
    ["more after the end", `${ok}G0 X1`, /after the end/],
    ["an open area", ok.replace("G1 X5", "M120 P1 Q2\nG1 X5"), /M121 is missing/],
    ["an area without direction", ok.replace("G1 X5", "M120 P1\nG1 X5"), /Q1 .* or Q2/],
    ["prose", "Dear machine, burn this", /no word of G-code|not understood/],
  ])("refuses %s with its line", (_, text, message) => {
    const read = parseGcode(text);
    expect(read).toMatchObject({ ok: false, message: expect.stringMatching(message) });
    if (!read.ok) expect(faultText(read)).toMatch(/^Line \d+, column \d+: /);
  });

  it("never crashes on mangled files, and never takes a cut one", () => {
    const spec: RoundSpec = {
      pieces: [],
      placement: { xMm: 0, yMm: 0 },
      program: [
        { kind: "set height", zMm: 5 },
        { kind: "pulse", at: { x: 1, y: 2 }, durationS: 0.1, powerPct: 5 },
        { kind: "move by hand", text: "turn (left)" },
        {
          kind: "trace",
          points: [
            { x: 0, y: 0 },
            { x: 9, y: 9 },
          ],
        },
      ],
      sites: [],
      delivery: "test",
      checklist: [],
    };
    const text = gcodeOf(spec, { couponCode: "T-1", machineName: "T (1)", powerWordAtFull: 255 });
    expect(parseGcode(text)).toMatchObject({ ok: true });
    fc.assert(
      fc.property(fc.nat(text.length - 1), fc.string({ maxLength: 3 }), fc.nat(5), (at, put, drop) => {
        const read = parseGcode(text.slice(0, at) + put + text.slice(at + drop));
        expect(typeof read.ok).toBe("boolean");
      }),
      { seed: 4, numRuns: 3000 },
    );
    for (let cut = 0; cut < text.length - 3; cut += 7) expect(parseGcode(text.slice(0, cut)).ok).toBe(false);
  });
});
