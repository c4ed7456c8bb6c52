import { describe, expect, it } from "vitest";
import { historyWith, judgedRound } from "../../../testing/judged-ladder";
import { SAMPLE_MACHINE } from "../../../testing/sample-machine";
import { boundsOf } from "../../geometry/rect";
import { focus } from "./procedure";
import { type SpacerSize, spacerDrawing, spacerFault } from "./spacer";

const SIZE: SpacerSize = { gapMm: 50, kerfMm: 0.2, sheetMm: 3, foot: false };
const outlines = (size: SpacerSize) => spacerDrawing(size).piece.paths.map((p) => p.points);

/** By the shoelace. */
function areaOf(points: readonly { x: number; y: number }[]): number {
  const twice = points.reduce((sum, a, i) => {
    const b = points[(i + 1) % points.length] ?? a;
    return sum + a.x * b.y - b.x * a.y;
  }, 0);
  return Math.abs(twice) / 2;
}

describe("a spacer", () => {
  it("is drawn higher by the kerf, with slots narrower by it, so that it comes out as the gap", () => {
    for (const points of outlines(SIZE)) {
      const box = boundsOf(points);
      expect((box?.y1 ?? 0) - (box?.y0 ?? 0)).toBeCloseTo(50.2, 9);
      // What the kerf leaves: a rectangle less its slot, cut around by half a kerf
      const width = (box?.x1 ?? 0) - (box?.x0 ?? 0);
      expect(areaOf(points)).toBeCloseTo(width * 50.2 - 2.8 * 25.1, 6);
    }
  });

  it("has slots that reach to half of the height, one from above and one from below, so that both stand on the work", () => {
    const [above, below] = outlines(SIZE);
    const depthIn = (points: readonly { x: number; y: number }[] = []) => {
      const ys = points.map((p) => p.y).sort((a, b) => a - b);
      return ys[Math.floor(ys.length / 2)];
    };
    const levels = (points: readonly { x: number; y: number }[] = []) =>
      points.map((p) => Number((p.y - 4).toFixed(6)));
    expect(levels(above).filter((y) => y === 0)).toHaveLength(2);
    expect(levels(below).filter((y) => y === 0)).toHaveLength(4);
    expect(levels(above).filter((y) => y === 50.2)).toHaveLength(4);
    expect(levels(below).filter((y) => y === 50.2)).toHaveLength(2);
    expect(levels(above).filter((y) => y === 25.1)).toHaveLength(2);
    expect(levels(below).filter((y) => y === 25.1)).toHaveLength(2);
    expect(depthIn(above)).toBeGreaterThan(depthIn(below) ?? 0);
  });

  it("stands on a foot of 8 mm for small parts, through which the slot goes", () => {
    for (const points of outlines({ ...SIZE, foot: true })) {
      const box = boundsOf(points.filter((p) => Math.abs(p.y - 4) < 1e-9));
      expect((box?.x1 ?? 0) - (box?.x0 ?? 0)).toBeCloseTo(8, 9);
    }
  });

  it.each([
    [{ sheetMm: 0 }, /above 0 mm/],
    [{ sheetMm: 40 }, /at most 20 mm/],
    [{ kerfMm: 5 }, /5 mm is too wide/],
    [{ kerfMm: 3 }, /as wide as the slot/],
    [{ gapMm: 6 }, /too small for standing sheets/],
    [{ gapMm: 20, foot: true }, /A foot needs/],
  ])("cannot be cut with %o", (changes, why) => {
    expect(spacerFault({ ...SIZE, ...changes })).toMatch(why);
    expect(() => spacerDrawing({ ...SIZE, ...changes })).toThrow(RangeError);
  });

  it("is offered where the gap was read at a rule, with its allowance, once sheet and kerf are typed", () => {
    const plan = { allowanceMm: 6, firstMm: 40, stepMm: 1, count: 11, lowestMm: 30, highestMm: 60 };
    const at = (decisions: Record<string, string>, changes = {}) => {
      const round = judgedRound({ machine: SAMPLE_MACHINE, plan: { ...plan, ...changes }, marked: [4, 8] });
      const outcome = focus.solve(historyWith(SAMPLE_MACHINE, [round], decisions));
      if (outcome.status !== "solved") throw new Error(JSON.stringify(outcome));
      return { wish: outcome.wishes.find((w) => w.id === "spacer"), made: outcome.artefacts };
    };
    expect(at({}).wish?.fields.map((f) => f.text)).toEqual(["", ""]);
    expect(at({}).made).toEqual([]);
    // Focus at 45 by first and last, 6 more by the rule's allowance
    const typed = at({ "spacer kerf": "0.2", "spacer sheet": "3 mm" });
    expect(typed.wish?.lines[0]).toContain("51.00 + 0.20 = 51.20 mm");
    expect(typed.made.map((a) => a.name)).toEqual(["spacer"]);
    expect(at({ "spacer kerf": "0.2", "spacer sheet": "three" }).wish?.fault).toMatch(/^Thickness: /);
    expect(at({}, { readAt: "scale, closer" }).wish).toBeUndefined();
  });
});
