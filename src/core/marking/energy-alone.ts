/**
 * Does energy alone explain the scores of an array? Two kinds of response are weighed by how likely they make the scores:
 *
 *   A  f depends on the energy alone: the same along every line of equal energy
 *   B  f depends on both settings, as everywhere else
 *
 * W is the rms difference of cells with the same energy, as a share of the best: 0 under A, from drawn responses under B. A and B have equal prior chances.
 * Verdict: yes if W < 3 % in at least 95 of 100, no if W > 3 % in at least 95 of 100, otherwise undecided. [comparison of models by their marginal likelihood: Rasmussen and Williams, Gaussian Processes for Machine Learning, 2006, 5.2; from memory]
 */
import { elementAt } from "../fitting/element-at";
import type { SurfacePoint } from "../fitting/kernel";
import { evidenceOf, type SurfaceReading, USUAL_MODELS } from "../fitting/response-surface";

export type EnergyVerdict = {
  explains: "yes" | "no" | "cannot tell";
  /** W as it is expected. */
  off: number;
};

export const ENERGY_LIMIT = 0.03;
const SURE = 0.95;
/** Energies that differ by less, in ln, are the same. */
const SAME = 0.01;
/** Cells that share their energy with another cell, at least. */
const LEAST_SHARED = 12;
/** Half spans over which a response to the energy alone changes; along equal energy it never does. */
const LENGTHS = [0.35, 0.6, 1];
const ENDLESS = 1000;

type Given = {
  /** ln of the energy of each cell. */
  energies: readonly number[];
  /** Along both settings, from about −1 to 1, of each cell. */
  at: readonly SurfacePoint[];
  readings: readonly SurfaceReading[];
  /** Of B, for these readings. */
  log: number;
  /** Responses at the cells under B. */
  draws: readonly Float64Array[];
};

/** @returns `null` if energy is constant, or too few cells share an energy */
export function energyAlone({ energies, at, readings, log, draws }: Given): EnergyVerdict | null {
  const groups = groupsOf(energies);
  const slope = slopeOf(energies, at);
  if (groups.flat().length < LEAST_SHARED || !slope) return null;
  const direction = Math.atan2(slope.v, slope.u);
  const kernels = LENGTHS.map((length) => ({ length, ratio: ENDLESS, direction }));
  const alone = evidenceOf(readings, { ...USUAL_MODELS, kernels });
  const chance = 1 / (1 + Math.exp(log - alone));
  const offs = draws.map((d) => offOf(d, groups));
  const small = offs.filter((off) => off < ENERGY_LIMIT).length / offs.length;
  const yes = chance + (1 - chance) * small;
  return {
    explains: yes >= SURE ? "yes" : yes <= 1 - SURE ? "no" : "cannot tell",
    off: ((1 - chance) * offs.reduce((s, v) => s + v, 0)) / offs.length,
  };
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
  const mean = (of: (i: number) => number) => energies.reduce((s, _, i) => s + of(i), 0) / n;
  const [u, v, e] = [
    mean((i) => elementAt(at, i).u),
    mean((i) => elementAt(at, i).v),
    mean((i) => elementAt(energies, i)),
  ];
  const from = (i: number) => ({ u: elementAt(at, i).u - u, v: elementAt(at, i).v - v, e: elementAt(energies, i) - e });
  const sum = (of: (d: ReturnType<typeof from>) => number) => mean((i) => of(from(i)));
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
