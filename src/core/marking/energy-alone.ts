/**
 * Does energy alone explain the scores of an array? Three kinds of response are weighed by how likely they make the scores:
 *
 *   A  f depends on the energy alone: the same along every line of equal energy
 *   B  f depends on one other combination of the settings, such as P / v^0.9: the same along lines that are turned against those of equal energy
 *   C  f depends on both settings, as everywhere else
 *
 * W is the rms difference of cells with the same energy, as a share of the best: 0 under A, from drawn responses under B and C.
 * Without B a small turn would count as A: C spreads its chance over everything that two settings can do.
 * Verdict: yes if W < 3 % in at least 90 of 100, no if W > 3 % in at least 90 of 100, otherwise undecided. [comparison of models by their marginal likelihood: Rasmussen and Williams, Gaussian Processes for Machine Learning, 2006, 5.2; from memory]
 */
import { elementAt } from "../fitting/element-at";
import type { SurfacePoint } from "../fitting/kernel";
import {
  evidenceOf,
  fitSurface,
  type SurfaceModels,
  type SurfaceReading,
  USUAL_MODELS,
} from "../fitting/response-surface";
import { seededDraws } from "../fitting/seeded-draws";

export type EnergyVerdict = {
  explains: "yes" | "no" | "cannot tell";
  /** W as it is expected. */
  off: number;
};

export const ENERGY_LIMIT = 0.03;
const SURE = 0.9;
/** Prior chance of each kind. */
const PRIOR = { alone: 0.4, turned: 0.4, free: 0.2 };
/** Energies that differ by less, in ln, are the same. */
const SAME = 0.01;
/** Cells that share their energy with another cell, at least. */
const LEAST_SHARED = 12;
/** Half spans over which a response to one combination of the settings changes; along its lines it never does. */
const LENGTHS = [0.35, 0.6, 1];
const ENDLESS = 1000;
/** How far the lines of B are turned, both ways, degrees. */
const TURNS = [3, 6, 10, 15, 22];

type Given = {
  /** ln of the energy of each cell. */
  energies: readonly number[];
  /** Along both settings, from about −1 to 1, of each cell. */
  at: readonly SurfacePoint[];
  readings: readonly SurfaceReading[];
  /** Of C, for these readings. */
  log: number;
  /** Responses at the cells under C. */
  draws: readonly Float64Array[];
};

/** @returns `null` if energy is constant, or too few cells share an energy */
export function energyAlone({ energies, at, readings, log, draws }: Given): EnergyVerdict | null {
  const groups = groupsOf(energies);
  const slope = slopeOf(energies, at);
  if (groups.flat().length < LEAST_SHARED || !slope) return null;
  const direction = Math.atan2(slope.v, slope.u);
  const turned = fitSurface(readings, at, () => {}, alongLines(TURNS.flatMap((t) => [t, -t]).map(inTurn(direction))));
  const kinds = [
    { log: Math.log(PRIOR.alone) + evidenceOf(readings, alongLines([direction])), offs: [0] },
    {
      log: Math.log(PRIOR.turned) + turned.log,
      offs: turned.draw(draws.length, seededDraws(at.length)).map((d) => offOf(d, groups)),
    },
    { log: Math.log(PRIOR.free) + log, offs: draws.map((d) => offOf(d, groups)) },
  ];
  const most = Math.max(...kinds.map((k) => k.log));
  const total = kinds.reduce((s, k) => s + Math.exp(k.log - most), 0);
  const expected = (of: (off: number) => number) =>
    kinds.reduce((s, { log: l, offs }) => s + (Math.exp(l - most) / total) * mean(offs.map(of)), 0);
  const yes = expected((off) => (off < ENERGY_LIMIT ? 1 : 0));
  return {
    explains: yes >= SURE ? "yes" : yes <= 1 - SURE ? "no" : "cannot tell",
    off: expected((off) => off),
  };
}

function inTurn(direction: number): (degrees: number) => number {
  return (degrees) => direction + (degrees * Math.PI) / 180;
}

/** Responses that are the same along the lines across these directions. */
function alongLines(directions: readonly number[]): SurfaceModels {
  const kernels = LENGTHS.flatMap((length) => directions.map((direction) => ({ length, ratio: ENDLESS, direction })));
  return { ...USUAL_MODELS, kernels, oddShare: 0 };
}

function mean(values: readonly number[]): number {
  return values.reduce((s, v) => s + v, 0) / values.length;
}

/** rms of the cells about the mean of their energy, as a share of the best. */
function offOf(values: Float64Array, groups: readonly number[][]): number {
  let [squares, count] = [0, 0];
  for (const group of groups) {
    const mean = group.reduce((s, i) => s + (values[i] ?? Number.NaN), 0) / group.length;
    for (const i of group) squares += ((values[i] ?? Number.NaN) - mean) ** 2;
    count += group.length;
  }
  const best = values.reduce((most, v) => Math.max(most, v), Number.NEGATIVE_INFINITY);
  return best > 0 ? Math.sqrt(squares / count) / best : Number.POSITIVE_INFINITY;
}

/** Indices of cells of the same energy, at least two of each. */
function groupsOf(energies: readonly number[]): number[][] {
  const order = energies.map((_, i) => i).sort((a, b) => elementAt(energies, a) - elementAt(energies, b));
  const groups: number[][] = [];
  for (const i of order) {
    const group = groups.at(-1);
    const first = group?.[0];
    if (group && first !== undefined && elementAt(energies, i) - elementAt(energies, first) < SAME) group.push(i);
    else groups.push([i]);
  }
  return groups.filter((g) => g.length > 1);
}

/** How ln energy grows along both settings, by least squares: it is a plane over their logarithms. @returns `null` where it is level, or no plane */
function slopeOf(energies: readonly number[], at: readonly SurfacePoint[]): SurfacePoint | null {
  const n = energies.length;
  const average = (of: (i: number) => number) => energies.reduce((s, _, i) => s + of(i), 0) / n;
  const [u, v, e] = [
    average((i) => elementAt(at, i).u),
    average((i) => elementAt(at, i).v),
    average((i) => elementAt(energies, i)),
  ];
  const from = (i: number) => ({ u: elementAt(at, i).u - u, v: elementAt(at, i).v - v, e: elementAt(energies, i) - e });
  const sum = (of: (d: ReturnType<typeof from>) => number) => average((i) => of(from(i)));
  const [uu, uv, vv] = [sum((d) => d.u * d.u), sum((d) => d.u * d.v), sum((d) => d.v * d.v)];
  const [ue, ve] = [sum((d) => d.u * d.e), sum((d) => d.v * d.e)];
  const determinant = uu * vv - uv * uv;
  if (!(determinant > 0)) return null;
  const slope = { u: (vv * ue - uv * ve) / determinant, v: (uu * ve - uv * ue) / determinant };
  const isPlane = energies.every((_, i) => {
    const d = from(i);
    return Math.abs(d.e - slope.u * d.u - slope.v * d.v) < SAME;
  });
  return isPlane && Math.hypot(slope.u, slope.v) > SAME ? slope : null;
}
