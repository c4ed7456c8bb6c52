/**
 * A smooth map of the plane through measured points, and its inverse.
 *
 *   x' = sum a_pq u^p v^q,   y' = sum b_pq u^p v^q,   p + q <= degree,   u = x / H,  v = y / H
 *
 * Least squares by thin QR; both coordinates share the matrix A. h_i = |row i of Q|^2 is the leverage, and e_i / (1 - h_i) is what point i
 * lies off the map of all others: the rms of these is the error of leaving one out, by which the degree is chosen. [Allen, Technometrics 16
 * (1974) 125, PRESS; from memory] The covariance of the coefficients is s^2 (A'A)^-1 with s^2 = sum e^2 / (n - terms) of each coordinate.
 * The inverse is found by Newton's steps on the map itself: a polynomial fitted to the inverse would be another map.
 */
import { type ThinQr, thinQr } from "./thin-qr";

export type PlanePoint = { x: number; y: number };

export type PlaneMap = {
  degree: number;
  /** H: u and v reach from -1 to 1 over what was measured. */
  half: number;
  /** Coefficients in the order of {@link powersOf}. */
  x: number[];
  y: number[];
};

export type PlaneFit = {
  map: PlaneMap;
  /** As fitted: measured minus mapped, one per point. */
  residuals: PlanePoint[];
  /** Residual standard deviation of each coordinate, n minus the number of terms degrees of freedom. */
  sd: PlanePoint;
  freedom: number;
  /** rms distance of each point from the map of all others. */
  leftOutRms: number;
  qr: ThinQr;
};

/** A measured point and where it should be. */
export type MeasuredPoint = { from: PlanePoint; to: PlanePoint };

export const MOST_DEGREE = 5;
/** A higher degree must make the error of leaving one out smaller by this share. */
const WORTH = 0.03;
/** Each of Newton's steps leaves about its own square: after one of 1e-5 nothing is left that counts. */
const [MOST_STEPS, SETTLED] = [30, 1e-5];

/** Powers of u and v, degree by degree. */
export function powersOf(degree: number): (readonly [number, number])[] {
  return Array.from({ length: degree + 1 }, (_, d) =>
    Array.from({ length: d + 1 }, (_, q) => [d - q, q] as const),
  ).flat();
}

/** Writes the terms at a point into a row of the design matrix, each from one of the degree before. */
function writeTerms(degree: number, u: number, v: number, into: Float64Array, from: number): void {
  into[from] = 1;
  for (let d = 1; d <= degree; d++) {
    const [before, here] = [from + (d * (d - 1)) / 2, from + (d * (d + 1)) / 2];
    for (let q = 0; q < d; q++) into[here + q] = u * (into[before + q] ?? Number.NaN);
    into[here + d] = v * (into[before + d - 1] ?? Number.NaN);
  }
}

/** @returns `null` where the points do not tell all terms apart, or leave nothing over */
export function fitPlaneMap(points: readonly MeasuredPoint[], degree: number, half: number): PlaneFit | null {
  const n = powersOf(degree).length;
  const m = points.length;
  if (m <= n) return null;
  const a = new Float64Array(m * n);
  points.forEach(({ from }, i) => {
    writeTerms(degree, from.x / half, from.y / half, a, i * n);
  });
  const qr = thinQr(a, m, n);
  if (!qr) return null;
  const x = solved(qr, (i) => points[i]?.to.x ?? Number.NaN);
  const y = solved(qr, (i) => points[i]?.to.y ?? Number.NaN);
  const map: PlaneMap = { degree, half, x, y };
  const residuals = points.map(({ from, to }) => {
    const at = mapPoint(map, from);
    return { x: to.x - at.x, y: to.y - at.y };
  });
  let leftOut = 0;
  residuals.forEach((e, i) => {
    const rest = Math.max(1e-12, 1 - leverage(qr, i));
    leftOut += (e.x / rest) ** 2 + (e.y / rest) ** 2;
  });
  const sum = (of: (e: PlanePoint) => number) => residuals.reduce((total, e) => total + of(e) ** 2, 0);
  return {
    map,
    residuals,
    sd: { x: Math.sqrt(sum((e) => e.x) / (m - n)), y: Math.sqrt(sum((e) => e.y) / (m - n)) },
    freedom: m - n,
    leftOutRms: Math.sqrt(leftOut / m),
    qr,
  };
}

function solved({ q, inverse, rows, columns }: ThinQr, y: (i: number) => number): number[] {
  const along = new Float64Array(columns);
  for (let i = 0; i < rows; i++)
    for (let j = 0; j < columns; j++) along[j] = (along[j] ?? 0) + (q[i * columns + j] ?? Number.NaN) * y(i);
  return Array.from({ length: columns }, (_, j) => {
    let sum = 0;
    for (let k = j; k < columns; k++) sum += (inverse[j * columns + k] ?? Number.NaN) * (along[k] ?? Number.NaN);
    return sum;
  });
}

