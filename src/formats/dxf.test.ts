import { spawnSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Piece } from "../core/coupon/piece";
import { arcOfBulge, flattened } from "../core/geometry/arc";
import { scanOffset } from "../core/procedures/scan-offset/procedure";
import { SAMPLE_MACHINE } from "../testing/sample-machine";
import { parseDxf } from "./dxf-parser";
import { dxfOf, layerName } from "./dxf-writer";

const context = { machine: SAMPLE_MACHINE, couponCode: "T-1", inForce: {} };
const piece = scanOffset.round(scanOffset.plan(context).defaults, context, "measure").pieces[0] as Piece;

/** A drawing by hand: header in a unit, blocks, entities. */
function drawing(entities: (string | number)[], { unit = 4, blocks = [] as (string | number)[] } = {}): string {
  const section = (name: string, tags: (string | number)[]) => [0, "SECTION", 2, name, ...tags, 0, "ENDSEC"];
  return [
    ...section("HEADER", [9, "$INSUNITS", 70, unit]),
    ...section("BLOCKS", blocks),
    ...section("ENTITIES", entities),
    0,
    "EOF",
    "",
  ].join("\n");
}

const read = (text: string, chordErrorMm?: number) => {
  const parsed = parseDxf(text, chordErrorMm);
  if (!parsed.ok) throw new Error(`${parsed.line}: ${parsed.message}`);
  return parsed.value;
};

describe("DXF of a coupon", () => {
  it("comes back to the same geometry, on a layer a group", () => {
    const back = read(dxfOf(piece));
    const wanted = piece.settings.flatMap((s) => piece.paths.filter((p) => p.settings === s.id));
    expect(back.paths).toHaveLength(wanted.length);
    back.paths.forEach((p, i) => {
      expect(p.layer).toBe(layerName(wanted[i]?.settings ?? ""));
      expect(p.closed).toBe(wanted[i]?.closed);
      p.points.forEach((q, k) => {
        expect(Math.abs(q.x - (wanted[i]?.points[k]?.x ?? Number.NaN))).toBeLessThan(1e-6);
        expect(Math.abs(q.y - (wanted[i]?.points[k]?.y ?? Number.NaN))).toBeLessThan(1e-6);
      });
    });
    for (const s of piece.settings) expect(back.layers).toContain(layerName(s.id));
  });

  it("loses less than a nanometre of any coupon", () => {
    const point = fc.record({
      x: fc.double({ min: 0, max: 900, noNaN: true }),
      y: fc.double({ min: 0, max: 600, noNaN: true }),
    });
    fc.assert(
      fc.property(
        fc.array(fc.array(point, { minLength: 2, maxLength: 5 }), { minLength: 1, maxLength: 5 }),
        (paths) => {
          const some: Piece = {
            ...piece,
            paths: paths.map((points) => ({ points, closed: false, settings: "labels" })),
          };
          read(dxfOf(some)).paths.forEach((p, i) => {
            p.points.forEach((q, k) => {
              expect(Math.hypot(q.x - (paths[i]?.[k]?.x ?? 0), q.y - (paths[i]?.[k]?.y ?? 0))).toBeLessThan(1e-6);
            });
          });
        },
      ),
      { seed: 7, numRuns: 100 },
    );
  });

  const python = "/usr/bin/python3";
  it("opens without faults in an independent reader, in mm: Debian's python3-ezdxf, which npm test installs", () => {
    const folder = mkdtempSync(path.join(tmpdir(), "ustrina-dxf-"));
    const file = path.join(folder, "coupon.dxf");
    writeFileSync(file, dxfOf(piece));
    const audit = spawnSync(python, [
      "-c",
      "import ezdxf,sys; d=ezdxf.readfile(sys.argv[1]); a=d.audit(); print(len(a.errors), len(a.fixes), d.units, len(list(d.modelspace())))",
      file,
    ]);
    rmSync(folder, { recursive: true });
    expect(audit.stdout.toString().trim()).toBe(`0 0 4 ${piece.paths.length}`);
  });
});

