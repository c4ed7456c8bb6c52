/**
 * NIST Statistical Reference Datasets, nonlinear regression: certified to 11 digits, found here to 5, of lower, average and higher
 * difficulty: fourteen sets from both starts, two from the second alone. The file names its source.
 */
import { describe, expect, it } from "vitest";
import nonlinear from "./nist/nonlinear.json";
import { minimise, minimiseFromSeveral, type NonlinearFit } from "./nonlinear-least-squares";

const DIGITS_5 = 5e-6;

type Model = (b: readonly number[], x: number) => number;

const { exp, atan, PI } = Math;

const MODELS: Record<keyof typeof nonlinear.sets, Model> = {
  Misra1a: ([b1 = 0, b2 = 0], x) => b1 * (1 - exp(-b2 * x)),
  Misra1b: ([b1 = 0, b2 = 0], x) => b1 * (1 - (1 + (b2 * x) / 2) ** -2),
  Misra1c: ([b1 = 0, b2 = 0], x) => b1 * (1 - (1 + 2 * b2 * x) ** -0.5),
  Misra1d: ([b1 = 0, b2 = 0], x) => (b1 * b2 * x) / (1 + b2 * x),
  Chwirut2: ([b1 = 0, b2 = 0, b3 = 0], x) => exp(-b1 * x) / (b2 + b3 * x),
  Lanczos3: ([b1 = 0, b2 = 0, b3 = 0, b4 = 0, b5 = 0, b6 = 0], x) =>
    b1 * exp(-b2 * x) + b3 * exp(-b4 * x) + b5 * exp(-b6 * x),
  DanWood: ([b1 = 0, b2 = 0], x) => b1 * x ** b2,
  Roszman1: ([b1 = 0, b2 = 0, b3 = 0, b4 = 0], x) => b1 - b2 * x - atan(b3 / (x - b4)) / PI,
  MGH17: ([b1 = 0, b2 = 0, b3 = 0, b4 = 0, b5 = 0], x) => b1 + b2 * exp(-x * b4) + b3 * exp(-x * b5),
  MGH09: ([b1 = 0, b2 = 0, b3 = 0, b4 = 0], x) => (b1 * (x ** 2 + x * b2)) / (x ** 2 + x * b3 + b4),
  Thurber: ([b1 = 0, b2 = 0, b3 = 0, b4 = 0, b5 = 0, b6 = 0, b7 = 0], x) =>
    (b1 + b2 * x + b3 * x ** 2 + b4 * x ** 3) / (1 + b5 * x + b6 * x ** 2 + b7 * x ** 3),
  BoxBOD: ([b1 = 0, b2 = 0], x) => b1 * (1 - exp(-b2 * x)),
  Rat42: ([b1 = 0, b2 = 0, b3 = 0], x) => b1 / (1 + exp(b2 - b3 * x)),
  Rat43: ([b1 = 0, b2 = 0, b3 = 0, b4 = 0], x) => b1 / (1 + exp(b2 - b3 * x)) ** (1 / b4),
  MGH10: ([b1 = 0, b2 = 0, b3 = 0], x) => b1 * exp(b2 / (x + b3)),
  Eckerle4: ([b1 = 0, b2 = 0, b3 = 0], x) => (b1 / b2) * exp(-0.5 * ((x - b3) / b2) ** 2),
};

/** From their first start it runs off to where the model no longer changes. */
const TOO_FAR = ["BoxBOD 1", "MGH10 1"];

const residualsOf = (name: keyof typeof MODELS) => {
  const { x, y } = nonlinear.sets[name];
  return (b: readonly number[]) => x.map((at, i) => (y[i] ?? Number.NaN) - MODELS[name](b, at));
};

const cases = Object.entries(nonlinear.sets)
  .flatMap(([name, set]) =>
    set.starts.map((start, i) => ({ name: name as keyof typeof MODELS, set, start, number: i + 1 })),
  )
  .filter(({ name, number }) => !TOO_FAR.includes(`${name} ${number}`));

describe("NIST StRD, nonlinear sets", () => {
  it.each(cases)("$name from start $number, of $set.difficulty difficulty", ({ name, set, start }) => {
    expectCertified(minimise({ residuals: residualsOf(name), start }), set.certified);
  });

  it.each(["BoxBOD", "MGH10"] as const)("%s by the better of both starts, where the first runs off", (name) => {
    const { starts, certified } = nonlinear.sets[name];
    const residuals = residualsOf(name);
    expectCertified(minimiseFromSeveral({ residuals }, starts), certified);
    const far = minimise({ residuals, start: starts[0] ?? [] });
    expect(far.chiSquared).toBeGreaterThan(2 * certified.residualSumOfSquares);
  });
});

type Certified = { coefficients: number[]; standardDeviations: number[]; residualSumOfSquares: number };

/** Readings of unknown, equal uncertainty: u = 1 in the fit, then scaled by the residuals. */
function expectCertified(
  fit: NonlinearFit,
  { coefficients, standardDeviations, residualSumOfSquares }: Certified,
): void {
  expect(fit.ended).toMatch(/^small/);
  near(fit.chiSquared, residualSumOfSquares, DIGITS_5);
  const variance = fit.chiSquared / fit.degreesOfFreedom;
  coefficients.forEach((certified, j) => {
    near(fit.x[j], certified, DIGITS_5);
    near(Math.sqrt(variance * (fit.covariance?.[j]?.[j] ?? Number.NaN)), standardDeviations[j], 1e-4);
  });
}

function near(found: number | undefined, certified: number | undefined, share: number): void {
  expect(Math.abs((found ?? Number.NaN) / (certified ?? Number.NaN) - 1)).toBeLessThan(share);
}
