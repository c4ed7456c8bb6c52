/**
 * Nonlinear least squares within bounds, by Levenberg and Marquardt's method on QR.
 *
 *   minimise sum r_i(x)^2 for low <= x <= high;   cov(x) = (J' J)^-1 for residuals of unit standard deviation
 *
 * Each step solves [J; sqrt(mu) D] dx = -[r; 0], D = the largest lengths that the columns of J have had, so that seconds and
 * millimetres can stand side by side. A parameter on a bound that it would leave stays there for that step.
 * [Moré, The Levenberg-Marquardt algorithm, 1978: scaling; Madsen, Nielsen & Tingleff, Methods for Non-Linear Least Squares
 * Problems, 2nd ed. 2004, 3.2: how mu changes]
 */
import { at, dot, householder, invertUpper, type Row, zeros } from "./householder";

const MOST_STEPS = 1000;
/** Of several starts each goes so many steps, and so many of the best are followed to their end. */
const [FIRST_STEPS, FOLLOWED] = [10, 2];
/** Parameters that differ by less than this share are the same. */
const SAME_PLACE = 1e-4;
const SMALLEST_MU = 1e-20;
const LARGEST_MU = 1e20;
const FIRST_MU = 1e-3;
/** A step so small beside the parameters, or such a share of the sum of squares that it would save, changes nothing that is read. */
const SMALL_STEP = 1e-10;
const SMALL_SAVING = 1e-14;
/** Below this a column of R says that a parameter cannot be told from the others. */
const RANK_TOLERANCE = 1e-13;
/** Best for central differences: the cube root of the rounding error. */
const DIFFERENCE = Number.EPSILON ** (1 / 3);

export type NonlinearProblem = {
  /** m residuals at x, each divided by its standard uncertainty; not finite where x makes no sense. */
  residuals: (x: Row) => number[];
  /** n columns of m: the derivatives of the residuals; found by differences where left out. */
  jacobian?: (x: Row) => number[][];
  start: Row;
  /** n each; no bounds where left out. */
  low?: Row;
  high?: Row;
  /** 1000 where left out. */
  mostSteps?: number;
  /** It ends when a step saves no larger share of the sum of squares; 1e-14 where left out. */
  smallSaving?: number;
};

/** Why it ended. */
export type Termination = "small step" | "small saving" | "too many steps" | "not finite at the start";

export type NonlinearFit = {
  ended: Termination;
  /** n parameters. */
  x: number[];
  /** m, at x. */
  residuals: number[];
  /** Sum of their squares. */
  chiSquared: number;
  /** m minus n. */
  degreesOfFreedom: number;
  /** n by n, (J'J)^-1: not scaled by chi squared; `null` where the residuals do not tell the parameters apart. A parameter on a bound is taken as free. */
  covariance: number[][] | null;
  /** Whether each parameter lies on a bound. */
  onBound: boolean[];
  steps: number;
};

/**
 * Levenberg-Marquardt steps from one start, within bounds.
 *
 * @returns the covariance is not scaled: residuals are to be in units of their standard uncertainty
 * @throws RangeError when the bounds do not hold the start, or there are fewer residuals than parameters
 */