describe("reading DXF from elsewhere", () => {
  it("honours inches", () => {
    const line = [0, "LINE", 8, "0", 10, 1, 20, 0, 11, 2, 21, 0];
    expect(read(drawing(line, { unit: 1 })).paths[0]?.points).toEqual([
      { x: 25.4, y: 0 },
      { x: 50.8, y: 0 },
    ]);
  });

  it("flattens arcs and circles from their centres, within the chord error that is asked for", () => {
    const text = drawing([
      0,
      "ARC",
      8,
      "a",
      10,
      5,
      20,
      5,
      40,
      50,
      50,
      350,
      51,
      80,
      0,
      "CIRCLE",
      8,
      "c",
      10,
      0,
      20,
      0,
      40,
      3,
    ]);
    const [arc, circle] = read(text, 0.002).paths;
    for (const p of arc?.points ?? []) expect(Math.hypot(p.x - 5, p.y - 5)).toBeCloseTo(50, 9);
    for (let i = 1; i < (arc?.points.length ?? 0); i++) {
      const [a, b] = [arc?.points[i - 1], arc?.points[i]];
      if (!a || !b) continue;
      expect(50 - Math.hypot((a.x + b.x) / 2 - 5, (a.y + b.y) / 2 - 5)).toBeLessThanOrEqual(0.002 + 1e-12);
    }
    expect(arc?.points.at(-1)?.x).toBeCloseTo(5 + 50 * Math.cos((80 * Math.PI) / 180), 9);
    expect(circle?.closed).toBe(true);
  });

  it("draws the bulge of a polyline as its arc: a half circle to the left for +1", () => {
    const text = drawing([0, "LWPOLYLINE", 8, "p", 90, 2, 70, 0, 10, 0, 20, 0, 42, 1, 10, 2, 20, 0]);
    const points = read(text).paths[0]?.points ?? [];
    for (const p of points) expect(Math.hypot(p.x - 1, p.y)).toBeCloseTo(1, 9);
    expect(Math.min(...points.map((p) => p.y))).toBeLessThan(-0.99);
  });

  it("puts blocks in place: scale, turn, base point, nesting, and arcs as fine as they come out", () => {
    const blocks = [
      ...[0, "BLOCK", 2, "INNER", 10, 1, 20, 0, 0, "LINE", 8, "0", 10, 1, 20, 0, 11, 2, 21, 0, 0, "ENDBLK"],
      ...[
        0,
        "BLOCK",
        2,
        "OUTER",
        10,
        0,
        20,
        0,
        0,
        "INSERT",
        8,
        "0",
        2,
        "INNER",
        10,
        10,
        20,
        0,
        50,
        90,
        0,
        "CIRCLE",
        8,
        "0",
      ],
      ...[10, 0, 20, 0, 40, 1, 0, "ENDBLK"],
    ];
    const insert = [0, "INSERT", 8, "0", 2, "OUTER", 10, 100, 20, 100, 41, 2, 42, -2];
    const [line, circle] = read(drawing(insert, { blocks }), 0.01).paths;
    expect(line?.points[0]).toEqual({ x: 120, y: 100 });
    expect(line?.points[1]?.x).toBeCloseTo(120, 12);
    expect(line?.points[1]?.y).toBeCloseTo(98, 12);
    expect(circle?.points.length).toBe(
      flattened({ centre: { x: 0, y: 0 }, radius: 1, startRad: 0, sweepRad: 2 * Math.PI }, 0.005).length - 1,
    );
  });

  it("reads old polylines with their vertices", () => {
    const vertex = (x: number, y: number) => [0, "VERTEX", 8, "0", 10, x, 20, y];
    const text = drawing([
      0,
      "POLYLINE",
      8,
      "0",
      66,
      1,
      70,
      1,
      ...vertex(0, 0),
      ...vertex(1, 0),
      ...vertex(1, 1),
      0,
      "SEQEND",
    ]);
    expect(read(text).paths[0]).toMatchObject({ closed: true, points: { length: 3 } });
  });

  it.each([
    ["", 1, /cut short/],
    ["0\nSECTION\nx\ny\n0\nEOF\n", 3, /no group code/],
    [drawing([0, "LINE", 8, "0", 10, 1, 20, 0, 11, 2, 21, 0], { unit: 6 }), 8, /save it in mm/],
    [drawing([0, "HATCH", 8, "0"]), 22, /“HATCH” is not understood/],
    [drawing([0, "LINE", 8, "0", 10, "x", 20, 0, 11, 2, 21, 0]), 26, /“x” is no number/],
    [drawing([0, "LINE", 8, "0", 10, 1, 20, 0, 30, 4, 11, 2, 21, 0]), 22, /not flat/],
    [drawing([0, "INSERT", 8, "0", 2, "GONE", 10, 0, 20, 0]), 22, /no block “GONE”/],
    [drawing([0, "CIRCLE", 8, "0", 10, 0, 20, 0, 40, 0]), 22, /larger than 0/],
    [drawing([]), 1, /holds no line/],
    ["AutoCAD Binary DXF", 1, /save it as text/],
  ])("refuses what it does not understand, with the line (%#)", (text, line, message) =>
    expect(parseDxf(text)).toMatchObject({ ok: false, line, message: expect.stringMatching(message) }),
  );

  it("refuses blocks that contain themselves", () => {
    const blocks = [0, "BLOCK", 2, "SELF", 10, 0, 20, 0, 0, "INSERT", 8, "0", 2, "SELF", 10, 0, 20, 0, 0, "ENDBLK"];
    expect(parseDxf(drawing([0, "INSERT", 8, "0", 2, "SELF", 10, 0, 20, 0], { blocks }))).toMatchObject({
      ok: false,
      message: expect.stringMatching(/contain themselves/),
    });
  });

  it("survives 5,000 mangled files with a place for every fault, and never reads another drawing silently", () => {
    const text = dxfOf({ ...piece, paths: piece.paths.slice(0, 6) });
    const lines = text.split("\n");
    let refused = 0;
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: lines.length - 1 }),
        fc.constantFrom("cut", "drop", "swap", "junk"),
        (at, how) => {
          const mangled = [...lines];
          if (how === "cut") mangled.length = at;
          if (how === "drop") mangled.splice(at, 1);
          if (how === "swap") mangled.splice(at, 2, lines[at + 1] ?? "", lines[at] ?? "");
          if (how === "junk") mangled[at] = "\u0000?";
          const parsed = parseDxf(mangled.join("\n"));
          if (!parsed.ok) {
            refused++;
            expect(parsed.line).toBeGreaterThanOrEqual(1);
          } else
            for (const p of parsed.value.paths) for (const q of p.points) expect(Number.isFinite(q.x + q.y)).toBe(true);
        },
      ),
      { seed: 8, numRuns: 5000 },
    );
    expect(refused).toBeGreaterThan(2000);
  });
});

describe("arcs", () => {
  it("pass through both ends of a bulge, whichever way", () => {
    fc.assert(
      fc.property(fc.double({ min: 0.01, max: 20, noNaN: true }), fc.boolean(), (size, left) => {
        const bulge = left ? size : -size;
        const arc = arcOfBulge({ x: 1, y: 2 }, { x: 4, y: -1 }, bulge);
        const end = arc.startRad + arc.sweepRad;
        expect(arc.centre.x + arc.radius * Math.cos(end)).toBeCloseTo(4, 6);
        expect(arc.centre.y + arc.radius * Math.sin(end)).toBeCloseTo(-1, 6);
        expect(Math.sign(arc.sweepRad)).toBe(Math.sign(bulge));
      }),
      { seed: 9 },
    );
  });

  it("refuse a chord error of nothing", () => {
    expect(() => flattened({ centre: { x: 0, y: 0 }, radius: 1, startRad: 0, sweepRad: 1 }, 0)).toThrow(/chordError/);
  });
});
