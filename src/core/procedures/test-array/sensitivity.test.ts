import { describe, expect, it } from "vitest";
import type { ArrayAnswer } from "../../marking/array-given";
import type { CellSettings } from "../../marking/cell-settings";
import type { Found } from "./found";
import { sensitivitiesOf } from "./sensitivity";

const SETTINGS: CellSettings = {
  speedMmPerS: 100,
  powerPct: 40,
  rowPitchMm: 0.1,
  passes: 1,
  pulseKHz: 30,
  pulseNs: 200,
  aboveFocusMm: 0,
  dwellMs: 0,
};
const LN = { speed: Math.log(100), power: Math.log(40) };
const SIDE = 11;

/** A response over ln(speed) and ln(power), each half a unit to both sides of the chosen cell; its best is 2. */
function foundOn(value: (x: number, y: number) => number | null): Found {
  const [x, y] = [LN.speed, LN.power].map((v) => ({ low: v - 0.5, high: v + 0.5 }));
  if (!x || !y) throw new Error("no spans");
  const values = Array.from({ length: SIDE * SIDE }, (_, i) =>
    value((i % SIDE) / 10 - 0.5, Math.floor(i / SIDE) / 10 - 0.5),
  );
  const map: ArrayAnswer["map"] = { columns: SIDE, rows: SIDE, x, y, values };
  const answer: ArrayAnswer = {
    chosen: 0,
    merit: 1,
    peak: { x: LN.speed, y: LN.power, value: 2 },
    best: { x, y },
    short: [],
    asGood: [],
    edges: [],
    second: null,
    odd: [],
    expected: [],
    energy: null,
    noise: 0,
    map,
  };
  const cell = {
    id: "c1",
    settings: SETTINGS,
    dose: { watts: 1, energy: 1, per: "area" as const, pulses: null },
    column: 0,
    row: 0,
    block: 0,
    place: { column: 0, row: 0, block: 0 },
    isApart: false,
    leftOut: null,
  };
  const read = { cell, score: 1, noGood: false, name: "A1", round: 1, burn: 0 };
  return { answer, reads: [read], chosen: read, by: "scores" };
}

const AXES = { across: "speedMmPerS", up: "powerPct" } as const;

describe("a setting that is 10 % off", () => {
  it("costs the slope of the response along its own axis, in the worse direction", () => {
    const [speed, power] = sensitivitiesOf(
      foundOn((x, y) => 1 + 0.6 * x - 0.2 * y),
      AXES,
    );
    // 10 % less speed, and 10 % more power; shares of 2.
    expect(speed).toEqual({ key: "speedMmPerS", costs: expect.closeTo((0.6 * -Math.log(0.9)) / 2, 9) });
    expect(power).toEqual({ key: "powerPct", costs: expect.closeTo((0.2 * Math.log(1.1)) / 2, 9) });
  });

  it("costs nothing on a plateau, and is left out where nothing is known or no ratio counts", () => {
    expect(
      sensitivitiesOf(
        foundOn(() => 1),
        AXES,
      ).map((s) => s.costs),
    ).toEqual([0, 0]);
    expect(
      sensitivitiesOf(
        foundOn(() => null),
        AXES,
      ),
    ).toEqual([]);
    // Faster than the chosen cell is charred: 10 % less is told alone.
    const [speed] = sensitivitiesOf(
      foundOn((x) => (x > 0.01 ? null : 1 + x)),
      AXES,
    );
    expect(speed?.costs).toBeCloseTo(-Math.log(0.9) / 2, 9);
    expect(
      sensitivitiesOf(
        foundOn(() => 1),
        { across: "aboveFocusMm", up: "powerPct" },
      ).map((s) => s.key),
    ).toEqual([]);
  });
});
