/**
 * Edges to a small part of a pixel: a step smeared by a Gaussian, fitted to the grey across it by least squares.
 *
 *   one edge   g(t) = ground + height Phi((t - t0)/s)
 *   two edges  g(t) = ground + slope t - depth (Phi((t - c + w/2)/s) - Phi((t - c - w/2)/s))
 *
 * Phi = normal distribution, s = blur. The way of the half height is nearly as good, that of the steepest slope three times worse; a
 * width at half height is wrong for lines that are narrow beside the blur. (from measurements on synthetic scans, no source)
 */
import { minimise } from "../fitting/nonlinear-least-squares";
import { normalDensity as bell, quickNormalCdf as normalCdf } from "../fitting/normal";
import { mean } from "../fitting/repeats";
import type { Profile } from "./profile";

export type EdgeFit = { at: number; u: number; ground: number; height: number; blur: number };

const MOST_STEPS = 40;
const SMALL_SAVING = 1e-7;

/**
 * @param blur known blur; fitted too where it is left out
 * @param start where the edge is about
 * @returns `null` where there is no such edge
 */
export function fitEdge(profile: Profile, start: { at: number; blur: number }, blur?: number): EdgeFit | null {
  const { at, grey, count } = profile;
  if (at.length < 8) return null;
  const weights = count.map(Math.sqrt);
  const [first, last] = [mean(grey.slice(0, 4)), mean(grey.slice(-4))];
  const [low, high] = [at[0] ?? Number.NaN, at[at.length - 1] ?? Number.NaN];
  // Where a picture ends there may be nothing to see where the edge should be.
  if (start.at <= low || start.at >= high) return null;
  const smallest = start.blur / 20;
  const fit = minimise({
    start: [start.at, first, last - first, ...(blur === undefined ? [start.blur] : [])],
    low: [low, -Infinity, -Infinity, ...(blur === undefined ? [smallest] : [])],
    high: [high, Infinity, Infinity, ...(blur === undefined ? [high - low] : [])],
    residuals: ([t0 = 0, ground = 0, height = 0, s = blur ?? 1]) =>
      at.map(
        (t, i) => (weights[i] ?? Number.NaN) * ((grey[i] ?? Number.NaN) - ground - height * normalCdf((t - t0) / s)),
      ),
    jacobian: ([t0 = 0, , height = 0, s = blur ?? 1]) => {
      const z = at.map((t) => (t - t0) / s);
      const columns = [
        z.map((v, i) => ((weights[i] ?? Number.NaN) * height * bell(v)) / s),
        z.map((_, i) => -(weights[i] ?? Number.NaN)),
        z.map((v, i) => -(weights[i] ?? Number.NaN) * normalCdf(v)),
      ];
      if (blur === undefined) columns.push(z.map((v, i) => ((weights[i] ?? Number.NaN) * height * bell(v) * v) / s));
      return columns;
    },
    mostSteps: MOST_STEPS,
    smallSaving: SMALL_SAVING,
  });
  if (!fit.covariance || fit.degreesOfFreedom < 1 || fit.onBound[0]) return null;
  const [t0 = 0, ground = 0, height = 0, s = blur ?? 1] = fit.x;
  const variance = fit.chiSquared / fit.degreesOfFreedom;
  return { at: t0, u: Math.sqrt(variance * (fit.covariance[0]?.[0] ?? 0)), ground, height, blur: s };
}

export type LineFit = {
  centre: number;
  width: number;
  u: number;
  /** Of the grey beside the line; and by how much the line is darker, below 0 for bright marks. */
  ground: number;
  depth: number;
  blur: number;
  /** Sum of squares that is left over, grey levels. */
  left: number;
};

export type LineStart = { centre: number; width: number; blur: number };

/** How lines of a picture look, whatever their width: blur, and depth = base + share * ground. */
export type LineLook = { blur: number; base: number; share: number };

/**
 * @param look the line is taken to be blurred so, and to stand out so: needed where it is narrow beside its blur
 * @returns `null` where there is no line
 */
export function fitLine(profile: Profile, start: LineStart, look: LineLook | null): LineFit | null {
  const { at, grey, count } = profile;
  if (at.length < 10) return null;
  const weights = count.map(Math.sqrt);
  const sorted = [...grey].sort((a, b) => a - b);
  const ground = sorted[Math.floor(sorted.length * 0.8)] ?? Number.NaN;
  const [low, high] = [at[0] ?? Number.NaN, at[at.length - 1] ?? Number.NaN];
  const middle = (low + high) / 2;
  const free = look === null;
  const lookOf = (x: readonly number[]) =>
    look
      ? { d: look.base + look.share * (x[2] ?? Number.NaN), s: look.blur }
      : { d: x[4] ?? Number.NaN, s: x[5] ?? Number.NaN };
  const fit = minimise({
    start: [
      start.centre,
      Math.min(start.width, (high - low) / 2),
      ground,
      0,
      ...(free ? [ground - (sorted[0] ?? Number.NaN), start.blur] : []),
    ],
    low: [low, start.blur / 100, -Infinity, -Infinity, ...(free ? [-Infinity, start.blur / 20] : [])],
    high: [high, high - low, Infinity, Infinity, ...(free ? [Infinity, high - low] : [])],
    residuals: (x) => {
      const [c = 0, w = 0, g = 0, slope = 0] = x;
      const { d, s } = lookOf(x);
      return at.map((t, i) => {
        const inside = normalCdf((t - c + w / 2) / s) - normalCdf((t - c - w / 2) / s);
        return (weights[i] ?? Number.NaN) * ((grey[i] ?? Number.NaN) - g - slope * (t - middle) + d * inside);
      });
    },
    jacobian: (x) => {
      const [c = 0, w = 0] = x;
      const { d, s } = lookOf(x);
      const columns: number[][] = free ? [[], [], [], [], [], []] : [[], [], [], []];
      at.forEach((t, i) => {
        const [a, b] = [(t - c + w / 2) / s, (t - c - w / 2) / s];
        const weight = weights[i] ?? Number.NaN;
        const [pa, pb] = [bell(a), bell(b)];
        const inside = normalCdf(a) - normalCdf(b);
        columns[0]?.push((-weight * d * (pa - pb)) / s);
        columns[1]?.push((weight * d * (pa + pb)) / 2 / s);
        columns[2]?.push(weight * ((look?.share ?? 0) * inside - 1));
        columns[3]?.push(-weight * (t - middle));
        columns[4]?.push(weight * inside);
        columns[5]?.push((-weight * d * (pa * a - pb * b)) / s);
      });
      return columns;
    },
    mostSteps: MOST_STEPS,
    smallSaving: SMALL_SAVING,
  });
  if (!fit.covariance || fit.degreesOfFreedom < 1 || fit.onBound[0] || fit.onBound[1]) return null;
  const [centre = 0, width = 0, g = 0] = fit.x;
  const { d, s } = lookOf(fit.x);
  const variance = fit.chiSquared / fit.degreesOfFreedom;
  return {
    centre,
    width,
    u: Math.sqrt(variance * (fit.covariance[1]?.[1] ?? 0)),
    ground: g,
    depth: d,
    blur: s,
    left: fit.chiSquared,
  };
}
