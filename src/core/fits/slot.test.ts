import { describe, expect, it } from "vitest";
import { measured } from "../metrology/measured";
import { MM_PER_INCH } from "../metrology/units";
import { type FitWish, slotFor } from "./slot";

const WISH: FitWish = {
  fit: "press",
  interferenceMm: 0,
  widthMm: null,
  snugSlotOffset: null,
  compensated: false,
  thickness: { meanMm: 0.215 * MM_PER_INCH, sdMm: 0.02, uMm: 0.01 },
  kerf: measured(0.008 * MM_PER_INCH, 0.005, Infinity),
};

describe("a slot to draw", () => {
  it("is the thickness less the kerf: 0.215 in less 0.008 in is 0.207 in (common practice, no source)", () => {
    const fit = slotFor(WISH, "in");
    expect(fit.drawn.value / MM_PER_INCH).toBeCloseTo(0.207, 9);
    expect(fit.arithmetic[0]).toBe("0.21500 − 0.00800 kerf = 0.20700 in");
  });

  it("takes an interference off as well", () => {
    const fit = slotFor({ ...WISH, interferenceMm: 0.05 }, "mm");
    expect(fit.drawn.value).toBeCloseTo(0.207 * MM_PER_INCH - 0.05, 9);
    expect(fit.gap.value).toBe(-0.05);
  });

  it("leaves the kerf to a program that takes it off itself, and is as unsure of it", () => {
    const fit = slotFor({ ...WISH, compensated: true }, "mm");
    expect(fit.drawn.value).toBeCloseTo(0.215 * MM_PER_INCH, 9);
    expect(fit.drawn.standardUncertainty).toBeCloseTo(Math.hypot(0.01, 0.005), 9);
    expect(fit.arithmetic).toContain("the other program takes the kerf off: here it is not taken off again");
  });

  it("goes by what was tried with the sheet itself, and supposes no gap then", () => {
    const snug = measured(0.09, 0.002, Infinity);
    const fit = slotFor({ ...WISH, fit: "snug", snugSlotOffset: snug }, "mm");
    expect(fit.drawn.value).toBeCloseTo(0.215 * MM_PER_INCH - 0.18, 9);
    expect(slotFor({ ...WISH, fit: "loose", snugSlotOffset: snug }, "mm").arithmetic[0]).toMatch(/gap/);
  });

  it("says how likely a part will not go in: even at the most that presses in, hardly ever with a gap", () => {
    const chance = (interferenceMm: number) => slotFor({ ...WISH, interferenceMm }, "mm").chanceNot;
    expect(chance(0.08)).toBeCloseTo(0.5, 9);
    expect(chance(0.16)).toBeGreaterThan(0.99);
    // 0.08 mm at an sd of hypot(0.01, 0.005, 0.02) = 0.0229: 3.49 sd. [NIST/SEMATECH e-Handbook 1.3.6.7.1: 0.99976 at 3.49]
    expect(1 - chance(0)).toBeCloseTo(0.99976, 5);
  });

  it("is long enough for the width of the part", () => {
    expect(slotFor({ ...WISH, widthMm: 20 }, "mm").drawnLengthMm).toBeCloseTo(20 + 0.02 - 0.008 * MM_PER_INCH, 9);
  });
});
