/**
 * Student's t: distribution and its inverse, expanded uncertainty, effective degrees of freedom.
 *
 *   P(T <= t) = 1 - I_{nu/(nu + t^2)}(nu/2, 1/2) / 2  for t >= 0          [Abramowitz & Stegun 1972, 26.7.1]
 *   nu_eff = u^4 / sum u_i^4 / nu_i, rounded down                          [JCGM 100:2008 G.4.1]
 */
import { incompleteBeta, logGamma } from "./special-functions";

/** From here on t and the normal distribution agree to better than 1e-9. */
const NORMAL_FROM = 1e9;
const MAX_STEPS = 100;
const TOLERANCE = 1e-13;
export const COVERAGE = 0.95;

/** P(T <= t) for `nu` degrees of freedom (`Infinity` allowed). */
export function studentCdf(t: number, nu: number): number {
  const freedom = Math.min(nu, NORMAL_FROM);
  const tail = incompleteBeta(freedom / (freedom + t * t), freedom / 2, 0.5) / 2;
  return t >= 0 ? 1 - tail : tail;
}

function studentDensity(t: number, nu: number): number {
  return Math.exp(
    logGamma((nu + 1) / 2) -
      logGamma(nu / 2) -
      0.5 * Math.log(nu * Math.PI) -
      ((nu + 1) / 2) * Math.log1p((t * t) / nu),
  );
}

/**
 * The t that is not exceeded with probability `p`.
 *
 * Newton steps inside a bracket that bisection keeps; at most 100, to 1e-13 relative.
 *
 * @throws RangeError when p is not inside (0, 1) or nu is not positive
 */
export function studentQuantile(p: number, nu: number): number {
  if (!(p > 0 && p < 1)) throw new RangeError(`p must be in (0, 1), got ${p}`);
  if (!(nu > 0)) throw new RangeError(`nu must be positive, got ${nu}`);
  if (p < 0.5) return -studentQuantile(1 - p, nu);
  if (p === 0.5) return 0;
  const freedom = Math.min(nu, 1e6);
  let low = 0;
  let high = 1;
  while (studentCdf(high, freedom) < p) high *= 2;
  let t = (low + high) / 2;
  for (let i = 0; i < MAX_STEPS; i++) {
    const excess = studentCdf(t, freedom) - p;
    if (excess > 0) high = t;
    else low = t;
    const newton = t - excess / studentDensity(t, freedom);
    const next = newton > low && newton < high ? newton : (low + high) / 2;
    if (Math.abs(next - t) <= TOLERANCE * t) return next;
    t = next;
  }
  return t;
}

const quantiles = new Map<number, number>();

/** t for a two-sided interval of 95 %, by whole degrees of freedom (rounded down, at least 1). */
export function coverageFactor(nu: number): number {
  const whole = Number.isFinite(nu) ? Math.max(1, Math.floor(nu)) : Infinity;
  const known = quantiles.get(whole);
  if (known !== undefined) return known;
  const t = studentQuantile((1 + COVERAGE) / 2, whole);
  quantiles.set(whole, t);
  return t;
}

/** Welch-Satterthwaite. `parts` are standard uncertainties in the unit of the result. */
export function effectiveFreedom(parts: readonly { u: number; degreesOfFreedom: number }[]): number {
  const variance = parts.reduce((sum, part) => sum + part.u ** 2, 0);
  const below = parts.reduce((sum, part) => sum + part.u ** 4 / part.degreesOfFreedom, 0);
  return below > 0 ? variance ** 2 / below : Infinity;
}