function leverage({ q, columns }: ThinQr, i: number): number {
  let sum = 0;
  for (let j = 0; j < columns; j++) sum += (q[i * columns + j] ?? Number.NaN) ** 2;
  return sum;
}

/** Of all degrees from 1 up to the largest, the lowest beyond which leaving one out gets hardly better; `null` where none can be fitted. */
export function fitWithBestDegree(
  points: readonly MeasuredPoint[],
  half: number,
  most = MOST_DEGREE,
): { best: PlaneFit; all: PlaneFit[] } | null {
  const all: PlaneFit[] = [];
  for (let degree = 1; degree <= most; degree++) {
    const fit = fitPlaneMap(points, degree, half);
    if (fit) all.push(fit);
  }
  const least = Math.min(...all.map((f) => f.leftOutRms));
  const best = all.find((f) => f.leftOutRms <= (1 + WORTH) * least);
  return best ? { best, all } : null;
}

export function mapPoint(map: PlaneMap, at: PlanePoint): PlanePoint {
  evaluate(map, at.x / map.half, at.y / map.half);
  return { x: FOUND.x, y: FOUND.y };
}

/** Value and slopes by u and by v of both coordinates, where a map was evaluated last: a table evaluates some hundred thousand times. */
const FOUND = { x: 0, y: 0, xu: 0, xv: 0, yu: 0, yv: 0 };

/** By Horner's rule in u, of sums by Horner's rule in v. */
function evaluate({ degree, x, y }: PlaneMap, u: number, v: number): void {
  let [fx, xu, xv, fy, yu, yv] = [0, 0, 0, 0, 0, 0];
  for (let p = degree; p >= 0; p--) {
    let [px, pxv, py, pyv] = [0, 0, 0, 0];
    for (let q = degree - p; q >= 0; q--) {
      const d = p + q;
      const j = (d * (d + 1)) / 2 + q;
      pxv = pxv * v + px;
      pyv = pyv * v + py;
      px = px * v + (x[j] ?? Number.NaN);
      py = py * v + (y[j] ?? Number.NaN);
    }
    xu = xu * u + fx;
    yu = yu * u + fy;
    fx = fx * u + px;
    fy = fy * u + py;
    xv = xv * u + pxv;
    yv = yv * u + pyv;
  }
  FOUND.x = fx;
  FOUND.y = fy;
  FOUND.xu = xu;
  FOUND.xv = xv;
  FOUND.yu = yu;
  FOUND.yv = yv;
}

/**
 * The point that the map sends here.
 *
 * @param near where it is looked for first; left out: the point itself
 * @returns `null` where Newton's steps lead nowhere: no such point lies near what was measured
 */
export function unmapPoint(map: PlaneMap, to: PlanePoint, near: PlanePoint = to): PlanePoint | null {
  const { half } = map;
  let [u, v] = [near.x / half, near.y / half];
  for (let step = 0; step < MOST_STEPS; step++) {
    evaluate(map, u, v);
    const [ex, ey] = [to.x - FOUND.x, to.y - FOUND.y];
    const { xu, xv, yu, yv } = FOUND;
    const determinant = xu * yv - xv * yu;
    if (!(Math.abs(determinant) > 1e-9 * half * half)) return null;
    const du = (ex * yv - ey * xv) / determinant;
    const dv = (ey * xu - ex * yu) / determinant;
    u += du;
    v += dv;
    if (!(Math.hypot(u, v) < 4)) return null;
    if (Math.abs(du) + Math.abs(dv) < SETTLED) return { x: u * half, y: v * half };
  }
  return null;
}

/** Points along each side at which a map is tried, and how far beyond the reach the outermost lie, as a factor. */
const TRIED = { count: 9, beyond: 1.05 } as const;

/** Whether the map can be inverted over a square around the middle, and a little beyond it. @param reach half a side */
export function isInvertible(map: PlaneMap, reach: number): boolean {
  const at = (i: number) => TRIED.beyond * reach * ((2 * i) / (TRIED.count - 1) - 1);
  return Array.from({ length: TRIED.count ** 2 }, (_, i) => ({
    x: at(i % TRIED.count),
    y: at(Math.floor(i / TRIED.count)),
  })).every((p) => unmapPoint(map, p) !== null);
}

/** Standard uncertainty of the map at a point, by the scatter of the points about it alone: what all points have in common is not in it. */
export function mapUncertainty({ map, sd, qr }: PlaneFit, at: PlanePoint): PlanePoint {
  const { inverse, columns } = qr;
  const terms = new Float64Array(columns);
  writeTerms(map.degree, at.x / map.half, at.y / map.half, terms, 0);
  let sum = 0;
  for (let k = 0; k < columns; k++) {
    let along = 0;
    for (let j = 0; j <= k; j++) along += (terms[j] ?? Number.NaN) * (inverse[j * columns + k] ?? Number.NaN);
    sum += along * along;
  }
  return { x: sd.x * Math.sqrt(sum), y: sd.y * Math.sqrt(sum) };
}
