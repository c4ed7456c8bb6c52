import { describe, expect, it } from "vitest";
import { fieldHeightMm, fieldLimits, USUAL_BEAM_RAD, workingFieldMm } from "./working-field";

describe("the working field of a lens", () => {
  it("is f times the beam angle from the middle: f 290 and 20 degrees reach 101.23 mm", () => {
    // h = f theta of an f-theta lens [Marshall and Stutz, Handbook of Optical and Laser Scanning, from memory]
    expect(fieldHeightMm(290, (20 * Math.PI) / 180)).toBeCloseTo(101.23, 2);
  });

  it("is the smallest of angle, plate and controller, and keeps inside the number on the plate", () => {
    const limits = fieldLimits({ focalMm: 290, beamRad: USUAL_BEAM_RAD, plateMm: 250, controllerMm: 220 });
    expect(limits.map((l) => l.from)).toEqual(["angle", "controller", "plate"]);
    expect(workingFieldMm(limits)).toBe(202);
    expect(workingFieldMm(fieldLimits({ focalMm: null, beamRad: 1, plateMm: 110, controllerMm: 110 }))).toBe(104);
    expect(workingFieldMm(fieldLimits({ focalMm: null, beamRad: 1, plateMm: null, controllerMm: 110 }))).toBe(110);
  });
});
