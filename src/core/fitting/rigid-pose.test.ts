import { describe, expect, it } from "vitest";
import { laidBy, rigidPose, turned } from "./rigid-pose";

const POINTS = [
  { x: 0, y: 0 },
  { x: 40, y: 5 },
  { x: -10, y: 30 },
  { x: 22, y: -17 },
];

describe("a rigid pose", () => {
  it("is found again, also beyond a quarter turn", () => {
    for (const turnRad of [0.02, 1.6, -2.9]) {
      const to = POINTS.map((p) => {
        const at = turned(p, turnRad);
        return { x: at.x + 3, y: at.y - 7 };
      });
      const pose = rigidPose(POINTS.map((from, i) => ({ from, to: to[i] as { x: number; y: number } })));
      expect(pose?.turnRad).toBeCloseTo(turnRad, 12);
      POINTS.forEach((p, i) => {
        const at = pose && laidBy(pose, p);
        expect(at?.x).toBeCloseTo(to[i]?.x ?? 0, 10);
        expect(at?.y).toBeCloseTo(to[i]?.y ?? 0, 10);
      });
    }
  });

  it("takes up no scale and no shear: by hand", () => {
    // x' = 2 x turns nothing, and its middle stays in the middle.
    const square = [
      { x: 0, y: 0 },
      { x: 1, y: 0 },
      { x: 1, y: 1 },
      { x: 0, y: 1 },
    ];
    const pose = rigidPose(square.map((from) => ({ from, to: { x: 2 * from.x, y: from.y } })));
    expect(pose).toEqual({ turnRad: 0, x: 0.5, y: 0 });
    // A shear of x by y of 0.1 turns by atan(-0.1 / 2): half of it is turn.
    const sheared = rigidPose(square.map((from) => ({ from, to: { x: from.x + 0.1 * from.y, y: from.y } })));
    expect(sheared?.turnRad).toBeCloseTo(Math.atan2(-0.1, 2), 12);
  });

  it("is none of one point, or of points that are one", () => {
    const one = { from: { x: 1, y: 1 }, to: { x: 2, y: 2 } };
    expect(rigidPose([one])).toBeNull();
    expect(rigidPose([one, one])).toBeNull();
  });
});
