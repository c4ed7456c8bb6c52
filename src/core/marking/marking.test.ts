import { describe, expect, it } from "vitest";
import { seededDraws } from "../fitting/seeded-draws";
import { answerOf } from "./array-answer";
import type { ScoredCell } from "./array-given";
import { type CellSettings, settingsOn, spaced } from "./cell-settings";
import { doseOf, doseText, energyText } from "./dose";

const SETTINGS: CellSettings = {
  speedMmPerS: 200,
  powerPct: 50,
  rowPitchMm: 0.1,
  passes: 2,
  pulseKHz: 40,
  pulseNs: 200,
  aboveFocusMm: 0,
  dwellMs: 0,
};

describe("the dose of a cell", () => {
  const source = { wattsAtFull: 40, lineMm: 0.05, isPulsed: true, isFilled: true };

  it("by hand: 20 W at 200 mm/s, rows 0.1 mm apart, twice, 40 kHz", () => {
    const dose = doseOf(SETTINGS, source);
    expect(dose.watts).toBe(20);
    // 20 / 200 = 0.1 J/mm; 0.1 / 0.1 x 2 = 2 J/mm^2.
    expect(dose).toMatchObject({ energy: expect.closeTo(2, 12), per: "area" });
    expect(doseText(SETTINGS, dose)).toBe("20 W ÷ 200 mm/s ÷ 0.1 mm × 2 passes = 2 J/mm²");
    // 200 / 40 000 = 0.005 mm; 1 - 0.005/0.05 = 0.9; E = 0.5 mJ, 2 E / (pi 0.025^2) = 0.509 J/mm^2.
    expect(dose.pulses?.pitchMm).toBeCloseTo(0.005, 12);
    expect(dose.pulses?.overlap).toBeCloseTo(0.9, 12);
    expect(dose.pulses?.peakJPerMm2).toBeCloseTo(0.001 / (Math.PI * 0.000625), 9);
  });

  it("of dots that are burned standing goes with their dwell: 20 W x 1 ms / 0.1^2 x 2 = 4 J/mm^2", () => {
    const dotted = { ...SETTINGS, dwellMs: 1 };
    const dose = doseOf(dotted, source);
    expect(dose.energy).toBeCloseTo(4, 12);
    expect(doseText(dotted, dose)).toBe("20 W × 1 ms ÷ 0.1 mm between dots ÷ 0.1 mm × 2 passes = 4 J/mm²");
  });

  it("of a single line is energy per length: 20 W at 200 mm/s, twice", () => {
    const dose = doseOf(SETTINGS, { ...source, isFilled: false });
    expect(dose).toMatchObject({ energy: expect.closeTo(0.2, 12), per: "length" });
    expect(energyText(dose)).toBe("0.2 J/mm");
  });

  it("of a steady beam has no pulses", () => {
    expect(doseOf(SETTINGS, { ...source, isPulsed: false }).pulses).toBeNull();
  });
});

describe("values along an edge", () => {
  it("are spaced evenly or by equal ratios, between the ends as they were", () => {
    expect(spaced("speedMmPerS", 100, 400, 4, "even")).toEqual([100, 200, 300, 400]);
    expect(spaced("speedMmPerS", 100, 400, 3, "ratio")).toEqual([100, 200, 400]);
    expect(spaced("aboveFocusMm", -2, 2, 5, "ratio")).toEqual([-2, -1, 0, 1, 2]);
  });

  it("are of pulses on a galvo only", () => {
    expect(settingsOn("galvo")).toContain("pulseKHz");
    expect(settingsOn("CO2 gantry")).not.toContain("pulseKHz");
  });
});

describe("whether energy alone explains an array", () => {
  const SIDE = 8;
  const RATIO = Math.log(1.3);
  const half = (SIDE - 1) / 2;
  const noise = seededDraws(3);
  /** Power rises with the row, speed with the column: one diagonal has one energy. */
  const verdictOf = (score: (e: number, d: number) => number, rough: number, slope: 1 | -1 = -1, step = RATIO) => {
    const cells = Array.from({ length: SIDE * SIDE }, (_, i): ScoredCell => {
      const [column, row] = [i % SIDE, Math.floor(i / SIDE)];
      const energy = step * (row - half + slope * (column - half));
      return {
        x: RATIO * column,
        y: RATIO * row,
        place: { x: column, y: row },
        burn: 0,
        score: 1 + score(energy, (row - slope * column) / SIDE) + rough * noise.normal(),
        energy,
      };
    });
    const answer = answerOf({ cells, step: { x: RATIO, y: RATIO }, blank: 0 });
    return typeof answer === "string" ? null : answer.energy;
  };
  const byEnergy = (e: number) => Math.exp(-(e ** 2) / 2);

  it.each([-1, 1] as const)("does where nothing else counts, whichever way the diagonals run: %i", (slope) => {
    const verdict = verdictOf(byEnergy, 0.02, slope);
    expect(verdict?.explains).toBe("yes");
    expect(verdict?.off).toBeLessThan(0.01);
  });

  it("does not where marks of one energy differ, and says by how much", () => {
    const verdict = verdictOf((e, d) => byEnergy(e) + 0.6 * d, 0.02);
    expect(verdict?.explains).toBe("no");
    // The best cell has 1 + 1 + 0.6 x 14/8 = 3.05.
    const due = (0.6 * Math.sqrt(meanSquareAlong(SIDE))) / 3.05;
    expect((verdict?.off ?? Number.NaN) / due).toBeGreaterThan(0.93);
    expect((verdict?.off ?? Number.NaN) / due).toBeLessThan(1.07);
  });

  it("is not said where rough marks follow another combination of the settings", () => {
    // P / v^0.6: lines of equal marks are turned by 14 degrees against those of equal energy.
    const turned = (e: number, d: number) => byEnergy(0.8 * e + 0.2 * RATIO * SIDE * (d - 1));
    expect(verdictOf(turned, 0.08)?.explains).toBe("cannot tell");
  });

  it("cannot be told from rough cells, and not at all where energy is the same everywhere", () => {
    expect(verdictOf((e, d) => byEnergy(e) + 0.2 * d, 0.5)?.explains).toBe("cannot tell");
    expect(verdictOf(byEnergy, 0.02, -1, 0)).toBeNull();
  });
});

/** Mean square of d = (row + column)/side about the mean of each diagonal of row - column, over all cells that share one. */
function meanSquareAlong(side: number): number {
  let [squares, count] = [0, 0];
  for (let length = 2; length <= side; length++) {
    const diagonals = length === side ? 1 : 2;
    for (let k = 0; k < length; k++) squares += diagonals * ((2 * k - (length - 1)) / side) ** 2;
    count += diagonals * length;
  }
  return squares / count;
}
