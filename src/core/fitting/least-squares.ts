/**
 * Linear least squares with known uncertainties, by Householder QR.
 *
 *   minimise sum ((y_i - sum_j a_ij x_j) / u_i)^2;   cov(x) = (A' W A)^-1 = R^-1 R^-T
 *
 * Columns are scaled to unit length first, so that seconds and millimetres can stand side by side. The gain matrix
 * G (x = G y) is returned too: it carries each observation's part of the uncertainty through, one source at a time.
 * [Golub & Van Loan, Matrix Computations, 4th ed. 2013, 5.2 and 5.3]
 */
import { accurateDot } from "./accurate-dot";
import { at, dot, householder, invertUpper, zeros } from "./householder";

const RANK_TOLERANCE = 1e-12;

export type Observation = {
  /** One coefficient a parameter. */
  row: readonly number[];
  y: number;
  /** Standard uncertainty of y, > 0. */
  u: number;
};

export type LinearFit =
  | {
      status: "solved";
      /** n parameters. */
      x: number[];
      /** n by n, by the uncertainties as stated: not scaled by chi squared. */
      covariance: number[][];
      /** n by m: x = gain * y. */
      gain: number[][];
      /** m weighted residuals (y - A x) / u. */
      residuals: number[];
      /** Sum of the squared weighted residuals. */
      chiSquared: number;
      degreesOfFreedom: number;
    }
  | { status: "singular"; parameter: number };

/**
 * @param observations m of them, n coefficients each, m >= n
 * @throws RangeError when an observation has no positive uncertainty or the wrong number of coefficients
 */
export function leastSquares(observations: readonly Observation[]): LinearFit {
  const m = observations.length;
  const n = observations[0]?.row.length ?? 0;
  for (const o of observations) {
    if (!(o.u > 0)) throw new RangeError("observations: every u must be positive");
    if (o.row.length !== n) throw new RangeError("observations: rows must have one length");
  }
  if (m < n) return { status: "singular", parameter: m };

  const columns = weightedColumns(observations, n);
  const scale = columns.map((c) => Math.sqrt(dot(c, c)));
  const empty = scale.indexOf(0);
  if (empty >= 0) return { status: "singular", parameter: empty };
  columns.forEach((c, j) => {
    for (let i = 0; i < m; i++) c[i] = at(c, i) / at(scale, j);
  });
  const q = unitColumns(m);
  householder(columns, q);
  for (let j = 0; j < n; j++)
    if (Math.abs(at(columns[j] ?? [], j)) < RANK_TOLERANCE) return { status: "singular", parameter: j };

  const inverse = invertUpper(columns);
  const gain = inverse.map((row, j) => gainRow(row, j, q, observations, at(scale, j)));
  const y = observations.map((o) => o.y);
  const x = gain.map((row) => dot(row, y));
  const covariance = inverse.map((rowJ, j) => inverse.map((rowK, k) => dot(rowJ, rowK) / at(scale, j) / at(scale, k)));
  const residuals = observations.map((o) => (o.y - dot(o.row, x)) / o.u);
  return {
    status: "solved",
    x,
    covariance,
    gain,
    residuals,
    chiSquared: dot(residuals, residuals),
    degreesOfFreedom: m - n,
  };
}

/**
 * The parameters with what rounding left in them taken out: one step on the residuals, worked out with twice the digits.
 * Worth it where residuals are large beside the parameters. [Bjorck, Numerical Methods for Least Squares Problems, 1996, 2.9.2]
 */
export function refined(fit: Extract<LinearFit, { status: "solved" }>, observations: readonly Observation[]): number[] {
  const residuals = observations.map(
    (o) => accurateDot([1, ...o.row], [o.y, ...fit.x.map((value) => -value)]) / o.u ** 2,
  );
  const gradient = fit.x.map((_, j) =>
    accurateDot(
      observations.map((o) => at(o.row, j)),
      residuals,
    ),
  );
  return fit.x.map((value, j) => value + accurateDot(fit.covariance[j] ?? [], gradient));
}

function weightedColumns(observations: readonly Observation[], n: number): number[][] {
  const columns: number[][] = [];
  for (let j = 0; j < n; j++) {
    const column = zeros(observations.length);
    for (let i = 0; i < column.length; i++) {
      const o = observations[i] as Observation;
      column[i] = at(o.row, j) / o.u;
    }
    columns.push(column);
  }
  return columns;
}

function unitColumns(m: number): number[][] {
  const columns: number[][] = [];
  for (let j = 0; j < m; j++) {
    const column = zeros(m);
    column[j] = 1;
    columns.push(column);
  }
  return columns;
}

function gainRow(
  inverseRow: number[],
  j: number,
  q: readonly number[][],
  observations: readonly Observation[],
  scale: number,
): number[] {
  const row: number[] = [];
  for (let i = 0; i < observations.length; i++) {
    const column = q[i] ?? [];
    let sum = 0;
    for (let k = j; k < inverseRow.length; k++) sum += at(inverseRow, k) * at(column, k);
    row.push(sum / (observations[i] as Observation).u / scale);
  }
  return row;
}
