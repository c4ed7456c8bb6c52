import { describe, expect, it } from "vitest";
import { seeded } from "../../practice/random";
import { slopeFound, type Try, type TuningLimits, tuningStep } from "./tuning";

const LIMITS: TuningLimits = { step: 0.1, range: { low: -100, high: 100 }, tolerance: 0, slope: null };
const U = 0.02;

type Response = (value: number) => number;

/** Burns until it stops. @returns the tries, and why it ended */
function course(response: Response, limits: TuningLimits, noise: () => number, from = 0) {
  const tries: Try[] = [{ value: from, error: response(from) + U * noise(), u: U }];
  for (let burn = 0; burn < 20; burn++) {
    const step = tuningStep(tries, limits);
    if (step.do === "stop") return { burns: tries.length, ...step };
    tries.push({ value: step.value, error: response(step.value) + U * noise(), u: U });
  }
  throw new Error("it never ends");
}

const quantile = (values: number[], share: number) =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(share * values.length))] ?? Number.NaN;

describe("tuning a coefficient", () => {
  it("takes at most 5 burns in 95 of 100 where nothing is known and the response is curved by up to 10 %, and is never worse", () => {
    const burns: number[] = [];
    for (let seed = 1; seed <= 400; seed++) {
      const random = seeded(seed);
      const slope = (random.even() < 0.5 ? -1 : 1) * random.between(0.03, 0.06);
      const curve = random.between(-0.1, 0.1);
      const need = random.between(-2.4, 2.4);
      const response = (v: number) => need + slope * v * (1 + (curve * v) / 100);
      const found = course(response, LIMITS, () => random.normal());
      burns.push(found.burns);
      expect(Math.abs(response(found.value))).toBeLessThanOrEqual(Math.abs(response(0)) + 2 * U);
      expect(Math.abs(response(found.value))).toBeLessThan(0.2);
    }
    expect(quantile(burns, 0.95)).toBeLessThanOrEqual(5);
    expect(quantile(burns, 0.5)).toBeLessThanOrEqual(4);
  });

  it("takes at most 3 burns in 95 of 100 where the slope is known to 10 %", () => {
    const burns: number[] = [];
    for (let seed = 1; seed <= 400; seed++) {
      const random = seeded(seed);
      const slope = 0.04 * (1 + 0.1 * random.normal());
      const need = random.between(-2.4, 2.4);
      const found = course(
        (v) => need + slope * v,
        { ...LIMITS, slope: 0.04 },
        () => random.normal(),
      );
      burns.push(found.burns);
    }
    expect(quantile(burns, 0.95)).toBeLessThanOrEqual(3);
  });

  it("divides by the slope that is known, and by no other sign", () => {
    expect(tuningStep([{ value: 2, error: 1.2, u: U }], { ...LIMITS, slope: 0.04 })).toEqual({
      do: "try",
      value: -28,
      why: "known slope",
    });
  });

  it("extrapolates by the last two tries, and no further than 4 times what was tried", () => {
    const first = { value: 0, error: 2, u: U };
    expect(tuningStep([first, { value: 10, error: 1, u: U }], LIMITS)).toEqual({ do: "try", value: 20, why: "slope" });
    expect(tuningStep([first, { value: 10, error: 1.9, u: U }], LIMITS)).toEqual({
      do: "try",
      value: 50,
      why: "slope",
    });
    expect(tuningStep([first, { value: 10, error: 2.01, u: U }], LIMITS)).toEqual({
      do: "try",
      value: 50,
      why: "larger step",
    });
  });

  it("takes the secant between tries of opposite sign, and the middle where the error did not halve", () => {
    const tries = [
      { value: 0, error: 1, u: U },
      { value: 10, error: -0.25, u: U },
    ];
    expect(tuningStep(tries, LIMITS)).toEqual({ do: "try", value: 8, why: "secant" });
    expect(tuningStep([...tries, { value: 8, error: 0.24, u: U }], LIMITS)).toEqual({
      do: "try",
      value: 9,
      why: "middle",
    });
  });

  it("stops within 3 standard uncertainties or the tolerance, and not before", () => {
    const at = (error: number, tolerance = 0) =>
      tuningStep(
        [
          { value: 0, error: 2, u: U },
          { value: 50, error, u: U },
        ],
        { ...LIMITS, tolerance },
      ).do;
    expect([at(0.059), at(0.061), at(0.061, 0.1)]).toEqual(["stop", "try", "stop"]);
  });

  it("stops between two values that are one step apart, with the nearer", () => {
    const tries = [
      { value: 5, error: 0.3, u: U },
      { value: 5.1, error: -0.2, u: U },
    ];
    expect(tuningStep(tries, LIMITS)).toEqual({ do: "stop", value: 5.1, why: "one step" });
  });

  it("says where the range ends, and where no value gives zero", () => {
    const weak = course(
      (v) => 3 + 0.02 * v,
      LIMITS,
      () => 0,
    );
    expect(weak).toMatchObject({ why: "end of range", value: -100 });
    const never = course(
      (v) => 0.5 + 0.0004 * (v - 20) ** 2,
      LIMITS,
      () => 0,
    );
    expect(never.why).toBe("nearest");
    expect(Math.abs(never.value - 20)).toBeLessThan(15);
  });

  it("finds the slope of tries that differ plainly, the newest first", () => {
    const tries = [
      { value: 0, error: 1, u: U },
      { value: 10, error: 0.5, u: U },
      { value: 11, error: 0.48, u: U },
    ];
    expect(slopeFound(tries)).toBeCloseTo(-0.05, 12);
    expect(slopeFound(tries.slice(0, 1))).toBeNull();
  });
});
