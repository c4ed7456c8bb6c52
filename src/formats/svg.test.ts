import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Piece } from "../core/coupon/piece";
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
