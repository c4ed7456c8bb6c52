/** The one stream that files, drawings and times are made of. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { beforeBurn, duringBurn } from "./checklist";
import { groupPen } from "./group-pen";
import { markingTimeS } from "./marking-time";
import type { MarkingSettings, Piece } from "./piece";
import type { RoundSpec } from "./round-spec";
import { scanRows } from "./scan-rows";
import { burnSteps, pointsOf, strokeBounds, strokesOf } from "./strokes";

const settings = (id: string, more: Partial<MarkingSettings> = {}): MarkingSettings => ({
  id,
  label: id,
  use: "line",
  speedMmPerS: 100,
  powerPct: 10,
  runUpMm: 0,
  scan: null,
  ...more,
});
const square = (size: number) => [
  { x: 0, y: 0 },
  { x: size, y: 0 },
  { x: size, y: size },
  { x: 0, y: size },
];
const piece: Piece = {
  id: "p",
  label: "P",
  stock: "card",
  widthMm: 50,
  heightMm: 40,
  settings: [
    settings("b"),
    settings("a", { use: "rows", runUpMm: 5, speedMmPerS: 200 }),
    settings("s", { use: "scan", speedMmPerS: 50, scan: { rowPitchMm: 1, direction: "both" } }),
  ],
  paths: [
    {
      points: [
        { x: 1, y: 1 },
        { x: 11, y: 1 },
      ],
      closed: false,
      settings: "a",
    },
    { points: square(10), closed: true, settings: "b" },
    {
      points: [
        { x: 11, y: 3 },
        { x: 1, y: 3 },
      ],
      closed: false,
      settings: "a",
    },
    { points: square(20), closed: true, settings: "s" },
  ],
};
const spec = (program: RoundSpec["program"]): RoundSpec => ({
  pieces: [piece],
  placement: { xMm: 0, yMm: 0 },
  program,
  sites: [],
  delivery: "d",
  checklist: ["Look first."],
});

describe("strokes", () => {
  it("come group by group, in the order of the settings and then of the paths", () => {
    expect([...strokesOf(piece)].map((s) => [s.settings.id, s.points[0]?.x])).toEqual([
      ["b", 0],
      ["a", 1],
      ["a", 11],
      ["s", 0],
    ]);
  });

  it("end where they began where they are closed", () => {
    const [closed, open] = [...strokesOf(piece)];
    if (!closed || !open) throw new Error("no strokes");
    expect([...pointsOf(closed)]).toHaveLength(5);
    expect([...pointsOf(closed)].at(-1)).toEqual({ x: 0, y: 0 });
    expect([...pointsOf(open)]).toEqual(open.points);
  });

  it("have bounds around all of them, and none where there is nothing", () => {
    expect(strokeBounds(piece)).toEqual({ x0: 0, y0: 0, x1: 20, y1: 20 });
    expect(strokeBounds({ ...piece, paths: [] })).toBeUndefined();
  });

  it("are told in the order of the burn, with everything else that is done", () => {
    const steps = [
      ...burnSteps(
        spec([
          { kind: "tell", text: "Lay it down." },
          { kind: "mark", piece: "p", settings: "a" },
          { kind: "set height", zMm: 3, by: "motor", text: "" },
          { kind: "mark", piece: "p", settings: "b" },
        ]),
      ),
    ];
    expect(steps.map((s) => s.kind)).toEqual(["tell", "mark", "set height", "mark"]);
    const marks = steps.flatMap((s) => (s.kind === "mark" ? [[...s.strokes].length] : []));
    expect(marks).toEqual([2, 1]);
  });

  it("are refused by the name of the piece or the settings that are not there", () => {
    const run = (program: RoundSpec["program"]) => [...burnSteps(spec(program))];
    expect(() => run([{ kind: "mark", piece: "q", settings: "a" }])).toThrow(/no piece “q”/);
    expect(() => run([{ kind: "mark", piece: "p", settings: "z" }])).toThrow(/no marking settings “z”/);
  });
});

describe("what a person does in a burn", () => {
  it("is what to look after first, then what the program asks for; heights come one after the other", () => {
    const program: RoundSpec["program"] = [
      { kind: "mark", piece: "p", settings: "a" },
      { kind: "move by hand", text: "Turn it over." },
      { kind: "apply setting", setting: "x", text: "Set 5." },
      { kind: "set height", zMm: 3, by: "hand", text: "Set 3 mm." },
      { kind: "set height", zMm: 4, by: "motor", text: "Set 4 mm." },
    ];
    expect(beforeBurn(spec(program))).toEqual(["Look first.", "Turn it over.", "Set 5."]);
    expect(duringBurn(spec(program))).toEqual(["Set 3 mm."]);
  });
});

describe("the time of marking", () => {
  const time = (id: string) => markingTimeS(spec([{ kind: "mark", piece: "p", settings: id }]));

  it("is the way at its speed, with the run-ups of rows", () => {
    expect(time("b")).toBeCloseTo(40 / 100, 12);
    expect(time("a")).toBeCloseTo((2 * (10 + 2 * 5)) / 200, 12);
  });

  it("of an area is that of its rows, and a pulse takes what it takes", () => {
    expect(time("s")).toBeCloseTo((20 * 20) / 50, 12);
    const pulse = spec([{ kind: "pulse", at: { x: 1, y: 1 }, durationS: 0.25, powerPct: 5 }]);
    expect(markingTimeS(pulse)).toBe(0.25);
  });
});

describe("rows of an area", () => {
  const corner = fc.record({
    x: fc.double({ min: 0, max: 40, noNaN: true }),
    y: fc.double({ min: 0, max: 40, noNaN: true }),
  });
  const outlines = fc.array(corner, { minLength: 3, maxLength: 8 });

  /** The winding of the outline around a point is odd: the sum of the angles under which its edges are seen. */
  function inside(outline: readonly { x: number; y: number }[], x: number, y: number): boolean {
    let turn = 0;
    outline.forEach((a, i) => {
      const b = outline[(i + 1) % outline.length] ?? a;
      const [ax, ay, bx, by] = [a.x - x, a.y - y, b.x - x, b.y - y];
      turn += Math.atan2(ax * by - ay * bx, ax * bx + ay * by);
    });
    return Math.abs(Math.round(turn / (2 * Math.PI))) % 2 === 1;
  }

  it("lie inside it and leave nothing of it out, whatever its shape", () => {
    fc.assert(
      fc.property(outlines, fc.double({ min: 0.5, max: 5, noNaN: true }), (outline, pitch) => {
        const rows = scanRows(outline, pitch);
        for (const { y, x0, x1 } of rows) {
          expect(x1).toBeGreaterThanOrEqual(x0);
          if (x1 - x0 > 1e-6) expect(inside(outline, (x0 + x1) / 2, y)).toBe(true);
        }
        const levels = [...new Set(rows.map((r) => r.y))];
        for (const y of levels)
          for (let x = 0.05; x < 40; x += 3.7) {
            const here = rows.filter((r) => r.y === y);
            const near = here.some((r) => Math.abs(r.x0 - x) < 1e-6 || Math.abs(r.x1 - x) < 1e-6);
            if (!near) expect(here.some((r) => r.x0 < x && x < r.x1)).toBe(inside(outline, x, y));
          }
      }),
      { seed: 8, numRuns: 100 },
    );
  });

  it("are a pitch apart, the first half a pitch in, as many as fit", () => {
    const rows = scanRows(square(10), 0.8);
    expect(rows).toHaveLength(12);
    expect(rows[0]).toEqual({ y: 0.4, x0: 0, x1: 10 });
    expect((rows[1]?.y ?? 0) - 0.4).toBeCloseTo(0.8, 12);
  });

  it("of nothing are none, and a pitch of nothing is refused", () => {
    expect(scanRows([], 1)).toEqual([]);
    expect(() => scanRows(square(10), 0)).toThrow(/rowPitchMm/);
  });
});

describe("pens of groups", () => {
  it("differ from one neighbour to the next, and by what they are for", () => {
    const pens = piece.settings.map((s) => groupPen(piece, s));
    expect(new Set(pens.map((p) => p.dashMm.join(" "))).size).toBe(3);
    expect(new Set(pens.map((p) => p.widthMm)).size).toBe(3);
  });
});
