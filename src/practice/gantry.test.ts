import { describe, expect, it } from "vitest";
import { parseGcode } from "../formats/gcode-parser";
import { burnOnGantry, type Mark } from "./gantry";
import { type GantryTruth, gantryFromSeed, gantryTruthSchema, type PracticeController } from "./gantry-truth";
import { seenOf } from "./measure";
import { straightMove } from "./motion";
import { seeded } from "./random";

const BED = { widthMm: 900, depthMm: 600, topSpeedMmPerS: 600, powerAtFull: 1000 };
const NO_TABLE: PracticeController = { table: [], switchedOn: true };
const TRUTH: GantryTruth = {
  seed: 1,
  lagOnS: 0.0004,
  lagOffS: 0.0006,
  playMm: 0,
  accelerationMmPerS2: 5000,
  scaleX: 1,
  scaleY: 1,
  spotMm: 0.2,
  endJitterMm: 0,
  controller: { tableKind: "interpolated", sense: 1 },
};

function burn(text: string, truth = TRUTH, controller = NO_TABLE): Mark[] {
  const program = parseGcode(text);
  if (!program.ok) throw new Error(program.message);
  const result = burnOnGantry(program.value, truth, controller, BED);
  if (!result.ok) throw new Error(`${result.line}: ${result.message}`);
  return result.marks;
}

/** Two rows, right-going then left-going, nominally from 200 to 250. */
const rows = (speed: number) => `G21 G90
M3 S0 F${speed * 60}
G0 X150 Y100
G1 X200 S0
G1 X250 S140
G1 X300 S0
G0 X300 Y101
G1 X250 S0
G1 X200 S140
G1 X150 S0
M5
M2`;
const area = (direction: number) => `G21 G90
M3 S0 F18000
G0 X200 Y100
M120 P0.5 Q${direction}
G1 X250 S140
G1 Y102
G1 X200
G1 Y100
M121
M5
M2`;

describe("a closed block", () => {
  it("leaves nothing where its outline has no power", () => {
    expect(burn(area(1)).length).toBeGreaterThan(2);
    expect(burn(area(1).replace("S140", "S0"))).toEqual([]);
  });
});

describe("the shift of scanned rows", () => {
  const shifted: GantryTruth = { ...TRUTH, rowShift: { mm: 0.1, perSpeedS: 0.0002, sense: -1 } };
  const byHowMuch = (controller: PracticeController) =>
    (burn(area(1), shifted, controller)[0]?.x0 ?? 0) - (burn(area(1))[0]?.x0 ?? 0);

  it("moves the rows that the controller scans, by more at a higher speed, and no drawn rows", () => {
    expect(byHowMuch(NO_TABLE)).toBeCloseTo(0.1 + 300 * 0.0002, 9);
    expect(burn(rows(300), shifted)).toEqual(burn(rows(300)));
  });

  it("obeys the one stored value by its change, and the stored values by speed", () => {
    expect(byHowMuch({ ...NO_TABLE, numbers: { "row shift": { found: 0.05, now: 0.25 } } })).toBeCloseTo(-0.04, 9);
    const rowShifts = [
      { at: 100, value: 1 },
      { at: 300, value: 0.16 },
    ];
    expect(byHowMuch({ ...NO_TABLE, rowShifts })).toBeCloseTo(0, 9);
  });

  it("shows in the gaps to an outline, from edge to edge", () => {
    const outline = `G21 G90
M3 S0 F1800
G0 X198 Y99
G1 X252 S140
G1 Y103
G1 X198
G1 Y99
M5
M2`;
    const corner = { xMm: 0, yMm: 0 };
    const still = { ...shifted, lagOnS: 0, lagOffS: 0 };
    const marks = [...burn(area(2), still), ...burn(outline, still)];
    const gap = (end: "left" | "right") => {
      const x = end === "left" ? 198 : 252;
      const seen = seenOf(
        {
          kind: "row gap",
          rows: { kind: "row ends", within: { x0: 200, y0: 100, x1: 250, y1: 102 }, end, going: "left" },
          line: { kind: "line", within: { x0: x - 1, y0: 99, x1: x + 1, y1: 103 } },
        },
        marks,
        corner,
      );
      if (!seen.ok) throw new Error(seen.why);
      return seen.mean;
    };
    // 2 mm between the middles, half of 0.2 mm burned on either side, and the shift of 0.16 mm to the right.
    expect(gap("left")).toBeCloseTo(2 - 0.2 + 0.16, 6);
    expect(gap("right")).toBeCloseTo(2 - 0.2 - 0.16, 6);
  });
});

describe("a straight move", () => {
  it("places and times are one another's inverse, in a trapezoid and in a triangle", () => {
    for (const move of [straightMove(200, 300, 5000), straightMove(5, 300, 5000)])
      for (const share of [0.01, 0.1, 0.5, 0.77, 0.99]) {
        const s = move.lengthMm * share;
        expect(move.place(move.time(s))).toBeCloseTo(s, 9);
      }
  });

  it("never goes faster than told, nor faster than it can", () => {
    const move = straightMove(200, 300, 5000);
    expect(move.place(0.5) - move.place(0.499)).toBeCloseTo(0.3, 6);
    expect(straightMove(1, 300, 5000).time(1)).toBeCloseTo(2 * Math.sqrt(1 / 5000), 9);
  });
});

