/**
 * How an axis strays from a straight line: which of these takes most of the residuals away.
 *
 *   a cos(2 pi n / P) + b sin(2 pi n / P)   a pulley or screw that runs out, over a period P of at least two ticks
 *   d [n >= n_k]                            a place from which on everything lies further: a bad tooth, a bad pitch
 *   e n^2                                   a bend
 */
import { leastSquares } from "../fitting/least-squares";

/** A pattern is named when it leaves no more than this share of chi-squared. */
const EXPLAINS = 0.35;
/** So many readings more than parameters tell one pattern from another. */
const READINGS_FOR_PERIOD = 8;
const PERIODS = 60;

export type Stray =
  | { kind: "period"; amplitudeMm: number; periodMm: number }
  | { kind: "step"; byMm: number; fromMm: number }
  | { kind: "bend"; byMm: number }
  | { kind: "unclear"; mostMm: number };

export type StrayPoint = { nominalMm: number; mm: number; u: number };

/** @param points residuals from the line, rising */
export function strayOf(points: readonly StrayPoint[]): Stray {
  const chi = points.reduce((sum, p) => sum + (p.mm / p.u) ** 2, 0);
  const places = [...new Set(points.map((p) => p.nominalMm))].sort((a, b) => a - b);
  const candidates = [...periods(points, places), ...steps(points, places), bend(points)].filter((c) => c !== null);
  const best = candidates.sort((a, b) => a.chi - b.chi)[0];
  if (best && best.chi < EXPLAINS * chi) return best.stray;
  return { kind: "unclear", mostMm: Math.max(...points.map((p) => Math.abs(p.mm))) };
}

type Candidate = { chi: number; stray: Stray };

function periods(points: readonly StrayPoint[], places: readonly number[]): (Candidate | null)[] {
  const [first = 0, last = 0] = [places[0], places.at(-1)];
  if (places.length < READINGS_FOR_PERIOD) return [];
  const [shortest, longest] = [(2 * (last - first)) / (places.length - 1), last - first];
  return Array.from({ length: PERIODS }, (_, i) => {
    const periodMm = shortest * (longest / shortest) ** (i / (PERIODS - 1));
    const turn = (n: number) => (2 * Math.PI * n) / periodMm;
    const fit = fitted(points, (n) => [Math.cos(turn(n)), Math.sin(turn(n))]);
    return fit && { chi: fit.chi, stray: { kind: "period" as const, amplitudeMm: Math.hypot(...fit.x), periodMm } };
  });
}

function steps(points: readonly StrayPoint[], places: readonly number[]): (Candidate | null)[] {
  return places.slice(2, -1).map((fromMm) => {
    const fit = fitted(points, (n) => [n >= fromMm ? 1 : 0]);
    return fit && { chi: fit.chi, stray: { kind: "step" as const, byMm: fit.x[0] ?? 0, fromMm } };
  });
}

function bend(points: readonly StrayPoint[]): Candidate | null {
  const span = Math.max(...points.map((p) => p.nominalMm));
  const fit = fitted(points, (n) => [(n / span) ** 2]);
  return fit && { chi: fit.chi, stray: { kind: "bend", byMm: (fit.x[0] ?? 0) / 4 } };
}

/** A pattern with a line of its own under it. */
function fitted(points: readonly StrayPoint[], pattern: (n: number) => number[]): { chi: number; x: number[] } | null {
  const columns = pattern(0).length;
  if (points.length < columns + 3) return null;
  const fit = leastSquares(points.map((p) => ({ row: [...pattern(p.nominalMm), 1, p.nominalMm], y: p.mm, u: p.u })));
  return fit.status === "solved" ? { chi: fit.chiSquared, x: fit.x.slice(0, columns) } : null;
}
