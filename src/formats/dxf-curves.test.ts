/** Ellipses and splines, against their defining formulas and against an independent reader: Debian's python3-ezdxf, which npm test installs. */
import { spawnSync } from "node:child_process";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { parseDxf } from "./dxf-parser";
import { faultText } from "./parsed";

type Point = { x: number; y: number };
type Tags = (string | number)[];

function drawing(entities: Tags, blocks: Tags = []): string {
  const section = (name: string, tags: Tags) => [0, "SECTION", 2, name, ...tags, 0, "ENDSEC"];
  return [
    ...section("HEADER", [9, "$INSUNITS", 70, 4]),
    ...section("BLOCKS", blocks),
    ...section("ENTITIES", entities),
    ...[0, "EOF", ""],
  ].join("\n");
}

function onlyPath(text: string, chordErrorMm?: number) {
  const read = parseDxf(text, chordErrorMm);
  if (!read.ok) throw new Error(faultText(read));
  expect(read.value.paths).toHaveLength(1);
  return read.value.paths[0] as { points: Point[]; closed: boolean };
}

const ellipse = (extra: Tags = []): Tags => [0, "ELLIPSE", 8, "0", 10, 5, 20, 6, 11, 16, 21, 12, 40, 0.5, ...extra];

function spline(degree: number, knots: readonly number[], points: readonly Point[], flags = 8): Tags {
  const head = [0, "SPLINE", 8, "0", 70, flags, 71, degree, 72, knots.length, 73, points.length, 74, 0];
  return [...head, ...knots.flatMap((t) => [40, t]), ...points.flatMap((p) => [10, p.x, 20, p.y, 30, 0])];
}

/** B-spline basis by its recursion. [de Boor, A Practical Guide to Splines (2001), IX(14)] */
function basis(i: number, p: number, t: readonly number[], u: number): number {
  const at = (k: number) => t[k] as number;
  if (p === 0) return at(i) <= u && u < at(i + 1) ? 1 : 0;
  const part = (num: number, den: number, b: number) => (den === 0 ? 0 : (num / den) * b);
  return (
    part(u - at(i), at(i + p) - at(i), basis(i, p - 1, t, u)) +
    part(at(i + p + 1) - u, at(i + p + 1) - at(i + 1), basis(i + 1, p - 1, t, u))
  );
}

function off(p: Point, line: readonly Point[]): number {
  return Math.min(
    ...line.slice(1).map((b, i) => {
      const a = line[i] as Point;
      const [dx, dy] = [b.x - a.x, b.y - a.y];
      const s = Math.max(0, Math.min(1, ((p.x - a.x) * dx + (p.y - a.y) * dy) / (dx * dx + dy * dy || 1)));
      return Math.hypot(p.x - a.x - s * dx, p.y - a.y - s * dy);
    }),
  );
}

describe("an ellipse", () => {
  it("has every point on it, whole and in part, and ends where it should", () => {
    const onIt = ({ x, y }: Point) => {
      const [u, v] = [((x - 5) * 0.8 + (y - 6) * 0.6) / 20, (-(x - 5) * 0.6 + (y - 6) * 0.8) / 10];
      return u * u + v * v;
    };
    const whole = onlyPath(drawing(ellipse()));
    expect(whole.closed).toBe(true);
    for (const p of whole.points) expect(onIt(p)).toBeCloseTo(1, 9);
    const quarter = onlyPath(drawing(ellipse([41, 0, 42, Math.PI / 2])));
    expect(quarter.closed).toBe(false);
    for (const p of quarter.points) expect(onIt(p)).toBeCloseTo(1, 9);
    expect(quarter.points[0]?.x).toBeCloseTo(21, 6);
    expect(quarter.points.at(-1)?.x).toBeCloseTo(5 - 6, 9);
    expect(quarter.points.at(-1)?.y).toBeCloseTo(6 + 8, 9);
  });

  it("is refused without an axis", () => {
    const text = drawing([0, "ELLIPSE", 8, "0", 10, 5, 20, 6, 11, 0, 21, 0, 40, 0.5]);
    expect(parseDxf(text)).toMatchObject({ ok: false, message: expect.stringMatching(/needs an axis/) });
  });
});

