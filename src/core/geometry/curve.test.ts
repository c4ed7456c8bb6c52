/** Maps and curves against what defines them, worked out in another way. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { composed, IDENTITY, largestStretch, mapped } from "./affine";
import { arcOfBulge, flattened } from "./arc";
import {
  type Cubic,
  cubicOfQuadratic,
  type EllipseArc,
  ellipseArc,
  flattenedCubic,
  flattenedEllipse,
  onEllipse,
} from "./curve";

type Vector = { x: number; y: number };

const number = fc.double({ min: -50, max: 50, noNaN: true });
const point = fc.record({ x: number, y: number });
const map = fc.record({ a: number, b: number, c: number, d: number, e: number, f: number });
const apart = (p: Vector, q: Vector) => Math.hypot(p.x - q.x, p.y - q.y);

/** Distance of a point from a polyline. */
function off(p: Vector, line: readonly Vector[]): number {
  return Math.min(
    ...line.slice(1).map((b, i) => {
      const a = line[i] as Vector;
      const [dx, dy] = [b.x - a.x, b.y - a.y];
      const t = Math.max(0, Math.min(1, ((p.x - a.x) * dx + (p.y - a.y) * dy) / (dx * dx + dy * dy || 1)));
      return Math.hypot(p.x - a.x - t * dx, p.y - a.y - t * dy);
    }),
  );
}

/** By repeated halving of the way between neighbours, de Casteljau. */
function bezier(points: readonly Vector[], t: number): Vector {
  if (points.length === 1) return points[0] as Vector;
  return bezier(
    points.slice(1).map((q, i) => {
      const p = points[i] as Vector;
      return { x: p.x + (q.x - p.x) * t, y: p.y + (q.y - p.y) * t };
    }),
    t,
  );
}

describe("affine maps", () => {
  it("act one after the other as their product does, and change nothing where they are the identity", () => {
    fc.assert(
      fc.property(map, map, point, (outer, inner, p) => {
        const once = mapped(composed(outer, inner), p);
        const twice = mapped(outer, mapped(inner, p));
        expect(once.x).toBeCloseTo(twice.x, 6);
        expect(once.y).toBeCloseTo(twice.y, 6);
        expect(apart(mapped(IDENTITY, p), p)).toBe(0);
      }),
      { seed: 1, numRuns: 200 },
    );
  });

  it("stretch no direction more than they say, and one direction just so", () => {
    fc.assert(
      fc.property(map, (m) => {
        const most = largestStretch(m);
        const seen = Array.from({ length: 3600 }, (_, i) => {
          const angle = (Math.PI * i) / 3600;
          const [x, y] = [Math.cos(angle), Math.sin(angle)];
          return Math.hypot(m.a * x + m.c * y, m.b * x + m.d * y);
        });
        const largest = Math.max(...seen);
        expect(largest).toBeLessThanOrEqual(most * (1 + 1e-12) + 1e-12);
        expect(largest).toBeGreaterThanOrEqual(most * (1 - 1e-5));
      }),
      { seed: 2, numRuns: 60 },
    );
  });

  it("that turn and mirror do not stretch", () => {
    const turned = { a: Math.cos(1), b: Math.sin(1), c: -Math.sin(1), d: Math.cos(1), e: 3, f: 4 };
    expect(largestStretch(turned)).toBeCloseTo(1, 12);
    expect(largestStretch(composed(turned, { ...IDENTITY, a: -1 }))).toBeCloseTo(1, 12);
  });
});

describe("a cubic", () => {
  it("stays within the chord error, and not by many more chords than it needs", () => {
    fc.assert(
      fc.property(fc.tuple(point, point, point, point), fc.constantFrom(0.5, 0.05, 0.005), (points, error) => {
        const cubic: Cubic = points;
        const flat = [points[0], ...flattenedCubic(cubic, error)];
        for (let i = 0; i <= 100; i++) expect(off(bezier(points, i / 100), flat)).toBeLessThanOrEqual(error + 1e-9);
        expect(flat.at(-1)).toEqual(points[3]);
      }),
      { seed: 3, numRuns: 100 },
    );
  });

  it("that is straight is one chord, and the same curve a degree higher", () => {
    const line: Cubic = [
      { x: 0, y: 0 },
      { x: 1, y: 1 },
      { x: 2, y: 2 },
      { x: 3, y: 3 },
    ];
    expect(flattenedCubic(line, 0.001)).toHaveLength(1);
    fc.assert(
      fc.property(point, point, point, (a, b, c) => {
        const raised = cubicOfQuadratic(a, b, c);
        for (const t of [0, 0.2, 0.5, 0.9, 1])
          expect(apart(bezier(raised, t), bezier([a, b, c], t))).toBeLessThan(1e-9);
      }),
      { seed: 4, numRuns: 100 },
    );
  });

  it("refuses an error of nothing, and a curve that nobody means", () => {
    const wide: Cubic = [
      { x: 0, y: 0 },
      { x: 1e12, y: 0 },
      { x: 0, y: 1e12 },
      { x: 1, y: 1 },
    ];
    expect(() => flattenedCubic(wide, 0)).toThrow(/chordError/);
    expect(() => flattenedCubic(wide, 0.001)).toThrow(/chords/);
    expect(() => flattenedCubic([{ x: Number.NaN, y: 0 }, wide[1], wide[2], wide[3]], 0.001)).toThrow(RangeError);
  });
});

