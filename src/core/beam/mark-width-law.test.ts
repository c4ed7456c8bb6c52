/**
 * The law against its extremes, worked out by hand from its derivative, against a beam whose edge is found by summing energy, and
 * its slopes against differences.
 */
import { describe, expect, it } from "vitest";
import { type BeamTruth, lineWidth, radiiAt } from "../../practice/beam";
import {
  depthOfFocus,
  markWidth,
  type Spot,
  signedWidth,
  vanishesAside,
  widestAside,
  widthSlopes,
} from "./mark-width-law";

/** Radius 0.1 mm, focal depth 2 mm, ten times what marks. */
const SPOT: Spot = { z0: 50, zR: 2, w0: 0.1, lnR: Math.log(10) };

describe("the mark width law", () => {
  it.each([
    // d/dq [q (ln R - p/2 ln q)] = 0 at ln q = 2/p ln R - 1
    [2, 3.2734, 0.27125, 6.0],
    [1, 11.9646, 0.60653, 19.8997],
  ] as const)("with p = %i is widest and vanishes where its derivative says", (p, aside, width, gone) => {
    expect(widestAside(SPOT, p)).toBeCloseTo(aside, 4);
    expect(markWidth(50 + aside, SPOT, p)).toBeCloseTo(width, 5);
    expect(markWidth(50 - aside, SPOT, p)).toBeCloseTo(width, 5);
    expect(vanishesAside(SPOT, p)).toBeCloseTo(gone, 4);
    expect(markWidth(50 + gone + 0.01, SPOT, p)).toBe(0);
    expect(signedWidth(50 + gone + 0.01, SPOT, p)).toBeLessThan(0);
  });

  it.each([
    [2, 2.71],
    [1, 1.64],
  ] as const)("with p = %i is widest at focus where it is hardly strong enough, R = %f", (p, strength) => {
    const weak = { ...SPOT, lnR: Math.log(strength) };
    expect(widestAside(weak, p)).toBe(0);
    expect(markWidth(50, weak, p)).toBeGreaterThan(markWidth(50.3, weak, p));
    expect(widestAside({ ...weak, lnR: Math.log(strength + 0.02) }, p)).toBeGreaterThan(0);
  });

  it("cannot tell single pulses from lines by their widths", () => {
    for (const z of [44.5, 48, 50, 53, 55.9]) {
      const asLines = { ...SPOT, w0: SPOT.w0 * Math.SQRT2, lnR: SPOT.lnR / 2 };
      expect(signedWidth(z, asLines, 1)).toBeCloseTo(signedWidth(z, SPOT, 2), 12);
    }
  });

  it("has the slopes that differences give", () => {
    const shifted = (k: number, h: number): Spot => ({
      z0: SPOT.z0 + (k === 0 ? h : 0),
      zR: SPOT.zR * Math.exp(k === 1 ? h : 0),
      w0: SPOT.w0 * Math.exp(k === 2 ? h : 0),
      lnR: SPOT.lnR * Math.exp(k === 3 ? h : 0),
    });
    for (const p of [1, 2] as const)
      for (const z of [46, 49, 50.5, 54, 58])
        widthSlopes(z, SPOT, p).forEach((slope, k) => {
          const h = 1e-6;
          const change = signedWidth(z, shifted(k, h), p) - signedWidth(z, shifted(k, -h), p);
          expect(slope, `z ${z}, parameter ${k}`).toBeCloseTo(change / (2 * h), 6);
        });
  });

  it("gives the focal depth by how much wider the beam may be", () => {
    // zR sqrt(1.05^2 - 1)
    expect(depthOfFocus({ zR: 2 }, 0.05)).toBeCloseTo(0.6403, 4);
    expect(depthOfFocus({ zR: 2 }, Math.SQRT2 - 1)).toBeCloseTo(2, 9);
  });
});

describe("the law beside a beam that is summed up", () => {
  const beam: BeamTruth = {
    m2: 1,
    waistMm: 0.1,
    focusMm: 50,
    astigmatismMm: 0,
    pulseHz: null,
    wavelengthMm: (Math.PI * 0.1 ** 2) / 2,
  };
  const [speedMmPerS, powerW] = [100, 10];

  it("is twice the area at the focal depth [Siegman, Lasers, 1986: w = sqrt(2) w0 at zR]", () => {
    expect(radiiAt(beam, 52).x / radiiAt(beam, 50).x).toBeCloseTo(Math.SQRT2, 12);
  });

  it("is the width of steady lines with p = 1, R = sqrt(2/pi) P/(v w0 H)", () => {
    const thresholdJPerMm2 = (Math.sqrt(2 / Math.PI) * powerW) / (speedMmPerS * 0.1) / 10;
    for (const heightMm of [50, 52, 55, 61.96, 68])
      expect(
        lineWidth(beam, { thresholdJPerMm2, addsUp: true }, { heightMm, speedMmPerS, powerW, along: "x" }),
      ).toBeCloseTo(markWidth(heightMm, SPOT, 1), 4);
    expect(lineWidth(beam, { thresholdJPerMm2, addsUp: true }, { heightMm: 70, speedMmPerS, powerW, along: "x" })).toBe(
      0,
    );
  });

  it("is the width of what single pulses mark with p = 2, R = peak 2E/(pi w0^2) by threshold", () => {
    const pulsed = { ...beam, pulseHz: 2000 };
    const thresholdJPerMm2 = (2 * (powerW / 2000)) / (Math.PI * 0.1 ** 2) / 10;
    for (const heightMm of [50, 52, 53.2734, 55.5])
      expect(
        lineWidth(pulsed, { thresholdJPerMm2, addsUp: false }, { heightMm, speedMmPerS, powerW, along: "y" }),
      ).toBeCloseTo(markWidth(heightMm, SPOT, 2), 6);
  });
});