describe("a spline", () => {
  const coordinate = fc.double({ min: -50, max: 50, noNaN: true });
  const shape = fc.record({
    degree: fc.constantFrom(1, 2, 3),
    points: fc.array(fc.record({ x: coordinate, y: coordinate }), { minLength: 4, maxLength: 9 }),
    clamped: fc.boolean(),
  });

  it("stays within the chord error of its definition, for every degree, clamped or not", () => {
    fc.assert(
      fc.property(shape, ({ degree, points, clamped }) => {
        const count = points.length + degree + 1;
        const knots = Array.from({ length: count }, (_, i) =>
          clamped ? Math.max(0, Math.min(points.length - degree, i - degree)) : i,
        );
        const path = onlyPath(drawing(spline(degree, knots, points)), 0.01);
        const [from, to] = [knots[degree] as number, knots[points.length] as number];
        for (let k = 0; k < 40; k++) {
          const u = from + ((to - from) * k) / 40;
          const exact = points.reduce(
            (sum, p, i) => {
              const b = basis(i, degree, knots, u);
              return { x: sum.x + b * p.x, y: sum.y + b * p.y };
            },
            { x: 0, y: 0 },
          );
          expect(off(exact, path.points)).toBeLessThan(0.01 + 1e-9);
        }
      }),
      { seed: 21, numRuns: 100 },
    );
  });

  const points = [
    { x: 0, y: 0 },
    { x: 1, y: 2 },
    { x: 3, y: 2 },
    { x: 4, y: 0 },
  ];
  it.each([
    ["of a high degree", spline(4, [0, 0, 0, 0, 0, 1, 1, 1, 1], points), /degree 4/],
    ["with too few knots", spline(3, [0, 0, 0, 1, 1, 1], points), /do not fit/],
    ["with falling knots", spline(3, [0, 0, 0, 0, 1, 1, 0.5, 1], points), /must rise/],
    ["with weights", [...spline(3, [0, 0, 0, 0, 1, 1, 1, 1], points, 12), 41, 1, 41, 2, 41, 1, 41, 1], /weights/],
    ["of one place", spline(3, [1, 1, 1, 1, 1, 1, 1, 1], points), /nothing to draw/],
    ["that is not flat", [...spline(3, [0, 0, 0, 0, 1, 1, 1, 1], points), 30, 5], /not flat/],
  ])("%s is refused", (_, tags, message) => {
    expect(parseDxf(drawing(tags))).toMatchObject({ ok: false, message: expect.stringMatching(message) });
  });
});

describe("a file that grows without end", () => {
  it("is refused soon: blocks in blocks that draw nothing", () => {
    const insert = (name: string): Tags => [0, "INSERT", 8, "0", 2, name, 10, 0, 20, 0];
    const blocks = Array.from({ length: 15 }, (_, i) => [
      ...[0, "BLOCK", 2, `B${i + 1}`, 10, 0, 20, 0],
      ...Array.from({ length: 10 }, () => insert(`B${i}`)).flat(),
      ...[0, "ENDBLK"],
    ]).flat();
    const text = drawing(insert("B15"), [0, "BLOCK", 2, "B0", 10, 0, 20, 0, 0, "ENDBLK", ...blocks]);
    const began = performance.now();
    expect(parseDxf(text)).toMatchObject({ ok: false, message: expect.stringMatching(/more than can be meant/) });
    // The bench holds it to one second; here the machine may be busy.
    expect(performance.now() - began).toBeLessThan(5000);
  });
});

const hasEzdxf = spawnSync("/usr/bin/python3", ["-c", "import ezdxf"]).status === 0;

describe.runIf(hasEzdxf)("an independent reader", () => {
  it("draws the same splines and ellipses", () => {
    const script = `
import ezdxf, io, json
doc = ezdxf.new("R2000"); doc.units = 4; m = doc.modelspace()
s = m.add_open_spline([(0,0),(10,25),(30,-5),(40,20),(55,3),(60,30)], degree=3)
e = m.add_ellipse((5,6), major_axis=(16,12), ratio=0.4, start_param=0.3, end_param=4.0)
out = io.StringIO(); doc.write(out)
pts = lambda it: [[p[0], p[1]] for p in it]
print(json.dumps({"dxf": out.getvalue(), "spline": pts(s.construction_tool().approximate(300)), "ellipse": pts(e.flattening(0.0001))}))`;
    const run = spawnSync("/usr/bin/python3", ["-c", script], { encoding: "utf8" });
    const made = JSON.parse(run.stdout) as { dxf: string; spline: [number, number][]; ellipse: [number, number][] };
    const read = parseDxf(made.dxf, 0.005);
    if (!read.ok) throw new Error(faultText(read));
    const [first, second] = read.value.paths;
    for (const [wanted, path] of [
      [made.spline, first],
      [made.ellipse, second],
    ] as const)
      for (const [x, y] of wanted) expect(off({ x, y }, path?.points ?? [])).toBeLessThan(0.0055);
  });
});
