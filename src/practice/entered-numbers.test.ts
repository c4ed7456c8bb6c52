import { describe, expect, it } from "vitest";
import { axesFromSeed, beamTurned, movedBy, strayAt, stretchOf } from "./axes-truth";
import { bedFromSeed, raised, readoutInFocus } from "./bed";
import { edgeSeen } from "./edges";
import { focusFromSeed } from "./head-height";
import { seeded } from "./random";

const still = { ...seeded(1), normal: () => 0 };
const { x: axis } = axesFromSeed(5);

describe("a number that a controller holds", () => {
  it("stretches an axis by its share, the other way round where a larger one makes shorter", () => {
    expect(stretchOf({ found: 80, now: 84 }, true)).toBeCloseTo(1.05, 12);
    expect(stretchOf({ found: 80, now: 84 }, false)).toBeCloseTo(80 / 84, 12);
    expect(stretchOf(undefined, true)).toBe(1);
    expect(stretchOf({ found: 0, now: 84 }, true)).toBe(1);
  });

  it("moves the origin by its difference: a length, or counts of a thousandth of an inch", () => {
    const toward = { ...axis, homeSense: -1 as const };
    expect(movedBy({ found: 1, now: 1.5 }, { ...axis, homeSense: 1 }, false)).toBeCloseTo(0.5, 12);
    expect(movedBy({ found: 1, now: 1.5 }, toward, false)).toBeCloseTo(-0.5, 12);
    expect(movedBy({ found: 100, now: 164 }, { ...axis, homeSense: 1 }, true)).toBeCloseTo(1.6256, 12);
  });
});

describe("the axes of a practice gantry", () => {
  it("stray by the runout of a pulley, period by period, and by a tooth from its place on", () => {
    const straying = {
      ...axis,
      runout: { amplitudeMm: 0.02, periodMm: 40, phaseRad: 0 },
      step: { fromMm: 100, byMm: 0.1 },
    };
    expect(strayAt(straying, 10)).toBeCloseTo(0.02, 12);
    expect(strayAt(straying, 30)).toBeCloseTo(-0.02, 12);
    expect(strayAt(straying, 110)).toBeCloseTo(0.08, 12);
    expect(strayAt(straying, 130)).toBeCloseTo(0.12, 12);
    expect(strayAt(straying, 99.999)).toBeLessThan(0.03);
  });

  it("lean by so much more once the beam is turned by hand", () => {
    const axes = axesFromSeed(5);
    expect(beamTurned(axes, 0.002, still).leanRad).toBeCloseTo(axes.leanRad + 0.002, 12);
  });
});

const at2 = (x: number, y: number) => ({ x, y });

describe("a practice bed", () => {
  it("under a galvo has its focus 0.3 to 1 mm higher at the corners, under a head that moves nowhere", () => {
    for (const seed of [1, 2, 3, 4, 5]) {
      const { curvature } = bedFromSeed(seed, { widthMm: 110, depthMm: 110 }, true);
      const atCorner = curvature * (55 ** 2 + 55 ** 2);
      expect(atCorner).toBeGreaterThanOrEqual(0.3);
      expect(atCorner).toBeLessThanOrEqual(1);
      expect(bedFromSeed(seed, { widthMm: 110, depthMm: 110 }, false).curvature).toBe(0);
    }
  });

  const size = { widthMm: 400, depthMm: 300 };
  const focus = { ...focusFromSeed(2), gapByShown: 1, settingSdMm: 0 };
  const at = (bed: Parameters<typeof readoutInFocus>[1], x: number, y: number) =>
    readoutInFocus(focus, bed, { x, y }, still) - readoutInFocus(focus, bed, { x: 0, y: 0 }, still);

  it("is in focus at a larger number where it lies higher", () => {
    expect(at({ slopeX: 0.01, slopeY: 0, curvature: 0 }, 100, 50)).toBeCloseTo(1, 12);
    expect(at({ slopeX: 0, slopeY: -0.01, curvature: 1e-5 }, 0, 100)).toBeCloseTo(-0.9, 12);
  });

  it("is level again once its supports are raised by what they lie low", () => {
    const bed = { ...bedFromSeed(9, size, false), curvature: 0 };
    const corners = [
      { x: -200, y: -150 },
      { x: 200, y: -150 },
      { x: 200, y: 150 },
      { x: -200, y: 150 },
    ];
    const low = (p: { x: number; y: number }) => -(bed.slopeX * p.x + bed.slopeY * p.y);
    const level = raised(
      bed,
      corners.map((p) => ({ ...p, mm: low(p) })),
      still,
    );
    // Supports that stand more to one side, raised by a plane: its slope counts, not its height.
    const aside = [at2(100, 50), at2(180, 60), at2(120, 140), at2(200, 150)];
    const flat = { slopeX: 0, slopeY: 0, curvature: 0 };
    const tilted = raised(
      flat,
      aside.map((p) => ({ ...p, mm: 2 + 0.01 * p.x - 0.02 * p.y })),
      still,
    );
    expect(tilted.slopeX).toBeCloseTo(0.01, 12);
    expect(tilted.slopeY).toBeCloseTo(-0.02, 12);
    expect(level.slopeX).toBeCloseTo(0, 12);
    expect(level.slopeY).toBeCloseTo(0, 12);
    expect(
      raised(
        bed,
        [corners[0], corners[0], corners[0]].map((p) => ({ x: p?.x ?? 0, y: p?.y ?? 0, mm: 1 })),
        still,
      ),
    ).toEqual(bed);
  });
});

describe("a distance from an edge", () => {
  const line = {
    x0: 20,
    y0: 10,
    x1: 20,
    y1: 60,
    widthMm: 0.3,
    speedMmPerS: 100,
    line: 1,
    sent: { x: 20, y: 35 },
  };
  const around = { x0: 18, y0: 30, x1: 22, y1: 40 };
  const seen = (side: "left" | "right", to: "centre" | "near") =>
    edgeSeen(
      {
        kind: "edge distance",
        side,
        against: "bed",
        alongMm: 30,
        to,
        corner: "front",
        of: { kind: "line", within: around },
      },
      [line],
      { seed: 3 },
      { widthMm: 100, depthMm: 80 },
      { xMm: 0, yMm: 0 },
    );

  it("is from the side that is meant, to the near edge half a width less; a stock by hand lies a little turned", () => {
    const [left, right, near] = [seen("left", "centre"), seen("right", "centre"), seen("left", "near")];
    if (!left.ok || !right.ok || !near.ok) throw new Error("not seen");
    expect(Math.abs(left.mean - 20)).toBeLessThan(0.35);
    expect(Math.abs(right.mean - 80)).toBeLessThan(0.35);
    expect(Math.abs(near.mean - (left.mean - 0.15))).toBeLessThan(0.12);
  });
});
