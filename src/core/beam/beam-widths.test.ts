import { describe, expect, it } from "vitest";
import { seeded } from "../../practice/random";
import { expandedUncertainty } from "../metrology/measured";
import { fitBeam } from "./beam-widths";

/** The beam of the check values: 10.6 um, 1.5 times an ideal beam, 0.2 mm wide at focus: zR = pi d0^2 / (4 M2 lambda) = 1.975844 mm. */
const BEAM = { wavelengthMm: 0.0106, d0: 0.2, m2: 1.5, z0: 41.3 };
const RAYLEIGH_MM = 1.975844;

/** Width of a beam that spreads by its far-field angle, 4 M2 lambda / (pi d0) [ISO 11146-1:2005, from memory]. */
function widthAt(zMm: number): number {
  const angle = (4 * BEAM.m2 * BEAM.wavelengthMm) / (Math.PI * BEAM.d0);
  return Math.hypot(BEAM.d0, angle * (zMm - BEAM.z0));
}

const ladder = (first: number, count: number, noise: () => number = () => 0, share = 0.02) =>
  Array.from({ length: count }, (_, i) => {
    const zMm = first + i * 0.5;
    const widthMm = widthAt(zMm) * (1 + share * noise());
    return { zMm, widthMm, u: share * widthMm };
  });

function solved(widths: ReturnType<typeof ladder>) {
  const fit = fitBeam(widths, BEAM.wavelengthMm);
  if (fit.status !== "solved") throw new Error(fit.reason);
  return fit;
}

describe("a parabola in the squared width", () => {
  it("gives back the beam, and its check value", () => {
    const fit = solved(ladder(38, 14));
    expect(fit.z0.value).toBeCloseTo(BEAM.z0, 9);
    expect(fit.zR.value).toBeCloseTo(RAYLEIGH_MM, 6);
    expect(fit.d0.value).toBeCloseTo(BEAM.d0, 9);
    expect(fit.m2.value).toBeCloseTo(BEAM.m2, 9);
    expect(fit.widthAt(44)).toBeCloseTo(widthAt(44), 9);
  });

  it("holds the truth within its uncertainty in 95 % of noisy ladders, for all four", () => {
    const held = { z0: 0, zR: 0, d0: 0, m2: 0 };
    const truth = { z0: BEAM.z0, zR: RAYLEIGH_MM, d0: BEAM.d0, m2: BEAM.m2 };
    const random = seeded(77);
    const tries = 600;
    for (let i = 0; i < tries; i++) {
      const fit = solved(ladder(37.5, 16, () => random.normal()));
      for (const key of ["z0", "zR", "d0", "m2"] as const)
        if (Math.abs(fit[key].value - truth[key]) <= expandedUncertainty(fit[key])) held[key]++;
    }
    // 600 tries at 95 %: 0.009 is one standard deviation of the share.
    for (const share of Object.values(held).map((n) => n / tries)) {
      expect(share).toBeGreaterThan(0.92);
      expect(share).toBeLessThan(0.985);
    }
  });

  it("does not answer beyond what was measured, nor from too little", () => {
    const end = (first: number, count: number) => fitBeam(ladder(first, count), BEAM.wavelengthMm);
    expect(end(41.2, 8)).toEqual({ status: "cannot tell", reason: "focus beyond the first" });
    expect(end(37, 9)).toEqual({ status: "cannot tell", reason: "focus beyond the last" });
    expect(end(40, 4)).toEqual({ status: "cannot tell", reason: "few cells" });
    const flat = ladder(38, 9).map((w) => ({ ...w, widthMm: 0.3 }));
    expect(fitBeam(flat, BEAM.wavelengthMm)).toMatchObject({ status: "cannot tell" });
  });
});
