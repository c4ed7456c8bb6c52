/**
 * Does energy per area alone explain the scores of an array? With equal ratios on both axes, cells of one diagonal have the same energy.
 *
 *   score = m(energy) + c1 d + c2 d e + c3 d e^2 + c4 d^2        d across the diagonals' direction, e along the energy
 *
 * The mean of each energy is taken out of scores and terms, the coefficients are fitted by Huber's weights. W is the rms of the fitted part: how far
 * cells of equal energy differ by something else. With s the scatter about the fit and N cells, energy explains them where W + 1.645 s/sqrt(N) is below
 * 3 % of the range, does not where W - 1.645 s/sqrt(N) is above it, else it cannot be told. [Huber 1964, Ann. Math. Statist. 35, 73, k = 1.345; the
 * limit and the terms were tried on practice stocks]
 */
import { median } from "../fitting/median";
import { thinQr } from "../fitting/thin-qr";

export type EnergyCell = { column: number; row: number; energy: number; score: number | null };
export type EnergyVerdict = { explains: "yes" | "no" | "cannot tell"; off: number };

export const ENERGY_LIMIT = 0.03;
const ONE_SIDED_95 = 1.645;
const HUBER = 1.345;
const MAD_TO_SD = 1.4826;
const STEPS = 20;
/** Energies that differ by less, in ln, are the same. */
const SAME = 0.01;
const TERMS = 4;

/** @param range score of the best over that of the blank stock @returns `null` where too few cells share their energy */
export function energyAlone(cells: readonly EnergyCell[], range: number): EnergyVerdict | null {
  const groups = groupsOf(cells);
  const rows = groups.flatMap((group) => centred(group));
  const n = rows.length;
  const freedom = n - groups.length - TERMS;
  if (freedom < TERMS || !(range > 0)) return null;
  let weights = rows.map(() => 1);
  let fitted = rows.map(() => 0);
  for (let step = 0; step < STEPS; step++) {
    const next = weighted(rows, weights);
    if (!next) return null;
    fitted = next;
    const residuals = rows.map((r, i) => r.y - (fitted[i] ?? 0));
    const scale = MAD_TO_SD * median(residuals.map(Math.abs));
    if (!(scale > 0)) break;
    weights = residuals.map((e) => Math.min(1, (HUBER * scale) / Math.max(1e-12, Math.abs(e))));
  }
  const left = rows.reduce((s, r, i) => s + (weights[i] ?? 1) * (r.y - (fitted[i] ?? 0)) ** 2, 0);
  const s = Math.sqrt(left / freedom) / range;
  // The terms follow the noise too: their part of it is taken out of W.
  const own = fitted.reduce((sum, f) => sum + f * f, 0) / n / range ** 2;
  const off = Math.sqrt(Math.max(0, own - (TERMS * s ** 2) / n));
  const reach = (ONE_SIDED_95 * s) / Math.sqrt(n);
  const explains = off + reach < ENERGY_LIMIT ? "yes" : off - reach > ENERGY_LIMIT ? "no" : "cannot tell";
  return { explains, off };
}

type Scored = EnergyCell & { score: number };

/** Cells of the same energy, at least two of each. */
function groupsOf(cells: readonly EnergyCell[]): Scored[][] {
  const scored = cells.flatMap((c) => (c.score === null ? [] : [{ ...c, score: c.score }]));
  const sorted = scored.sort((a, b) => a.energy - b.energy);
  const groups: Scored[][] = [];
  for (const cell of sorted) {
    const group = groups.at(-1);
    if (group?.[0] && cell.energy - group[0].energy < SAME) group.push(cell);
    else groups.push([cell]);
  }
  return groups.filter((g) => g.length > 1);
}

type Row = { y: number; terms: number[] };

function centred(group: readonly Scored[]): Row[] {
  const [first, last] = [group[0], group.at(-1)];
  // Along a diagonal either both rise or one falls as the other rises.
  const bothRise = first && last ? (last.column - first.column) * (last.row - first.row) > 0 : true;
  const rows = group.map(({ column, row, energy, score }) => {
    const d = bothRise ? column + row : column - row;
    return { y: score, terms: [d, d * energy, d * energy ** 2, d * d] };
  });
  const mean = (of: (r: Row) => number) => rows.reduce((s, r) => s + of(r), 0) / rows.length;
  const y = mean((r) => r.y);
  const terms = Array.from({ length: TERMS }, (_, k) => mean((r) => r.terms[k] ?? 0));
  return rows.map((r) => ({ y: r.y - y, terms: r.terms.map((t, k) => t - (terms[k] ?? 0)) }));
}

/** Fitted values. */
function weighted(rows: readonly Row[], weights: readonly number[]): number[] | null {
  const root = weights.map(Math.sqrt);
  const a = Float64Array.from(rows.flatMap((r, i) => r.terms.map((t) => t * (root[i] ?? 1))));
  const qr = thinQr(a, rows.length, TERMS);
  if (!qr) return null;
  const along = Array.from({ length: TERMS }, (_, k) =>
    rows.reduce((s, r, i) => s + (qr.q[i * TERMS + k] ?? 0) * r.y * (root[i] ?? 1), 0),
  );
  return rows.map((_, i) => along.reduce((s, v, k) => s + v * (qr.q[i * TERMS + k] ?? 0), 0) / (root[i] ?? 1));
}
