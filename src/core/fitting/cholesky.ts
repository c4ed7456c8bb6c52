/** A symmetric positive definite matrix as L L', and systems with its lower factor. Matrices row by row, n x n. */

/** @throws RangeError when the matrix is not positive definite */
export function cholesky(matrix: Float64Array, n: number): Float64Array {
  const l = Float64Array.from(matrix);
  for (let j = 0; j < n; j++) {
    // Row by row from the left: each element less the product of the rows before it.
    for (let k = 0; k < j; k++) {
      let sum = l[j * n + k] ?? Number.NaN;
      for (let i = 0; i < k; i++) sum -= (l[j * n + i] ?? Number.NaN) * (l[k * n + i] ?? Number.NaN);
      l[j * n + k] = sum / (l[k * n + k] ?? Number.NaN);
    }
    let diagonal = l[j * n + j] ?? Number.NaN;
    for (let i = 0; i < j; i++) diagonal -= (l[j * n + i] ?? Number.NaN) ** 2;
    if (!(diagonal > 0)) throw new RangeError("The matrix is not positive definite.");
    l[j * n + j] = Math.sqrt(diagonal);
    l.fill(0, j * n + j + 1, (j + 1) * n);
  }
  return l;
}

/** L x = b, in place of b. */
export function solveLower(l: Float64Array, n: number, b: Float64Array): void {
  for (let i = 0; i < n; i++) {
    let sum = b[i] ?? Number.NaN;
    for (let k = 0; k < i; k++) sum -= (l[i * n + k] ?? Number.NaN) * (b[k] ?? Number.NaN);
    b[i] = sum / (l[i * n + i] ?? Number.NaN);
  }
}

/** L' x = b, in place of b. */
export function solveLowerTransposed(l: Float64Array, n: number, b: Float64Array): void {
  for (let i = n - 1; i >= 0; i--) {
    const x = (b[i] ?? Number.NaN) / (l[i * n + i] ?? Number.NaN);
    b[i] = x;
    for (let k = 0; k < i; k++) b[k] = (b[k] ?? Number.NaN) - (l[i * n + k] ?? Number.NaN) * x;
  }
}
