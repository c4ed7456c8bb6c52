/** A smooth surface through the places of a grid: a bicubic polynomial of column and row for x and for y, without places that lie far off. */
import { median } from "../../fitting/median";
import { thinQr } from "../../fitting/thin-qr";

type At = { column: number; row: number };
type Place = At & { x: number; y: number };

/** The place of a node, pixels. */
export type Surface = (node: At) => { x: number; y: number };

/** Of column and row all powers up to the third together. */
const TERMS = 10;
/** Places farther off than so many times the median are left out. */
const FAR = 6;
const ROUNDS = 3;

/** @returns `null` with fewer places than terms, or where they lie in few rows or columns */
export function surfaceThrough(places: readonly Place[]): Surface | null {
  const columns = places.map((p) => p.column);
  const rows = places.map((p) => p.row);
  const scale = scaleOf(columns, rows);
  let used = places;
  let surface: Surface | null = null;
  for (let round = 0; round < ROUNDS; round++) {
    surface = fitted(used, scale);
    const found = surface;
    if (!found) return null;
    const far = (p: Place) => Math.hypot(found(p).x - p.x, found(p).y - p.y);
    const limit = FAR * Math.max(1e-6, median(used.map(far)));
    const kept = places.filter((p) => far(p) <= limit);
    if (kept.length === used.length) break;
    used = kept;
  }
  return surface;
}

type Scale = { column: number; row: number; half: number };

/** About the middle and in half widths: powers of small numbers. */
function scaleOf(columns: readonly number[], rows: readonly number[]): Scale {
  const [left, right, low, high] = [Math.min(...columns), Math.max(...columns), Math.min(...rows), Math.max(...rows)];
  return { column: (left + right) / 2, row: (low + high) / 2, half: Math.max(1, (right - left) / 2, (high - low) / 2) };
}

function termsAt({ column, row }: At, scale: Scale): number[] {
  const u = (column - scale.column) / scale.half;
  const v = (row - scale.row) / scale.half;
  return [1, u, v, u * u, u * v, v * v, u * u * u, u * u * v, u * v * v, v * v * v];
}

function fitted(places: readonly Place[], scale: Scale): Surface | null {
  const n = TERMS;
  if (places.length < n) return null;
  const a = Float64Array.from(places.flatMap((p) => termsAt(p, scale)));
  const qr = thinQr(a, places.length, n);
  if (!qr) return null;
  const solved = (of: (p: Place) => number): Float64Array => {
    const along = new Float64Array(n);
    places.forEach((p, i) => {
      for (let j = 0; j < n; j++) along[j] = (along[j] ?? 0) + (qr.q[i * n + j] ?? 0) * of(p);
    });
    const x = new Float64Array(n);
    for (let j = 0; j < n; j++)
      for (let k = j; k < n; k++) x[j] = (x[j] ?? 0) + (qr.inverse[j * n + k] ?? 0) * (along[k] ?? 0);
    return x;
  };
  const [xs, ys] = [solved((p) => p.x), solved((p) => p.y)];
  return (node) => {
    const terms = termsAt(node, scale);
    const sum = (by: Float64Array) => terms.reduce((total, t, j) => total + t * (by[j] ?? 0), 0);
    return { x: sum(xs), y: sum(ys) };
  };
}