describe("a practice gantry", () => {
  it("marks late in the direction of travel: on by v tau_on, off by v tau_off", () => {
    const [right, left] = burn(rows(300));
    expect(right?.x0).toBeCloseTo(200 + 300 * 0.0004, 6);
    expect(right?.x1).toBeCloseTo(250 + 300 * 0.0006, 6);
    expect(left?.x0).toBeCloseTo(250 - 300 * 0.0004, 6);
    expect(left?.x1).toBeCloseTo(200 - 300 * 0.0006, 6);
  });

  it("moves its marks when one F word of the file is edited", () => {
    const edited = rows(300).replace("F18000", "F6000");
    expect(burn(edited)[0]?.x1).toBeCloseTo(250 + 100 * 0.0006, 6);
  });

  it("trails by half of its play in either direction", () => {
    const [right, left] = burn(rows(300), { ...TRUTH, playMm: 0.05 });
    const [sharpRight, sharpLeft] = burn(rows(300));
    expect((right?.x1 ?? 0) - (sharpRight?.x1 ?? 0)).toBeCloseTo(-0.025, 9);
    expect((left?.x1 ?? 0) - (sharpLeft?.x1 ?? 0)).toBeCloseTo(0.025, 9);
  });

  it("shows a run-up that is too short as rows that are off at their beginning", () => {
    const short = rows(600).replace("G0 X150", "G0 X199").replace("G0 X300 Y101", "G0 X251 Y101");
    const shifted = (burn(short)[0]?.x0 ?? 0) - 200;
    expect(shifted).toBeLessThan(600 * 0.0004 * 0.5);
  });

  it("fills an area from the bottom up, to and fro or one way", () => {
    const both = burn(area(2)).map((m) => Math.sign(m.x1 - m.x0));
    expect(both).toEqual([1, -1, 1, -1]);
    expect(burn(area(1)).map((m) => Math.sign(m.x1 - m.x0))).toEqual([1, 1, 1, 1]);
  });

  it("lets its own table act on areas only, and only while switched on", () => {
    const controller = { table: [{ at: 300, value: 0.1 }], switchedOn: true };
    const ends = (text: string, c: PracticeController) => {
      const [right, left] = burn(text, TRUTH, c);
      return [right?.x0, right?.x1, left?.x0, left?.x1].map((x) => x ?? Number.NaN);
    };
    const without = ends(area(2), NO_TABLE);
    const shifts = ends(area(2), controller).map((x, i) => x - (without[i] ?? Number.NaN));
    for (const [i, wanted] of [-0.1, -0.1, 0.1, 0.1].entries()) expect(shifts[i]).toBeCloseTo(wanted, 9);
    expect(ends(area(2), { ...controller, switchedOn: false })).toEqual(without);
    expect(ends(rows(300), controller)).toEqual(ends(rows(300), NO_TABLE));
  });

  it("interpolates its table, or not, as it was built", () => {
    const controller = {
      table: [
        { at: 200, value: 0.1 },
        { at: 400, value: 0.2 },
      ],
      switchedOn: true,
    };
    const exact: GantryTruth = { ...TRUTH, controller: { tableKind: "exact speed only", sense: 1 } };
    const without = burn(area(2))[0]?.x1 ?? 0;
    expect((burn(area(2), TRUTH, controller)[0]?.x1 ?? 0) - without).toBeCloseTo(-0.15, 9);
    expect(burn(area(2), exact, controller)[0]?.x1).toBe(without);
  });

  it("refuses what leaves its bed or is faster than it goes, with the line", () => {
    const result = (text: string) => {
      const program = parseGcode(text);
      return program.ok ? burnOnGantry(program.value, TRUTH, NO_TABLE, BED) : program;
    };
    expect(result(rows(300).replace("X250 S140", "X950 S140"))).toMatchObject({
      ok: false,
      line: 5,
      message: expect.stringMatching(/outside the working area/),
    });
    expect(result(rows(700))).toMatchObject({
      ok: false,
      message: expect.stringMatching(/faster than the machine goes/),
    });
  });

  it("is the same machine for the same seed", () => {
    expect(gantryTruthSchema.parse(gantryFromSeed(7))).toEqual(gantryFromSeed(7));
    expect(gantryFromSeed(7)).not.toEqual(gantryFromSeed(8));
    const jittery = { ...TRUTH, endJitterMm: 0.003 };
    expect(burn(rows(300), jittery)).toEqual(burn(rows(300), jittery));
  });
});

describe("seeded chance", () => {
  it("has the mean and spread it says", () => {
    const random = seeded(5);
    const values = Array.from({ length: 20_000 }, () => random.normal());
    const mean = values.reduce((a, b) => a + b, 0) / values.length;
    const sd = Math.sqrt(values.reduce((a, b) => a + (b - mean) ** 2, 0) / values.length);
    expect(Math.abs(mean)).toBeLessThan(0.03);
    expect(Math.abs(sd - 1)).toBeLessThan(0.03);
  });
});
