/**
 * NIST Statistical Reference Datasets, linear regression: certified coefficients, their standard deviations and the residual
 * sum of squares, to 8 digits. Files name their source; the Wampler sets are made by their formula
 * [Wampler, JASA 65 (1970) 549; certified values of StRD from memory, checked in rational arithmetic].
 */
import { describe, expect, it } from "vitest";
import { leastSquares } from "./least-squares";
import filip from "./nist/filip.json";
import longley from "./nist/longley.json";
import norris from "./nist/norris.json";
import pontius from "./nist/pontius.json";
import { fitPolynomial } from "./polynomial";

const DIGITS_8 = 1e-8;

type Certified = { coefficients: number[]; standardDeviations: number[]; residualSumOfSquares: number };
type Found = { coefficients: number[]; covariance: number[][]; chiSquared: number; degreesOfFreedom: number };

/** Readings of unknown, equal uncertainty: u = 1 in the fit, then scaled by the residuals. */
function expectCertified(found: Found | null, certified: Certified): void {
  if (!found) throw new Error("singular");
  const variance = found.chiSquared / found.degreesOfFreedom;
  near(found.chiSquared, certified.residualSumOfSquares);
  certified.coefficients.forEach((b, k) => {
    near(found.coefficients[k], b);
    near(Math.sqrt(variance * (found.covariance[k]?.[k] ?? Number.NaN)), certified.standardDeviations[k]);
  });
}

function near(found: number | undefined, certified: number | undefined): void {
  expect(Math.abs((found ?? Number.NaN) - (certified ?? 0)) / Math.abs(certified || 1)).toBeLessThan(DIGITS_8);
}

const polynomial = (set: { x: number[][]; y: number[] }, degree: number) =>
  fitPolynomial(
    set.x.map(([x = 0], i) => ({ x, y: set.y[i] ?? 0, u: 1 })),
    degree,
  );

describe("NIST StRD, linear sets", () => {
  it("Norris, a line", () => expectCertified(polynomial(norris, 1), norris.certified));
  it("Pontius, a parabola", () => expectCertified(polynomial(pontius, 2), pontius.certified));
  it("Filip, degree 10, the hardest", () => expectCertified(polynomial(filip, 10), filip.certified));

  it("Longley, six predictors that nearly repeat each other", () => {
    const fit = leastSquares(longley.x.map((row, i) => ({ row: [1, ...row], y: longley.y[i] ?? 0, u: 1 })));
    if (fit.status === "singular") throw new Error("singular");
    expectCertified({ ...fit, coefficients: fit.x }, longley.certified);
  });
});

/** Departures of Wampler3 from the polynomial; 100 and 10,000 times as large in Wampler4 and 5. */
const DEPARTURES = [759, -2048, 2048, -2048, 2523, -2048, 2048, -2048, 1838, -2048, 2048];
const WAMPLER3_SD = [
  2152.3262467817, 2363.55173469681, 779.343524331583, 101.47550755035, 5.64566512170752, 0.112324854679312,
];
const WAMPLER3_RSS = 83554268;

function wampler(base: number, departure: number) {
  const x = Array.from({ length: 21 }, (_, i) => i);
  return {
    x: x.map((v) => [v]),
    y: x.map(
      (v) =>
        [0, 1, 2, 3, 4, 5].reduce((sum, k) => sum + (base * v) ** k, 0) +
        departure * (DEPARTURES[Math.min(v, 20 - v)] ?? 0),
    ),
  };
}

describe("NIST StRD, the Wampler sets", () => {
  it.each([
    ["Wampler1", 1],
    ["Wampler2", 0.1],
  ])("%s, an exact polynomial", (_, base) => {
    const fit = polynomial(wampler(base, 0), 5);
    for (const k of [0, 1, 2, 3, 4, 5]) near(fit?.coefficients[k], base ** k);
  });

  it.each([
    ["Wampler3", 1],
    ["Wampler4", 100],
    ["Wampler5", 10_000],
  ])("%s", (_, departure) =>
    expectCertified(polynomial(wampler(1, departure), 5), {
      coefficients: [1, 1, 1, 1, 1, 1],
      standardDeviations: WAMPLER3_SD.map((sd) => sd * departure),
      residualSumOfSquares: WAMPLER3_RSS * departure ** 2,
    }),
  );
});
