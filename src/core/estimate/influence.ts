/**
 * Which observation contradicts the others, and how large an error nobody could have seen.
 *
 * Whitened residuals e = M y with M = 1 - H. The scale that judges observation i comes from the readings adjusted without i:
 *
 *   e_j(i) = e_j + h_ij e_i / r_i,   r_j(i) = r_j - h_ij^2 / r_i
 *   s_g^2(i) = (nu0/f^2 + sum_j e_j(i)^2) / (nu0 + sum_j r_j(i))          over the readings j of group g but i
 *   t_i = e_i / sqrt(sum_j M_ij^2 s_j^2)                                   s_j = 1 for what is known beforehand
 *   y_i minus what the others say: e_i u_i / r_i, with uncertainty u_i sqrt(sum_j M_ij^2 s_j^2) / r_i
 *   smallest error seen: c + 0.84 times that uncertainty, 80 of 100 times
 *
 * With one group and nothing known beforehand t is the externally studentized residual. [Belsley, Kuh, Welsch, Regression
 * Diagnostics, 1980, 2.1; Baarda 1968]
 */
import { studentQuantile } from "../fitting/student-t";
import { type Adjustment, gainOf, projected } from "./adjustment";
import type { Observation, ReadingFacts, Row } from "./model";

/** Less redundancy than this, and nothing checks the observation. */
export const CHECKED_FROM = 0.02;
/** Share of clean trials in which some observation may be flagged. */
const FALSE_ALARMS = 0.01;
/** Normal quantile of the power: 80 of 100 errors of the smallest size are seen. */
const POWER = 0.8416;
/** Observations whose residuals hang together more than this cannot be told from each other. */
const SAME_ABOVE = 0.95;

export type Influence = {
  observation: Observation;
  index: number;
  redundancy: number;
  /** How far it lies from what the others say, in standard deviations; `null` where nothing checks it. */
  t: number | null;
  freedom: number;
  /** Smallest error that would be seen, unit of y; `Infinity` where nothing checks it. */
  smallestSeen: number;
  /** y minus what the others say it should be: the error that it seems to have. */
  error: number;
  /** Standard uncertainty of that, from this observation and the others. */
  deletedU: number;
};

export type Influences = {
  each: Influence[];
  /** |t| beyond this is a contradiction at infinite degrees of freedom; use {@link isSuspect}. */
  checked: number;
};

/** How far each observation lies from what the others say, one per observation of the model, and how many of them are checked at all. */
export function influences(adjustment: Adjustment): Influences {
  const { model, redundancy } = adjustment;
  const checked = redundancy.reduce((count, r) => count + (r > CHECKED_FROM ? 1 : 0), 0);
  const hat = hatMatrix(adjustment);
  return { checked, each: model.observations.map((_, i) => influenceOf(adjustment, hat, checked, i, CHECKED_FROM)) };
}

/** Less redundancy than this is rounding. */
const LEAST_REDUNDANCY = 1e-9;

/** What all other observations say of one, however little that is; `null` where they say nothing. */
export function bestGuess(adjustment: Adjustment, index: number): Influence | null {
  const found = influenceOf(adjustment, hatMatrix(adjustment), 1, index, LEAST_REDUNDANCY);
  return found.t === null ? null : found;
}

/** |t| from which an observation contradicts the others: all of them together cry wolf in one of a hundred clean trials. */
export function criticalT(freedom: number, checked: number): number {
  // By a tenth of a degree of freedom, so that each is worked out once.
  const nu = Number.isFinite(freedom) ? Math.max(1, Math.round(freedom * 10) / 10) : Infinity;
  const key = `${nu} ${checked}`;
  const before = limits.get(key);
  if (before !== undefined) return before;
  const limit = studentQuantile(1 - FALSE_ALARMS / 2 / Math.max(1, checked), nu);
  limits.set(key, limit);
  return limit;
}

const limits = new Map<string, number>();

/** @param checked how many observations are tested: one false alarm in so many burns, whatever their number (Bonferroni) */
export function isSuspect({ t, freedom }: Influence, checked: number): boolean {
  return t !== null && Math.abs(t) > criticalT(freedom, checked);
}

function hatMatrix({ qr }: Adjustment): Float64Array {
  const { rows: m, columns: n, q } = qr;
  const hat = new Float64Array(m * m);
  for (let i = 0; i < m; i++)
    for (let j = i; j < m; j++) {
      let sum = 0;
      for (let k = 0; k < n; k++) sum += (q[i * n + k] ?? Number.NaN) * (q[j * n + k] ?? Number.NaN);
      hat[i * m + j] = sum;
      hat[j * m + i] = sum;
    }
  return hat;
}