export function minimise(problem: NonlinearProblem): NonlinearFit {
  const { residuals, start, low, high, mostSteps = MOST_STEPS, smallSaving = SMALL_SAVING } = problem;
  const n = start.length;
  const box = { low: low ?? start.map(() => -Infinity), high: high ?? start.map(() => Infinity) };
  if (start.some((v, j) => v < at(box.low, j) || v > at(box.high, j)))
    throw new RangeError("start: it must lie within the bounds");
  let here = pointAt(residuals, [...start]);
  if (here.r.length < n) throw new RangeError("residuals: there must be at least as many as parameters");
  if (!Number.isFinite(here.sum)) return result(here, null, box, "not finite at the start", 0);
  let mu = FIRST_MU;
  let growth = 2;
  const scale = zeros(n);
  const slopesAt = (point: Point) => problem.jacobian?.(point.x) ?? differences(residuals, point, box);
  let jacobian = slopesAt(here);
  let factors = factored(jacobian, here.r);
  for (let step = 1; step <= mostSteps; step++) {
    for (let j = 0; j < n; j++) scale[j] = Math.max(at(scale, j), lengthOf(at2(jacobian, j))) || 1;
    const free = freeParameters(here, jacobian, box);
    const dx = dampedStep(factors, scale, mu, free);
    const to = here.x.map((v, j) => Math.min(at(box.high, j), Math.max(at(box.low, j), v + at(dx, j))));
    const moved = to.map((v, j) => v - at(here.x, j));
    const there = pointAt(residuals, to);
    const saved = here.sum - there.sum;
    const promised = promisedSaving(jacobian, here.r, moved);
    const isSmall = moved.every((d, j) => Math.abs(d) <= SMALL_STEP * (Math.abs(at(here.x, j)) + SMALL_STEP));
    if (saved > 0 && promised > 0) {
      const isSmallSaving = saved <= smallSaving * here.sum && promised <= smallSaving * here.sum;
      here = there;
      jacobian = slopesAt(here);
      factors = factored(jacobian, here.r);
      if (isSmallSaving || here.sum === 0) return result(here, jacobian, box, "small saving", step);
      if (isSmall) return result(here, jacobian, box, "small step", step);
      mu = Math.max(SMALLEST_MU, mu * Math.max(1 / 3, 1 - ((2 * saved) / promised - 1) ** 3));
      growth = 2;
    } else {
      if (isSmall || mu > LARGEST_MU) return result(here, jacobian, box, "small step", step);
      mu *= growth;
      growth *= 2;
    }
  }
  return result(here, jacobian, box, "too many steps", mostSteps);
}

/**
 * Takes a few steps from each start, then continues from the best one. A start outside the bounds is moved onto them.
 *
 * @throws RangeError when there is none
 */
export function minimiseFromSeveral(problem: Omit<NonlinearProblem, "start">, starts: readonly Row[]): NonlinearFit {
  const { low, high } = problem;
  const inside = (start: Row) =>
    start.map((v, j) => Math.min(high ? at(high, j) : Infinity, Math.max(low ? at(low, j) : -Infinity, v)));
  const first = starts
    .map((start) => minimise({ ...problem, start: inside(start), mostSteps: FIRST_STEPS }))
    .sort((a, b) => a.chiSquared - b.chiSquared);
  if (first.length === 0) throw new RangeError("starts: there must be at least one");
  return first
    .filter((fit, i) => !first.slice(0, i).some((better) => isSamePlace(better.x, fit.x)))
    .slice(0, FOLLOWED)
    .map(({ x }) => minimise({ ...problem, start: x }))
    .reduce((best, fit) => (fit.chiSquared < best.chiSquared ? fit : best));
}

/** Starts that met on their way are followed once. */
function isSamePlace(a: Row, b: Row): boolean {
  return a.every((v, j) => Math.abs(v - at(b, j)) <= SAME_PLACE * (Math.abs(v) + SAME_PLACE));
}

type Point = { x: number[]; r: number[]; sum: number };
type Box = { low: Row; high: Row };

function pointAt(residuals: (x: Row) => number[], x: number[]): Point {
  const r = residuals(x);
  const sum = dot(r, r);
  return { x, r, sum: Number.isFinite(sum) ? sum : Number.POSITIVE_INFINITY };
}

/** Columns of the Jacobian, by central differences; by one-sided ones where a bound is in the way. */
function differences(residuals: (x: Row) => number[], { x, r }: Point, box: Box): number[][] {
  return x.map((value, j) => {
    const h = DIFFERENCE * (Math.abs(value) || 1);
    const up = Math.min(value + h, at(box.high, j));
    const down = Math.max(value - h, at(box.low, j));
    const shifted = (v: number) => residuals(x.map((old, k) => (k === j ? v : old)));
    const [above, below] = [up === value ? r : shifted(up), down === value ? r : shifted(down)];
    return above.map((a, i) => {
      const slope = (a - at(below, i)) / (up - down);
      return Number.isFinite(slope) ? slope : 0;
    });
  });
}

