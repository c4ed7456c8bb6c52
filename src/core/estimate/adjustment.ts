/**
 * The adjustment of a model: parameters, their covariance by source, and the redundancy of each observation.
 *
 *   whitened by w_i = 1/(f_g u_i):  A = Q R,  theta = R^-1 Q' y,  K = R^-1 Q',  H = Q Q',  r_i = 1 - h_ii
 *   factor of a group of readings:  f^2 = (nu0 + sum (e_i/u_i)^2) / (nu0 + sum r_i),  nu = nu0 + sum r_i
 *
 * The factor multiplies the variances of readings only, and the model is solved again: a factor on the whole covariance would
 * widen what is known beforehand too. u^2 of a result is the sum of (k_i)^2 over its sources, so the budget adds up by itself.
 * [JCGM 100:2008 5.1.2, G.4; Baarda, A Testing Procedure for Use in Geodetic Networks, 1968]
 */
import { type ThinQr, thinQr } from "../fitting/thin-qr";
import { type Budgeted, joined } from "../metrology/budget";
import { type Model, parametersOf, type Row } from "./model";

/** Most rounds of estimating the factors, and the change that ends them, as a share. */
const MOST_ROUNDS = 8;
const SETTLED = 1e-4;
/** A source with less than this share of the variance has none. */
const NOTHING = 1e-12;

export type GroupScatter = { factor: number; freedom: number };

export type Adjustment = {
  model: Model;
  parameters: readonly string[];
  /** Value of each parameter. */
  theta: Float64Array;
  qr: ThinQr;
  /** Standard uncertainty of each observation with the factor of its group. */
  u: Float64Array;
  /** Whitened y. */
  y: Float64Array;
  /** Whitened residuals, (y - a theta)/u. */
  residuals: Float64Array;
  /** r_i = 1 - h_ii, 0 where nothing else checks the observation. */
  redundancy: Float64Array;
  scatter: ReadonlyMap<string, GroupScatter>;
};

/**
 * Solves a model and estimates the scatter of its readings.
 *
 * The factors of the groups are in `u`, so the covariance (A'A)^-1 of the whitened matrix is scaled for readings, and not for what is known
 * beforehand.
 *
 * @param model m observations, n parameters, units as its rows have them
 * @param scatter factor of each group where it is known already: then it is not estimated, and 1 for other groups
 * @returns `null` when the observations cannot tell the parameters apart
 */
export function adjust(model: Model, scatter?: ReadonlyMap<string, GroupScatter>): Adjustment | null {
  const parameters = parametersOf(model);
  if (model.observations.length < parameters.length) return null;
  if (scatter) {
    const factors = new Map(model.groups.map(({ id }) => [id, scatter.get(id)?.factor ?? 1]));
    const solved = solveWith(model, parameters, factors);
    return solved && { model, parameters, scatter: scatterOf(model, factors, solved), ...solved };
  }
  const factors = new Map(model.groups.map((g) => [g.id, Math.max(1, g.leastFactor)]));
  let solved = solveWith(model, parameters, factors);
  for (let round = 0; solved && round < MOST_ROUNDS; round++) {
    const before = solved;
    const next = model.groups.map((group) => {
      const old = factors.get(group.id) ?? 1;
      return { id: group.id, old, factor: factorOf(group, old, before, model) };
    });
    if (next.every(({ old, factor }) => Math.abs(factor / old - 1) < SETTLED)) break;
    for (const { id, factor } of next) factors.set(id, factor);
    solved = solveWith(model, parameters, factors);
  }
  if (!solved) return null;
  return { model, parameters, scatter: scatterOf(model, factors, solved), ...solved };
}

function scatterOf(model: Model, factors: ReadonlyMap<string, number>, { redundancy }: Solved) {
  return new Map(
    model.groups.map((group) => {
      const freedom = group.priorFreedom + sumOver(model, group.id, (i) => redundancy[i] ?? Number.NaN);
      return [group.id, { factor: factors.get(group.id) ?? 1, freedom: freedom > 1e-9 ? freedom : Infinity }];
    }),
  );
}

type Solved = Pick<Adjustment, "theta" | "qr" | "u" | "y" | "residuals" | "redundancy">;

/** Rows of the whitened matrix, row by row. */
export function whitened(model: Model, parameters: readonly string[], u: Float64Array): Float64Array {
  const n = parameters.length;
  const a = new Float64Array(model.observations.length * n);
  const columnOf = new Map(parameters.map((id, j) => [id, j]));
  model.observations.forEach(({ row }, i) => {
    for (const [id, value] of Object.entries(row)) {
      const j = columnOf.get(id);
      if (j !== undefined) a[i * n + j] = value / (u[i] ?? Number.NaN);
    }
  });
  return a;
}