type Without = { squares: number; freedom: number; share: number };

function influenceOf(
  adjustment: Adjustment,
  hat: Float64Array,
  checked: number,
  i: number,
  checkedFrom: number,
): Influence {
  const { model, residuals, redundancy, scatter, u } = adjustment;
  const m = model.observations.length;
  const observation = model.observations[i] as Observation;
  const r = redundancy[i] ?? Number.NaN;
  if (r <= checkedFrom)
    return {
      observation,
      index: i,
      redundancy: r,
      t: null,
      freedom: Infinity,
      smallestSeen: Infinity,
      error: 0,
      deletedU: Infinity,
    };
  const e = residuals[i] ?? Number.NaN;
  const groups = new Map<string, Without>(
    model.groups.map((g) => {
      const factor = scatter.get(g.id)?.factor ?? 1;
      return [g.id, { squares: g.priorFreedom / factor ** 2, freedom: g.priorFreedom, share: 0 }];
    }),
  );
  let fromKnown = 0;
  for (let j = 0; j < m; j++) {
    const h = hat[i * m + j] ?? Number.NaN;
    const own = j === i ? r * r : h * h;
    const of = model.observations[j]?.group ?? null;
    const group = of === null ? undefined : groups.get(of);
    if (!group) {
      fromKnown += own;
      continue;
    }
    group.share += own;
    if (j === i) continue;
    group.squares += ((residuals[j] ?? Number.NaN) + (h * e) / r) ** 2;
    group.freedom += Math.max(0, (redundancy[j] ?? Number.NaN) - (h * h) / r);
  }
  let variance = fromKnown;
  let below = 0;
  for (const group of groups.values()) {
    // Without any other reading nothing but the factor in hand is known of the scatter.
    const isKnown = group.freedom > 1e-9;
    const part = group.share * (isKnown ? group.squares / group.freedom : 1);
    variance += part;
    if (isKnown) below += part ** 2 / group.freedom;
  }
  const freedom = below > 0 ? variance ** 2 / below : Infinity;
  const ownU = u[i] ?? Number.NaN;
  const deletedU = (ownU * Math.sqrt(variance)) / r;
  return {
    observation,
    index: i,
    redundancy: r,
    t: variance > 0 ? e / Math.sqrt(variance) : 0,
    freedom,
    smallestSeen: (criticalT(freedom, checked) + POWER) * deletedU,
    error: (e * ownU) / r,
    deletedU,
  };
}

/** By how much a wanted result moves for each unit of error in an observation. */
export function effectOn(adjustment: Adjustment, row: Row): Float64Array {
  const gain = gainOf(adjustment, row);
  return gain.map((k, i) => k / (adjustment.u[i] ?? Number.NaN));
}

/** Observations that cannot be told from this one, itself included. */
export function sameAs(adjustment: Adjustment, index: number): Observation[] {
  const { qr, model, redundancy } = adjustment;
  const n = qr.columns;
  const r = redundancy[index] ?? Number.NaN;
  return model.observations.filter((_, j) => {
    if (j === index) return true;
    const other = redundancy[j] ?? Number.NaN;
    if (other <= CHECKED_FROM) return false;
    let h = 0;
    for (let k = 0; k < n; k++) h += (qr.q[index * n + k] ?? Number.NaN) * (qr.q[j * n + k] ?? Number.NaN);
    return Math.abs(h) / Math.sqrt(r * other) > SAME_ABOVE;
  });
}

export type PointAlone = { facts: ReadingFacts; indices: readonly number[] };

/**
 * Points that are read more than once with one gauge, and that only these readings check: an error that they share is not seen.
 *
 *   c'(1 - H) c < 0.02 c'c,   c_i = per_i / u_i over the readings at the point
 */
export function alonePoints(adjustment: Adjustment): PointAlone[] {
  const { model, qr, u } = adjustment;
  const points = new Map<string, PointAlone & { indices: number[] }>();
  model.observations.forEach(({ reading }, index) => {
    if (!reading) return;
    const key = `${reading.point} by ${reading.gauge}`;
    const point = points.get(key) ?? { facts: reading, indices: [] };
    points.set(key, point);
    point.indices.push(index);
  });
  return [...points.values()].filter(({ indices }) => {
    if (indices.length < 2) return false;
    const shared = new Float64Array(model.observations.length);
    for (const i of indices) shared[i] = (model.observations[i]?.reading?.per ?? 1) / (u[i] ?? Number.NaN);
    const whole = squared(shared);
    return whole - squared(projected(qr, shared)) < CHECKED_FROM * whole;
  });
}

function squared(v: Float64Array): number {
  return v.reduce((sum, value) => sum + value * value, 0);
}
