import { describe, expect, it } from "vitest";
import type { Piece } from "../core/coupon/piece";
import type { Op } from "../core/coupon/program";
import { parseSvg } from "../formats/svg-parser";
import { svgOf } from "../formats/svg-writer";
import { burnOnGalvo } from "./galvo";
import { galvoFromSeed } from "./galvo-truth";
import { shownFocus } from "./head-height";
import { laserSource } from "./laser-source";

const FIELD = { widthMm: 110, depthMm: 110, topSpeedMmPerS: 4000 };
const TRUTH = galvoFromSeed(7, laserSource("galvo", 1064, FIELD.topSpeedMmPerS));
const FOCUS = shownFocus(TRUTH.focus);
const PLACED = { xMm: 30, yMm: 40 };

/** Two groups of one line each. */
function piece(change: { speedMmPerS?: number; pulseKHz?: number; toX?: number } = {}): Piece {
  const { speedMmPerS = 400, pulseKHz = 30, toX = 20 } = change;
  const settings = (id: string) => ({
    id,
    label: id,
    use: "line" as const,
    speedMmPerS,
    powerPct: 40,
    pulseKHz,
    runUpMm: 0,
    scan: null,
  });
  const line = (y: number, settings: string) => ({
    points: [
      { x: 10, y },
      { x: toX, y },
    ],
    closed: false,
    settings,
  });
  return {
    id: "p",
    label: "coupon T-1",
    stock: "brass",
    widthMm: 60,
    heightMm: 40,
    settings: [settings("a"), settings("b")],
    paths: [line(10, "a"), line(20, "b")],
  };
}

const heights = (a: number, b: number): Op[] => [
  { kind: "set height", zMm: a, by: "hand", text: "" },
  { kind: "mark", piece: "p", settings: "a" },
  { kind: "set height", zMm: b, by: "hand", text: "" },
  { kind: "mark", piece: "p", settings: "b" },
];

function burned(of: Piece, program: Op[]) {
  const read = parseSvg(svgOf(of));
  if (!read.ok) throw new Error(read.message);
  return burnOnGalvo(read.value, program, PLACED, TRUTH, FIELD);
}

function marksOf(of: Piece, program: Op[]) {
  const burn = burned(of, program);
  if (!burn.ok) throw new Error(burn.message);
  return burn.marks;
}

describe("a practice galvo", () => {
  it("marks the groups of a drawing at their heights: thin in focus, nothing far from it", () => {
    const marks = marksOf(piece(), heights(FOCUS, FOCUS + 30));
    expect(marks).toHaveLength(1);
    const { beam } = TRUTH.focus;
    expect(marks[0]?.widthMm).toBeGreaterThan(0.2 * beam.waistMm);
    expect(marks[0]?.widthMm).toBeLessThan(4 * beam.waistMm);
    expect(marks[0]?.narrowness).toBeGreaterThan(0.9);
  });

  it("puts them where the stock lies in a field that is not quite of its size", () => {
    const [mark] = marksOf(piece(), heights(FOCUS, FOCUS));
    expect(mark?.x0).toBeCloseTo((30 + 10) * TRUTH.scaleX, 9);
    expect(mark?.y0).toBeCloseTo((40 + 10) * TRUTH.scaleY, 9);
    expect(Math.abs(TRUTH.scaleX - 1)).toBeGreaterThan(1e-5);
  });

  it("marks less deeply where the same power makes more pulses", () => {
    const width = (pulseKHz: number) => marksOf(piece({ pulseKHz }), heights(FOCUS, FOCUS))[0]?.widthMm ?? 0;
    expect(width(20)).toBeGreaterThan(width(30));
    // So many pulses that none is strong enough any more.
    expect(width(2000)).toBe(0);
  });

  it("refuses by name what it cannot burn", () => {
    expect(burned(piece({ speedMmPerS: 5000 }), heights(1, 1))).toMatchObject({
      ok: false,
      message: expect.stringMatching(/faster than/),
    });
    const far = { ...PLACED, xMm: 95 };
    const read = parseSvg(svgOf(piece()));
    if (!read.ok) throw new Error(read.message);
    expect(burnOnGalvo(read.value, heights(1, 1), far, TRUTH, FIELD)).toMatchObject({
      ok: false,
      message: expect.stringMatching(/“a” reaches X 115.0, Y 50.0 mm, outside the field/),
    });
    const lost: Op[] = [{ kind: "mark", piece: "p", settings: "c" }];
    expect(burned(piece(), lost)).toMatchObject({ ok: false, message: expect.stringMatching(/no group “c”/) });
  });
});