/** Those that are not held on a bound which the steepest way down would cross. */
function freeParameters({ x, r }: Point, jacobian: readonly number[][], { low, high }: Box): boolean[] {
  return x.map((value, j) => {
    const gradient = dot(at2(jacobian, j), r);
    return !((value <= at(low, j) && gradient > 0) || (value >= at(high, j) && gradient < 0));
  });
}

/** J = Q R, and -Q' r: what steps of every damping are worked out from. */
type Factored = { r: number[][]; rhs: number[] };

function factored(jacobian: readonly number[][], residuals: Row): Factored {
  const columns = jacobian.map((c) => c.slice());
  const rhs = residuals.map((v) => -v);
  householder(columns, [rhs]);
  const n = columns.length;
  // Below the triangle is what rounding left.
  return { r: columns.map((c, j) => c.slice(0, n).map((v, i) => (i > j ? 0 : v))), rhs: rhs.slice(0, n) };
}

function dampedStep({ r, rhs }: Factored, scale: Row, mu: number, free: readonly boolean[]): number[] {
  const indices = free.flatMap((is, j) => (is ? [j] : []));
  const dx = free.map(() => 0);
  if (indices.length === 0) return dx;
  const damping = Math.sqrt(mu);
  const columns = indices.map((j, k) => {
    const column = at2(r, j).map((v) => v / at(scale, j));
    for (let i = 0; i < indices.length; i++) column.push(i === k ? damping : 0);
    return column;
  });
  const right = [...rhs, ...indices.map(() => 0)];
  householder(columns, [right]);
  const solved = backSubstituted(columns, right);
  indices.forEach((j, k) => {
    dx[j] = at(solved, k) / at(scale, j);
  });
  return dx;
}

/** @param columns of an upper triangle R @returns y with R y = rhs */
function backSubstituted(columns: readonly number[][], rhs: Row): number[] {
  const y = columns.map(() => 0);
  for (let i = columns.length - 1; i >= 0; i--) {
    let sum = at(rhs, i);
    for (let k = i + 1; k < columns.length; k++) sum -= at(at2(columns, k), i) * at(y, k);
    y[i] = sum / at(at2(columns, i), i);
  }
  return y;
}

/** What the straight-line model says that a step saves: |r|^2 - |r + J dx|^2. */
function promisedSaving(jacobian: readonly number[][], r: Row, dx: Row): number {
  let sum = 0;
  for (let i = 0; i < r.length; i++) {
    let change = 0;
    for (let j = 0; j < dx.length; j++) change += at(at2(jacobian, j), i) * at(dx, j);
    sum -= change * (2 * at(r, i) + change);
  }
  return sum;
}

function result(
  point: Point,
  jacobian: number[][] | null,
  { low, high }: Box,
  ended: Termination,
  steps: number,
): NonlinearFit {
  const { x, r, sum } = point;
  return {
    ended,
    x,
    residuals: r,
    chiSquared: sum,
    degreesOfFreedom: r.length - x.length,
    steps,
    covariance: jacobian && covarianceOf(jacobian),
    onBound: x.map((v, j) => v <= at(low, j) || v >= at(high, j)),
  };
}

function covarianceOf(jacobian: readonly number[][]): number[][] | null {
  const lengths = jacobian.map(lengthOf);
  if (lengths.some((length) => !(length > 0))) return null;
  const columns = jacobian.map((c, j) => c.map((v) => v / at(lengths, j)));
  householder(columns, []);
  if (columns.some((c, j) => Math.abs(at(c, j)) < RANK_TOLERANCE)) return null;
  const inverse = invertUpper(columns);
  return inverse.map((rowJ, j) => inverse.map((rowK, k) => dot(rowJ, rowK) / at(lengths, j) / at(lengths, k)));
}

function at2(columns: readonly number[][], j: number): number[] {
  return columns[j] ?? [];
}

function lengthOf(column: Row): number {
  return Math.sqrt(dot(column, column));
}