function solveWith(model: Model, parameters: readonly string[], factors: ReadonlyMap<string, number>): Solved | null {
  const m = model.observations.length;
  const n = parameters.length;
  const u = Float64Array.from(model.observations, (o) => o.u * (o.group === null ? 1 : (factors.get(o.group) ?? 1)));
  const qr = thinQr(whitened(model, parameters, u), m, n);
  if (!qr) return null;
  const y = Float64Array.from(model.observations, (o, i) => o.y / (u[i] ?? Number.NaN));
  const along = projected(qr, y);
  const residuals = new Float64Array(m);
  const redundancy = new Float64Array(m);
  for (let i = 0; i < m; i++) {
    let fitted = 0;
    let leverage = 0;
    for (let j = 0; j < n; j++) {
      const q = qr.q[i * n + j] ?? Number.NaN;
      fitted += q * (along[j] ?? Number.NaN);
      leverage += q * q;
    }
    residuals[i] = (y[i] ?? Number.NaN) - fitted;
    redundancy[i] = Math.max(0, 1 - leverage);
  }
  const theta = new Float64Array(n);
  for (let j = 0; j < n; j++)
    for (let k = j; k < n; k++)
      theta[j] = (theta[j] ?? Number.NaN) + (qr.inverse[j * n + k] ?? Number.NaN) * (along[k] ?? Number.NaN);
  return { theta, qr, u, y, residuals, redundancy };
}

/** Q'v. */
export function projected({ q, rows, columns }: ThinQr, v: Float64Array): Float64Array {
  const along = new Float64Array(columns);
  for (let i = 0; i < rows; i++) {
    const value = v[i] ?? Number.NaN;
    if (value === 0) continue;
    for (let j = 0; j < columns; j++) along[j] = (along[j] ?? Number.NaN) + (q[i * columns + j] ?? Number.NaN) * value;
  }
  return along;
}

function factorOf(group: Model["groups"][number], before: number, solved: Solved, model: Model): number {
  const freedom = group.priorFreedom + sumOver(model, group.id, (i) => solved.redundancy[i] ?? Number.NaN);
  if (freedom < 1e-9) return before;
  const squares = sumOver(model, group.id, (i) => ((solved.residuals[i] ?? Number.NaN) * before) ** 2);
  return Math.max(group.leastFactor, Math.sqrt((group.priorFreedom + squares) / freedom), 1e-6);
}

function sumOver(model: Model, group: string, value: (i: number) => number): number {
  let sum = 0;
  model.observations.forEach((o, i) => {
    if (o.group === group) sum += value(i);
  });
  return sum;
}

/** How much each whitened observation is in a combination of parameters: k = Q R^-T c. */
export function gainOf({ qr, parameters }: Pick<Adjustment, "qr" | "parameters">, row: Row): Float64Array {
  const n = parameters.length;
  const weights = new Float64Array(n);
  parameters.forEach((id, j) => {
    const c = row[id] ?? 0;
    if (c === 0) return;
    for (let k = j; k < n; k++) weights[k] = (weights[k] ?? Number.NaN) + c * (qr.inverse[j * n + k] ?? Number.NaN);
  });
  const gain = new Float64Array(qr.rows);
  for (let i = 0; i < qr.rows; i++) {
    let sum = 0;
    for (let k = 0; k < n; k++) sum += (qr.q[i * n + k] ?? Number.NaN) * (weights[k] ?? Number.NaN);
    gain[i] = sum;
  }
  return gain;
}

/** Value of a combination of parameters. */
export function combinedValue({ theta, parameters }: Adjustment, row: Row): number {
  return parameters.reduce((sum, id, j) => sum + (row[id] ?? 0) * (theta[j] ?? Number.NaN), 0);
}

/**
 * A combination of parameters with its budget: k = sum_j row_j theta_j, one part per source of the observations, degrees of freedom by
 * Welch-Satterthwaite [JCGM 100:2008 G.4.1].
 *
 * @throws RangeError when it holds a parameter that no observation speaks of: its value would be 0 without any uncertainty
 */
export function combine(adjustment: Adjustment, row: Row): Budgeted {
  const unknown = Object.keys(row).find((id) => row[id] !== 0 && !adjustment.parameters.includes(id));
  if (unknown !== undefined) throw new RangeError(`row: no observation speaks of “${unknown}”`);
  const { model, scatter } = adjustment;
  const gain = gainOf(adjustment, row);
  const variances = new Map<string, number>();
  model.observations.forEach((o, i) => {
    variances.set(o.source.id, (variances.get(o.source.id) ?? 0) + (gain[i] ?? Number.NaN) ** 2);
  });
  const whole = gain.reduce((sum, k) => sum + k * k, 0);
  const first = new Map(model.observations.toReversed().map((o) => [o.source.id, o]));
  const parts = [...variances].flatMap(([id, variance]) => {
    const o = first.get(id);
    if (!o || variance <= NOTHING * whole) return [];
    const freedom = o.group === null ? Infinity : (scatter.get(o.group)?.freedom ?? Infinity);
    return [
      {
        ...o.source,
        standardUncertainty: Math.sqrt(variance),
        degreesOfFreedom: Number.isFinite(freedom) ? freedom : ("infinite" as const),
      },
    ];
  });
  return joined(combinedValue(adjustment, row), parts);
}
