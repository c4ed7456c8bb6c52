/** Lengths, number lists, transforms, and where elements stand in their file. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { mapped } from "../core/geometry/affine";
import { FormatFault } from "./parsed";
import { type SvgNode, svgTree } from "./svg-tree";
import { lengthMm, MM_PER_USER_UNIT, numbersIn, transformOf, userLength } from "./svg-values";

const node = (attributes: Record<string, string>): SvgNode => ({
  name: "path",
  attributes,
  children: [],
  text: "",
  line: 3,
  column: 5,
});
const fault = (act: () => unknown): FormatFault => {
  try {
    act();
  } catch (error) {
    if (error instanceof FormatFault) return error;
    throw error;
  }
  throw new Error("nothing was refused");
};

describe("a length", () => {
  it.each([
    ["1in", 25.4],
    ["2.54cm", 25.4],
    ["25.4mm", 25.4],
    ["72pt", 25.4],
    ["6pc", 25.4],
    ["96", 25.4],
    ["96px", 25.4],
    [" 96 ", 25.4],
    ["9.6e1", 25.4],
    ["-.5in", -12.7],
    ["+1.in", 25.4],
  ])("of %s is %d mm [SVG 1.1, 7.10; CSS 2.1, 4.3.2]", (text, mm) => {
    expect(lengthMm(node({ width: text }), "width")).toBeCloseTo(mm, 9);
  });

  it("in user units is that by 96 an inch; one that is missing is what it is then", () => {
    expect(userLength(node({ x: "1in" }), "x", 7)).toBeCloseTo(96, 9);
    expect(userLength(node({}), "x", 7)).toBe(7);
    expect(lengthMm(node({}), "x")).toBeUndefined();
    expect(MM_PER_USER_UNIT * 96).toBe(25.4);
  });

  it.each(["5 mm", "wide", "50%", "1em", "1..2", "", "1e999", "0x10", "5mmm"])(
    "that is none is refused: %s",
    (text) => {
      expect(fault(() => lengthMm(node({ x: text }), "x"))).toMatchObject({ line: 3, column: 5 });
    },
  );
});

describe("a list of numbers", () => {
  it("is apart by spaces, commas, or signs, and reads back what was written", () => {
    const number = fc.double({ min: -1e6, max: 1e6, noNaN: true }).map((n) => Math.round(n * 1000) / 1000 + 0);
    fc.assert(
      fc.property(
        fc.array(number, { minLength: 1, maxLength: 8 }),
        fc.constantFrom(" ", ",", ", ", " , "),
        (list, gap) => {
          expect(numbersIn(node({}), "points", list.join(gap))).toEqual(list);
        },
      ),
      { seed: 2, numRuns: 300 },
    );
    expect(numbersIn(node({}), "points", "")).toEqual([]);
    expect(numbersIn(node({}), "points", "1-2")).toEqual([1, -2]);
  });

  it.each(["1 2 x", "1,,2", "a", "1 2;3", "1e999"])("that is none is refused: %s", (text) => {
    expect(fault(() => numbersIn(node({}), "points", text)).message).toMatch(/points/);
  });
});

describe("a transform", () => {
  const at = (transform: string, x: number, y: number) => mapped(transformOf(node({ transform })), { x, y });

  it.each([
    ["", 3, 4, 3, 4],
    ["translate(1 2)", 3, 4, 4, 6],
    ["translate(1)", 3, 4, 4, 4],
    ["scale(2)", 3, 4, 6, 8],
    ["scale(2,-1)", 3, 4, 6, -4],
    ["rotate(90)", 3, 4, -4, 3],
    ["rotate(90 1 1)", 3, 4, -2, 3],
    ["skewX(45)", 3, 4, 7, 4],
    ["skewY(45)", 3, 4, 3, 7],
    ["matrix(1 2 3 4 5 6)", 1, 1, 9, 12],
    ["translate(10) rotate(90), scale(2)", 3, 4, 2, 6],
    ["scale(2)translate(1,0)", 3, 4, 8, 8],
  ])("%s takes (%d, %d) to (%d, %d)", (transform, x, y, wantedX, wantedY) => {
    const seen = at(transform, x, y);
    expect(seen.x).toBeCloseTo(wantedX, 9);
    expect(seen.y).toBeCloseTo(wantedY, 9);
  });

  it.each([
    ["rotate(90", /no list of transforms/],
    ["rotate 90", /no list of transforms/],
    ["bend(3)", /bend\(3\) is no transform/],
    ["rotate(1 2)", /rotate\(1 2\) is no transform/],
    ["scale()", /is no transform/],
    ["matrix(1 2 3)", /is no transform/],
    ["scale(x)", /no list of numbers/],
    ["scale(2) oops", /no list of transforms/],
  ])("that is none is refused: %s", (transform, message) => {
    expect(fault(() => transformOf(node({ transform }))).message).toMatch(message);
  });
});

describe("a file as a tree", () => {
  const good =
    '<?xml version="1.0"?>\n<svg xmlns="http://www.w3.org/2000/svg">\n  <g id="a">\n    <path d="M0 0"/>x\n  </g>\n</svg>';

  it("knows the place of every element, with any line ends", () => {
    for (const text of [good, good.replaceAll("\n", "\r\n"), good.replaceAll("\n", "\r"), `\uFEFF${good}`]) {
      const root = svgTree(text);
      const group = root.children.find((c) => c.name === "g");
      const path = group?.children.find((c) => c.name === "path");
      expect([root.line, root.column]).toEqual([2, 1]);
      expect([group?.line, group?.column]).toEqual([3, 3]);
      expect([path?.line, path?.column]).toEqual([4, 5]);
      expect(path?.attributes).toEqual({ d: "M0 0" });
      expect(group?.text.trim()).toBe("x");
    }
  });

  it("resolves the five entities of XML and no others", () => {
    const root = svgTree("<svg><title>a &amp; b &lt;c&gt; &quot;d&quot;</title></svg>");
    expect(root.text).toBe('a & b <c> "d"');
    expect(fault(() => svgTree('<!DOCTYPE svg [<!ENTITY x "y">]><svg/>'))).toMatchObject({ line: 1, column: 1 });
  });

  it.each([
    ["", /./],
    ["<svg>", /Not well-formed/],
    ["<svg><g></svg></g>", /Not well-formed/],
    ["<svg/><svg/>", /./],
    ["<html/>", /no single SVG/],
    [`<svg>${"<g>".repeat(150)}${"</g>".repeat(150)}</svg>`, /nested/],
    [`<svg>${"<g/>".repeat(30_000)}</svg>`, /more than 20000 tags/],
    [" ".repeat(1_300_000), /larger than 1\.2 million/],
  ])("is refused where it is none (%#)", (text, message) => {
    expect(fault(() => svgTree(text)).message).toMatch(message);
  });
});
