import { describe, expect, it } from "vitest";
import { GalvoHead, type HeadTruth, headFromSeed, NOTHING_HELD } from "./galvo-head";

const DESCRIBED = { widthMm: 110, focalMm: 163, order: "swap first", coefficients: {} } as const;
const PLAIN = { cubic: 0, size: 1 };
/** Mirrors and a lens without any error of their own. */
const IDEAL: HeadTruth = {
  ...headFromSeed(1, DESCRIBED),
  lens: { cubic: 0, quintic: 0, pupil: 0 },
  x: PLAIN,
  y: PLAIN,
  skewRad: 0,
  turnRad: 0,
  nearMm: 0,
  tilt: { x: 0, y: 0 },
  mounted: { swap: false, invertX: false, invertY: false },
};
const head = (change: Partial<HeadTruth> = {}, held = NOTHING_HELD) => new GalvoHead({ ...IDEAL, ...change }, held, 55);

describe("the head of a practice galvo", () => {
  it("bends the field as two mirrors do: X out by 1.0 mm at the corner, Y in by 2.2 mm", () => {
    // f theta with cos theta = cos A cos B: x = f theta sin A / sin theta, y = f theta cos A sin B / sin theta. [spherical trigonometry]
    const angle = 55 / 163;
    const theta = Math.acos(Math.cos(angle) ** 2);
    const corner = head().marked({ x: 55, y: 55 }, 0);
    expect(corner.x).toBeCloseTo((163 * theta * Math.sin(angle)) / Math.sin(theta), 9);
    expect(corner.y).toBeCloseTo((163 * theta * Math.cos(angle) * Math.sin(angle)) / Math.sin(theta), 9);
    expect(corner.x - 55).toBeCloseTo(1.02, 1);
    expect(corner.y - 55).toBeCloseTo(-2.13, 1);
    const side = head().marked({ x: 55, y: 0 }, 0);
    expect([side.x, side.y]).toEqual([expect.closeTo(55, 9), expect.closeTo(0, 9)]);
  });

  it("moves the edge inward by dz tan of the beam angle where the stock is nearer", () => {
    const near = head().marked({ x: 55, y: 0 }, 1);
    expect(55 - near.x).toBeCloseTo(Math.tan(55 / 163), 9);
    expect(head({ nearMm: 0.4 }).marked({ x: 55, y: 0 }, 0.6).x).toBeCloseTo(near.x, 12);
  });

  it("makes a keystone and an own quadratic with one number where the stock is tilted", () => {
    const slope = 0.005;
    const at = (x: number, y: number) => head({ tilt: { x: 0, y: slope } }).marked({ x, y }, 0);
    const ideal = (x: number, y: number) => head().marked({ x, y }, 0);
    const inX = at(55, 30).x - ideal(55, 30).x;
    const inY = at(0, 30).y - ideal(0, 30).y;
    // Both are the rise there times the slope of the ray: y slope tan(angle).
    expect(inX).toBeLessThan(0);
    expect(inX / 55).toBeCloseTo(inY / 30, 4);
  });

  it("lies as plugs, mount and controller have it, with its words the right way round", () => {
    const mounted = { swap: false, invertX: true, invertY: false };
    expect(head({ mounted }).lies).toEqual([-1, 0, 0, 1]);
    const on = { found: 0, now: 1 };
    const held = { ...NOTHING_HELD, swap: on, invertX: on };
    expect(head({}, held).lies).toEqual([0, -1, 1, 0]);
    expect(head({ order: "invert first" }, held).lies).toEqual([0, 1, -1, 0]);
    expect(head({ mounted, order: "swap first" }, { ...NOTHING_HELD, invertX: on }).lies).toEqual([1, 0, 0, 1]);
  });

  it("does with a coefficient what its response says, and with a scale what it was found with", () => {
    const responses = { ...IDEAL.responses, "bow x": { perUnitMm: 0.05, curve: 0, span: 100 } };
    const held = {
      ...NOTHING_HELD,
      terms: { "bow x": { found: 10, now: 30 } },
      scale: { ...NOTHING_HELD.scale, y: { held: { found: 100, now: 101 }, grows: true } },
    };
    const straight = head({ responses }).marked({ x: 20, y: 55 }, 0);
    const bowed = head({ responses }, { ...held, scale: NOTHING_HELD.scale }).marked({ x: 20, y: 55 }, 0);
    // 20 units of 0.05 mm at the corner, at 20 / 55 of the way: the head adds 2 %.
    expect(bowed.x - straight.x).toBeCloseTo((20 / 55) * 1, 1);
    expect(head({}, { ...held, terms: {} }).marked({ x: 0, y: 30 }, 0).y / 30).toBeCloseTo(1.01, 9);
    const shrinks = {
      ...held,
      terms: {},
      scale: { ...held.scale, y: { held: { found: 100, now: 101 }, grows: false } },
    };
    expect(head({}, shrinks).marked({ x: 0, y: 30 }, 0).y / 30).toBeCloseTo(1 / 1.01, 9);
  });

  it("is turned on its mount, counter-clockwise", () => {
    const turned = head({ turnRad: 0.01 }).marked({ x: 40, y: 0 }, 0);
    expect(turned.y).toBeCloseTo(40 * Math.sin(0.01), 6);
  });
});
