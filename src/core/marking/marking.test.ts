import { describe, expect, it } from "vitest";
import { type CellSettings, settingsOn, spaced } from "./cell-settings";
import { doseOf, doseText, energyText } from "./dose";
import { energyAlone } from "./energy-alone";

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
  const SIDE = 10;
  const RATIO = Math.log(1.3);
  const noise = (i: number) => Math.sin(78.233 * i) * Math.sin(12.9898 * i + 1);
  /** Power rises with the row, speed with the column: one diagonal has one energy. */
  const cells = (score: (e: number, d: number) => number, rough: number, slope: 1 | -1 = -1) =>
    Array.from({ length: SIDE * SIDE }, (_, i) => {
      const [column, row] = [i % SIDE, Math.floor(i / SIDE)];
      const energy = RATIO * (row + slope * column);
      return { column, row, energy, score: score(energy, (row - slope * column) / SIDE) + rough * noise(i) };
    });
  const byEnergy = (e: number) => Math.exp(-(e ** 2) / 2);

  it.each([-1, 1] as const)("does where nothing else counts, whichever way the diagonals run: %i", (slope) => {
    expect(energyAlone(cells(byEnergy, 0.02, slope), 1)).toMatchObject({ explains: "yes" });
  });

  it("does not where marks of one energy differ, and says by how much", () => {
    const verdict = energyAlone(
      cells((e, d) => byEnergy(e) + 0.1 * d, 0.02),
      1,
    );
    expect(verdict?.explains).toBe("no");
    // d goes from 0 to 1.8 within the middle diagonal: rms of 0.1 d about its mean, over all diagonals, is 0.041.
    expect(verdict?.off).toBeGreaterThan(0.03);
    expect(verdict?.off).toBeLessThan(0.055);
  });

  it("cannot be told from rough cells, and not at all where no two cells share their energy", () => {
    expect(
      energyAlone(
        cells((e, d) => byEnergy(e) + 0.08 * d, 0.6),
        1,
      )?.explains,
    ).toBe("cannot tell");
    const apart = cells(byEnergy, 0).map((c, i) => ({ ...c, energy: i }));
    expect(energyAlone(apart, 1)).toBeNull();
  });

  it("does not mind a wild score", () => {
    const wild = cells(byEnergy, 0.02).map((c, i) => (i === 44 ? { ...c, score: 3 } : c));
    expect(energyAlone(wild, 1)?.explains).toBe("yes");
  });
});