describe("an arc of an ellipse", () => {
  const radii = fc.record({
    rx: fc.double({ min: 0.5, max: 60, noNaN: true }),
    ry: fc.double({ min: 0.5, max: 60, noNaN: true }),
    turnRad: fc.double({ min: -3, max: 3, noNaN: true }),
  });

  /** Where a point lies in the circle that the ellipse becomes. */
  const inCircle = ({ centre, rx, ry, turnRad }: EllipseArc, p: Vector) => {
    const [dx, dy] = [p.x - centre.x, p.y - centre.y];
    const [c, s] = [Math.cos(turnRad), Math.sin(turnRad)];
    return Math.hypot((c * dx + s * dy) / rx, (-s * dx + c * dy) / ry);
  };

  it("goes from end to end, the way the flags say, on one ellipse", () => {
    fc.assert(
      fc.property(point, point, radii, fc.boolean(), fc.boolean(), (from, to, r, large, sweep) => {
        fc.pre(apart(from, to) > 0.1);
        const arc = ellipseArc(from, to, r, large, sweep);
        if (!arc) throw new Error("no arc");
        expect(apart(onEllipse(arc, arc.startRad), from)).toBeLessThan(1e-6);
        expect(apart(onEllipse(arc, arc.startRad + arc.sweepRad), to)).toBeLessThan(1e-6);
        expect(inCircle(arc, from)).toBeCloseTo(1, 6);
        expect(arc.sweepRad > 0).toBe(sweep);
        // Radii that just reach leave half a turn, which is neither large nor small.
        const beyond = Math.abs(Math.abs(arc.sweepRad) - Math.PI);
        if (beyond > 1e-6) expect(Math.abs(arc.sweepRad) > Math.PI).toBe(large);
        expect(arc.rx / arc.ry).toBeCloseTo(r.rx / r.ry, 6);
      }),
      { seed: 5, numRuns: 300 },
    );
  });

  it("becomes chords within the chord error, with its ends", () => {
    fc.assert(
      fc.property(point, radii, fc.double({ min: -6, max: 6, noNaN: true }), (centre, r, sweepRad) => {
        const arc: EllipseArc = { centre, ...r, startRad: 0.4, sweepRad };
        const flat = [onEllipse(arc, 0.4), ...flattenedEllipse(arc, 0.01)];
        for (let i = 0; i <= 60; i++)
          expect(off(onEllipse(arc, 0.4 + (sweepRad * i) / 60), flat)).toBeLessThanOrEqual(0.01 + 1e-9);
        expect(apart(flat.at(-1) as Vector, onEllipse(arc, 0.4 + sweepRad))).toBeLessThan(1e-9);
      }),
      { seed: 6, numRuns: 80 },
    );
  });

  it("is a line where a radius is nothing", () => {
    expect(ellipseArc({ x: 0, y: 0 }, { x: 1, y: 0 }, { rx: 0, ry: 4, turnRad: 0 }, false, true)).toBeNull();
  });

  it("of a circle has the circle's centre: SVG 1.1, figure of 8.3.8, arcs of 100 by 100", () => {
    const arc = ellipseArc({ x: 100, y: 0 }, { x: 0, y: 100 }, { rx: 100, ry: 100, turnRad: 0 }, false, true);
    expect(arc?.centre.x).toBeCloseTo(0, 9);
    expect(arc?.centre.y).toBeCloseTo(0, 9);
    expect(arc?.sweepRad).toBeCloseTo(Math.PI / 2, 9);
  });
});

describe("an arc by its bulge", () => {
  it("passes through both points, and its middle stands off the chord by bulge times half of it", () => {
    const bulge = fc.double({ min: -3, max: 3, noNaN: true }).filter((b) => Math.abs(b) > 0.01);
    fc.assert(
      fc.property(point, point, bulge, (from, to, b) => {
        fc.pre(apart(from, to) > 0.1);
        const arc = arcOfBulge(from, to, b);
        const flat = flattened(arc, 0.001);
        expect(apart(flat[0] as Vector, from)).toBeLessThan(1e-6);
        expect(apart(flat.at(-1) as Vector, to)).toBeLessThan(1e-6);
        const angle = arc.startRad + arc.sweepRad / 2;
        const top = { x: arc.centre.x + arc.radius * Math.cos(angle), y: arc.centre.y + arc.radius * Math.sin(angle) };
        const middle = { x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 };
        expect(apart(top, middle)).toBeCloseTo((Math.abs(b) * apart(from, to)) / 2, 6);
        // Anticlockwise: the arc lies to the right of the chord.
        const side = (to.x - from.x) * (top.y - from.y) - (to.y - from.y) * (top.x - from.x);
        expect(Math.sign(side)).toBe(-Math.sign(b));
      }),
      { seed: 7, numRuns: 200 },
    );
  });
});
