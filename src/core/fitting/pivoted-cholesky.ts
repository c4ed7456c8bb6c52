/**
 * A covariance of rank r to a tolerance as G G', column by column, largest remaining variance first.
 *
 * [Harbrecht, Peters and Schneider, Applied Numerical Mathematics 62 (2012) 428, algorithm 1; from memory]
 */

/**
 * @param n how many points
 * @param kernel covariance of two of them, 1 of a point with itself
 * @param tolerance largest variance that may be left at any point
 * @returns columns of G, n each
 */
export function pivotedCholesky(
  n: number,
  kernel: (i: number, j: number) => number,
  tolerance: number,
): Float64Array[] {
  const left = new Float64Array(n).fill(1);
  const columns: Float64Array[] = [];
  while (columns.length < n) {
    const pivot = largestOf(left);
    const variance = left[pivot] ?? 0;
    if (!(variance > tolerance)) break;
    const column = new Float64Array(n);
    for (let i = 0; i < n; i++) column[i] = kernel(i, pivot);
    for (const before of columns) {
      const share = before[pivot] ?? Number.NaN;
      for (let i = 0; i < n; i++) column[i] = (column[i] ?? Number.NaN) - share * (before[i] ?? Number.NaN);
    }
    const root = Math.sqrt(variance);
    for (let i = 0; i < n; i++) {
      const value = (column[i] ?? Number.NaN) / root;
      column[i] = value;
      left[i] = (left[i] ?? Number.NaN) - value * value;
    }
    left[pivot] = 0;
    columns.push(column);
  }
  return columns;
}

function largestOf(values: Float64Array): number {
  let at = 0;
  for (let i = 1; i < values.length; i++) if ((values[i] ?? 0) > (values[at] ?? 0)) at = i;
  return at;
}
