import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Piece } from "../core/coupon/piece";
import { mangled } from "../testing/mangled-text";
import { randomPiece } from "../testing/random-piece";
import { faultText } from "./parsed";
import { parseSvg } from "./svg-parser";
import { svgOf } from "./svg-writer";

describe("SVG", () => {
  it("loses less than a nanometre over random coupons", () => {
    fc.assert(
      fc.property(randomPiece, ({ piece }) => {
        const read = parseSvg(svgOf(piece));
        if (!read.ok) throw new Error(faultText(read));
        expect(read.value.settings).toEqual(piece.settings);
        const written = piece.settings.flatMap((g) => piece.paths.filter((p) => p.settings === g.id));
        expect(read.value.paths).toHaveLength(written.length);
        read.value.paths.forEach((path, i) => {
          const p = written[i];
          expect([path.settings, path.closed, path.points.length]).toEqual([p?.settings, p?.closed, p?.points.length]);
          path.points.forEach((q, k) => {
            expect(Math.abs(q.x - (p?.points[k]?.x ?? Number.NaN))).toBeLessThan(1e-6);
            expect(Math.abs(q.y - (p?.points[k]?.y ?? Number.NaN))).toBeLessThan(1e-6);
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
    ["no viewBox", () => good.replace(' viewBox="0 0 50 40"', ""), /viewBox/],
    ["a broken viewBox", () => good.replace("0 0 50 40", "0 0 50"), /viewBox/],
    ["a lone coordinate", () => good.replace("L3 36", "L3"), /cut short/],
    ["a wrong letter", () => good.replace("L3 36", "L3 3y6"), /cannot be read from “y6” on/],
    ["a picture", () => good.replace("</g>", "<image/></g>"), /Pictures are not lines/],
    ["text", () => good.replace("</g>", "<text>A</text></g>"), /turn it into paths/],
    ["an unknown element", () => good.replace("</g>", "<filter/></g>"), /<filter> is not understood/],
    ["a hidden part", () => good.replace("<path", '<path display="none"'), /hidden/],
    ["a hidden part in a style", () => good.replace("<path", '<path style="fill:red;display: none"'), /hides or moves/],
    [
      "a style rule that moves",
      () => good.replace("</title>", "</title><style>path { transform: scale(2) }</style>"),
      /hides or moves/,
    ],
    ["a mask", () => good.replace("<path", '<path mask="url(#m)"'), /mask hides/],
    ["a broken transform", () => good.replace("<path", '<path transform="scale(2"'), /no list of transforms/],
    [
      "an unknown transform",
      () => good.replace("<path", '<path transform="bend(2)"'),
      /no transform that is understood/,
    ],
    ["a copy of nothing", () => good.replace("</g>", '<use href="#x"/></g>'), /nothing to copy/],
    ["a copy of itself", () => good.replace("</g>", '<use href="#a"/></g>'), /nested too deep/],
    ["a line outside the groups", () => good.replace("</svg>", '<path d="M0 0L1 1"/></svg>'), /in no group/],
    ["a number beyond all numbers", () => good.replace("L3 36", "L3 1e999"), /too large/],
    ["a negative speed", () => good.replace('mm-per-s="100"', 'mm-per-s="-1"'), /settings of a group/],
    ["a missing speed", () => good.replace(' data-speed-mm-per-s="100"', ""), /settings of a group/],
  ])("refuses %s with a place", (_, make, message) => {
    const read = parseSvg(make());
    expect(read).toMatchObject({ ok: false, message: expect.stringMatching(message) });
    if (!read.ok) expect(read.line).toBeGreaterThan(0);
  });

  it("mangled is refused, or is what it says: never a crash, never slow", () => {
    const text = svgOf(fc.sample(randomPiece, { seed: 5, numRuns: 1 })[0]?.piece as Piece);
    let taken = 0;
    for (const broken of mangled(text, 5000, 8)) {
      const began = performance.now();
      const read = parseSvg(broken);
      expect(performance.now() - began).toBeLessThan(1000);
      if (!read.ok) continue;
      taken++;
      // Read in another way: every outline begins at the two numbers after its M.
      const begins = [...broken.matchAll(/M\s*([-+]?[\d.]+)[\s,]+([-+]?[\d.]+)/g)].map((m) => [
        Number(m[1]),
        Number(m[2]),
      ]);
      const seen = read.value.paths.map((p) => [p.points[0]?.x ?? 0, read.value.heightMm - (p.points[0]?.y ?? 0)]);
      for (const [i, [x, y]] of seen.entries()) {
        expect(x, broken).toBeCloseTo(begins[i]?.[0] ?? Number.NaN, 6);
        expect(y).toBeCloseTo(begins[i]?.[1] ?? Number.NaN, 6);
      }
    }
    expect(taken).toBeGreaterThan(50);
  });
});
