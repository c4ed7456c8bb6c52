/**
 * Polynomials by least squares, on centred and scaled x.
 *
 *   y = sum_j c_j t^j,  t = (x - centre) / h in [-1, 1];   raw coefficients b_k = sum_{j >= k} C(j,k) (-centre)^(j-k) c_j / h^j
 *
 * h is a power of two, so that scaling rounds nothing. Fitting raw powers of x loses five digits on hard sets; in t the columns stay nearly independent.
 * [Golub & Van Loan, Matrix Computations, 4th ed. 2013, 5.3; checked against NIST StRD]
 */
import { accurateDot } from "./accurate-dot";
import { leastSquares, refined } from "./least-squares";

export type PolynomialBasis = {
  /** Powers of t from 0 to the degree. */
  row: (x: number) => number[];
  /** `toRaw[k][j]`: share of c_j in the coefficient of x^k. */
  toRaw: number[][];
};

/**
 * @param xs places of the readings; one place alone leaves nothing to fit but a constant
 * @throws RangeError without any x, or when the degree is not a whole number from 0
 */
export function polynomialBasis(xs: readonly number[], degree: number): PolynomialBasis {
  if (xs.length === 0) throw new RangeError("xs: at least one is needed");
  if (!Number.isInteger(degree) || degree < 0) throw new RangeError("degree: a whole number from 0");
  const low = Math.min(...xs);
  const high = Math.max(...xs);
  const centre = (low + high) / 2;
  const halfWidth = powerOfTwoFrom((high - low) / 2 || 1);
  const powers = Array.from({ length: degree + 1 }, (_, j) => j);
  return {
    row: (x) => powers.map((j) => ((x - centre) / halfWidth) ** j),
    toRaw: powers.map((k) => powers.map((j) => (j < k ? 0 : (binomial(j, k) * (-centre) ** (j - k)) / halfWidth ** j))),
  };
}

export type PolynomialFit = {
  /** b_0 … b_degree of the powers of x itself. */
  coefficients: number[];
  /** Their covariance, from the stated u of the observations. */
  covariance: number[][];
  chiSquared: number;
  degreesOfFreedom: number;
};

/**
 * @param points u = standard uncertainty of y, > 0
 * @returns `null` when the points cannot tell the coefficients apart
 */
export function fitPolynomial(
  points: readonly { x: number; y: number; u: number }[],
  degree: number,
): PolynomialFit | null {
  const basis = polynomialBasis(
    points.map((p) => p.x),
    degree,
  );
  const observations = points.map((p) => ({ row: basis.row(p.x), y: p.y, u: p.u }));
  const fit = leastSquares(observations);
  if (fit.status === "singular") return null;
  const scaled = refined(fit, observations);
  const { toRaw } = basis;
  const half = toRaw.map((share) => fit.covariance.map((_, j) => dot(share, column(fit.covariance, j))));
  return {
    coefficients: toRaw.map((share) => accurateDot(share, scaled)),
    covariance: half.map((row) => toRaw.map((share) => dot(row, share))),
    chiSquared: fit.chiSquared,
    degreesOfFreedom: fit.degreesOfFreedom,
  };
}

/** The least power of two that is not smaller. */
function powerOfTwoFrom(width: number): number {
  return 2 ** Math.ceil(Math.log2(width));
}

function binomial(n: number, k: number): number {
  let value = 1;
  for (let i = 1; i <= k; i++) value = (value * (n - k + i)) / i;
  return value;
}

function column(matrix: readonly number[][], j: number): number[] {
  return matrix.map((row) => row[j] ?? Number.NaN);
}

function dot(a: readonly number[], b: readonly number[]): number {
  return a.reduce((sum, value, i) => sum + value * (b[i] ?? Number.NaN), 0);
}
